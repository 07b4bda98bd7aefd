// Which checks a part can serve: what each needs to know, and whether the file states it, or only assumes it. A fact
// that is assumed lets the check run, with the assumption named in its working.

import { fieldAt } from './assumed'
import type { Part, PartKind } from './library'

export const served = [
  'pins',
  'drive',
  'power',
  'sleep',
  'clock',
  'start-up',
  'programming',
  'build',
] as const
/** What a part's facts are asked for. */
export type Served = (typeof served)[number]

interface Asked {
  serves: Served
  /** A field, or how to see that the part states it. */
  stated: string | ((part: Part) => boolean)
  /** For an assumption: the fields it stands in. */
  words: string
  /** Whether the part has anything of the sort; absent: all have. */
  asks?: (part: Part) => boolean
}

const functionsOf = (part: Part) => (part.kind === 'chip' ? part.pins.flatMap((p) => p.functions ?? []) : [])
const someAttribute = (part: Part, kinds: string[]) =>
  part.kind === 'chip' && part.pins.some((p) => p.attributes?.some((a) => kinds.includes(a.kind)))

const converters = (part: Part) =>
  part.kind === 'chip' ? part.units.filter((u) => u.kind === 'converter') : []
const measured = (part: Part) =>
  part.kind === 'device'
    ? part.wirings.flatMap((w) =>
        w.signals.flatMap(({ electrical }) => (electrical.kind === 'analog' ? [electrical] : [])),
      )
    : []

const asked: Partial<Record<PartKind, Asked[]>> = {
  chip: [
    { serves: 'pins', stated: 'pins', words: 'legs and names' },
    {
      serves: 'pins',
      stated: (p) => functionsOf(p).length > 0 || (p.kind === 'chip' && (p.matrix?.length ?? 0) > 0),
      words: 'what each leg can be',
    },
    { serves: 'drive', stated: 'io.outputHigh', words: 'output strength, high' },
    { serves: 'drive', stated: 'io.outputLow', words: 'output strength, low' },
    { serves: 'drive', stated: 'limits.pinRecommended', words: 'recommended current of a leg' },
    { serves: 'drive', stated: 'limits.pinAbsolute', words: 'absolute maximum current of a leg' },
    { serves: 'drive', stated: 'limits.total', words: 'current of all legs together' },
    { serves: 'drive', stated: 'io.inputHigh', words: 'input threshold, high' },
    { serves: 'drive', stated: 'io.inputLow', words: 'input threshold, low' },
    { serves: 'drive', stated: 'io.leakage', words: 'input leakage' },
    { serves: 'drive', stated: 'io.aboveSupply', words: 'how far above the supply a leg may go' },
    { serves: 'drive', stated: 'io.capacitance', words: 'capacitance of a leg' },
    {
      serves: 'drive',
      stated: (p) => converters(p).every((u) => u.sourceResistance && u.samplingCapacitance),
      words: 'through what resistance a converter reads, and what it fills for that',
      asks: (p) => converters(p).length > 0,
    },
    { serves: 'power', stated: 'supply.recommended', words: 'supply range' },
    { serves: 'power', stated: 'supply.absolute', words: 'absolute maximum supply' },
    { serves: 'power', stated: 'modes', words: 'current while running' },
    {
      serves: 'sleep',
      stated: (p) => p.kind === 'chip' && p.modes.some((m) => m.kind === 'sleep'),
      words: 'a sleep mode with its current',
    },
    {
      serves: 'sleep',
      stated: (p) =>
        p.kind === 'chip' && p.modes.some((m) => m.kind === 'sleep' && (m.wakes?.length ?? 0) > 0),
      words: 'what wakes it',
    },
    { serves: 'clock', stated: 'clockSources', words: 'clock sources and their tolerance' },
    { serves: 'clock', stated: 'frequencyLimits', words: 'highest clock at a supply' },
    { serves: 'start-up', stated: 'support.reset', words: 'the reset leg and its pull-up' },
    {
      serves: 'start-up',
      stated: (p) => someAttribute(p, ['startup', 'strap']),
      words: 'what the legs do at start-up, and which are read then',
    },
    { serves: 'programming', stated: 'programming', words: 'the programming header' },
    { serves: 'programming', stated: 'memory', words: 'memory' },
    { serves: 'build', stated: 'package.style', words: 'the package’s style' },
    { serves: 'build', stated: 'package.pitch', words: 'distance of its legs' },
    { serves: 'build', stated: 'package.rowSpacing', words: 'distance of its rows' },
    { serves: 'build', stated: 'support.decoupling', words: 'decoupling capacitors' },
    { serves: 'build', stated: 'price', words: 'price' },
  ],
  board: [
    { serves: 'pins', stated: 'headers', words: 'header positions' },
    { serves: 'drive', stated: 'pinCurrent', words: 'current of a position' },
    { serves: 'power', stated: 'inputAbsolute', words: 'absolute maximum of its input' },
    {
      serves: 'sleep',
      stated: (p) => p.kind === 'board' && p.blocks.length > 0,
      words: 'blocks and what they draw asleep',
    },
    { serves: 'clock', stated: 'clock', words: 'its clock' },
    { serves: 'build', stated: 'length', words: 'length' },
    { serves: 'build', stated: 'width', words: 'width' },
  ],
  device: [
    { serves: 'pins', stated: 'wirings', words: 'how it is wired' },
    { serves: 'drive', stated: 'supply', words: 'its supply' },
    { serves: 'drive', stated: 'supplyAbsolute', words: 'absolute maximum of its supply' },
    {
      serves: 'drive',
      stated: (p) => measured(p).every((e) => e.sourceResistance !== undefined),
      words: 'the resistance inside it that a reading comes through',
      asks: (p) => measured(p).length > 0,
    },
    {
      serves: 'power',
      stated: (p) => p.kind === 'device' && p.modes.length > 0,
      words: 'currents at rest and at work',
    },
    { serves: 'build', stated: 'height', words: 'height' },
  ],
  regulator: [
    { serves: 'power', stated: 'package.thermalResistance', words: 'thermal resistance' },
    { serves: 'power', stated: 'quiescent', words: 'current it takes itself' },
    {
      serves: 'power',
      stated: 'efficiency',
      words: 'what share of its input it passes on',
      asks: (p) => p.kind === 'regulator' && p.topology === 'switching',
    },
    { serves: 'build', stated: 'outputCapacitor.esr', words: 'what its output capacitor may have as ESR' },
    {
      serves: 'build',
      stated: 'package.rowSpacing',
      words: 'distance of its rows',
      // Upright, all legs stand in one.
      asks: (p) => p.kind === 'regulator' && p.package.style !== 'upright',
    },
  ],
  source: [
    { serves: 'power', stated: 'resistance', words: 'inner resistance' },
    { serves: 'sleep', stated: 'capacity', words: 'charge' },
  ],
  led: [
    { serves: 'drive', stated: 'forward', words: 'forward voltage' },
    { serves: 'build', stated: 'diameter', words: 'diameter' },
  ],
  transistor: [
    { serves: 'drive', stated: 'threshold', words: 'gate threshold' },
    { serves: 'drive', stated: 'channel', words: 'channel resistance' },
    { serves: 'drive', stated: 'gateLeakage', words: 'gate leakage' },
    { serves: 'drive', stated: 'gateCapacitance', words: 'gate capacitance' },
  ],
  crystal: [
    { serves: 'clock', stated: 'motional', words: 'motional capacitance' },
    { serves: 'clock', stated: 'shunt', words: 'shunt capacitance' },
    { serves: 'clock', stated: 'resistance', words: 'series resistance' },
  ],
}

/** What a field is asked for: `supply.recommended` for power. */
export const servesOf = (kind: PartKind, path: string): Served[] => [
  ...new Set((asked[kind] ?? []).filter((a) => a.stated === path).map((a) => a.serves)),
]

export interface ServedCheck {
  serves: Served
  /** In words: what the file states, only assumes, and lacks. */
  stated: string[]
  assumed: { words: string; path: string }[]
  missing: string[]
}

/** Whether any of it is a guess that the sheet didn’t state. */
const holdsAssumed = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (('kind' in value && value.kind === 'assumed') || Object.values(value).some(holdsAssumed))

/** What a part can serve, in working order; kinds without anything to miss are left out. */
export const completenessOf = (part: Part): ServedCheck[] => {
  const assumed = new Set(part.assumed)
  return served.flatMap((serves): ServedCheck[] => {
    const mine = (asked[part.kind] ?? []).filter((a) => a.serves === serves && (a.asks?.(part) ?? true))
    if (mine.length === 0) return []
    const check: ServedCheck = { serves, stated: [], assumed: [], missing: [] }
    for (const { stated, words } of mine) {
      const value = typeof stated === 'string' ? fieldAt(part, stated) : undefined
      const isGuess = holdsAssumed(value)
      if (typeof stated === 'string' && (assumed.has(stated) || isGuess))
        check.assumed.push({ words, path: stated })
      else if (typeof stated === 'string' ? value !== undefined : stated(part)) check.stated.push(words)
      else check.missing.push(words)
    }
    return [check]
  })
}

/** Units that no leg can carry: named in the file, and reached by nothing. */
export const unitsWithoutPin = (part: Part): string[] => {
  if (part.kind !== 'chip') return []
  const reached = new Set([
    ...part.pins.flatMap((p) => p.functions ?? []).map((f) => f.unit),
    ...(part.matrix ?? []).filter((m) => m.pins.length > 0).flatMap((m) => m.units),
  ])
  return part.units.map((u) => u.id).filter((id) => !reached.has(id))
}
