// A part's schema as a form: what each field holds, its unit and its choices. The editor and whatever prints a fact ask
// here, so that a field is described in one place only.

import type { AnySchema, ISchema } from 'yup'
import type { Unit } from '../quantity'
import { limitKinds } from './fields'
import type { PartKind } from './library'
import { schemas } from './read'

type AnyField = AnySchema | ISchema<unknown>

/** What a field holds. */
export type FieldForm =
  | { is: 'text' }
  | { is: 'number' }
  | { is: 'quantity'; unit: Unit }
  | { is: 'choice'; options: string[] }
  | { is: 'flag' }
  | { is: 'rated'; unit: Unit }
  /** A function of a leg, written UNIT.SIGNAL@NUMBER. */
  | { is: 'function' }
  | { is: 'group'; fields: { name: string; required: boolean }[] }
  /** Entries of one form each; `plain` for texts and numbers, which are written side by side. */
  | { is: 'list'; plain: boolean }
  /** {name: text} */
  | { is: 'map' }

interface Inside {
  type: string
  fields?: Record<string, AnyField>
  innerType?: AnyField
  resolve?: (options: { value: unknown }) => AnyField
  spec?: { meta?: { unit?: Unit; rated?: Unit; written?: string }; optional?: boolean }
  describe?: (options?: { value: unknown }) => { oneOf?: unknown[] }
}
const inside = (field: AnyField): Inside => field as unknown as Inside

const settled = (field: AnyField, value: unknown): Inside => {
  const f = inside(field)
  return f.type === 'lazy' && f.resolve ? inside(f.resolve({ value })) : f
}
const optionsOf = (f: Inside): string[] =>
  (f.describe?.().oneOf ?? []).filter((o): o is string => typeof o === 'string')

const formOf = (field: AnyField, value: unknown): FieldForm => {
  const f = settled(field, value)
  const meta = f.spec?.meta
  if (meta?.rated !== undefined) return { is: 'rated', unit: meta.rated }
  if (meta?.written === 'function') return { is: 'function' }
  if (meta?.unit !== undefined) return { is: 'quantity', unit: meta.unit }
  switch (f.type) {
    case 'number':
      return { is: 'number' }
    case 'boolean':
      return { is: 'flag' }
    case 'array': {
      const item = f.innerType && formOf(f.innerType, undefined)
      return { is: 'list', plain: item !== undefined && !['group', 'rated', 'map'].includes(item.is) }
    }
    case 'object': {
      const names = Object.entries(f.fields ?? {})
      if (inside(field).type === 'lazy' && !names.some(([n]) => n === 'kind')) return { is: 'map' }
      return {
        is: 'group',
        fields: names.map(([name, inner]) => ({
          name,
          required: inside(inner).spec?.optional === false,
        })),
      }
    }
    default: {
      const options = optionsOf(f)
      return options.length > 0 ? { is: 'choice', options } : { is: 'text' }
    }
  }
}

export type FieldPath = (string | number)[]
/** `io.outputHigh[0].drop` in steps. */
export const stepsOf = (path: string): FieldPath =>
  [...path.matchAll(/[^.[\]]+/g)].map(([step]) => (/^\d+$/.test(step) ? Number(step) : step))
export const pathText = (steps: FieldPath): string =>
  steps.map((s, i) => (typeof s === 'number' ? `[${s}]` : i > 0 ? `.${s}` : s)).join('')

/** The form of a field of a part of this kind; `data` is the whole part, by which a union is told apart. */
export const formAt = (kind: PartKind, steps: FieldPath, data: unknown): FieldForm | undefined => {
  let field: AnyField = schemas[kind]
  let value = data
  for (const step of steps) {
    const f = settled(field, value)
    if (f.spec?.meta?.rated !== undefined) {
      if (step === 'kind') return { is: 'choice', options: [...limitKinds] }
      return ['min', 'typ', 'max'].includes(String(step))
        ? { is: 'quantity', unit: f.spec.meta.rated }
        : { is: 'text' }
    }
    const next = typeof step === 'number' || f.type === 'array' ? f.innerType : f.fields?.[step]
    if (!next) return undefined
    field = next
    value =
      typeof value === 'object' && value !== null
        ? (value as Record<string | number, unknown>)[step]
        : undefined
  }
  return formOf(field, value)
}

/** The unit of a number at a path such as `io.leakage.max`; entries of lists may be named by their id. */
export const unitAt = (kind: PartKind, path: string, data?: unknown): Unit => {
  const form = formAt(kind, stepsOf(path), data)
  return form?.is === 'quantity' || form?.is === 'rated' ? form.unit : ''
}
