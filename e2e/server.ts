// One built server for each test file, on a port and a folder of its own.

import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base } from '@playwright/test'

const root = join(import.meta.dirname, '..')

export interface Server {
  url: string
  data: string
  stop: () => Promise<void>
}

export const startServer = (data: string, port = 0): Promise<Server> =>
  new Promise((resolve, reject) => {
    const child: ChildProcess = spawn(process.execPath, [join(root, 'server', 'dist', 'main.js')], {
      env: { ...process.env, PORT: String(port), HOST: '', ROOT_BOARD_DATA: data, ROOT_BOARD_ROOT: root },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    const ended = new Promise<void>((done) => child.once('close', () => done()))
    let output = ''
    child.stdout!.on('data', (chunk: Buffer) => {
      output += String(chunk)
      const url = /Root Board is at (\S+)/.exec(output)?.[1]
      if (url)
        resolve({
          url,
          data,
          stop: async () => {
            child.kill('SIGKILL')
            await ended
          },
        })
    })
    void ended.then(() => reject(new Error(`the server ended: ${output}`)))
  })

export const test = base.extend<{ trouble: string[] }, { server: Server }>({
  server: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const server = await startServer(mkdtempSync(join(tmpdir(), 'root-board-e2e-')))
      await use(server)
      await server.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  /** Whatever the page complains about; must be empty at the end of a test. */
  trouble: [
    async ({ page }, use) => {
      const trouble: string[] = []
      page.on('pageerror', (error) => trouble.push(error.message))
      page.on('console', (message) => {
        if (
          message.type() === 'error' &&
          !/Failed to load resource|ERR_CONNECTION|412|422/.test(message.text())
        )
          trouble.push(message.text())
      })
      await use(trouble)
      base.expect(trouble).toEqual([])
    },
    { auto: true },
  ],
})
export { expect } from '@playwright/test'
