import { Router } from 'express'
import type { PartStore } from '../store/parts'

export const partRoutes = (parts: PartStore): Router => {
  const router = Router()
  router.get('/', async (_req, res) => {
    res.json(await parts.all())
  })
  router.post('/', async (req, res) => {
    res.status(201).json(await parts.add(req.body, 'part'))
  })
  return router
}
