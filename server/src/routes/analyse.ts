import { Router } from 'express'
import type { Analyser } from '../analysis/analyser'
import type { PartStore } from '../store/parts'

export const analyseRoutes = (parts: PartStore, analyser: Analyser): Router => {
  const router = Router()
  router.post('/', async (req, res) => {
    const json = await analyser.ask(req.body, await parts.library())
    res.type('json').end(json)
  })
  return router
}
