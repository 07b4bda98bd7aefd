// The library: part files that came with the program, and parts the builder brought in. A save names the version it was
// made from, and a part put away can be brought back.

import {
  differencesOf,
  FaultyFile,
  type Library,
  makeLibrary,
  type Part,
  readPart,
} from '@root-board/core/parts'
import { QueryTypes, type Sequelize } from 'sequelize'
import { bringBack, putAway } from './away'
import type { Database } from './database'

export interface StoredPart {
  id: string
  /** As it was written, before assumptions are put in. */
  file: unknown
  part: Part
  version: number
  changedAt: string
}
interface Row {
  id: string
  part: string
  version: number
  changedAt: string
}
/** A part that an earlier or later version of the program wrote may not be readable: it is kept, and shown with its faults. */
export interface UnreadablePart {
  id: string
  file: unknown
  faults: FaultyFile['faults']
}
const opened = (row: Row): StoredPart | UnreadablePart => {
  const file: unknown = JSON.parse(row.part)
  try {
    return { id: row.id, file, part: readPart(file, row.id), version: row.version, changedAt: row.changedAt }
  } catch (error) {
    if (!(error instanceof FaultyFile)) throw error
    return { id: row.id, file, faults: error.faults }
  }
}

export type PartSave = { saved: StoredPart } | { taken: StoredPart } | { stale: StoredPart } | 'gone'
/** What is done with a part of a brought library whose id one of the builder’s own has. */
export type Take = 'mine' | 'theirs' | 'both'

const sameAs = (a: Part | undefined, b: Part) => a !== undefined && differencesOf(a, b).length === 0

export class PartStore {
  private readonly samples: Map<string, Part>

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
    return rows.map(opened)
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

  async library(): Promise<Library> {
    return makeLibrary(await this.all())
  }

  /** Throws FaultyFile; a sample part can't be overwritten. */
  private checked(data: unknown, file: string): Part {
    const part = readPart(data, file)
    if (this.samples.has(part.id))
      throw new FaultyFile(file, [
        { path: 'id', message: `“${part.id}” is a sample part, which stays as it is: give yours another id` },
      ])
    return part
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
      const [taken] = await this.rows('id = :id', { id: part.id }, db)
      if (taken) return { taken }
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
        const [taken] = await this.rows('id = :other', { other: part.id }, db)
        if (taken) return { taken }
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
    const faults: { path: string; message: string }[] = []
    const read = parts.flatMap((data, i) => {
      try {
        return [{ data: data as Record<string, unknown>, part: readPart(data, `parts[${i}]`) }]
      } catch (error) {
        if (!(error instanceof FaultyFile)) throw error
        faults.push(...error.faults.map((f) => ({ ...f, path: `parts[${i}].${f.path}` })))
        return []
      }
    })
    const ids = read.map((r) => r.part.id)
    ids.forEach((id, i) => {
      if (ids.indexOf(id) !== i) faults.push({ path: `parts[${i}].id`, message: `“${id}” is there twice` })
    })
    if (faults.length > 0) throw new FaultyFile('library', faults)
    // What says the same as a sample part, or as one's own, is there already.
    const fresh = read.filter(({ part }) => !sameAs(this.samples.get(part.id), part))
    return this.db.write(async (db) => {
      const own = new Map((await this.rows('1 = 1', {}, db)).map((s) => [s.id, s]))
      const isClash = ({ part }: (typeof fresh)[number]) => {
        const mine = own.get(part.id)
        return mine !== undefined && !sameAs(mine.part, part)
      }
      const open = fresh.filter((r) => isClash(r) && !(r.part.id in choices))
      if (open.length > 0) return { clashes: open.map((r) => own.get(r.part.id)!) }
      const free = (id: string): string => {
        for (let n = 2; ; n++)
          if (!own.has(`${id}-${n}`) && !this.samples.has(`${id}-${n}`) && !ids.includes(`${id}-${n}`))
            return `${id}-${n}`
      }
      const taken: string[] = []
      for (const r of fresh) {
        const choice = isClash(r) ? choices[r.part.id] : this.samples.has(r.part.id) ? 'both' : 'theirs'
        if (choice === 'mine' || (own.has(r.part.id) && !isClash(r))) continue
        const id = choice === 'both' ? free(r.part.id) : r.part.id
        await this.write(db, { ...r.data, id }, id)
        taken.push(id)
      }
      return { taken }
    })
  }
}
