import type { StoredProject } from '@root-board/core/api'
import { readDesign } from '@root-board/core/design'
import { type Response, Router } from 'express'
import { sendProblem } from '../problems'
import { savedFrom, tag } from './version'
import type { ProjectStore } from '../store/projects'

const send = (res: Response, project: StoredProject, status = 200): void => {
  res.status(status).set('ETag', tag(project.version)).json(project)
}
const gone = (res: Response): void => sendProblem(res, { title: 'There is no such project', status: 404 })

export const projectRoutes = (projects: ProjectStore): Router => {
  const router = Router()
  router.get('/', async (_req, res) => {
    res.json(await projects.list())
  })
  router.get('/away', async (_req, res) => {
    res.json(await projects.list(true))
  })
  /** Throws out for good what was put away: all of it, or one. */
  router.delete('/away', async (_req, res) => {
    res.json({ gone: await projects.empty() })
  })
  router.delete('/away/:id', async (req, res) => {
    if ((await projects.empty(req.params.id)) > 0) res.status(204).end()
    else gone(res)
  })
  router.post('/', async (req, res) => {
    send(res, await projects.create(readDesign(req.body, 'project')), 201)
  })
  router.get('/:id', async (req, res) => {
    const found = await projects.find(req.params.id)
    if (found) send(res, found)
    else gone(res)
  })
  /** What its row says, for whoever wants to mend a damaged one by hand. */
  router.get('/:id/raw', async (req, res) => {
    const raw = await projects.raw(req.params.id)
    if (raw === undefined) gone(res)
    else res.type('text/plain').set('Content-Disposition', 'attachment; filename="project.txt"').send(raw)
  })
  router.put('/:id', async (req, res) => {
    const version = savedFrom(req, res)
    if (version === undefined) return
    const result = await projects.save(req.params.id, version, readDesign(req.body, 'project'))
    if (result === 'gone') gone(res)
    else if ('saved' in result) send(res, result.saved)
    else
      sendProblem(res, {
        title: 'The project was changed elsewhere in the meantime',
        status: 412,
        stored: result.stale,
      })
  })
  router.delete('/:id', async (req, res) => {
    if (await projects.remove(req.params.id)) res.status(204).end()
    else gone(res)
  })
  router.post('/:id/restore', async (req, res) => {
    const found = await projects.restore(req.params.id)
    if (found) send(res, found)
    else gone(res)
  })
  return router
}
