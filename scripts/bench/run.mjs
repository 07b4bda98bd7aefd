// npm run bench [-- PART …]: bench.ts put together as the page’s worker is, and run: what is measured is what is shipped.

import { bundle } from '../lib/build.mjs'
import { ensureInstalled } from '../lib/install.mjs'
import { run } from '../lib/run.mjs'

await ensureInstalled()
const outfile = '.cache/bench.mjs'
await bundle('the benchmark', 'scripts/bench/bench.ts', outfile)
process.exit(await run('node', [outfile, ...process.argv.slice(2)]))
