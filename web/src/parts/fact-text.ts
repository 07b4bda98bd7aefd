// A fact of a part in words: each number with the unit that its field has.

import { formAt, limitKinds, type PartKind, stepsOf, unitAt } from '@root-board/core/parts'
import { euro, formatQuantity } from '@root-board/core/quantity'
import { isPlace, wordsAt } from './names'

/** As it stands in the file. */
export const plainText = (value: unknown): string =>
  typeof value === 'string' ? value : JSON.stringify(value)

export type Json = Record<string, unknown>
export const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v)
/** A value as a sheet gives it: corners and the sort of statement. */
export const isRated = (v: unknown): v is Json =>
  isObject(v) &&
  ['min', 'typ', 'max'].some((c) => typeof v[c] === 'number') &&
  (limitKinds as readonly unknown[]).includes(v.kind)

/** The fields of an object in the order in which its schema has them. */
export const inOrder = (kind: PartKind, path: string, value: Json): [string, unknown][] => {
  const form = formAt(kind, stepsOf(path), value)
  const order = form?.is === 'group' ? form.fields.map((f) => f.name) : []
  return Object.entries(value).sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
}

const ratedText = (value: Json, unit: Parameters<typeof formatQuantity>[1]): string =>
  (['min', 'typ', 'max'] as const)
    .flatMap((c) => {
      const x = value[c]
      return typeof x === 'number' ? [`${c === 'typ' ? '' : `${c} `}${formatQuantity(x, unit)}`] : []
    })
    .join(', ')
const shareText = (value: Json): string => {
  const factor = Number(value.factor)
  const offset = Number(value.offset ?? 0)
  if (factor === 0) return formatQuantity(offset, 'V')
  const share = `${factor} · V_DD`
  return offset === 0 ? share : `${share} ${offset < 0 ? '−' : '+'} ${formatQuantity(Math.abs(offset), 'V')}`
}
/** Plain numbers of a file that are no pure numbers to a reader. */
const inWords = (path: string, value: number): string | undefined => {
  if (path === 'price') return euro(value)
  if (/(?:^|\.)memory\./.test(path)) return `${value.toLocaleString('en')} bytes`
  if (/(?:^|\.)(?:tolerance|temperature|ageing|share)$/.test(path))
    return formatQuantity(Number((value * 100).toPrecision(6)), '%')
  if (path.endsWith('resolution')) return `${value} bits`
  return undefined
}
const aside = new Set(['kind', 'why', 'others', 'at'])

/** `1.8 V … 3.6 V`, `0.7 · V_DD`, `8 mA: max 0.4 V`. `part`: the whole, where the unit of a field follows from its neighbours. */
export const factText = (kind: PartKind, path: string, value: unknown, part?: unknown): string => {
  if (typeof value === 'number')
    return inWords(path, value) ?? formatQuantity(value, unitAt(kind, path, part))
  if (typeof value === 'string') return value
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.map((v, i) => factText(kind, `${path}[${i}]`, v, part)).join('; ')
  if (!isObject(value)) return '—'
  if ('factor' in value) return shareText(value)
  if ('unit' in value && 'signal' in value)
    return `${String(value.unit)}.${String(value.signal)}${value.select === undefined ? '' : `@${plainText(value.select)}`}`
  // A current for each hertz of the clock: amperes, by a plain number in the file.
  if (path.endsWith('perHertz')) return ratedText(value, 'A')
  if (isRated(value)) return ratedText(value, unitAt(kind, path, part))
  const inner = (key: string) => factText(kind, `${path}.${key}`, value[key], part)
  if ('drop' in value) return `${inner('current')}: ${inner('drop')}`
  return inOrder(kind, path, value)
    .filter(
      ([key, v]) =>
        v !== undefined &&
        !aside.has(key) &&
        !isPlace(`${path}.${key}`) &&
        !(key === 'id' && 'name' in value),
    )
    .map(([key]) =>
      ['name', 'id', 'signal', 'supply', 'frequency'].includes(key)
        ? inner(key)
        : `${wordsAt([...stepsOf(path), key])} ${inner(key)}`,
    )
    .join(', ')
}
