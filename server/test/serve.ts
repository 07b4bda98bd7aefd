// A whole server on a port of its own and a folder of its own, as a process that can be killed.

import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const root = join(__dirname, '..', '..')
export const thread = join(root, 'server', 'src', 'analysis', 'thread.ts')
export const freshFolder = (): string => mkdtempSync(join(tmpdir(), 'root-board-test-'))

export interface Served {
  child: ChildProcess
  url: string
  /** Resolves with the exit code and everything printed. */
  ended: Promise<{ code: number | null; output: string }>
}

/** Starts the server program; resolves when it says its address, rejects when it ends before. */
export const serve = (env: Record<string, string>): Promise<Served> => {
  const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'server', 'src', 'main.ts')], {
    cwd: root,
    env: { ...process.env, PORT: '0', HOST: '', LOG_LEVEL: 'silent', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let output = ''
  const ended = new Promise<{ code: number | null; output: string }>((resolve) =>
    child.on('close', (code) => resolve({ code, output })),
  )
  return new Promise((resolve, reject) => {
    const see = (chunk: Buffer) => {
      output += String(chunk)
      const url = /Root Board is at (\S+)/.exec(output)?.[1]
      if (url) resolve({ child, url, ended })
    }
    child.stdout.on('data', see)
    child.stderr.on('data', see)
    void ended.then((end) => reject(Object.assign(new Error(end.output), end)))
  })
}
