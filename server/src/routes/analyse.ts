import { analyse } from '@root-board/core/analysis'
import { readDesign } from '@root-board/core/design'
import { Router } from 'express'
import type { PartStore } from '../store/parts'

export const analyseRoutes = (parts: PartStore): Router => {
  const router = Router()
  router.post('/', async (req, res) => {
    res.json(analyse(readDesign(req.body, 'project'), await parts.library()))
  })
  return router
}
