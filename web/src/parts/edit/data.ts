// Changing one place deep in a part's file.

import { type FieldForm, type FieldPath, formAt, type PartKind } from '@root-board/core/parts'

export type Json = Record<string, unknown>

export const valueAt = (data: unknown, steps: FieldPath): unknown =>
  steps.reduce<unknown>(
    (v, step) =>
      typeof v === 'object' && v !== null ? (v as Record<string | number, unknown>)[step] : undefined,
    data,
  )

/** A copy with the value put in; `undefined` takes the field, or the entry of a list, out. */
export const withValue = (data: unknown, [step, ...rest]: FieldPath, value: unknown): unknown => {
  if (step === undefined) return value
  if (typeof step === 'number') {
    const list = Array.isArray(data) ? [...(data as unknown[])] : []
    if (rest.length === 0 && value === undefined) list.splice(step, 1)
    else list[step] = withValue(list[step], rest, value)
    return list
  }
  const object: Json =
    typeof data === 'object' && data !== null && !Array.isArray(data) ? { ...(data as Json) } : {}
  const next = withValue(object[step], rest, value)
  if (next === undefined) Reflect.deleteProperty(object, step)
  else object[step] = next
  return object
}

/** A fresh entry with what its form can’t be without, empty where only the builder knows. */
export const blank = (kind: PartKind, steps: FieldPath, data: unknown): unknown => {
  const form = formAt(kind, steps, data)
  return form ? blankOf(form, kind, steps, data) : ''
}
const blankOf = (form: FieldForm, kind: PartKind, steps: FieldPath, data: unknown): unknown => {
  switch (form.is) {
    case 'group':
      return Object.fromEntries(
        form.fields.filter((f) => f.required).map((f) => [f.name, blank(kind, [...steps, f.name], data)]),
      )
    case 'list':
      return []
    case 'map':
      return {}
    case 'rated':
      return {}
    case 'flag':
      return false
    case 'choice':
      return form.options[0]
    default:
      return ''
  }
}

/** Fields that no sheet was read for leave the list as soon as somebody states them. */
export const stated = (data: Json, path: string): Json => {
  const list = data.assumed
  if (!Array.isArray(list)) return data
  const left = list.filter(
    (a: string) => !(path === a || path.startsWith(`${a}.`) || path.startsWith(`${a}[`)),
  )
  const next: Json = { ...data, assumed: left }
  if (left.length === 0) Reflect.deleteProperty(next, 'assumed')
  return next
}
