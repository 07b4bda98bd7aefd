// The building blocks of every part schema: quantities with units, rated values with kind and source, and unions
// told apart by their `kind`. A schema built from these refuses unknown fields and never coerces a wrong type.

import {
  array,
  boolean,
  type InferType,
  lazy,
  number,
  object,
  type ObjectSchema,
  type Schema,
  string,
} from 'yup'
import { isTaken } from './bounds'
import { parseQuantity, QuantityError, type Unit } from '../quantity'

/** Text, and nothing that would be read as text: in a list, Yup casts each entry whatever the entry’s schema says. */
const plainText = () =>
  string()
    .strict(true)
    .test('is-text', '${path} must be text', (_, context) => {
      const given = (context as { originalValue?: unknown }).originalValue
      // A rated value given as text has what text has: `at` is a method of it.
      return given === null || !['number', 'boolean', 'object'].includes(typeof given)
    })

/** A short text that must be there. */
export const text = () => plainText().max(400).matches(/\S/, '${path} must not be blank').required()
export const optionalText = () => plainText().max(2000).optional()
export const identifier = () =>
  plainText()
    .matches(/^[A-Za-z0-9+-][A-Za-z0-9_.:/+-]{0,79}$/, '${path} must be letters, digits and . _ - : / + only')
    .test(
      'is-free',
      ({ path, value }) => `${path} can’t be “${value}”: take another name`,
      (value) => (value === undefined ? true : !isTaken(value)),
    )
    .required()
export const flag = () => boolean().strict(true).optional()
export const count = () => number().strict(true).integer().min(0).max(1e9).required()
export const list = <T>(of: T) =>
  array()
    .of(of as never)
    .max(2000)

/** A number in SI, or text with its unit that is read into SI: `"22 pF"`, `"4k7"`, `0.02`. */
export const quantity = (unit: Unit) =>
  number()
    .meta({ unit })
    .transform((value: unknown, original: unknown) => {
      if (typeof original === 'number') return original
      if (typeof original !== 'string') return NaN
      try {
        return parseQuantity(original, unit)
      } catch (error) {
        if (error instanceof QuantityError) return NaN
        throw error
      }
    })
    .typeError(
      `\${path} must be a number or text in ${unit || 'plain numbers'}, such as ${sample[unit] ?? '5'}`,
    )
const sample: Partial<Record<Unit, string>> = {
  V: '"3.3 V"',
  A: '"20 mA"',
  Ω: '"4k7"',
  F: '"100n"',
  Hz: '"16 MHz"',
  s: '"5 ms"',
  m: '"2.54 mm"',
}

export const limitKinds = [
  'recommended',
  'absolute',
  'guaranteed',
  'typical',
  'condition',
  'measured',
  'assumed',
] as const
export type LimitKind = (typeof limitKinds)[number]

const ratedFields = (unit: Unit) => ({
  min: quantity(unit).optional(),
  typ: quantity(unit).optional(),
  max: quantity(unit).optional(),
  /** What sort of statement the sheet makes. An absolute maximum is never an operating point. */
  kind: string().strict(true).oneOf(limitKinds).required(),
  /** The condition it holds under: "5 V, 25 °C". */
  at: optionalText(),
  /** The place in the sheet: "table 12". */
  source: optionalText(),
})

/**
 * A value as a sheet gives it. In a file: a number or text (its typical value), or {min, typ, max, kind, at, source}.
 * `others` keeps what further sources say, `why` the reason for the choice made here.
 */
export const rated = (unit: Unit, kind: LimitKind = 'guaranteed') =>
  object({
    ...ratedFields(unit),
    others: array()
      .of(object(ratedFields(unit)).exact())
      .optional(),
    why: optionalText(),
  })
    .transform((value: unknown, original: unknown) =>
      typeof original === 'number' || typeof original === 'string'
        ? { typ: quantity(unit).cast(original, { assert: false }), kind }
        : typeof value === 'object' && value !== null
          ? { kind, ...value }
          : value,
    )
    .exact()
    .test('some-value', '${path} needs at least one of min, typ, max', (value) =>
      value === undefined ? true : [value.min, value.typ, value.max].some((v) => v !== undefined),
    )
    .test('in-order', '${path} must have min ≤ typ ≤ max', (value) => {
      const known = [value?.min, value?.typ, value?.max].filter((v): v is number => v !== undefined)
      // What can’t be read has a fault of its own.
      return known.some(Number.isNaN) || known.every((v, i) => i === 0 || known[i - 1]! <= v)
    })
    .meta({ rated: unit })
    .default(undefined)

export interface Rated {
  min?: number
  typ?: number
  max?: number
  kind: LimitKind
  at?: string
  source?: string
  others?: Omit<Rated, 'others' | 'why'>[]
  why?: string
}

/** An object whose keys the file chooses, with `inner` for each value: {link: position}. */
export const recordOf = (value: unknown, inner: () => Schema) => {
  const words = '${path} must be an object: a name and a value for each'
  const isOne = typeof value === 'object' && !Array.isArray(value)
  if (value !== undefined && !isOne)
    return object({})
      .typeError(words)
      .test('is-record', words, () => false)
  return object(Object.fromEntries(Object.keys(value ?? {}).map((key) => [key, inner()])))
}

/** One of several object schemas, told apart by the field `kind`. */
export const oneOfKind = <S extends Record<string, ObjectSchema<object>>>(schemas: S) =>
  lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | undefined)?.kind
    const schema = typeof kind === 'string' && Object.hasOwn(schemas, kind) ? schemas[kind] : undefined
    return (schema ??
      object({
        kind: string()
          .strict(true)
          .oneOf(Object.keys(schemas), `\${path} must be one of ${Object.keys(schemas).join(', ')}`)
          .required(),
      })) as ObjectSchema<InferType<S[keyof S]>>
  })

/** The part format this program writes. Format 1 is read too: it had neither assumptions nor drivers of its legs. */
export const partFormat = 2

/** What every part file begins with. */
export const head = <K extends string>(kind: K) => ({
  format: number()
    .strict(true)
    .oneOf([partFormat], '${path} must be 1 or 2: newer files need a newer version of this program')
    .required(),
  kind: string().strict(true).oneOf([kind]).required(),
  id: identifier(),
  name: text(),
  maker: optionalText(),
  description: optionalText(),
  /** The document the facts come from: "TD8-28 data sheet, issue 3". */
  sheet: text(),
  /** In euro, one piece. */
  price: number().strict(true).min(0).max(1e5).required(),
  /** Made-up words a builder might type to find it. */
  keywords: array().of(text()).optional(),
  /** The part it was copied from, to compare with. */
  copiedFrom: identifier().optional(),
  /** Fields that no sheet was found for yet, filled with a cautious assumption: `io.leakage`. */
  assumed: array().of(text()).optional(),
})

export const packageFields = () =>
  object({
    name: text(),
    style: string()
      .strict(true)
      .oneOf(['dip', 'two-sided', 'four-sided', 'module', 'upright', 'axial', 'radial'])
      .required(),
    legs: count(),
    pitch: quantity('m').required(),
    /** Distance between the two rows of legs, where there are two. */
    rowSpacing: quantity('m').optional(),
    length: quantity('m').optional(),
    width: quantity('m').optional(),
    height: quantity('m').optional(),
    solder: string().strict(true).oneOf(['through-hole', 'surface by hand', 'surface hot air']).required(),
    /** Junction to ambient. */
    thermalResistance: rated('K/W').optional(),
  }).exact()
