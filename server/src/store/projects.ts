// Projects in the database. A save names the version it was made from; a stale one changes nothing.

import { randomUUID } from 'node:crypto'
import type { Design } from '@root-board/core/design'
import { QueryTypes, type Sequelize } from 'sequelize'

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
    private readonly db: Sequelize,
    private readonly withFacts: (design: Design) => Promise<Design> = (design) => Promise.resolve(design),
  ) {}

  private async rows(
    where: string,
    replacements: Record<string, unknown> = {},
    away = false,
  ): Promise<StoredProject[]> {
    const rows = await this.db.query<Row>(
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
    const [row] = await this.db.query<{ n: number }>(
      'SELECT COUNT(*) AS n FROM projects WHERE deletedAt IS NULL',
      { type: QueryTypes.SELECT },
    )
    return row!.n
  }

  async find(id: string): Promise<StoredProject | undefined> {
    return (await this.rows('id = :id', { id }))[0]
  }

  async create(design: Design, sample = false): Promise<StoredProject> {
    const row = {
      id: randomUUID(),
      design: JSON.stringify(await this.withFacts(design)),
      version: 1,
      sample: sample ? 1 : 0,
      changedAt: new Date().toISOString(),
    }
    await this.db.query(
      'INSERT INTO projects (id, design, version, sample, changedAt) VALUES (:id, :design, :version, :sample, :changedAt)',
      { replacements: row },
    )
    return stored(row)
  }

  /** Saves over exactly `version`. One statement decides, so that two saves can't both win. */
  async save(id: string, version: number, design: Design): Promise<SaveResult> {
    const saved = await this.db.query(
      'UPDATE projects SET design = :design, version = version + 1, changedAt = :now WHERE id = :id AND version = :version AND deletedAt IS NULL RETURNING version',
      {
        type: QueryTypes.SELECT,
        replacements: { id, version, design: JSON.stringify(design), now: new Date().toISOString() },
      },
    )
    const now = await this.find(id)
    if (!now) return 'gone'
    return saved.length > 0 ? { saved: now } : { stale: now }
  }

  async remove(id: string): Promise<boolean> {
    const found = await this.find(id)
    if (!found) return false
    await this.db.query('UPDATE projects SET deletedAt = :now WHERE id = :id', {
      replacements: { id, now: new Date().toISOString() },
    })
    return true
  }

  async restore(id: string): Promise<StoredProject | undefined> {
    await this.db.query('UPDATE projects SET deletedAt = NULL WHERE id = :id', { replacements: { id } })
    return this.find(id)
  }

  /** Puts the samples in, once in the life of a database. */
  async addSamplesOnce(samples: () => Design[]): Promise<void> {
    const done = await this.db.query('SELECT value FROM marks WHERE name = :name', {
      type: QueryTypes.SELECT,
      replacements: { name: 'samples' },
    })
    if (done.length > 0) return
    for (const design of samples()) await this.create(design, true)
    await this.db.query("INSERT INTO marks (name, value) VALUES ('samples', 'added')")
  }
}
