// npm start: install what is missing, build what changed, serve.

import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ensureBuilt } from './lib/build.mjs'
import { ensureInstalled } from './lib/install.mjs'
import { root } from './lib/run.mjs'

await ensureInstalled()
await ensureBuilt()
process.env.ROOT_BOARD_ROOT ??= root
await import(pathToFileURL(join(root, 'server', 'dist', 'main.js')).href)
