// Builds page and server when their sources have changed.

import { must, onceFor } from './run.mjs'

/** One file of a program and all of the core that it uses; packages stay outside. */
export const bundle = (what, from, to, ...more) =>
  must(`Building ${what}`, 'esbuild', [
    from,
    '--bundle',
    '--platform=node',
    '--target=node20',
    '--format=esm',
    '--packages=external',
    '--alias:@root-board/core=./core/src',
    '--log-level=warning',
    `--outfile=${to}`,
    ...more,
  ])

/** The server and the thread that computes for it, side by side in a folder. */
export const bundleServer = async (folder) => {
  await bundle('the server', 'server/src/main.ts', `${folder}/main.js`, '--sourcemap')
  await bundle(
    'the thread that computes',
    'server/src/analysis/thread.ts',
    `${folder}/thread.js`,
    '--sourcemap',
  )
}

export const ensureBuilt = async () => {
  await onceFor('page', ['web', 'core/src', 'package-lock.json'], 'web/dist/index.html', async () => {
    console.log('Building the page …')
    await must('Building the page', 'vite', ['build', '--logLevel', 'warn', 'web'])
  })
  await onceFor('server', ['server', 'core/src', 'package-lock.json'], 'server/dist/main.js', async () => {
    console.log('Building the server …')
    await bundleServer('server/dist')
  })
}
