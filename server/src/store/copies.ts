// Copies of everything, made by the database while the program runs: the last ten, and one a day for a week. One can be
// looked at and brought back; what is stored then is copied first.

import { copyFileSync, existsSync, mkdirSync, rmSync, statSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { CopyContent, CopyLine, CopyList } from '@root-board/core/api'
import { QueryTypes, type Sequelize } from 'sequelize'
import { type Database, fileIn, openDatabase } from './database'
import { connect, namesIn } from './file'
import { copiesIn, damageIn } from './recovery'

const kept = 10
const days = 7
const hour = 3_600_000

const tables = ['projects', 'parts', 'drawer'] as const
type Table = (typeof tables)[number]
type Row = Record<string, string | number | null>

const rowsOf = (db: Sequelize, table: Table) =>
  db.query<Row>(`SELECT * FROM ${table}`, { type: QueryTypes.SELECT })

/** Which of the copies stay: the newest ones, and the newest of each of the last days that there was one. */
export const staying = (copies: readonly { name: string; made: string }[]): Set<string> => {
  const newest = [...copies].sort((a, b) => (a.made < b.made ? 1 : -1))
  const daily = new Map<string, string>()
  for (const { name, made } of newest) {
    const day = made.slice(0, 10)
    if (!daily.has(day) && daily.size < days) daily.set(day, name)
  }
  return new Set([...newest.slice(0, kept).map((c) => c.name), ...daily.values()])
}

const nameOf = (design: unknown): string => {
  try {
    return (JSON.parse(String(design)) as { name: string }).name
  } catch {
    return 'a project that can’t be read'
  }
}

export class Copies {
  private readonly folder: string
  private copied = 0
  private timer: ReturnType<typeof setInterval> | undefined
  private ended = false
  private failed: string | undefined
  constructor(
    private readonly db: Database,
    /** Told of a copy that could not be made. */
    private readonly say: (error: unknown) => void = () => undefined,
  ) {
    this.folder = copiesIn(db.folder)
  }

  state(): CopyList {
    return { copies: this.list(), failed: this.failed }
  }

  list(): CopyLine[] {
    return namesIn(this.folder)
      .flatMap((name) => {
        const made = madeOf(name)
        const file = statSync(join(this.folder, name), { throwIfNoEntry: false })
        return made && file ? [{ name, made, size: file.size }] : []
      })
      .sort((a, b) => (a.name < b.name ? 1 : -1))
  }

  /** Makes one, and lets those go that are too many. */
  make(): Promise<CopyLine> {
    return this.makeBy((path) => this.db.copyTo(path))
  }
  private async makeBy(copyTo: (path: string) => Promise<void>): Promise<CopyLine> {
    mkdirSync(this.folder, { recursive: true })
    const { writes } = this.db
    const path = this.freePath(Date.now())
    await copyTo(path)
    this.copied = writes
    this.failed = undefined
    const all = this.list()
    const stay = staying(all)
    for (const { name } of all) if (!stay.has(name)) rmSync(join(this.folder, name), { force: true })
    return all.find((c) => path.endsWith(c.name))!
  }

  /** By the moment it was made: no two have the same. */
  private freePath(at: number): string {
    const name = new Date(at).toISOString().replace('Z', '').replace(/[:.]/g, '-')
    const path = join(this.folder, `${name}.sqlite`)
    return existsSync(path) ? this.freePath(at + 1) : path
  }

  /** Makes one where there is none that says what is stored. */
  async makeIfChanged(): Promise<void> {
    const [newest] = this.list()
    if (newest && (await this.saysTheSame(newest.name))) return
    await this.make()
  }
  private async saysTheSame(name: string): Promise<boolean> {
    const copy = await connect(join(this.folder, name))
    try {
      for (const table of tables) {
        const [there, here] = await Promise.all([rowsOf(copy, table), rowsOf(this.db.reader, table)])
        if (JSON.stringify(there) !== JSON.stringify(here)) return false
      }
      return true
    } catch {
      return false
    } finally {
      await copy.close()
    }
  }

  /** One at the start, and one an hour while something is written. What keeps one from being made is told to who looks. */
  begin(): void {
    const makeOne = () =>
      void this.makeIfChanged().catch((error: unknown) => {
        if (this.ended) return
        this.failed = (error as Error).message
        this.say(error)
      })
    makeOne()
    this.timer = setInterval(() => {
      if (this.db.writes !== this.copied) makeOne()
    }, hour)
    this.timer.unref()
  }
  end(): void {
    this.ended = true
    clearInterval(this.timer)
  }

  private pathOf(name: string): string | undefined {
    return madeOf(name) && existsSync(join(this.folder, name)) ? join(this.folder, name) : undefined
  }

  /** What is in a copy, in the tables of today: it may be of before a step. It stays as it is. */
  private async rowsIn(name: string): Promise<Record<Table, Row[]> | { damage: string } | undefined> {
    const path = this.pathOf(name)
    if (!path) return undefined
    const folder = await mkdtemp(join(tmpdir(), 'root-board-copy-'))
    try {
      copyFileSync(path, fileIn(folder))
      const damage = await damageIn(fileIn(folder))
      if (damage !== undefined) return { damage }
      const copy = await openDatabase(folder)
      try {
        const [projects, parts, drawer] = await Promise.all(tables.map((t) => rowsOf(copy.reader, t)))
        return { projects: projects!, parts: parts!, drawer: drawer! }
      } finally {
        await copy.close()
      }
    } finally {
      await rm(folder, { recursive: true, force: true })
    }
  }

  /** What it would bring back, and what is only stored now. */
  async look(name: string): Promise<CopyContent | { damage: string } | undefined> {
    const copy = await this.rowsIn(name)
    if (!copy || 'damage' in copy) return copy
    const [projects, parts, drawer] = await Promise.all(tables.map((t) => rowsOf(this.db.reader, t)))
    const here = { projects: projects!, parts: parts!, drawer: drawer! }
    const atHand = (rows: Row[]) => rows.filter((r) => r.deletedAt === null)
    const compared = (table: 'projects' | 'parts', field: string) => {
      const byId = new Map(atHand(here[table]).map((r) => [r.id, r]))
      return (row: Row) => {
        const now = byId.get(row.id)
        return !now ? ('none' as const) : now[field] === row[field] ? ('same' as const) : ('other' as const)
      }
    }
    const projectNow = compared('projects', 'design')
    const partNow = compared('parts', 'part')
    const newer = (table: 'projects' | 'parts') => {
      const ids = new Set(copy[table].map((r) => r.id))
      return here[table].filter((r) => !ids.has(r.id))
    }
    const said = (rows: Row[]) => new Map(rows.map((r) => [r.part, `${r.count} ${r.place}`]))
    const [was, is] = [said(copy.drawer), said(here.drawer)]
    return {
      ...this.list().find((c) => c.name === name)!,
      projects: atHand(copy.projects).map((r) => ({
        id: String(r.id),
        name: nameOf(r.design),
        changedAt: String(r.changedAt),
        now: projectNow(r),
      })),
      parts: atHand(copy.parts).map((r) => ({ id: String(r.id), now: partNow(r) })),
      drawer: [...new Set([...was.keys(), ...is.keys()])].filter((p) => was.get(p) !== is.get(p)).length,
      newer: {
        projects: newer('projects').map((r) => nameOf(r.design)),
        parts: newer('parts').map((r) => String(r.id)),
      },
    }
  }

  /**
   * Puts everything back as the copy has it: all of it, or nothing. What is stored now is copied first. A page that still
   * shows what was stored can’t save over it: versions go on from the higher of the two.
   */
  async bringBack(name: string): Promise<{ before: CopyLine } | { damage: string } | undefined> {
    const copy = await this.rowsIn(name)
    if (!copy || 'damage' in copy) return copy
    const putBack = async (db: Sequelize) => {
      for (const table of tables) {
        const versions = new Map((await rowsOf(db, table)).map((r) => [r.id, Number(r.version ?? 0)]))
        await db.query(`DELETE FROM ${table}`)
        for (const row of copy[table]) {
          const whole =
            'version' in row
              ? { ...row, version: Math.max(Number(row.version), versions.get(row.id) ?? 0) + 1 }
              : row
          const names = Object.keys(whole)
          await db.query(
            `INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map((n) => `:${n}`).join(', ')})`,
            { replacements: whole },
          )
        }
      }
    }
    return { before: await this.makeBy((path) => this.db.copyThenWrite(path, putBack)) }
  }
}

/** When it was made, by its name; nothing: it is no copy. */
const madeOf = (name: string): string | undefined => {
  const match = /^(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)-(\d{3})\.sqlite$/.exec(name)
  return match ? `${match[1]}T${match[2]}:${match[3]}:${match[4]}.${match[5]}Z` : undefined
}
