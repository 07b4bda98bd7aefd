// npm run build

import { ensureBuilt } from './lib/build.mjs'
import { ensureInstalled } from './lib/install.mjs'

await ensureInstalled()
await ensureBuilt()
