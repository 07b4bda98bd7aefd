// A working as text: the formula with its values put in, and where each came from.

import { durationWords, formatQuantity, isExact, type Range, type Unit } from '../quantity'
import type { Origin, Worked, WorkedInput } from './worked'

/** A value as a builder reads it: from an hour on in hours or days. */
export const valueText = (value: number, unit: Unit, significant = 4): string =>
  unit === 's' && Math.abs(value) >= 3600 ? durationWords(value) : formatQuantity(value, unit, significant)

/** `4.8 V … 5.2 V`, or one value where all corners are the same. */
export const rangeText = (value: Range, unit: Unit, significant = 4): string => {
  const text = (v: number) => valueText(v, unit, significant)
  if (isExact(value)) return text(value.typ)
  return value.typ > value.min && value.typ < value.max
    ? `${text(value.min)} … ${text(value.typ)} … ${text(value.max)}`
    : `${text(value.min)} … ${text(value.max)}`
}

const limitWords = {
  recommended: 'recommended',
  absolute: 'absolute maximum',
  guaranteed: 'guaranteed',
  typical: 'typical',
  condition: 'test condition',
  measured: 'measured',
  assumed: 'assumed, from no sheet',
}

export const originText = (origin: Origin): string => {
  switch (origin.kind) {
    case 'part': {
      const where = [origin.sheet, origin.place].filter(Boolean).join(', ')
      return `${where || origin.name}${origin.limit ? ` (${limitWords[origin.limit]})` : ''}`
    }
    case 'need':
      return `need: ${origin.what}`
    case 'decision':
      return origin.what
    case 'rule':
      return origin.source
    case 'worked':
      return 'worked out'
  }
}

/** A value that a number stands on and no sheet states. */
export type Assumption = Pick<WorkedInput, 'label' | 'value' | 'unit'>

/** What these numbers, and those that they are made of, stand on that no sheet states; each once. Those that are absent count for nothing. */
export const assumedIn = (numbers: readonly (Worked | undefined)[]): Assumption[] => {
  const found = new Map<string, Assumption>()
  const look = (of: Worked): void => {
    for (const input of of.inputs) {
      const { origin } = input
      if (origin.kind === 'worked') look(origin.of)
      else if (
        (origin.kind === 'part' && origin.limit === 'assumed') ||
        (origin.kind === 'rule' && origin.source.startsWith('assumed'))
      )
        found.set(input.label, { label: input.label, value: input.value, unit: input.unit })
    }
  }
  numbers.forEach((n) => n && look(n))
  return [...found.values()]
}

/** Curves are read at another input, which is in the formula itself. */
const listed = (worked: Worked): { input: WorkedInput; at: number }[] =>
  worked.inputs.flatMap((input, at) => (input.curve ? [] : [{ input, at }]))

/** The formula with the values of one corner in place of the symbols. */
export const substituted = (worked: Worked, corner: keyof Range = 'typ'): string => {
  const inputs = listed(worked).sort((a, b) => b.input.symbol.length - a.input.symbol.length)
  const found = new Map(inputs.map(({ input, at }) => [input.symbol, { input, at }]))
  if (found.size === 0) return worked.formula
  const escaped = [...found.keys()].map((s) => s.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'))
  const pattern = new RegExp(`(?<![\\w_])(?:${escaped.join('|')})(?![\\w_])`, 'gu')
  return worked.formula.replace(pattern, (symbol) => {
    const { input, at } = found.get(symbol)!
    return formatQuantity(worked.corners?.[corner].at[at] ?? input.value[corner], input.unit, 4)
  })
}

/** `read from the curve` for a curve, else its range. */
export const inputText = ({ value, unit, curve }: WorkedInput): string =>
  curve ? 'read from its curve' : rangeText(value, unit)

const cornerWords = { min: 'least', typ: 'usual', max: 'greatest' }

/** What a calculator evaluates: one line for each value that differs. */
export const linesOf = ({
  corners,
  value,
}: Worked): { corner: keyof Range; word: string; where: string; line: string }[] =>
  corners
    ? (isExact(value) ? (['typ'] as const) : (['min', 'typ', 'max'] as const)).map((corner) => ({
        corner,
        word: cornerWords[corner],
        where: corners[corner].where,
        line: corners[corner].line,
      }))
    : []

export const unprovenText =
  'Least and greatest were looked for among the corners, and not proven: there may be values a little beyond.'

/** The whole working, for copying. */
export const workingText = (worked: Worked, indent = ''): string =>
  [
    `${indent}${worked.label}: ${worked.symbol} = ${rangeText(worked.value, worked.unit)}`,
    `${indent}  ${worked.symbol} = ${worked.formula}`,
    ...linesOf(worked).map(
      ({ word, where, line }) => `${indent}  ${word}: ${line}${where ? `  (${where})` : ''}`,
    ),
    ...worked.inputs.flatMap((i) => [
      `${indent}  ${i.symbol} = ${inputText(i)}  ${i.label} [${originText(i.origin)}]`,
      ...(i.origin.kind === 'worked' ? [workingText(i.origin.of, `${indent}    `)] : []),
    ]),
    ...(worked.unproven ? [`${indent}  ${unprovenText}`] : []),
    ...(worked.note ? [`${indent}  ${worked.note}`] : []),
  ].join('\n')
