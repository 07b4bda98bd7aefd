import type { CopyLine } from '@root-board/core/api'
import { type Response, Router } from 'express'
import { sendProblem } from '../problems'
import type { Copies } from '../store/copies'
import type { EverythingStore } from '../store/everything'

const noCopy = (res: Response): void => sendProblem(res, { title: 'There is no such copy', status: 404 })
const damaged = (res: Response, damage: string): void =>
  sendProblem(res, { title: 'This copy is damaged and can’t be brought back', status: 422, detail: damage })

export const copyRoutes = (copies: Copies): Router => {
  const router = Router()
  router.get('/', (_req, res) => {
    res.json(copies.state())
  })
  router.post('/', async (_req, res) => {
    res.status(201).json((await copies.make()) satisfies CopyLine)
  })
  router.get('/:name', async (req, res) => {
    const content = await copies.look(req.params.name)
    if (!content) noCopy(res)
    else if ('damage' in content) damaged(res, content.damage)
    else res.json(content)
  })
  router.post('/:name/bring-back', async (req, res) => {
    const done = await copies.bringBack(req.params.name)
    if (!done) noCopy(res)
    else if ('damage' in done) damaged(res, done.damage)
    else res.json(done)
  })
  return router
}

export const everythingRoutes = (everything: EverythingStore): Router => {
  const router = Router()
  router.get('/', async (_req, res) => {
    res
      .set('Content-Disposition', 'attachment; filename="root-board-everything.json"')
      .json(await everything.all())
  })
  router.post('/', async (req, res) => {
    res.status(201).json(await everything.bring(req.body))
  })
  return router
}
