// A data file that is damaged: said at the start, with the newest copy that is whole; and going on from that one.

import { copyFileSync, existsSync, renameSync, rmSync, statSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { basename, dirname, join } from 'node:path'
import { StartFailure } from '../config'
import { codeOf, connect, damageOf, freeName, namesIn, settle } from './file'

export const copiesIn = (data: string): string => join(data, 'copies')

/** Copies that were never finished, since the program was ended in the middle: nobody could tell them from whole ones. */
export const sweep = (data: string): void => {
  for (const folder of [data, copiesIn(data)])
    for (const name of namesIn(folder))
      if (/\.(unfinished|coming)(-journal)?$/.test(name)) rmSync(join(folder, name), { force: true })
}

/** Every copy there is, whoever made it, the newest first. */
const copiesBeside = (file: string): string[] => {
  const folder = dirname(file)
  const beside = namesIn(folder)
    .filter((f) => f.startsWith(`${basename(file)}.before-`) && !f.endsWith('.unfinished'))
    .map((f) => join(folder, f))
  const kept = namesIn(copiesIn(folder))
    .filter((f) => f.endsWith('.sqlite'))
    .map((f) => join(copiesIn(folder), f))
  return [...beside, ...kept].sort((a, b) => statSync(b).mtimeMs - statSync(a).mtimeMs)
}

/**
 * What is wrong with the file, if anything. It is looked at in a copy: closing a file writes what its log has into it, and
 * of a damaged one every byte is kept as it was found. Throws what keeps it from being looked at.
 */
export const damageIn = async (file: string): Promise<string | undefined> => {
  const folder = await mkdtemp(join(tmpdir(), 'root-board-check-'))
  const copy = join(folder, 'copy.sqlite')
  try {
    for (const end of ['', '-wal']) if (existsSync(file + end)) copyFileSync(file + end, copy + end)
    const db = await connect(copy)
    try {
      return await damageOf(db)
    } finally {
      await db.close()
    }
  } catch (error) {
    if (['SQLITE_NOTADB', 'SQLITE_CORRUPT'].includes(codeOf(error) ?? '')) return (error as Error).message
    throw error
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** One sentence that says what to do. */
export const explainDamage = async (file: string, damage: string | undefined): Promise<string> => {
  const said = `The data file ${file} is damaged (${(damage ?? 'it can’t be read').split('\n')[0]}), and nothing was changed`
  for (const copy of copiesBeside(file)) {
    if ((await damageIn(copy).catch(() => 'unknown')) !== undefined) continue
    const made = statSync(copy).mtime.toISOString().slice(0, 16).replace('T', ' ')
    return `${said}; the newest copy that is whole is of ${made} UTC: start with ROOT_BOARD_FROM=${basename(copy)} to go on from it, and the damaged file is kept.`
  }
  return `${said}; there is no copy of it that is whole: set ROOT_BOARD_DATA to another folder to begin anew, or put a file of your own in its place.`
}

/**
 * Puts a copy in the place of a damaged file, which is kept under another name. Where the file is whole nothing is done:
 * then a copy is brought back from the page, which shows first what would change. Whether it was needed. Throws
 * StartFailure.
 */
export const goOnFrom = async (file: string, copy: string): Promise<boolean> => {
  if (existsSync(file) && (await damageIn(file)) === undefined) return false
  const from = copiesBeside(file).find((f) => basename(f) === basename(copy))
  if (!from) throw new StartFailure(`There is no copy “${copy}” in ${dirname(file)}.`)
  const damage = await damageIn(from)
  if (damage !== undefined) throw new StartFailure(`The copy “${copy}” is damaged too (${damage}).`)
  const coming = `${file}.coming`
  copyFileSync(from, coming)
  settle(coming)
  if (existsSync(file)) {
    const kept = freeName(`${file}.damaged`)
    for (const end of ['', '-wal']) if (existsSync(file + end)) copyFileSync(file + end, kept + end)
  }
  // A log of the damaged file must not be read into the copy.
  for (const end of ['-wal', '-shm']) rmSync(file + end, { force: true })
  renameSync(coming, file)
  return true
}
