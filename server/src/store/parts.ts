// The library: part files that came with the program, and parts the builder brought in. A save names the version it was
// made from, and a part put away can be brought back.

import {
  differencesOf,
  type Fault,
  FaultyFile,
  type Library,
  makeLibrary,
  type Part,
  readPart,
} from '@root-board/core/parts'
import type { StoredPart, Take, UnreadablePart } from '@root-board/core/api'
import { QueryTypes, type Sequelize } from 'sequelize'
import { bringBack, emptyAway, putAway } from './away'
import { breathing } from './breath'
import type { Database } from './database'

interface Row {
  id: string
  part: string
  version: number
  changedAt: string
}
const opened = (row: Row): StoredPart | UnreadablePart => {
  let file: unknown
  try {
    file = JSON.parse(row.part)
  } catch {
    return { id: row.id, file: row.part, faults: [{ path: '', message: 'is not JSON any more' }] }
  }
  try {
    return { id: row.id, file, part: readPart(file, row.id), version: row.version, changedAt: row.changedAt }
  } catch (error) {
    if (!(error instanceof FaultyFile)) throw error
    return { id: row.id, file, faults: error.faults }
  }
}

export type PartSave =
  | { saved: StoredPart }
  | { taken: StoredPart }
  /** One that can’t be read or was put away has the id. */
  | { held: { id: string; away: boolean } }
  | { stale: StoredPart }
  | 'gone'

const sameAs = (a: Part | undefined, b: Part) => a !== undefined && differencesOf(a, b).length === 0

export class PartStore {
  private readonly samples: Map<string, Part>
  /** Each read once, for as long as its row says the same. */
  private readonly known = new Map<string, { row: Row; as: StoredPart | UnreadablePart }>()

  constructor(
    private readonly db: Database,
    samples: Part[],
  ) {
    this.samples = new Map(samples.map((p) => [p.id, p]))
  }

  private async opened(
    where: string,
    replacements: Record<string, unknown> = {},
    on: Sequelize = this.db.reader,
  ): Promise<(StoredPart | UnreadablePart)[]> {
    const rows = await on.query<Row>(
      `SELECT id, part, version, changedAt FROM parts WHERE deletedAt IS NULL AND ${where} ORDER BY id`,
      { type: QueryTypes.SELECT, replacements },
    )
    const breath = breathing()
    const all: (StoredPart | UnreadablePart)[] = []
    for (const row of rows) {
      const known = this.known.get(row.id)
      if (known && known.row.version === row.version && known.row.part === row.part) all.push(known.as)
      else {
        const as = opened(row)
        this.known.set(row.id, { row, as })
        all.push(as)
        await breath()
      }
    }
    return all
  }

  private async rows(
    where: string,
    replacements: Record<string, unknown> = {},
    on?: Sequelize,
  ): Promise<StoredPart[]> {
    return (await this.opened(where, replacements, on)).filter((p): p is StoredPart => 'part' in p)
  }

  async unreadable(): Promise<UnreadablePart[]> {
    return (await this.opened('1 = 1')).filter((p): p is UnreadablePart => 'faults' in p)
  }

  own(): Promise<StoredPart[]> {
    return this.rows('1 = 1')
  }

  async find(id: string): Promise<StoredPart | undefined> {
    return (await this.rows('id = :id', { id }))[0]
  }

  sample(id: string): Part | undefined {
    return this.samples.get(id)
  }

  async all(): Promise<Part[]> {
    return [...this.samples.values(), ...(await this.own()).map((s) => s.part)]
  }

  /** How many there are, without reading them. */
  async count(): Promise<number> {
    const [row] = await this.db.reader.query<{ n: number }>(
      'SELECT COUNT(*) AS n FROM parts WHERE deletedAt IS NULL',
      { type: QueryTypes.SELECT },
    )
    return this.samples.size + row!.n
  }

  /** The same object for as long as nothing in it has changed. */
  async library(): Promise<Library> {
    const parts = await this.all()
    const { last } = this
    if (last?.parts.length === parts.length && last.parts.every((p, i) => p === parts[i])) return last.library
    this.last = { parts, library: makeLibrary(parts) }
    return this.last.library
  }
  private last: { parts: Part[]; library: Library } | undefined

  /** Throws FaultyFile; a sample part can't be overwritten. */
  private checked(data: unknown, file: string): Part {
    const part = readPart(data, file)
    if (this.samples.has(part.id))
      throw new FaultyFile(file, [
        { path: 'id', message: `“${part.id}” is a sample part, which stays as it is: give yours another id` },
      ])
    return part
  }

  /** Who has this id, at hand or put away. */
  private async holder(id: string, db: Sequelize): Promise<PartSave | undefined> {
    const [taken] = await this.rows('id = :id', { id }, db)
    if (taken) return { taken }
    const [row] = await db.query<{ deletedAt: string | null }>('SELECT deletedAt FROM parts WHERE id = :id', {
      type: QueryTypes.SELECT,
      replacements: { id },
    })
    return row && { held: { id, away: row.deletedAt !== null } }
  }

  private async write(db: Sequelize, data: unknown, id: string): Promise<void> {
    await db.query(
      'INSERT INTO parts (id, part, changedAt, version) VALUES (:id, :part, :now, 1) ON CONFLICT (id) DO UPDATE SET part = :part, changedAt = :now, version = version + 1, deletedAt = NULL',
      {
        replacements: { id, part: JSON.stringify(data), now: new Date().toISOString() },
      },
    )
  }

  /** Adds a part of the builder's own; one that has this id already is shown instead of overwritten. Throws FaultyFile. */
  async add(data: unknown, file: string): Promise<PartSave> {
    const part = this.checked(data, file)
    return this.db.write(async (db): Promise<PartSave> => {
      const holder = await this.holder(part.id, db)
      if (holder) return holder
      await this.write(db, data, part.id)
      return { saved: (await this.rows('id = :id', { id: part.id }, db))[0]! }
    })
  }

  /** Saves over exactly `version` of a part of one's own, which may get another id. Throws FaultyFile. */
  async save(id: string, version: number, data: unknown): Promise<PartSave> {
    const part = this.checked(data, id)
    return this.db.write(async (db): Promise<PartSave> => {
      const [now] = await this.rows('id = :id', { id }, db)
      if (!now) return 'gone'
      if (now.version !== version) return { stale: now }
      if (part.id !== id) {
        const holder = await this.holder(part.id, db)
        if (holder) return holder
        await db.query('DELETE FROM parts WHERE id = :id', { replacements: { id } })
      }
      await this.write(db, data, part.id)
      const [saved] = await this.rows('id = :other', { other: part.id }, db)
      return { saved: saved! }
    })
  }

  remove(id: string): Promise<boolean> {
    return this.db.write((db) => putAway(db, 'parts', id))
  }

  /** Those put away, the last one first. */
  away(): Promise<{ id: string; name: string }[]> {
    return this.db.reader
      .query<Row>(
        'SELECT id, part, version, changedAt FROM parts WHERE deletedAt IS NOT NULL ORDER BY deletedAt DESC',
        {
          type: QueryTypes.SELECT,
        },
      )
      .then((rows) => rows.map(opened).map((p) => ({ id: p.id, name: 'part' in p ? p.part.name : p.id })))
  }
  /** Throws out for good what was put away: one, or all. Answers with how many. */
  empty(id?: string): Promise<number> {
    return this.db.write((db) => emptyAway(db, 'parts', id))
  }

  restore(id: string): Promise<StoredPart | undefined> {
    return this.db.write(async (db) => {
      await bringBack(db, 'parts', id)
      return (await this.rows('id = :id', { id }, db))[0]
    })
  }

  /**
   * A whole library in one go: all of it or, when one part is faulty or one clash is left without a choice, nothing.
   * Throws FaultyFile with the place in the list.
   */
  async take(
    parts: unknown[],
    choices: Record<string, Take>,
  ): Promise<{ taken: string[] } | { clashes: StoredPart[] }> {
    const faults: Fault[] = []
    const read: { data: Record<string, unknown>; part: Part }[] = []
    const breath = breathing()
    for (const [i, data] of parts.entries()) {
      if (faults.length > 20) break
      await breath()
      try {
        read.push({ data: data as Record<string, unknown>, part: readPart(data, `parts[${i}]`) })
      } catch (error) {
        if (!(error instanceof FaultyFile)) throw error
        faults.push(...error.faults.map((f) => ({ ...f, path: `parts[${i}].${f.path}` })))
      }
    }
    const ids = read.map((r) => r.part.id)
    const first = new Map<string, number>()
    ids.forEach((id, i) => {
      if (first.has(id)) faults.push({ path: `parts[${i}].id`, message: `“${id}” is there twice` })
      else first.set(id, i)
    })
    if (faults.length > 0) throw new FaultyFile('library', faults)
    // What says the same as a sample part, or as one's own, is there already.
    const fresh = read.filter(({ part }) => !sameAs(this.samples.get(part.id), part))
    return this.db.write(async (db) => {
      const own = new Map((await this.rows('1 = 1', {}, db)).map((s) => [s.id, s]))
      // What was put away or can’t be read keeps its id as well: nothing is written over it.
      const held = new Set(
        (await db.query<{ id: string }>('SELECT id FROM parts', { type: QueryTypes.SELECT }))
          .map((r) => r.id)
          .filter((id) => !own.has(id)),
      )
      const isClash = ({ part }: (typeof fresh)[number]) => {
        const mine = own.get(part.id)
        return mine !== undefined && !sameAs(mine.part, part)
      }
      const open = fresh.filter((r) => isClash(r) && !Object.hasOwn(choices, r.part.id))
      if (open.length > 0) return { clashes: open.map((r) => own.get(r.part.id)!) }
      const free = (id: string): string => {
        for (let n = 2; ; n++)
          if (
            !own.has(`${id}-${n}`) &&
            !held.has(`${id}-${n}`) &&
            !this.samples.has(`${id}-${n}`) &&
            !first.has(`${id}-${n}`)
          )
            return `${id}-${n}`
      }
      const taken: string[] = []
      for (const r of fresh) {
        const choice = isClash(r)
          ? choices[r.part.id]
          : this.samples.has(r.part.id) || held.has(r.part.id)
            ? 'both'
            : 'theirs'
        if (choice === 'mine' || (own.has(r.part.id) && !isClash(r))) continue
        const id = choice === 'both' ? free(r.part.id) : r.part.id
        await this.write(db, { ...r.data, id }, id)
        taken.push(id)
      }
      return { taken }
    })
  }
}
