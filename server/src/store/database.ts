// Opening the SQLite file: write-ahead log with full synchronisation, so that an answered save survives a power cut.
// There is one writer, and what it does is one transaction after another; questions have a connection of their own and
// never wait for it. Before a step changes the tables, a copy of the file is made that nothing overwrites.

import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { QueryTypes, Sequelize } from 'sequelize'
import { StartFailure } from '../config'
import { migrations } from './migrations'

export class Database {
  private last: Promise<unknown> = Promise.resolve()
  constructor(
    private readonly writer: Sequelize,
    /** For questions alone: it can't write. */
    readonly reader: Sequelize,
  ) {}

  /**
   * One piece of work after another, each with the file to itself: all of what it writes is kept, or nothing. The lock is
   * taken at the beginning, so that what was read in it is still so when it writes.
   */
  write<T>(work: (db: Sequelize) => Promise<T>): Promise<T> {
    const done = this.last.then(async () => {
      await this.writer.query('BEGIN IMMEDIATE')
      try {
        const result = await work(this.writer)
        await this.writer.query('COMMIT')
        return result
      } catch (error) {
        // A full disk has ended the transaction already; there is nothing to go back from then.
        await this.writer.query('ROLLBACK').catch(() => undefined)
        throw error
      }
    })
    this.last = done.catch(() => undefined)
    return done
  }

  async close(): Promise<void> {
    await this.last
    await this.reader.close()
    await this.writer.close()
  }
}

const fileIn = (data: string) => join(data, 'root-board.sqlite')

const connect = async (file: string): Promise<Sequelize> => {
  const db = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    // One connection: the pragmas below belong to a connection.
    pool: { max: 1, min: 1, idle: 2 ** 30 },
    retry: { max: 0 },
  })
  await db.query('PRAGMA busy_timeout = 5000')
  return db
}

const openFile = async (data: string): Promise<Sequelize> => {
  try {
    mkdirSync(data, { recursive: true })
    const db = await connect(fileIn(data))
    await db.query('PRAGMA journal_mode = WAL')
    await db.query('PRAGMA synchronous = FULL')
    await db.query('CREATE TABLE IF NOT EXISTS writable_probe (n INTEGER)')
    await db.query('DROP TABLE writable_probe')
    return db
  } catch (error) {
    throw new StartFailure(`The data folder ${data} can’t be written: ${(error as Error).message}`)
  }
}
const openReader = async (data: string): Promise<Sequelize> => {
  const db = await connect(fileIn(data))
  await db.query('PRAGMA query_only = ON')
  return db
}

/** A name that no copy has yet. */
const freeName = (wanted: string): string => {
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted}-${n}`
    if (!existsSync(name)) return name
  }
}
/** A copy by the database’s own means, with all that is in the write-ahead log. Half a copy doesn’t stay under its name. */
const copyTo = async (db: Sequelize, name: string): Promise<void> => {
  const unfinished = `${name}.unfinished`
  rmSync(unfinished, { force: true })
  await db.query('VACUUM INTO :unfinished', { replacements: { unfinished } })
  renameSync(unfinished, name)
}

/** Opens and migrates. Throws StartFailure in one sentence. */
export const openDatabase = async (data: string): Promise<Database> => {
  const writer = await openFile(data)
  await writer.query('CREATE TABLE IF NOT EXISTS SequelizeMeta (name VARCHAR(255) PRIMARY KEY)')
  const executed = (
    await writer.query<{ name: string }>('SELECT name FROM SequelizeMeta ORDER BY name', {
      type: QueryTypes.SELECT,
    })
  ).map((row) => row.name)
  const known = new Set(migrations.map((m) => m.name))
  const newer = executed.filter((name) => !known.has(name))
  if (newer.length > 0) {
    await writer.close()
    throw new StartFailure(
      `The database in ${data} was written by a newer version of Root Board (it knows “${newer[0]}”); start that version, or set ROOT_BOARD_DATA to another folder.`,
    )
  }
  const pending = migrations.filter((m) => !executed.includes(m.name))
  const database = new Database(writer, await openReader(data))
  try {
    if (pending.length > 0 && executed.length > 0)
      await copyTo(writer, freeName(`${fileIn(data)}.before-${pending[0]!.name}`))
    // Each step and its mark are one: whatever stops the program, it is done or not begun.
    for (const { name, up } of pending)
      await database.write(async (db) => {
        await up({ context: db.getQueryInterface() })
        await db.query('INSERT INTO SequelizeMeta (name) VALUES (:name)', { replacements: { name } })
      })
  } catch (error) {
    await database.close()
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
