// npm run bench [-- PART …]: bench.ts put together as the page’s worker is, and run: what is measured is what is shipped.

import { join } from 'node:path'
import { ensureInstalled } from '../lib/install.mjs'
import { must, root, run } from '../lib/run.mjs'

await ensureInstalled()
const outfile = join(root, '.cache', 'bench.mjs')
await must('Building the benchmark', 'esbuild', [
  'scripts/bench/bench.ts',
  '--bundle',
  '--platform=node',
  '--target=node20',
  '--format=esm',
  '--packages=external',
  '--alias:@root-board/core=./core/src',
  '--log-level=warning',
  `--outfile=${outfile}`,
])
process.exit(await run('node', [outfile, ...process.argv.slice(2)]))
