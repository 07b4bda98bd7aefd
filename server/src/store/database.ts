// Opening the SQLite file: write-ahead log with full synchronisation, so that an answered save survives a power cut.
// There is one writer: what waits for it is written one after another, in one transaction as far as that goes; questions
// have a connection of their own and never wait for it. Before a step changes the tables, a copy of the file is made that
// nothing overwrites. What the log has is brought into the file by hand, so that whatever else changes it is noticed.

import { copyFileSync, existsSync, mkdirSync, statSync, truncateSync } from 'node:fs'
import { basename, join } from 'node:path'
import { QueryTypes, type Sequelize } from 'sequelize'
import { StartFailure } from '../config'
import { codeOf, connect, copyInto, freeName } from './file'
import { migrations } from './migrations'
import { damageIn, explainDamage, goOnFrom, sweep } from './recovery'

/** The file is not the one that was opened: what is written now goes nowhere. */
export class FileGone extends Error {
  override name = 'FileGone'
}

interface Job<T> {
  work: (db: Sequelize) => Promise<T>
  resolve: (result: T) => void
  reject: (error: unknown) => void
}

/** Bytes of the log after which it is brought into the file. */
const logFull = 16e6
const sizeOf = (file: string) => statSync(file, { throwIfNoEntry: false })?.size ?? 0

interface Mark {
  inode: bigint
  /** Undefined: it is being written by this program. */
  content: string | undefined
}
/** What tells the file from another in its place, or from itself with something else in it. */
const markOf = (file: string): Mark | undefined => {
  const stat = statSync(file, { bigint: true, throwIfNoEntry: false })
  // Where a file’s time is written late it tells nothing.
  const time = process.platform === 'win32' ? '' : stat?.mtimeNs
  return stat && { inode: stat.ino, content: `${stat.size} ${time}` }
}

export class Database {
  private last: Promise<unknown> = Promise.resolve()
  private opened: Mark
  /** At this size of the log the next attempt is made: one that was hindered is not repeated at every write. */
  private logFull = logFull
  private readonly waiting: Job<unknown>[] = []
  private rescued: Promise<string | undefined> | undefined
  /** How often something was written since the file was opened. */
  writes = 0
  constructor(
    readonly folder: string,
    private readonly writer: Sequelize,
    /** For questions alone: it can't write. */
    readonly reader: Sequelize,
  ) {
    this.opened = markOf(fileIn(folder))!
  }

  private next<T>(work: () => Promise<T>): Promise<T> {
    const done = this.last.then(work)
    this.last = done.catch(() => undefined)
    return done
  }

  /**
   * One piece of work after another, in a transaction: all of what it writes is kept, or nothing, and what was read in it
   * is still so when it writes. It is answered once it is on the disk. Throws FileGone.
   */
  write<T>(work: (db: Sequelize) => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const job: Job<T> = { work, resolve, reject }
      this.waiting.push(job as Job<unknown>)
      if (this.waiting.length === 1) void this.next(() => this.writeWaiting()).catch(() => undefined)
    })
  }
  /**
   * All that waits, in one transaction, each within a mark of its own to go back to: the disk is waited for once. Where
   * the transaction as a whole can't be kept, each is done by itself, so that one’s failure is no other’s.
   */
  private async writeWaiting(): Promise<void> {
    const jobs = this.waiting.splice(0)
    const settled = jobs.length > 1 ? await this.together(jobs) : undefined
    if (settled) settled()
    else for (const job of jobs) await this.alone(job)
    await this.emptyLog()
  }

  /** Brings what the log has into the file, where it is much. Nothing else writes the file while it is open. */
  private async emptyLog(): Promise<void> {
    const file = fileIn(this.folder)
    if (sizeOf(`${file}-wal`) < this.logFull) return
    await this.mustBeThere()
    this.opened = { ...this.opened, content: undefined }
    try {
      await this.writer.query('PRAGMA wal_checkpoint(TRUNCATE)')
    } finally {
      this.opened = { ...this.opened, content: markOf(file)?.content }
      this.logFull = sizeOf(`${file}-wal`) + logFull
    }
  }

  private async alone({ work, resolve, reject }: Job<unknown>): Promise<void> {
    try {
      await this.mustBeThere()
      await this.writer.query('BEGIN IMMEDIATE')
      let result: unknown
      try {
        result = await work(this.writer)
        await this.writer.query('COMMIT')
      } catch (error) {
        // A full disk has ended the transaction already; there is nothing to go back from then.
        await this.writer.query('ROLLBACK').catch(() => undefined)
        throw error
      }
      this.writes++
      // Taken away in between: then this was written to nowhere.
      await this.mustBeThere()
      resolve(result)
    } catch (error) {
      reject(error)
    }
  }

  /** What answers them, once all is kept; undefined: nothing was. */
  private async together(jobs: readonly Job<unknown>[]): Promise<(() => void) | undefined> {
    const answers: (() => void)[] = []
    try {
      await this.mustBeThere()
      await this.writer.query('BEGIN IMMEDIATE')
      for (const { work, resolve, reject } of jobs) {
        await this.writer.query('SAVEPOINT one')
        try {
          const result = await work(this.writer)
          answers.push(() => resolve(result))
        } catch (error) {
          await this.writer.query('ROLLBACK TO one')
          answers.push(() => reject(error))
        }
        await this.writer.query('RELEASE one')
      }
      await this.writer.query('COMMIT')
      this.writes++
      await this.mustBeThere()
    } catch (error) {
      await this.writer.query('ROLLBACK').catch(() => undefined)
      // Who would ask again would wait as long again, each of them.
      return codeOf(error) === 'SQLITE_BUSY' ? () => jobs.forEach((job) => job.reject(error)) : undefined
    }
    return () => answers.forEach((answer) => answer())
  }

  /** A copy of all that is stored, by the database’s own means. Half a copy doesn’t stay under its name. */
  copyTo(name: string): Promise<void> {
    return this.next(async () => {
      await this.mustBeThere()
      await copyInto(this.writer, name)
    })
  }

  /** A copy, and then a write, with nothing written between the two: what the write does away with is in the copy. */
  copyThenWrite<T>(name: string, work: (db: Sequelize) => Promise<T>): Promise<T> {
    return this.next(async () => {
      await this.mustBeThere()
      await copyInto(this.writer, name)
      return new Promise<T>((resolve, reject) => void this.alone({ work, resolve, reject } as Job<unknown>))
    })
  }

  /** The file that was opened: in its place, with what this program wrote; or with something else in it; or gone. */
  private where(): 'there' | 'overwritten' | 'gone' {
    const now = markOf(fileIn(this.folder))
    if (now?.inode !== this.opened.inode) return 'gone'
    const { content } = this.opened
    return content === undefined || now.content === content ? 'there' : 'overwritten'
  }
  /** Throws FileGone, once what was in the file is kept beside where it was, if that can be. */
  async mustBeThere(): Promise<void> {
    // Once it was not, what lies there again may be without its log.
    if (!this.rescued && this.where() === 'there') return
    this.rescued ??= this.rescue()
    const kept = await this.rescued
    throw new FileGone(
      `The data file was deleted, replaced or written by another program while this one ran, and nothing more is kept. ${kept ? `What was in it is in ${kept}.` : 'Of what was in it there are the copies.'} Stop the program and start it again`,
    )
  }
  private async rescue(): Promise<string | undefined> {
    if (this.where() === 'overwritten') return this.setLogAside()
    try {
      const name = freeName(`${fileIn(this.folder)}.rescued`)
      await copyInto(this.writer, name)
      return basename(name)
    } catch {
      return undefined
    }
  }

  /** The log is of what the file was: closing, or the next start, would write it into what stands there now. */
  private setLogAside(): undefined {
    const log = `${fileIn(this.folder)}-wal`
    if (sizeOf(log) === 0) return
    try {
      copyFileSync(log, freeName(`${fileIn(this.folder)}.rescued-wal`))
      truncateSync(log)
    } catch {
      // Without room for it the log stays, which is all that is left of what was saved last.
    }
  }

  async close(): Promise<void> {
    await this.last
    if (this.where() === 'overwritten') this.setLogAside()
    await this.reader.close()
    await this.writer.close()
  }
}

export const fileIn = (data: string): string => join(data, 'root-board.sqlite')

const openFile = async (data: string): Promise<Sequelize> => {
  const file = fileIn(data)
  let db: Sequelize | undefined
  try {
    // Looked at twice: what another program is writing may look damaged for a moment.
    const damage = existsSync(file) && (await damageIn(file)) ? await damageIn(file) : undefined
    if (damage !== undefined) throw new StartFailure(await explainDamage(file, damage))
    mkdirSync(data, { recursive: true })
    db = await connect(file)
    await db.query('PRAGMA journal_mode = WAL')
    await db.query('PRAGMA synchronous = FULL')
    await db.query('PRAGMA wal_autocheckpoint = 0')
    await db.query('CREATE TABLE IF NOT EXISTS writable_probe (n INTEGER)')
    await db.query('DROP TABLE writable_probe')
    return db
  } catch (error) {
    await db?.close()
    throw error instanceof StartFailure ? error : new StartFailure(whyNot(data, error))
  }
}
const whyNot = (data: string, error: unknown): string => {
  if (codeOf(error) === 'SQLITE_BUSY')
    return `Another program has the data file in ${data}; stop it, or set ROOT_BOARD_DATA to another folder.`
  if (codeOf(error) === 'SQLITE_FULL' || codeOf(error) === 'ENOSPC')
    return `The disk of the data folder ${data} is full; make room on it, or set ROOT_BOARD_DATA to another folder.`
  return `The data folder ${data} can’t be written: ${(error as Error).message}. Give this user the right to, or set ROOT_BOARD_DATA to another folder.`
}

const openReader = async (data: string): Promise<Sequelize> => {
  const db = await connect(fileIn(data))
  await db.query('PRAGMA query_only = ON')
  return db
}

/** Opens and migrates; `from` names the copy to go on from where the file is damaged, and `say` hears whether that was done. Throws StartFailure in one sentence. */
export const openDatabase = async (
  data: string,
  from?: string,
  say: (words: string) => void = () => undefined,
): Promise<Database> => {
  if (from !== undefined) {
    const needed = await goOnFrom(fileIn(data), from).catch((error: unknown) => {
      throw error instanceof StartFailure ? error : new StartFailure(whyNot(data, error))
    })
    say(
      needed
        ? `The data file was damaged and is kept; what is stored is that of the copy ${from} now. Start without ROOT_BOARD_FROM from now on.`
        : `The data file is whole, so ROOT_BOARD_FROM=${from} changed nothing; a copy is brought back from the page, under “copies”.`,
    )
  }
  const writer = await openFile(data)
  sweep(data)
  try {
    return await broughtUpToDate(data, writer)
  } catch (error) {
    await writer.close()
    if (error instanceof StartFailure) throw error
    throw new StartFailure(whyNot(data, error))
  }
}

const broughtUpToDate = async (data: string, writer: Sequelize): Promise<Database> => {
  await writer.query('CREATE TABLE IF NOT EXISTS SequelizeMeta (name VARCHAR(255) PRIMARY KEY)')
  const executed = (
    await writer.query<{ name: string }>('SELECT name FROM SequelizeMeta ORDER BY name', {
      type: QueryTypes.SELECT,
    })
  ).map((row) => row.name)
  const known = new Set(migrations.map((m) => m.name))
  const newer = executed.filter((name) => !known.has(name))
  if (newer.length > 0)
    throw new StartFailure(
      `The database in ${data} was written by a newer version of Root Board (it knows “${newer[0]}”); start that version, or set ROOT_BOARD_DATA to another folder.`,
    )
  const pending = migrations.filter((m) => !executed.includes(m.name))
  const database = new Database(data, writer, await openReader(data))
  try {
    if (pending.length > 0 && executed.length > 0)
      await database.copyTo(freeName(`${fileIn(data)}.before-${pending[0]!.name}`))
    // Each step and its mark are one: whatever stops the program, it is done or not begun.
    for (const { name, up } of pending)
      await database.write(async (db) => {
        await up({ context: db.getQueryInterface() })
        await db.query('INSERT INTO SequelizeMeta (name) VALUES (:name)', { replacements: { name } })
      })
  } catch (error) {
    await database.reader.close()
    throw new StartFailure(
      `The database in ${data} can’t be brought up to date: ${(error as Error).message}. It is as it was.`,
    )
  }
  return database
}

export const integrity = async ({ reader }: Database): Promise<string> => {
  const rows = await reader.query<{ integrity_check: string }>('PRAGMA integrity_check', {
    type: QueryTypes.SELECT,
  })
  return rows[0]!.integrity_check
}
