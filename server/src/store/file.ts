// One SQLite file: a connection to it, whether it is whole, and a copy of it.

import {
  closeSync,
  existsSync,
  fsyncSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { QueryTypes, Sequelize } from 'sequelize'

/** One connection: pragmas belong to a connection. */
export const connect = async (file: string): Promise<Sequelize> => {
  const db = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    pool: { max: 1, min: 1, idle: 2 ** 30 },
    retry: { max: 0 },
  })
  await db.query('PRAGMA busy_timeout = 5000')
  return db
}

/** What is wrong with its pages and rows, in the database’s words; nothing: it is whole. */
export const damageOf = async (db: Sequelize): Promise<string | undefined> => {
  const [row] = await db.query<{ quick_check: string }>('PRAGMA quick_check(1)', { type: QueryTypes.SELECT })
  return row?.quick_check === 'ok' ? undefined : (row?.quick_check ?? 'it can’t be checked')
}

/** The database’s or the system’s word for what went wrong. */
export const codeOf = (error: unknown): string | undefined => {
  const { parent, code } = error as { parent?: { code?: string }; code?: string }
  return parent?.code ?? code
}

/** Names in a folder; where there is none, none. */
export const namesIn = (folder: string): string[] =>
  statSync(folder, { throwIfNoEntry: false })?.isDirectory() ? readdirSync(folder) : []

/** A name that no copy has yet. */
export const freeName = (wanted: string): string => {
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted}-${n}`
    if (!existsSync(name)) return name
  }
}

/** With all that is in the write-ahead log. On the disk before it has its name. */
export const copyInto = async (db: Sequelize, name: string): Promise<void> => {
  const unfinished = `${name}.unfinished`
  rmSync(unfinished, { force: true })
  try {
    await db.query('VACUUM INTO :unfinished', { replacements: { unfinished } })
    settle(unfinished)
    renameSync(unfinished, name)
  } catch (error) {
    rmSync(unfinished, { force: true })
    throw error
  }
}
/** Waits until what was written is on the disk. */
export const settle = (file: string): void => {
  const handle = openSync(file, 'r+')
  try {
    fsyncSync(handle)
  } finally {
    closeSync(handle)
  }
}
