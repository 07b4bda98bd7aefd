// Projects in the database. A save names the version it was made from; a stale one changes nothing.

import { randomUUID } from 'node:crypto'
import type { Design } from '@root-board/core/design'
import { QueryTypes, type Sequelize } from 'sequelize'
import { bringBack, putAway } from './away'
import type { Database } from './database'

export interface StoredProject {
  id: string
  design: Design
  version: number
  sample: boolean
  changedAt: string
}
export interface ProjectLine {
  id: string
  name: string
  chip?: string
  devices: number
  /** What the builder wrote about it. */
  notes?: string
  sample: boolean
  changedAt: string
}

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
  ): Promise<StoredProject[]> {
    const rows = await on.query<Row>(
      `SELECT id, design, version, sample, changedAt FROM projects WHERE deletedAt IS ${away ? 'NOT ' : ''}NULL AND ${where} ORDER BY ${away ? 'deletedAt' : 'changedAt'} DESC, id`,
      { type: QueryTypes.SELECT, replacements },
    )
    return rows.map(stored)
  }

  /** Those at hand, or those put away, the last one first. */
  async list(away = false): Promise<ProjectLine[]> {
    return (await this.rows('1 = 1', {}, away)).map(({ id, design, sample, changedAt }) => ({
      id,
      name: design.name,
      chip: design.chip.part,
      devices: design.needs.devices.length,
      notes: design.notes,
      sample,
      changedAt,
    }))
  }

  /** Every design, for whoever asks what is used where. */
  async designs(): Promise<{ id: string; design: Design }[]> {
    return (await this.rows('1 = 1')).map(({ id, design }) => ({ id, design }))
  }

  async count(): Promise<number> {
    const [row] = await this.db.reader.query<{ n: number }>(
      'SELECT COUNT(*) AS n FROM projects WHERE deletedAt IS NULL',
      { type: QueryTypes.SELECT },
    )
    return row!.n
  }

  async find(id: string): Promise<StoredProject | undefined> {
    return (await this.rows('id = :id', { id }))[0]
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
      return stale ? { stale } : 'gone'
    })
  }

  remove(id: string): Promise<boolean> {
    return this.db.write((db) => putAway(db, 'projects', id))
  }

  restore(id: string): Promise<StoredProject | undefined> {
    return this.db.write(async (db) => {
      await bringBack(db, 'projects', id)
      return (await this.rows('id = :id', { id }, false, db))[0]
    })
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
