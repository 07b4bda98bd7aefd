// All that is stored as one file, and such a file brought: what is not there comes in, what is there stays.

import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { Brought, DrawerLine, Everything } from '@root-board/core/api'
import { readDesign } from '@root-board/core/design'
import { type Fault, FaultyFile, readPart } from '@root-board/core/parts'
import { QueryTypes } from 'sequelize'
import { array, boolean, number, object, string } from 'yup'
import { breathing } from './breath'
import type { Database } from './database'

interface Row {
  id: string
  text: string
  sample: number
  changedAt: string
  deletedAt: string | null
}
const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text) as unknown
  } catch {
    return undefined
  }
}

const stamp = () => string().strict(true).max(40).required()
const flag = () => boolean().strict(true).required()
const shape = object({
  format: number().strict(true).oneOf([1], '${path} must be 1: this program reads format 1').required(),
  kind: string().strict(true).oneOf(['everything']).required(),
  projects: array()
    .of(
      object({
        id: string()
          .strict(true)
          .matches(/^[\w-]{1,80}$/)
          .required(),
        design: object().required(),
        sample: flag(),
        changedAt: stamp(),
        away: flag(),
      }).exact(),
    )
    .max(2000)
    .required(),
  parts: array()
    .of(object({ file: object().required(), changedAt: stamp(), away: flag() }).exact())
    .max(5000)
    .required(),
  drawer: array()
    .of(
      object({
        part: string().strict(true).max(80).required(),
        count: number().strict(true).integer().min(0).max(1e6).required(),
        place: string().strict(true).max(200).defined(),
        since: stamp(),
      }).exact(),
    )
    .max(5000)
    .required(),
  damaged: array().of(string().strict(true).max(200).required()).max(5000).required(),
}).exact()

export class EverythingStore {
  constructor(
    private readonly db: Database,
    /** Whether a part of this id came with the program. */
    private readonly isShipped: (id: string) => boolean,
  ) {}

  private rows(table: 'projects' | 'parts', field: string): Promise<Row[]> {
    return this.db.reader.query<Row>(
      `SELECT id, ${field} AS text, ${table === 'projects' ? 'sample' : '0 AS sample'}, changedAt, deletedAt FROM ${table} ORDER BY id`,
      { type: QueryTypes.SELECT },
    )
  }

  /** What can’t be read could not be brought in again: it is named, and left to the copies. */
  async all(): Promise<Everything> {
    const damaged: Everything['damaged'] = []
    const breath = breathing()
    const readable = async (rows: Row[], read: (value: unknown) => unknown) => {
      const good: (Row & { value: unknown })[] = []
      for (const row of rows) {
        try {
          const value: unknown = JSON.parse(row.text)
          read(value)
          good.push({ ...row, value })
        } catch {
          damaged.push(row.id)
        }
        await breath()
      }
      return good
    }
    const projects = await readable(await this.rows('projects', 'design'), (d) => readDesign(d, 'everything'))
    const parts = await readable(await this.rows('parts', 'part'), (p) => readPart(p, 'everything'))
    const drawer = await this.db.reader.query<DrawerLine>(
      'SELECT part, count, place, since FROM drawer ORDER BY part',
      { type: QueryTypes.SELECT },
    )
    return {
      format: 1,
      kind: 'everything',
      projects: projects.map((r) => ({
        id: r.id,
        design: r.value,
        sample: Boolean(r.sample),
        changedAt: r.changedAt,
        away: r.deletedAt !== null,
      })),
      parts: parts.map((r) => ({ file: r.value, changedAt: r.changedAt, away: r.deletedAt !== null })),
      drawer,
      damaged,
    }
  }

  /** All of it or, where one thing in it is faulty, nothing. Throws FaultyFile or ValidationError with the place. */
  async bring(data: unknown): Promise<Brought> {
    const given = (await shape.validate(data)) as Everything
    const faults: Fault[] = []
    const breath = breathing()
    const look = (path: string, read: () => unknown) => {
      try {
        read()
      } catch (error) {
        if (!(error instanceof FaultyFile)) throw error
        faults.push(...error.faults.map((f) => ({ ...f, path: `${path}.${f.path}` })))
      }
    }
    for (const [i, p] of given.projects.entries()) {
      look(`projects[${i}].design`, () => readDesign(p.design, 'everything'))
      if (faults.length > 20) break
      await breath()
    }
    for (const [i, p] of given.parts.entries()) {
      look(`parts[${i}].file`, () => readPart(p.file, 'everything'))
      if (faults.length > 20) break
      await breath()
    }
    if (faults.length > 0) throw new FaultyFile('everything', faults)
    return this.put(given)
  }

  private put({ projects, parts, drawer, damaged }: Everything): Promise<Brought> {
    return this.db.write(async (db) => {
      const brought: Brought = {
        projects: [],
        parts: [],
        drawer: 0,
        there: 0,
        damaged: damaged.length,
      }
      const textsOf = async (table: string, field: string) =>
        new Map(
          (
            await db.query<{ id: string; text: string }>(`SELECT id, ${field} AS text FROM ${table}`, {
              type: QueryTypes.SELECT,
            })
          ).map((r) => [r.id, r.text]),
        )
      const own = await textsOf('projects', 'design')
      const said = new Set(own.values())
      for (const { id, design, sample, changedAt, away } of projects) {
        const text = JSON.stringify(design)
        // Of the same id and another content: both stay. What was brought as such before is not brought again.
        if (said.has(text) || isDeepStrictEqual(parsed(own.get(id) ?? ''), design)) {
          brought.there++
          continue
        }
        await db.query(
          'INSERT INTO projects (id, design, version, sample, changedAt, deletedAt) VALUES (:id, :text, 1, :sample, :changedAt, :deletedAt)',
          {
            replacements: {
              id: own.has(id) ? randomUUID() : id,
              text,
              sample: sample ? 1 : 0,
              changedAt,
              deletedAt: away ? new Date().toISOString() : null,
            },
          },
        )
        said.add(text)
        brought.projects.push((design as { name: string }).name)
      }
      const mine = await textsOf('parts', 'part')
      for (const { file, changedAt, away } of parts) {
        const { id } = file as { id: string }
        const isSame = (other: string) => isDeepStrictEqual({ ...(parsed(other) as object), id }, file)
        // One that was renamed when it was brought the last time is there too.
        const versions = [...mine].filter(([other]) => other === id || other.startsWith(`${id}-`))
        if (versions.some(([, text]) => isSame(text))) {
          brought.there++
          continue
        }
        const free =
          mine.has(id) || this.isShipped(id) ? nextFree(id, (n) => mine.has(n) || this.isShipped(n)) : id
        const text = JSON.stringify({ ...(file as object), id: free })
        await db.query(
          'INSERT INTO parts (id, part, changedAt, version, deletedAt) VALUES (:id, :text, :changedAt, 1, :deletedAt)',
          { replacements: { id: free, text, changedAt, deletedAt: away ? new Date().toISOString() : null } },
        )
        mine.set(free, text)
        brought.parts.push(free)
      }
      for (const line of drawer) {
        const [known] = await db.query('SELECT part FROM drawer WHERE part = :part', {
          type: QueryTypes.SELECT,
          replacements: { part: line.part },
        })
        if (known) {
          brought.there++
          continue
        }
        await db.query(
          'INSERT INTO drawer (part, count, place, since) VALUES (:part, :count, :place, :since)',
          {
            replacements: { ...line },
          },
        )
        brought.drawer++
      }
      return brought
    })
  }
}

const nextFree = (id: string, isTaken: (id: string) => boolean): string => {
  for (let n = 2; ; n++) if (!isTaken(`${id}-${n}`)) return `${id}-${n}`
}
