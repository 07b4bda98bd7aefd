// npm run analyse -- FILE [--text] [--seconds N]: the same analysis as in the page, without a browser, with the fixes of
// each finding tried. N seconds for the plan, and for the fixes of each finding.

import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { fileURLToPath } from 'node:url'
import { analyse, offersFor } from '@root-board/core/analysis'
import { textReport } from '@root-board/core/formats'
import { libraryFor } from '@root-board/core/design'
import { FaultyFile, makeLibrary } from '@root-board/core/parts'
import { readDesignFile, readLibraryFolder } from '../files'
import { seconds } from '../patience'

const root = join(fileURLToPath(new URL('.', import.meta.url)), '..', '..', '..')
const { values, positionals } = (() => {
  try {
    return parseArgs({
      allowPositionals: true,
      options: { text: { type: 'boolean' }, seconds: { type: 'string', default: '10' } },
    })
  } catch {
    return { values: { seconds: '' }, positionals: [] }
  }
})()
const [file] = positionals
const time = Number(values.seconds)

if (!file || positionals.length > 1 || !(time > 0)) {
  console.error('Usage: npm run analyse -- FILE [--text] [--seconds N]')
  process.exit(2)
}
try {
  const design = readDesignFile(file)
  const library = libraryFor(design, makeLibrary(readLibraryFolder(root)))
  const analysis = analyse(design, library, seconds(time))
  const helps = new Map(analysis.findings.map((f) => [f.id, offersFor(analysis, library, f, seconds(time))]))
  const findings = analysis.findings.map((f) => ({ ...f, fixes: undefined, ...helps.get(f.id) }))
  process.stdout.write(
    'text' in values && values.text
      ? textReport(analysis, helps)
      : `${JSON.stringify({ ...analysis, findings }, null, 2)}\n`,
  )
} catch (error) {
  if (!(error instanceof FaultyFile)) throw error
  for (const fault of error.faults) console.error(`${error.file}: ${fault.path || 'file'}: ${fault.message}`)
  process.exit(1)
}
