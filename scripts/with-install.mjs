// Runs a program of node_modules after making sure that there is one: with-install.mjs PROGRAM [ARG …]

import { ensureInstalled } from './lib/install.mjs'
import { run } from './lib/run.mjs'

await ensureInstalled()
const [program, ...args] = process.argv.slice(2)
process.exit(await run(program, args))
