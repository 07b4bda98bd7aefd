// Writes the table of every formula into docs/formulas.md. A test holds the document to it.

import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')
// The helpers are made for Jest, where each module knows its folder.
Object.assign(globalThis, { __dirname: join(root, 'core', 'test') })
const { begin, formulaTable } = await import('../core/test/formula-table')

const file = join(root, 'docs', 'formulas.md')
const text = readFileSync(file, 'utf8').split(begin)[0]!
writeFileSync(file, `${text.trimEnd()}\n\n${begin}\n\n${formulaTable()}\n`)
