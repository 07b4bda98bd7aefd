// Installs the packages when they are missing or the lock file has changed.

import { must, onceFor } from './run.mjs'

export const ensureInstalled = () =>
  onceFor(
    'installed',
    ['package.json', 'package-lock.json', 'core/package.json', 'server/package.json', 'web/package.json'],
    'node_modules/sqlite3/build/Release/node_sqlite3.node',
    async () => {
      console.error(
        'Installing packages. The database module sqlite3 is compiled on this machine: about three minutes.',
      )
      const began = Date.now()
      const pulse = setInterval(
        () =>
          console.error(`  … still compiling and installing (${Math.round((Date.now() - began) / 1000)} s)`),
        20_000,
      )
      await must(
        'Installing packages',
        'npm',
        ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'],
        { toStderr: true },
      )
      clearInterval(pulse)
      console.error(`Packages are installed (${Math.round((Date.now() - began) / 1000)} s).`)
    },
  )
