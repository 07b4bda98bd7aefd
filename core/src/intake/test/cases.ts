// Tables written for the tests, each with what must be understood, field by field: from files written by hand, and one
// made-up chip written down in many shapes.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Answers, TableOptions, Understood } from '..'
import type { ExpectedLeg, TableCase } from './expected'
import { shapes } from './shapes'

const pairs = (text = ''): [string, string][] =>
  text
    .split('\n')
    .filter((l) => l !== '')
    .map((l) => {
      const at = l.indexOf(' ')
      return [l.slice(0, at), l.slice(at + 1)]
    })

const fromFile = (folder: string, file: string): TableCase => {
  const parts = new Map(
    readFileSync(join(folder, file), 'utf8')
      .split(/^=== /m)
      .slice(1)
      .map((p) => [p.slice(0, p.indexOf('\n')), p.slice(p.indexOf('\n') + 1).replace(/\n$/, '')] as const),
  )
  return {
    name: file.replace('.txt', ''),
    text: parts.get('table')!,
    options: {},
    expected: parts
      .get('expected')!
      .split('\n')
      .map((line) => {
        const [legs, id, type, ...functions] = line.split(' ')
        return { legs: legs!.split(',').map(Number), id: id!, type: type!, functions }
      }),
    answers: Object.fromEntries(pairs(parts.get('answers'))),
    marked: pairs(parts.get('marked')),
    units: pairs(parts.get('units')),
    faults: parts.get('faults')?.split('\n'),
  }
}

/** `folder` is core/src/intake/test/tables. */
export const tableCases = (folder: string): TableCase[] => [
  ...readdirSync(folder)
    .sort()
    .map((f) => fromFile(folder, f)),
  ...shapes(),
]

export const printed = (understood: Understood): ExpectedLeg[] =>
  understood.legs.map(({ id, legs, type, functions }) => ({
    id,
    legs,
    type,
    functions: functions.map((f) => `${f.unit}.${f.signal}${f.select === undefined ? '' : `@${f.select}`}`),
  }))

/** Right and asked for: legs by id with numbers and type, and functions of the right kind. */
export const scoreOf = (one: TableCase, understood: Understood): { right: number; all: number } => {
  const found = new Map(printed(understood).map((l) => [`${l.id} ${[...l.legs].sort().join()}`, l]))
  const kinds = new Map(understood.units.map((u) => [u.id, u.kind as string]))
  const wanted = new Map(one.units)
  let right = 0
  let all = 0
  for (const leg of one.expected) {
    const mine = found.get(`${leg.id} ${[...leg.legs].sort().join()}`)
    all += 1 + leg.functions.length
    if (mine?.type === leg.type) right++
    for (const f of leg.functions) {
      const unit = f.split('.')[0]!
      const kindRight = !wanted.has(unit) || wanted.get(unit) === kinds.get(unit)
      if (mine?.functions.includes(f) && kindRight) right++
    }
    // What was read and isn't there counts against it.
    right -= Math.max(0, (mine?.functions.length ?? 0) - leg.functions.length)
  }
  return { right: Math.max(0, right), all }
}

/** Reads with up to `questions` answered: each time the one that is asked first. */
export const readAsking = (
  one: TableCase,
  questions: number,
  read: (text: string, options: TableOptions) => Understood,
): Understood => {
  let answers: Answers = {}
  let understood = read(one.text, one.options)
  for (let n = 0; n < questions; n++) {
    const [first] = understood.questions
    if (!first) break
    answers = { ...answers, [first.id]: one.answers[first.id] ?? first.guess ?? '' }
    understood = read(one.text, { ...one.options, answers })
  }
  return understood
}
