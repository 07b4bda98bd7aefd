// Projects in the database. A save names the version it was made from; a stale one changes nothing.

import { randomUUID } from 'node:crypto'
import type { ProjectLine, StoredProject } from '@root-board/core/api'
import type { Design } from '@root-board/core/design'
import { QueryTypes, type Sequelize } from 'sequelize'
import { bringBack, emptyAway, putAway } from './away'
import type { Database } from './database'

interface Row {
  id: string
  design: string
  version: number
  sample: number
  changedAt: string
}
const stored = (row: Row): StoredProject => ({
  ...row,
  design: JSON.parse(row.design) as Design,
  sample: Boolean(row.sample),
})
/** Its row is there and says nothing that could be read: it is neither shown as another nor written over. */
export class DamagedProject extends Error {
  override name = 'DamagedProject'
  constructor(
    readonly id: string,
    readonly raw: string,
  ) {
    super('What is stored of this project can’t be read')
  }
}
/** It was checked when it was stored; of a row that was spoilt since, the frame at least is gone. Throws DamagedProject. */
const opened = (row: Row): StoredProject => {
  try {
    const project = stored(row)
    const { name, chip, needs, pins, power, build } = project.design
    const isWhole =
      typeof name === 'string' &&
      Array.isArray(needs.devices) &&
      [chip, pins, power, build].every((part) => typeof part === 'object')
    if (isWhole) return project
  } catch {
    // Told below: what can't be parsed and what has lost its frame are the same to whoever asks.
  }
  throw new DamagedProject(row.id, row.design)
}
const lineOf = (row: Row): ProjectLine => {
  const { id, changedAt } = row
  const sample = Boolean(row.sample)
  try {
    const { name, chip, needs, notes } = opened(row).design
    return { id, name, chip: chip.part, devices: needs.devices.length, notes, sample, changedAt }
  } catch {
    // The name comes early in a row: more of it than that may be whole.
    const name = /"name":\s*"([^"\\]{1,120})"/.exec(row.design.slice(0, 400))?.[1]
    return {
      id,
      name: name === undefined ? `A project that can’t be read (${id.slice(0, 8)})` : `${name}, damaged`,
      devices: 0,
      sample,
      changedAt,
      damaged: true,
    }
  }
}

export type SaveResult = { saved: StoredProject } | { stale: StoredProject } | 'gone'

export class ProjectStore {
  /** `withFacts` gives a design the facts of the parts it uses, as far as they are known here. */
  constructor(
    private readonly db: Database,
    private readonly withFacts: (design: Design) => Promise<Design> = (design) => Promise.resolve(design),
  ) {}

  private async rows(
    where: string,
    replacements: Record<string, unknown> = {},
    away = false,
    on: Sequelize = this.db.reader,
  ): Promise<Row[]> {
    return on.query<Row>(
      `SELECT id, design, version, sample, changedAt FROM projects WHERE deletedAt IS ${away ? 'NOT ' : ''}NULL AND ${where} ORDER BY ${away ? 'deletedAt' : 'changedAt'} DESC, id`,
      { type: QueryTypes.SELECT, replacements },
    )
  }

  /** Those at hand, or those put away, the last one first. */
  async list(away = false): Promise<ProjectLine[]> {
    return (await this.rows('1 = 1', {}, away)).map(lineOf)
  }

  /** Every design, for whoever asks what is used where. */
  async designs(): Promise<{ id: string; design: Design }[]> {
    return (await this.rows('1 = 1')).flatMap((row) =>
      lineOf(row).damaged ? [] : [{ id: row.id, design: stored(row).design }],
    )
  }

  async count(): Promise<number> {
    const [row] = await this.db.reader.query<{ n: number }>(
      'SELECT COUNT(*) AS n FROM projects WHERE deletedAt IS NULL',
      { type: QueryTypes.SELECT },
    )
    return row!.n
  }

  /** Throws DamagedProject. */
  async find(id: string): Promise<StoredProject | undefined> {
    const [row] = await this.rows('id = :id', { id })
    return row && opened(row)
  }

  /** What its row says, as it stands there. */
  async raw(id: string): Promise<string | undefined> {
    return (await this.rows('id = :id', { id }))[0]?.design
  }

  async create(design: Design): Promise<StoredProject> {
    const whole = await this.withFacts(design)
    return this.db.write((db) => this.insert(db, whole))
  }

  private async insert(db: Sequelize, design: Design, sample = false): Promise<StoredProject> {
    const row = {
      id: randomUUID(),
      design: JSON.stringify(design),
      version: 1,
      sample: sample ? 1 : 0,
      changedAt: new Date().toISOString(),
    }
    await db.query(
      'INSERT INTO projects (id, design, version, sample, changedAt) VALUES (:id, :design, :version, :sample, :changedAt)',
      { replacements: row },
    )
    return stored(row)
  }

  /** Saves over exactly `version`, and answers with what it stored. One statement decides, so that two saves can't both win. */
  save(id: string, version: number, design: Design): Promise<SaveResult> {
    return this.db.write(async (db) => {
      const [saved] = await db.query<Row>(
        'UPDATE projects SET design = :design, version = version + 1, changedAt = :now WHERE id = :id AND version = :version AND deletedAt IS NULL RETURNING id, design, version, sample, changedAt',
        {
          type: QueryTypes.SELECT,
          replacements: { id, version, design: JSON.stringify(design), now: new Date().toISOString() },
        },
      )
      if (saved) return { saved: stored(saved) }
      const [stale] = await this.rows('id = :id', { id }, false, db)
      return stale ? { stale: opened(stale) } : 'gone'
    })
  }

  remove(id: string): Promise<boolean> {
    return this.db.write((db) => putAway(db, 'projects', id))
  }

  restore(id: string): Promise<StoredProject | undefined> {
    return this.db.write(async (db) => {
      await bringBack(db, 'projects', id)
      const [row] = await this.rows('id = :id', { id }, false, db)
      return row && opened(row)
    })
  }

  /** Throws out for good what was put away: one, or all. Answers with how many. */
  empty(id?: string): Promise<number> {
    return this.db.write((db) => emptyAway(db, 'projects', id))
  }

  /** Puts the samples in, once in the life of a database: all of them and the mark, or nothing. */
  async addSamplesOnce(samples: () => Design[]): Promise<void> {
    const marked = (db: Sequelize) =>
      db.query("SELECT value FROM marks WHERE name = 'samples'", { type: QueryTypes.SELECT })
    if ((await marked(this.db.reader)).length > 0) return
    const whole = await Promise.all(samples().map((design) => this.withFacts(design)))
    await this.db.write(async (db) => {
      if ((await marked(db)).length > 0) return
      for (const design of whole) await this.insert(db, design, true)
      await db.query("INSERT INTO marks (name, value) VALUES ('samples', 'added')")
    })
  }
}
