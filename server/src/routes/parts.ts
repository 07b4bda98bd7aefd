import { type OwnParts, type StoredPart, type Take, takes, type Uses } from '@root-board/core/api'
import { libraryFor, partsNamed } from '@root-board/core/design'
import { FaultyFile, referencesOf, withReferences } from '@root-board/core/parts'
import { type Response, Router } from 'express'
import { number, object, string } from 'yup'
import { sendProblem } from '../problems'
import { savedFrom, tag } from './version'
import type { DrawerStore } from '../store/drawer'
import type { PartSave, PartStore } from '../store/parts'
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
  else if ('held' in result)
    sendProblem(res, {
      title: result.held.away
        ? `A part “${result.held.id}” was put away: bring it back, throw it out for good, or take another id`
        : `A part “${result.held.id}” is kept that can’t be read: take another id`,
      status: 409,
      held: result.held,
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
  place: string().strict(true).max(200).defined('${path} must be text, which may be empty'),
}).exact()

const mostParts = 2000
const faulty = (path: string, message: string) => new FaultyFile('library', [{ path, message }])
/** A library as it was sent: its list and what was chosen for its clashes. Throws FaultyFile. */
const readLibrary = (body: unknown): { parts: unknown[]; choices: Record<string, Take> } => {
  const { format, parts, choices = {} } = (body ?? {}) as Record<string, unknown>
  if (!Array.isArray(parts)) throw faulty('parts', 'must be a library: format 1 and a list of parts')
  if (format !== 1) throw faulty('format', 'must be a library: format 1 and a list of parts')
  if (parts.length > mostParts)
    throw faulty('parts', `has ${parts.length} parts; at most ${mostParts} can be brought at once`)
  if (typeof choices !== 'object' || choices === null || Array.isArray(choices))
    throw faulty('choices', 'must be an object: a choice for each id')
  const wrong = Object.entries(choices).find(([, choice]) => !takes.some((t) => t === choice))
  if (wrong) throw faulty(`choices.${wrong[0].slice(0, 80)}`, `must be one of ${takes.join(', ')}`)
  return { parts, choices: choices as Record<string, Take> }
}

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
    res.json({ parts: await parts.own(), unreadable: await parts.unreadable() } satisfies OwnParts)
  })
  router.get('/away', async (_req, res) => {
    res.json(await parts.away())
  })
  router.delete('/away', async (_req, res) => {
    res.json({ gone: await parts.empty() })
  })
  router.delete('/away/:id', async (req, res) => {
    if ((await parts.empty(req.params.id)) > 0) res.status(204).end()
    else gone(res)
  })
  router.post('/library', async (req, res) => {
    const given = readLibrary(req.body)
    const result = await parts.take(given.parts, given.choices)
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
    } satisfies Uses)
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
    // One that isn’t an id of a part can’t lie anywhere.
    if (!/^[\w+:./-]{1,80}$/.test(req.params.part)) return gone(res)
    await drawer.set(req.params.part, count, place)
    res.json(await drawer.list())
  })
  return router
}
