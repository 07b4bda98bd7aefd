// A fact of a part in words: each number with the unit that its field has.

import { type PartKind, unitAt } from '@root-board/core/parts'
import { formatQuantity } from '@root-board/core/quantity'

type Json = Record<string, unknown>
const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v)
const isRated = (v: Json) => ['min', 'typ', 'max'].some((c) => typeof v[c] === 'number')

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
const aside = new Set(['kind', 'source', 'why', 'others', 'at'])

/** `1.8 V … 3.6 V`, `0.7 · V_DD`, `8 mA: max 0.4 V`. */
export const factText = (kind: PartKind, path: string, value: unknown): string => {
  if (typeof value === 'number') return formatQuantity(value, unitAt(kind, path))
  if (typeof value === 'string') return value
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.map((v, i) => factText(kind, `${path}[${i}]`, v)).join('; ')
  if (!isObject(value)) return '—'
  if ('factor' in value) return shareText(value)
  if ('unit' in value && 'signal' in value)
    return `${String(value.unit)}.${String(value.signal)}${value.select === undefined ? '' : `@${String(value.select)}`}`
  const unit = unitAt(kind, path)
  if (isRated(value) && unit !== '') return ratedText(value, unit)
  const inner = (key: string) => factText(kind, `${path}.${key}`, value[key])
  if ('drop' in value) return `${inner('current')}: ${inner('drop')}`
  return Object.keys(value)
    .filter((key) => value[key] !== undefined && !aside.has(key) && !(key === 'id' && 'name' in value))
    .map((key) =>
      ['name', 'id', 'signal', 'supply', 'frequency'].includes(key) ? inner(key) : `${key} ${inner(key)}`,
    )
    .join(', ')
}
