// npm run shots: takes the pictures in docs/screenshots/ again, from the demo data, at 1280 × 800.

import { ensureBuilt } from './lib/build.mjs'
import { ensureChromium } from './lib/chromium.mjs'
import { ensureInstalled } from './lib/install.mjs'
import { run } from './lib/run.mjs'

await ensureInstalled()
await ensureBuilt()
if (!(await ensureChromium())) process.exit(1)
process.exit(await run('tsx', ['scripts/shots.ts']))
