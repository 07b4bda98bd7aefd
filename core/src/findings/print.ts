// A working as text: the formula with its values put in, and where each came from.

import { formatQuantity, isExact, type Range, type Unit } from '../quantity'
import type { Origin, Worked, WorkedInput } from './worked'

/** `4.8 V … 5.2 V`, or one value where all corners are the same. */
export const rangeText = (value: Range, unit: Unit, significant = 4): string => {
  const text = (v: number) => formatQuantity(v, unit, significant)
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

/** The formula with typical values in place of the symbols. */
export const substituted = (worked: Worked): string => {
  const symbols = [...worked.inputs].sort((a, b) => b.symbol.length - a.symbol.length)
  const found = new Map<string, WorkedInput>(symbols.map((i) => [i.symbol, i]))
  if (found.size === 0) return worked.formula
  const escaped = [...found.keys()].map((s) => s.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'))
  const pattern = new RegExp(`(?<![\\w_])(?:${escaped.join('|')})(?![\\w_])`, 'gu')
  return worked.formula.replace(pattern, (symbol) => {
    const input = found.get(symbol)!
    return formatQuantity(input.value.typ, input.unit, 4)
  })
}

/** The whole working, for copying. */
export const workingText = (worked: Worked, indent = ''): string =>
  [
    `${indent}${worked.label}: ${worked.symbol} = ${rangeText(worked.value, worked.unit)}`,
    `${indent}  ${worked.symbol} = ${worked.formula}`,
    ...worked.inputs.flatMap((i) => [
      `${indent}  ${i.symbol} = ${rangeText(i.value, i.unit)}  ${i.label} [${originText(i.origin)}]`,
      ...(i.origin.kind === 'worked' ? [workingText(i.origin.of, `${indent}    `)] : []),
    ]),
    ...(worked.note ? [`${indent}  ${worked.note}`] : []),
  ].join('\n')
