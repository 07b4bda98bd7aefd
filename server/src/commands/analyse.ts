// npm run analyse -- FILE [--text]: the same analysis as in the page, without a browser.

import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { analyse } from '@root-board/core/analysis'
import { textReport } from '@root-board/core/formats'
import { libraryFor } from '@root-board/core/design'
import { FaultyFile, makeLibrary } from '@root-board/core/parts'
import { readDesignFile, readLibraryFolder } from '../files'

const root = join(fileURLToPath(new URL('.', import.meta.url)), '..', '..', '..')
const args = process.argv.slice(2)
const file = args.find((a) => !a.startsWith('--'))

if (!file || args.some((a) => a.startsWith('--') && a !== '--text')) {
  console.error('Usage: npm run analyse -- FILE [--text]')
  process.exit(2)
}
try {
  const design = readDesignFile(file)
  const analysis = analyse(design, libraryFor(design, makeLibrary(readLibraryFolder(root))))
  process.stdout.write(
    args.includes('--text') ? textReport(analysis) : `${JSON.stringify(analysis, null, 2)}\n`,
  )
} catch (error) {
  if (!(error instanceof FaultyFile)) throw error
  for (const fault of error.faults) console.error(`${error.file}: ${fault.path || 'file'}: ${fault.message}`)
  process.exit(1)
}
