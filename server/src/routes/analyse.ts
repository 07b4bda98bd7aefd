import { readDesign } from '@root-board/core/design'
import { Router } from 'express'
import type { Analyser } from '../analysis/analyser'
import type { PartStore } from '../store/parts'

export const analyseRoutes = (parts: PartStore, analyser: Analyser): Router => {
  const router = Router()
  router.post('/', async (req, res) => {
    const design = readDesign(req.body, 'project')
    res.type('json').send(await analyser.ask(design, await parts.library()))
  })
  return router
}
