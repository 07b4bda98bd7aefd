// Opening the SQLite file: write-ahead log with full synchronisation, so that an answered save survives a power cut;
// a copy of the file before migrations change it.

import { copyFileSync, existsSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { QueryTypes, Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { StartFailure } from '../config'
import { migrations } from './migrations'

const fileIn = (data: string) => join(data, 'root-board.sqlite')

const openFile = async (data: string): Promise<Sequelize> => {
  try {
    mkdirSync(data, { recursive: true })
    const db = new Sequelize({
      dialect: 'sqlite',
      storage: fileIn(data),
      logging: false,
      // One connection: SQLite has one writer, and the pragmas below belong to a connection.
      pool: { max: 1, min: 1, idle: 2 ** 30 },
      retry: { max: 0 },
    })
    await db.query('PRAGMA journal_mode = WAL')
    await db.query('PRAGMA synchronous = FULL')
    await db.query('PRAGMA busy_timeout = 5000')
    await db.query('CREATE TABLE IF NOT EXISTS writable_probe (n INTEGER)')
    await db.query('DROP TABLE writable_probe')
    return db
  } catch (error) {
    throw new StartFailure(`The data folder ${data} can’t be written: ${(error as Error).message}`)
  }
}

/** Opens and migrates. Throws StartFailure in one sentence. */
export const openDatabase = async (data: string): Promise<Sequelize> => {
  const fresh = !existsSync(fileIn(data))
  const db = await openFile(data)
  const storage = new SequelizeStorage({ sequelize: db })
  const umzug = new Umzug({
    migrations,
    context: db.getQueryInterface(),
    storage,
    logger: undefined,
  })
  // Asked of the storage: umzug itself forgets the steps it doesn't know.
  const executed = await storage.executed()
  const known = new Set(migrations.map((m) => m.name))
  const newer = executed.filter((name) => !known.has(name))
  if (newer.length > 0) {
    await db.close()
    throw new StartFailure(
      `The database in ${data} was written by a newer version of Root Board (it knows “${newer[0]}”); start that version, or set ROOT_BOARD_DATA to another folder.`,
    )
  }
  const pending = await umzug.pending()
  if (pending.length > 0 && !fresh && executed.length > 0) {
    await db.query('PRAGMA wal_checkpoint(TRUNCATE)')
    copyFileSync(fileIn(data), `${fileIn(data)}.before-${pending[0]!.name}`)
  }
  await umzug.up()
  return db
}

export const integrity = async (db: Sequelize): Promise<string> => {
  const rows = await db.query<{ integrity_check: string }>('PRAGMA integrity_check', {
    type: QueryTypes.SELECT,
  })
  return rows[0]!.integrity_check
}
