import { libraryFor, partsNamed } from '@root-board/core/design'
import { FaultyFile, referencesOf, withReferences } from '@root-board/core/parts'
import { type Response, Router } from 'express'
import { number, object, string } from 'yup'
import { sendProblem } from '../problems'
import { savedFrom, tag } from './version'
import type { DrawerStore } from '../store/drawer'
import type { PartSave, PartStore, StoredPart, Take } from '../store/parts'
import type { ProjectStore } from '../store/projects'

const send = (res: Response, part: StoredPart, status = 200): void => {
  res.status(status).set('ETag', tag(part.version)).json(part)
}
const gone = (res: Response): void =>
  sendProblem(res, { title: 'There is no such part of your own', status: 404 })
const answer = (res: Response, result: PartSave, status: number): void => {
  if (result === 'gone') gone(res)
  else if ('saved' in result) send(res, result.saved, status)
  else if ('taken' in result)
    sendProblem(res, {
      title: `You have a part “${result.taken.id}” already`,
      status: 409,
      stored: result.taken,
    })
  else
    sendProblem(res, {
      title: 'The part was changed elsewhere in the meantime',
      status: 412,
      stored: result.stale,
    })
}

const drawerLine = object({
  count: number().strict(true).integer().min(0).max(1e6).required(),
  place: string().strict(true).max(200).default(''),
}).exact()

export const partRoutes = (parts: PartStore, projects: ProjectStore): Router => {
  const router = Router()
  router.get('/', async (_req, res) => {
    res.json(await parts.all())
  })
  router.post('/', async (req, res) => {
    answer(res, await parts.add(req.body, 'part'), 201)
  })
  /** One’s own, as written, with their versions. */
  router.get('/own', async (_req, res) => {
    res.json({ parts: await parts.own(), unreadable: await parts.unreadable() })
  })
  router.post('/library', async (req, res) => {
    const body = (req.body ?? {}) as { format?: unknown; parts?: unknown; choices?: Record<string, Take> }
    if (body.format !== 1 || !Array.isArray(body.parts))
      throw new FaultyFile('library', [
        {
          path: Array.isArray(body.parts) ? 'format' : 'parts',
          message: 'must be a library: format 1 and a list of parts',
        },
      ])
    const result = await parts.take(body.parts, body.choices ?? {})
    if ('taken' in result) res.status(201).json(result)
    else
      sendProblem(res, {
        title: 'Some of these parts have the ids of your own, and say something else',
        status: 409,
        clashes: result.clashes,
      })
  })
  router.get('/:id', async (req, res) => {
    const found = await parts.find(req.params.id)
    if (found) send(res, found)
    else gone(res)
  })
  router.put('/:id', async (req, res) => {
    const version = savedFrom(req, res)
    if (version === undefined) return
    answer(res, await parts.save(req.params.id, version, req.body), 200)
  })
  router.delete('/:id', async (req, res) => {
    if (await parts.remove(req.params.id)) res.status(204).end()
    else gone(res)
  })
  router.post('/:id/restore', async (req, res) => {
    const found = await parts.restore(req.params.id)
    if (found) send(res, found)
    else gone(res)
  })
  /** Who uses it: projects, by themselves or through a board or device, and other parts. */
  router.get('/:id/uses', async (req, res) => {
    const { id } = req.params
    const library = await parts.library()
    const using = (await projects.designs()).filter(
      ({ design }) =>
        withReferences(libraryFor(design, library), partsNamed(design)).some((p) => p.id === id) ||
        partsNamed(design).includes(id),
    )
    res.json({
      projects: using.map((p) => ({ id: p.id, name: p.design.name })),
      parts: Object.values(library.parts)
        .filter((p) => referencesOf(p).includes(id))
        .map((p) => ({ id: p.id, name: p.name })),
    })
  })
  return router
}

export const drawerRoutes = (drawer: DrawerStore): Router => {
  const router = Router()
  router.get('/', async (_req, res) => {
    res.json(await drawer.list())
  })
  router.put('/:part', async (req, res) => {
    const { count, place } = await drawerLine.validate(req.body)
    await drawer.set(req.params.part, count, place)
    res.json(await drawer.list())
  })
  return router
}
