// A data folder, a server on it that may be ended at a call of the system, and what must hold when it is started again.

import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bundleServer } from '../lib/build.mjs'
import { migrations } from '../../server/src/store/migrations'
import { integrity, openDatabase } from '../../server/src/store/database'

export const root = join(import.meta.dirname, '..', '..')
const built = join(root, 'node_modules', '.cache', 'torture')
const shim = join(built, 'shim.so')

/** Builds the server and what stands between it and the system. False: there is no C compiler here. */
export const build = async (): Promise<boolean> => {
  mkdirSync(built, { recursive: true })
  await bundleServer(join(built, 'dist'))
  try {
    execFileSync(
      'cc',
      ['-shared', '-fPIC', '-O1', '-o', shim, join(root, 'scripts/torture/shim.c'), '-ldl', '-lpthread'],
      {
        stdio: 'ignore',
      },
    )
    return true
  } catch {
    return false
  }
}

export interface End {
  /** The number of the call at which it ends. */
  at?: number
  how?: 'before' | 'after' | 'half'
  /** Bytes until the disk is full. */
  room?: number
}
export interface Run {
  child: ChildProcess
  /** Undefined: it ended before it could be asked. */
  url: string | undefined
  output: () => string
  ended: Promise<number | null>
  /** Calls that were counted so far. */
  calls: () => number
}

/** Starts a server on a folder; resolves when it can be asked, or has ended. */
export const start = (
  data: string,
  end?: End,
  env: Record<string, string> = {},
  uid?: number,
): Promise<Run> => {
  const log = join(built, `calls-${process.pid}`)
  rmSync(log, { force: true })
  const child = spawn(process.execPath, [join(built, 'dist', 'main.js')], {
    cwd: built,
    uid,
    env: {
      ...process.env,
      PORT: '0',
      HOST: '',
      LOG_LEVEL: 'silent',
      ROOT_BOARD_ROOT: root,
      ROOT_BOARD_DATA: data,
      ...(end && {
        LD_PRELOAD: shim,
        TORTURE_FOLDER: data,
        TORTURE_AT: String(end.at ?? 0),
        TORTURE_HOW: end.how ?? 'before',
        TORTURE_ROOM: String(end.room ?? -1),
        TORTURE_LOG: log,
      }),
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let output = ''
  const ended = new Promise<number | null>((resolve) => child.on('close', resolve))
  return new Promise((resolve) => {
    const run = (url: string | undefined): Run => ({
      child,
      url,
      ended,
      output: () => output,
      calls: () => (existsSync(log) ? Number(readFileSync(log, 'utf8')) : 0),
    })
    const see = (chunk: Buffer) => {
      output += String(chunk)
      const url = /Root Board is at (\S+)/.exec(output)?.[1]
      if (url) resolve(run(url))
    }
    child.stdout.on('data', see)
    child.stderr.on('data', see)
    void ended.then(() => resolve(run(undefined)))
  })
}
export const kill = async (run: Run): Promise<void> => {
  run.child.kill('SIGKILL')
  await run.ended
}

export const folder = (): string => mkdtempSync(join(tmpdir(), 'root-board-torture-'))
export const copyOf = (template: string): string => {
  const made = folder()
  cpSync(template, made, { recursive: true })
  return made
}

export interface Answer<T> {
  status: number
  body: T
}
/** Asks; undefined: nothing was answered. */
export const ask = async <T = unknown>(
  url: string | undefined,
  method: string,
  path: string,
  body?: unknown,
  version?: number,
): Promise<Answer<T> | undefined> => {
  if (!url) return undefined
  try {
    const answer = await fetch(`${url}/api${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
    const text = await answer.text()
    return { status: answer.status, body: (text ? JSON.parse(text) : undefined) as T }
  } catch {
    return undefined
  }
}

/** A folder as the first version of the tables had it, with one project of one's own and one part. */
export const oldFolder = async (project: object, part: { id: string }): Promise<string> => {
  const made = folder()
  const later = migrations.splice(1)
  try {
    const db = await openDatabase(made)
    await db.write(async (w) => {
      await w.query(
        `INSERT INTO projects (id, design, version, sample, changedAt) VALUES ('old', :design, 3, 0, '2026-01-01T00:00:00Z')`,
        { replacements: { design: JSON.stringify(project) } },
      )
      await w.query(`INSERT INTO parts (id, part, changedAt) VALUES (:id, :part, '2026-01-01T00:00:00Z')`, {
        replacements: { id: part.id, part: JSON.stringify(part) },
      })
      await w.query(`INSERT INTO marks (name, value) VALUES ('samples', 'added')`)
    })
    await db.close()
  } finally {
    migrations.push(...later)
  }
  return made
}

export interface Line {
  id: string
  name: string
  sample: boolean
  damaged?: true
}
/** What every folder must be like once it was started again, whatever happened: what is wrong with it, in words. */
export const faultsOf = async (data: string, run: Run, samples: number): Promise<string[]> => {
  if (!run.url) return [`unstartable: ${run.output().split('\n')[0]}`]
  const faults: string[] = []
  const lines = (await ask<Line[]>(run.url, 'GET', '/projects'))?.body ?? []
  const shipped = lines.filter((l) => l.sample).map((l) => l.name)
  if (new Set(shipped).size !== shipped.length) faults.push(`doubled: ${shipped.join(', ')}`)
  if (shipped.length !== samples) faults.push(`lost: ${shipped.length} of ${samples} samples`)
  if (lines.some((l) => l.damaged)) faults.push('damaged: a row')
  run.child.kill('SIGTERM')
  await run.ended
  const db = await openDatabase(data)
  const whole = await integrity(db)
  if (whole !== 'ok') faults.push(`damaged: ${whole}`)
  await db.close()
  const left = readdirSync(data, { recursive: true, encoding: 'utf8' }).filter((f) =>
    /\.(unfinished|coming)(-journal)?$/.test(f),
  )
  if (left.length > 0) faults.push(`left over: ${left.join(', ')}`)
  return faults
}
