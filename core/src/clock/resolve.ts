// The clock the builder chose, or the chip's own oscillator when nothing was chosen; which legs it takes, and
// how fast it may be.

import type { Design } from '../design'
import { fromDecision, fromPart, partOrigin, type Worked } from '../findings'
import { type Chip, type ClockSource, type Crystal, findPart, type Library, type Resonator } from '../parts'
import { exactly } from '../quantity'
import { lowestSupplyFor, maximumFrequency } from './formulas'

export interface ClockResult {
  source?: ClockSource
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
}

export interface ClockOption {
  source: ClockSource
  frequency: number
  part?: Crystal | Resonator
  name: string
}

const hertz = (label: string, value: number, what: string): Worked => ({
  label,
  symbol: 'f',
  value: exactly(value),
  unit: 'Hz',
  formula: 'f',
  inputs: [fromDecision('f', label, value, 'Hz', what)],
})

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
  if (!chip) return { frequency: hertz('Clock', 0, 'no chip is chosen'), pins: [], choices: [] }
  const chosen = design.chip.clock
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
  const worked = hertz(
    'Clock',
    frequency,
    asked ? 'chosen on the Chip page' : `the chip’s own start: ${source.name}`,
  )
  return {
    source,
    frequency: worked,
    part,
    pins: source.kind === 'internal' ? [] : (source.pins ?? []),
    choices: clockOptions(chip, library),
    deviation: deviationOf(chip, source, part),
    ...(rail ? frequencyLimits(chip, worked, rail) : {}),
  }
}

/** How far the clock may be off, either way: initial tolerance, temperature and ageing added at their worst. */
const deviationOf = (
  chip: Chip,
  source: ClockSource,
  part: Crystal | Resonator | undefined,
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
  return {
    label: 'The clock is off by at most',
    symbol: 'ε',
    value: exactly(inputs.reduce((sum, i) => sum + i.value.typ, 0)),
    unit: 'ppm',
    formula: inputs.map((i) => i.symbol).join(' + '),
    inputs,
    note: 'Either way. 1 % is 10 000 ppm; 11.6 ppm are a second a day.',
  }
}

const frequencyLimits = (
  chip: Chip,
  frequency: Worked,
  rail: Worked,
): Pick<ClockResult, 'limit' | 'lowestSupply'> => {
  const at = (v: number) => maximumFrequency(chip.frequencyLimits, v)
  const lowest = lowestSupplyFor(chip.frequencyLimits, frequency.value.max)
  const points = chip.frequencyLimits.flatMap((p, i) => [
    {
      symbol: `V${i + 1}`,
      label: 'supply of a point',
      value: exactly(p.supply),
      unit: 'V' as const,
      origin: partOrigin(chip, `frequencyLimits[${i}]`, { source: p.source, kind: 'recommended' }),
    },
    {
      symbol: `f${i + 1}`,
      label: 'clock permitted there',
      value: exactly(p.frequency),
      unit: 'Hz' as const,
      origin: partOrigin(chip, `frequencyLimits[${i}]`, { source: p.source, kind: 'recommended' }),
    },
  ])
  const railInput = {
    symbol: 'V_DD',
    label: rail.label,
    value: rail.value,
    unit: rail.unit,
    origin: { kind: 'worked' as const, of: rail },
  }
  return {
    limit: {
      label: 'Highest clock at this supply',
      symbol: 'f_max',
      value: { min: at(rail.value.min), typ: at(rail.value.typ), max: at(rail.value.max) },
      unit: 'Hz',
      formula: 'straight line between the sheet’s points (V, f) at V_DD',
      inputs: [railInput, ...points],
      note: 'The lowest supply decides.',
    },
    lowestSupply:
      lowest === undefined
        ? undefined
        : {
            label: 'Lowest supply for this clock',
            symbol: 'V_min',
            value: exactly(lowest),
            unit: 'V',
            formula: 'the same points, read the other way at f',
            inputs: [
              {
                symbol: 'f',
                label: 'clock',
                value: frequency.value,
                unit: 'Hz',
                origin: { kind: 'worked', of: frequency },
              },
              ...points,
            ],
          },
  }
}
