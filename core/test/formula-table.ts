// Every formula that a number of the demos or of some fixed random projects is made by, once each, for docs/formulas.md.

import { join } from 'node:path'
import { analyse } from '../src/analysis'
import { readDesign } from '../src/design'
import type { Worked } from '../src/findings'
import { demo, shippedLibrary } from './files'
import { numbersIn } from './numbers'
import { shelf } from './referee/files'
import { randomProject } from './referee/projects'

export const demos = ['darkroom-timer', 'hive-scale', 'signal-cabin', 'window-lantern', 'coop-door']
export const begin = '<!-- every formula: npx tsx scripts/formulas.ts -->'

/** Members of a list, alike but for their numbers, as the first two and “…”. */
const shortened = (formula: string): string => {
  const terms = formula.split(' + ')
  const alike = new Set(terms.map((t) => t.replace(/[\d.]+/g, '#')))
  return terms.length > 2 && alike.size < terms.length - 1
    ? `${[...new Set(terms.map((t) => t.replace(/([A-Za-zΔ_])\d+(,\d+)?/g, '$1n').replace(/^\d+ · (€|A_)/, 'n · $1')))].join(' + ')} + …`
    : formula
}

export const formulaTable = (): string => {
  const library = shippedLibrary()
  const files = shelf(join(__dirname, '..', '..'))
  const random = Array.from({ length: 40 }, (_, n) => {
    const project = randomProject(files, 4100 + n, { signals: [3, 20] }) as { power: object }
    const source = ['adapter-9v', 'usb-port', 'cells-3-aa', 'adapter-5v'][n % 4]
    const regulator = ['bl5-low', 'bl33-low', undefined][n % 3]
    return readDesign({ ...project, power: { ...project.power, source, regulator } }, 'random')
  })
  const rows = new Map<string, Worked>()
  for (const design of [...demos.map((name) => demo(name)), ...random])
    for (const worked of numbersIn(analyse(design, library))) {
      const key = `| ${worked.symbol.replace('|', '\\|')} | ${shortened(worked.formula).replaceAll('|', '\\|')} | ${worked.unit || '–'} |`
      if (!rows.has(key)) rows.set(key, worked)
    }
  const label = ({ label }: Worked) => label.replace(/ (of|in|at|by|through|to|on) .*|,.*/, '')
  const lines = [...rows].map(([key, worked]) => `| ${label(worked)} ${key}`).sort()
  return ['| number | symbol | formula | unit |', '| --- | --- | --- | --- |', ...lines].join('\n')
}
