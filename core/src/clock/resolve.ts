// The clock the builder chose, or the chip's own oscillator when nothing was chosen; which legs it takes, and
// how fast it may be.

import { settledBy } from '../carrier'
import { stockOf } from '../circuit'
import { careful, type Design, supportChoice } from '../design'
import { fromDecision, fromPart, type Worked, type WorkedInput } from '../findings'
import { type Chip, type ClockSource, type Crystal, findPart, type Library, type Resonator } from '../parts'
import { dimensionOf, number, readCurve, sum, type Term, total } from '../sums'
import { type LoadCapacitors, loadCapacitors } from './load-capacitors'

export interface ClockResult {
  source?: ClockSource
  /** As it is called: what a crystal is cut for, what an oscillator is set to. */
  nominal: Worked
  /** As it is, with everything by which it can be off. */
  frequency: Worked
  part?: Crystal | Resonator
  /** Chip pins the clock occupies. */
  pins: string[]
  /** What could be chosen. */
  choices: ClockOption[]
  /** Highest clock at the rail's lowest voltage. */
  limit?: Worked
  lowestSupply?: Worked
  /** Greatest deviation, in ppm. */
  deviation?: Worked
  /** Of a crystal. */
  load?: LoadCapacitors
}

export interface ClockOption {
  source: ClockSource
  frequency: number
  part?: Crystal | Resonator
  name: string
}

const hertz = (label: string, value: number, what: string): Worked =>
  sum({ label, symbol: 'f_0', unit: 'Hz' }, { f: fromDecision('f', label, value, 'Hz', what) }, (i) => i.f)

/** By how much it is off, slower or faster: the sheets say only how far. */
const eitherWay = (deviation: Worked): WorkedInput => ({
  symbol: 'ε',
  label: 'off by, slower or faster',
  value: { min: -deviation.value.max, typ: 0, max: deviation.value.max },
  unit: 'ppm',
  origin: { kind: 'worked', of: deviation },
  variable: 'off by, either way',
})

/** A clock with what it is off by; `note` where nothing is known of that. */
const asItIs = (f_0: Worked, deviation: Worked | undefined): Worked =>
  deviation
    ? sum({ label: 'Clock', symbol: 'f', unit: 'Hz' }, { f_0, ε: eitherWay(deviation) }, (i) =>
        i.f_0.times(number(1).plus(i.ε)),
      )
    : sum(
        { label: 'Clock', symbol: 'f', unit: 'Hz', note: 'By how much it is off is not stated.' },
        { f_0 },
        (i) => i.f_0,
      )

/** Everything this chip can run from with the parts there are. */
export const clockOptions = (chip: Chip, library: Library): ClockOption[] =>
  chip.clockSources.flatMap((source): ClockOption[] => {
    if (source.kind === 'internal')
      return (source.frequencies ?? [source.max]).map((frequency) => ({
        source,
        frequency,
        name: source.name,
      }))
    if (source.kind === 'external') return []
    return Object.values(library.parts)
      .filter((p): p is Crystal | Resonator => p.kind === source.kind)
      .filter((p) => p.frequency >= source.min && p.frequency <= source.max)
      .sort((a, b) => a.frequency - b.frequency)
      .map((part) => ({ source, frequency: part.frequency, part, name: part.name }))
  })

export const resolveClock = (
  design: Design,
  library: Library,
  chip: Chip | undefined,
  rail: Worked | undefined,
): ClockResult => {
  if (!chip) {
    const none = hertz('Clock', 0, 'no chip is chosen')
    return { nominal: none, frequency: none, pins: [], choices: [] }
  }
  const chosen = settledBy(design, library).clock
  const internal = chip.clockSources.find((s) => s.kind === 'internal')
  const source = chip.clockSources.find((s) => s.id === chosen?.source) ?? internal ?? chip.clockSources[0]!
  const asked = chosen && source.id === chosen.source ? chosen.frequency : undefined
  const frequency = asked ?? source.frequencies?.[0] ?? source.max
  const part =
    source.kind === 'crystal' || source.kind === 'resonator'
      ? (findPart(library, source.kind, chosen?.part) ??
        Object.values(library.parts).find(
          (p): p is Crystal | Resonator => p.kind === source.kind && p.frequency === frequency,
        ))
      : undefined
  const nominal = hertz(
    'Clock as it is called',
    frequency,
    asked ? 'chosen on the Chip page' : `the chip’s own start: ${source.name}`,
  )
  const { ceramics } = stockOf(library)
  const load =
    part?.kind === 'crystal' && source.pins && source.pins.length >= 2 && ceramics
      ? loadCapacitors(chip, source, part, ceramics)
      : undefined
  const isLoaded = (source.pins ?? []).every(
    (pin) => supportChoice(design, loadCapacitorKey(pin), careful).present,
  )
  const deviation = deviationOf(chip, source, part, isLoaded ? load?.pull : load?.bare)
  const actual = asItIs(nominal, deviation)
  return {
    source,
    nominal,
    frequency: actual,
    part,
    pins: source.kind === 'internal' ? [] : (source.pins ?? []),
    choices: clockOptions(chip, library),
    deviation,
    load,
    ...(rail ? frequencyLimits(chip, nominal, rail) : {}),
  }
}

export const loadCapacitorKey = (pin: string): string => `load-capacitor:${pin}`

/** How far it is pulled, whichever way. */
const sizeOf = (pull: Worked): WorkedInput => {
  const { min, typ, max } = pull.value
  const ends = [Math.abs(min), Math.abs(max)]
  return {
    symbol: '|Δf/f|',
    label: pull.label,
    value: { min: min < 0 && max > 0 ? 0 : Math.min(...ends), typ: Math.abs(typ), max: Math.max(...ends) },
    unit: 'ppm',
    origin: { kind: 'worked', of: pull },
    variable: 'size of the pull',
  }
}

/** How far the clock may be off, either way: initial tolerance, temperature, ageing and load added at their worst. */
export const deviationOf = (
  chip: Chip,
  source: ClockSource,
  part: Crystal | Resonator | undefined,
  pull: Worked | undefined,
): Worked | undefined => {
  const shares =
    part?.kind === 'crystal'
      ? ([
          ['ε_0', 'initial tolerance', 'tolerance', part.tolerance],
          ['ε_T', 'over temperature', 'temperature', part.temperature],
          ['ε_a', 'ageing', 'ageing', part.ageing],
        ] as const)
      : ([['ε_0', 'tolerance', 'tolerance', part?.tolerance ?? source.tolerance]] as const)
  const of = part ?? chip
  const inputs = shares.flatMap(([symbol, label, field, share]) =>
    share === undefined
      ? []
      : [
          fromPart(
            symbol,
            label,
            of,
            part ? field : `clockSources.${source.id}.${field}`,
            { typ: share * 1e6, kind: 'guaranteed', source: part ? undefined : source.source },
            'ppm',
          ),
        ],
  )
  if (inputs.length === 0) return undefined
  return sum(
    {
      label: 'The clock is off by at most',
      symbol: 'ε',
      unit: 'ppm',
      counts: 'max',
      note: '1 % is 10 000 ppm; 11.6 ppm are a second a day.',
    },
    {
      ...Object.fromEntries(inputs.map((i) => [i.symbol, i])),
      ...(pull && { '|Δf/f|': sizeOf(pull) }),
    },
    (i: Record<string, Term>) =>
      total([...inputs.map(({ symbol }) => i[symbol]!), ...(pull ? [i['|Δf/f|']!] : [])], dimensionOf('')),
  )
}

/** A supply a hair below the first of the sheet’s points: nothing is permitted there. */
const hair = 1e-9

const frequencyLimits = (
  chip: Chip,
  nominal: Worked,
  rail: Worked,
): Pick<ClockResult, 'limit' | 'lowestSupply'> => {
  const points = [...chip.frequencyLimits].sort((a, b) => a.supply - b.supply)
  const [first, last] = [points[0]!, points.at(-1)!]
  const rated = (value: number, source: string | undefined) => ({
    typ: value,
    kind: 'recommended' as const,
    source,
  })
  const limit = readCurve(
    {
      label: 'Highest clock at this supply',
      symbol: 'f_max',
      unit: 'Hz',
      note: 'The lowest supply decides.',
    },
    {
      part: chip,
      field: 'frequencyLimits',
      held: true,
      points: [
        { x: first.supply - hair, y: rated(0, first.source) },
        ...points.map((p) => ({ x: p.supply, y: rated(p.frequency, p.source) })),
      ],
    },
    ['V_DD', rail],
  )
  return {
    limit,
    lowestSupply:
      nominal.value.typ > last.frequency
        ? undefined
        : readCurve(
            { label: 'Lowest supply for this clock', symbol: 'V_min', unit: 'V' },
            {
              part: chip,
              field: 'frequencyLimits',
              specimen: 'supply',
              held: true,
              // Of several supplies for one clock the lowest.
              points: points
                .filter((p, k) => k === 0 || p.frequency > points[k - 1]!.frequency)
                .map((p) => ({ x: p.frequency, y: rated(p.supply, p.source) })),
            },
            ['f_0', nominal],
          ),
  }
}

/** Whether a clock, at the fast end of its tolerance, would be above what the chip permits at the rail’s lowest. */
export const optionTooFast = (chip: Chip, option: ClockOption, rail: Worked): boolean => {
  const nominal = hertz('Clock', option.frequency, option.name)
  const frequency = asItIs(nominal, deviationOf(chip, option.source, option.part, undefined))
  return tooFast({ nominal, frequency, ...frequencyLimits(chip, nominal, rail) }) !== undefined
}

/** A limit of a sheet is stated to so many digits: beyond it is what is above by more than this share. */
const stated = 1e-3
/** By how much the clock is, or may be, above what is permitted at the lowest supply: surely, perhaps, or not at all. */
export const tooFast = ({
  nominal,
  frequency,
  limit,
}: Pick<ClockResult, 'nominal' | 'frequency' | 'limit'>): 'surely' | 'perhaps' | undefined => {
  if (!limit) return undefined
  const most = limit.value.min
  if (nominal.value.typ > most * (1 + 1e-9)) return 'surely'
  return frequency.value.max > most * (1 + stated) ? 'perhaps' : undefined
}
