// The browser for the tests: Debian's Chromium, installed when it is missing and we may.

import { existsSync } from 'node:fs'
import { run } from './run.mjs'

export const ensureChromium = async () => {
  if (existsSync('/usr/bin/chromium')) return true
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium for the browser tests …')
    const quiet = { env: { DEBIAN_FRONTEND: 'noninteractive' } }
    await run('apt-get', ['update', '-qq'], quiet)
    await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
      ...quiet,
      quiet: true,
    })
  }
  if (existsSync('/usr/bin/chromium')) return true
  console.error(
    'The browser tests need Chromium: install Debian’s package “chromium” (apt-get install chromium).',
  )
  return false
}
