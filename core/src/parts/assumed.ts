// What is assumed about a chip where its file is silent, so that it can be planned with before its sheet is read to the
// end. Every assumption is on the careful side, says that it is one in each working, and is listed in the part.

type Json = Record<string, unknown>

export interface Assumption {
  /** `io.leakage`. */
  path: string
  /** In the words of a part file. */
  value: (chip: Json) => unknown
  /** It follows from what the file states, and is no guess. */
  follows?: true
}

/** °C that the junction of every silicon part stands, where its sheet states no limit. */
export const siliconJunction = 125

const at = (value: unknown, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((v, key) => (typeof v === 'object' && v !== null ? (v as Json)[key] : undefined), value)

/** The value at a path of plain fields: `supply.recommended`. */
export const fieldAt = at

const source = 'assumed: its sheet has not been read for this'
const rated = (value: Json) => ({ ...value, kind: 'assumed', source })
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : [])
const numberOf = (value: unknown): number | undefined => (typeof value === 'number' ? value : undefined)
const legsOf = (chip: Json): number =>
  numberOf(at(chip, 'package.legs')) ??
  list(chip.pins).reduce<number>((most, pin) => {
    const legs = list(at(pin, 'legs')).filter((leg): leg is number => typeof leg === 'number')
    return Math.max(most, ...legs)
  }, 0)
const supplyPins = (chip: Json): string[] =>
  list(chip.pins).flatMap((pin) => {
    const id = at(pin, 'id')
    return at(pin, 'type') === 'supply' && typeof id === 'string' ? [id] : []
  })

const styles: Record<string, { pitch: string; solder: string }> = {
  dip: { pitch: '2.54 mm', solder: 'through-hole' },
  module: { pitch: '2.54 mm', solder: 'through-hole' },
  'two-sided': { pitch: '1.27 mm', solder: 'surface by hand' },
  'four-sided': { pitch: '0.5 mm', solder: 'surface by hand' },
}
const styleOf = (chip: Json): string => {
  const given = at(chip, 'package.style')
  if (typeof given === 'string') return given
  const legs = legsOf(chip)
  return legs >= 32 && legs % 4 === 0 ? 'four-sided' : 'two-sided'
}

export const chipAssumptions: readonly Assumption[] = [
  { path: 'price', value: () => 0 },
  { path: 'family', follows: true, value: (c) => c.name },
  { path: 'package.name', follows: true, value: (c) => `${styleOf(c)} ${legsOf(c)}` },
  { path: 'package.legs', follows: true, value: legsOf },
  { path: 'package.style', value: styleOf },
  { path: 'package.pitch', value: (c) => styles[styleOf(c)]?.pitch ?? '1.27 mm' },
  { path: 'package.solder', value: (c) => styles[styleOf(c)]?.solder ?? 'surface by hand' },
  { path: 'supply.recommended', value: () => rated({ min: 3, max: 3.6 }) },
  { path: 'supply.absolute', value: () => rated({ min: -0.3, max: 3.9 }) },
  {
    path: 'frequencyLimits',
    value: (c) => [{ supply: numberOf(at(c, 'supply.recommended.min')) ?? 3, frequency: '8 MHz', source }],
  },
  {
    path: 'clockSources',
    value: () => [
      {
        id: 'internal',
        kind: 'internal',
        name: 'internal oscillator',
        min: '1 MHz',
        max: '8 MHz',
        frequencies: ['1 MHz', '8 MHz'],
        tolerance: 0.1,
        source,
      },
    ],
  },
  {
    path: 'modes',
    value: () => [
      { id: 'run', name: 'running', kind: 'active', current: rated({ typ: '20 mA', max: '50 mA' }) },
    ],
  },
  { path: 'memory', value: () => ({ program: 16384, data: 1024, stored: 0 }) },
  { path: 'io.inputHigh', value: () => ({ factor: 0.8, source }) },
  { path: 'io.inputLow', value: () => ({ factor: 0.2, source }) },
  {
    path: 'io.outputHigh',
    value: () => [{ current: '2 mA', drop: rated({ typ: 0.3, max: 0.6 }), source }],
  },
  {
    path: 'io.outputLow',
    value: () => [{ current: '2 mA', drop: rated({ typ: 0.3, max: 0.6 }), source }],
  },
  { path: 'io.leakage', value: () => rated({ max: '1 uA' }) },
  { path: 'io.capacitance', value: () => rated({ max: '10 pF' }) },
  { path: 'io.aboveSupply', value: () => rated({ max: 0.3 }) },
  { path: 'limits.pinRecommended', value: () => rated({ max: '4 mA' }) },
  { path: 'limits.pinAbsolute', value: () => rated({ max: '8 mA' }) },
  { path: 'limits.total', value: () => rated({ max: '50 mA' }) },
  {
    path: 'routing',
    follows: true,
    value: (c) =>
      list(c.pins).some((pin) =>
        list(at(pin, 'functions')).some((f) =>
          typeof f === 'string' ? f.includes('@') : at(f, 'select') !== undefined,
        ),
      )
        ? 'selected'
        : 'fixed',
  },
  { path: 'units', follows: true, value: () => [] },
  {
    path: 'programming',
    value: () => [
      {
        id: 'unknown',
        name: 'not known yet',
        contacts: [
          { signal: 'V', at: 'supply' },
          { signal: 'GND', at: 'ground' },
        ],
        source,
      },
    ],
  },
  {
    path: 'support.decoupling',
    value: (c) => supplyPins(c).map((pin) => ({ pin, capacitance: '100 nF', source })),
  },
]

/** Sets a path, making the objects on the way; leaves the data alone where something else is in the way. */
const withField = (data: Json, [key, ...rest]: string[], value: unknown): Json => {
  if (rest.length === 0) return { ...data, [key!]: value }
  const inner = data[key!]
  if (inner !== undefined && (typeof inner !== 'object' || inner === null || Array.isArray(inner)))
    return data
  return { ...data, [key!]: withField((inner ?? {}) as Json, rest, value) }
}

/**
 * The chip's file with an assumption in each field that is missing, and in each that it lists as assumed (so that a
 * better assumption takes the place of an older one). Never changes what the file states.
 */
export const withAssumptions = (file: Json): Json => {
  const listed = new Set(list(file.assumed))
  const assumed: string[] = []
  let chip = file
  for (const { path, value, follows } of chipAssumptions) {
    if (at(chip, path) !== undefined && !listed.has(path)) continue
    const next = withField(chip, path.split('.'), value(chip))
    if (next === chip) continue
    chip = next
    if (!follows) assumed.push(path)
  }
  const whole = { ...chip }
  delete whole.assumed
  return assumed.length > 0 ? { ...whole, assumed } : whole
}
