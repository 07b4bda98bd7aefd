import { analyse } from '@root-board/core/analysis'
import { libraryFor, readDesign } from '@root-board/core/design'
import { Router } from 'express'
import { seconds } from '../patience'
import type { PartStore } from '../store/parts'

export const analyseRoutes = (parts: PartStore): Router => {
  const router = Router()
  router.post('/', async (req, res) => {
    const design = readDesign(req.body, 'project')
    res.json(analyse(design, libraryFor(design, await parts.library()), seconds(2)))
  })
  return router
}
