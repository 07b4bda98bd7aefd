// The program: start, say where, stop cleanly.

import { join, sep } from 'node:path'
import { fileURLToPath } from 'node:url'
import { readConfig, StartFailure } from './config'
import { startServer } from './start'

// Built to server/dist/main.js, developed in server/src/main.ts: the project is two folders up from either.
const here = fileURLToPath(new URL('.', import.meta.url))
const root = process.env.ROOT_BOARD_ROOT ?? join(here, '..', '..')
const thread = here.includes(`${sep}dist${sep}`)
  ? join(here, 'thread.js')
  : join(here, 'analysis', 'thread.ts')

try {
  const running = await startServer(readConfig(process.env, root, thread))
  const stop = () => {
    void running.stop().then(() => process.exit(0))
  }
  process.once('SIGTERM', stop)
  process.once('SIGINT', stop)
  // Only now: whoever reads the address may already want it to stop.
  console.log(`Root Board is at ${running.address}`)
} catch (error) {
  console.error(error instanceof StartFailure ? error.message : error)
  process.exit(1)
}
