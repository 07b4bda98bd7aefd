// Builds page and server when their sources have changed.

import { must, onceFor } from './run.mjs'

export const ensureBuilt = async () => {
  await onceFor('page', ['web', 'core/src', 'package-lock.json'], 'web/dist/index.html', async () => {
    console.log('Building the page …')
    await must('Building the page', 'vite', ['build', '--logLevel', 'warn', 'web'])
  })
  await onceFor('server', ['server', 'core/src', 'package-lock.json'], 'server/dist/main.js', async () => {
    console.log('Building the server …')
    await must('Building the server', 'esbuild', [
      'server/src/main.ts',
      '--bundle',
      '--platform=node',
      '--target=node20',
      '--format=esm',
      '--packages=external',
      '--alias:@root-board/core=./core/src',
      '--sourcemap',
      '--log-level=warning',
      '--outfile=server/dist/main.js',
    ])
  })
}
