// No file is read by guessing: a value of the wrong type, a word that is none of the words listed, a field left out that
// the sums need. Every field of every kind of part that the library has, once.

import { faultsOf } from '../../test/faults'
import { partFiles } from '../../test/files'
import { formAt, type PartKind, readPart } from '.'

type Json = Record<string, unknown>
type Steps = (string | number)[]
interface Place {
  kind: string
  /** `pins[].legs[]`: the field, wherever it stands. */
  pattern: string
  data: Json
  steps: Steps
  value: unknown
}

const patternOf = (steps: Steps) =>
  steps.reduce<string>((s, k) => (typeof k === 'number' ? `${s}[]` : s ? `${s}.${k}` : k), '')
const pathOf = (steps: Steps) =>
  steps.reduce<string>((s, k) => (typeof k === 'number' ? `${s}[${k}]` : s ? `${s}.${k}` : k), '')

const places = new Map<string, Place>()
const visit = (data: Json, value: unknown, steps: Steps): void => {
  const kind = data.kind as string
  const pattern = patternOf(steps)
  // A union has other fields for each of its sorts.
  const sort = typeof value === 'object' && value !== null ? ((value as Json).kind ?? '') : ''
  const key = `${kind}:${pattern}:${typeof value}:${typeof sort === 'string' ? sort : ''}`
  if (steps.length > 0 && !places.has(key)) places.set(key, { kind, pattern, data, steps, value })
  if (Array.isArray(value)) value.forEach((v, i) => visit(data, v, [...steps, i]))
  else if (typeof value === 'object' && value !== null)
    Object.entries(value).forEach(([k, v]) => visit(data, v, [...steps, k]))
}
for (const { data } of partFiles()) if (JSON.stringify(data).length < 40_000) visit(data as Json, data, [])

const faultsWith = (place: Place, change: (holder: Json, key: string | number) => void): string[] => {
  const data = structuredClone(place.data)
  const holder = place.steps.slice(0, -1).reduce<Json>((at, k) => at[k] as Json, data)
  change(holder, place.steps.at(-1)!)
  return faultsOf(data)
}
const put = (value: unknown) => (holder: Json, key: string | number) => void (holder[key] = value)
const refused = (place: Place, faults: string[]) => {
  const path = pathOf(place.steps)
  // A rated value is a number or an object of its own: the fault may lie in its typical value.
  return faults.some((f) => f === path || f.startsWith(`${path}.`) || path.startsWith(`${f}[`))
}

const all = [...places.values()]
const isQuantity = (v: unknown) =>
  typeof v === 'number' ||
  (typeof v === 'string' && /^[−-]?\d+([.,]\d+)?\s*[a-zµΩ%/°²]*$|^\d+[kMRn]\d+$/i.test(v))

test('the library has enough to try', () => {
  expect(all.length).toBeGreaterThan(400)
  expect(new Set(all.map((p) => p.kind)).size).toBe(19)
})

test('a word where a number, yes or no, or a record belongs is refused in its place', () => {
  const places = all.filter((p) => typeof p.value !== 'string' || isQuantity(p.value))
  const passed = places
    // "8 KiB" are words here: what a mode retains is not counted with.
    .filter((p) => p.pattern !== 'modes[].retains' && !refused(p, faultsWith(p, put('no such word'))))
    .map((p) => `${p.kind} ${p.pattern}`)
  expect(passed).toEqual([])
})

test('a bare number in quotes is taken where a value with a unit belongs, and nowhere else', () => {
  const numbers = all.filter((p) => typeof p.value === 'number')
  const form = (p: Place) => formAt(p.kind as PartKind, p.steps, p.data)?.is
  // In a list of numbers too, such as legs, no mistake can be made by it.
  const plain = numbers.filter((p) => form(p) === 'number' && !p.pattern.endsWith('[]'))
  expect(plain.length).toBeGreaterThan(20)
  const passed = plain
    .filter((p) => !refused(p, faultsWith(p, put(String(p.value)))))
    .map((p) => `${p.kind} ${p.pattern}`)
  expect(passed).toEqual([])
  const quantities = numbers.filter((p) => form(p) === 'quantity')
  expect(quantities.filter((p) => refused(p, faultsWith(p, put(String(p.value)))))).toEqual([])
})

test('a number where words belong is refused in its place', () => {
  const places = all.filter((p) => typeof p.value === 'string' && !isQuantity(p.value))
  const passed = places.filter((p) => !refused(p, faultsWith(p, put(5)))).map((p) => `${p.kind} ${p.pattern}`)
  expect(passed).toEqual([])
})

/** Fields that are one of a few words, in docs/formats.md. */
const chosen = /(^|\.)(kind|sort|style|solder|polarity|topology|role|routing|series)$/

test('a word that is none of those listed is refused in its place', () => {
  const places = all.filter((p) => typeof p.value === 'string' && chosen.test(p.pattern))
  expect(places.length).toBeGreaterThan(60)
  const passed = places
    .filter((p) => !refused(p, faultsWith(p, put('purple'))))
    .map((p) => `${p.kind} ${p.pattern}`)
  expect(passed).toEqual([])
})

// What a sum can't do without: by kind, from what each number on the page needs.
test.each<[string, string]>([
  ['led', 'colour forward current currentAbsolute'],
  ['diode', 'sort forward current reverse package'],
  ['transistor', 'sort current voltage package legs'],
  ['crystal', 'frequency loadCapacitance tolerance temperature ageing package'],
  ['resonator', 'frequency tolerance package'],
  ['resistors', 'series tolerance power from to package'],
  ['capacitors', 'sort series tolerance voltage from to package'],
  ['connector', 'sort contacts rows package'],
  ['switch', 'sort current package'],
  ['buffer', 'supply high low stands rate package'],
  ['wire', 'gauge resistance current ratedAt insulation'],
  ['fuse', 'sort current trips derating resistance voltage breaking package'],
  [
    'charger',
    'inputRecommended inputAbsolute voltage current setting ends headroom quiescent back junctionMax inputCapacitor outputCapacitor package legs',
  ],
  ['protection', 'voltage full current resistance quiescent'],
  ['source', 'sort voltage current plug polarity'],
  [
    'regulator',
    'topology output current inputRecommended inputAbsolute dropout quiescent junctionMax package legs inputCapacitor outputCapacitor',
  ],
])('%s: needs each of %s', (kind, fields) => {
  for (const field of ['id', 'name', 'sheet', 'price', 'format', ...fields.split(' ')]) {
    const place = all.find((p) => p.kind === kind && p.pattern === field)!
    expect([field, faultsWith(place, (holder, key) => Reflect.deleteProperty(holder, key))]).toEqual([
      field,
      expect.arrayContaining([expect.stringMatching(new RegExp(`^${field}`))]) as unknown,
    ])
  }
})

// Counts and shares have an end below and above; the limit itself is taken.
test.each<[string, string, unknown, unknown]>([
  ['led', 'price', 0, -0.01],
  ['led', 'price', 100_000, 100_001],
  ['resistors', 'tolerance', 0.5, 0.51],
  ['resistors', 'tolerance', 0, -0.01],
  ['capacitors', 'tolerance', 0.8, 0.81],
  ['crystal', 'ageing', 0.1, 0.11],
  ['connector', 'contacts', 0, -1],
  ['connector', 'contacts', 3, 2.5],
  ['connector', 'contacts', 1e9, 1e9 + 1],
  ['led', 'name', 'x'.repeat(400), 'x'.repeat(401)],
  ['led', 'name', ' x', '  '],
  ['device', 'description', 'x'.repeat(2000), 'x'.repeat(2001)],
  ['led', 'id', 'x'.repeat(80), 'x'.repeat(81)],
  ['led', 'id', 'a.b_c:d/e+f-1', 'a b'],
])('%s %s: the last that is taken, and the first that is not', (kind, field, taken, not) => {
  const place = all.find((p) => p.kind === kind && p.pattern === field)!
  expect(faultsWith(place, put(taken))).toEqual([])
  expect(faultsWith(place, put(not))).toEqual([field])
})

test('a list of nothing where at least one is needed, or of more than anyone has', () => {
  const curve = all.find((p) => p.kind === 'led' && p.pattern === 'forward')!
  expect(faultsWith(curve, put([]))).toEqual(['forward'])
  const legs = all.find((p) => p.kind === 'transistor' && p.pattern === 'legs')!
  expect(faultsWith(legs, (holder, key) => (holder[key] as unknown[]).pop())).toEqual(['legs'])
})

test('a value that says neither least, usual nor greatest is no value', () => {
  const forward = all.find((p) => p.kind === 'led' && p.pattern === 'currentAbsolute')!
  const at = (value: unknown) => faultsWith(forward, put(value))
  expect(at({ source: 'table 1' })).toEqual(['currentAbsolute'])
  expect([at({ max: '20 mA' }), at({ typ: '20 mA' }), at({ min: '20 mA' })]).toEqual([[], [], []])
})

test('the legs that a chip’s file misses are named, in order', () => {
  const data = structuredClone(partFiles().find((f) => f.name.endsWith('td8-08-dip.json'))!.data) as {
    pins: { legs: number[] }[]
  }
  data.pins = data.pins.filter((p) => !p.legs.includes(2) && !p.legs.includes(7))
  expect(() => readPart(data, 'x')).toThrow(/the package has 8 legs, 6 are named; missing: 2, 7/)
})

test('a corner that can’t be read is one fault, not two', () => {
  const led = partFiles().find((f) => (f.data as Json).kind === 'led')!.data as Json
  const faults = (current: unknown) => faultsOf({ ...led, current })
  expect(faults({ typ: '10 mA', max: '2 kg' })).toEqual(['current.max'])
  expect(faults({ typ: '30 mA', max: '20 mA' })).toEqual(['current'])
})
