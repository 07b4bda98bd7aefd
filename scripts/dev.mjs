// npm run dev: server and page, both reloading. The page is on its own port and asks the server through a proxy.

import { ensureInstalled } from './lib/install.mjs'
import { run } from './lib/run.mjs'

await ensureInstalled()
process.exit(
  await run('concurrently', [
    '--kill-others',
    '--names',
    'server,page',
    'tsx watch server/src/main.ts',
    'vite web --clearScreen false',
  ]),
)
