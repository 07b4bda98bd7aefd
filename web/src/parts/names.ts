// What the kinds of parts and their fields are called.

import { type FieldPath, type Part, type PartKind, stepsOf } from '@root-board/core/parts'

export const kindWords: Record<PartKind, string> = {
  chip: 'chip',
  device: 'device',
  board: 'board',
  source: 'source',
  regulator: 'regulator',
  led: 'LED',
  diode: 'diode',
  transistor: 'transistor',
  crystal: 'crystal',
  resonator: 'resonator',
  resistors: 'resistors',
  capacitors: 'capacitors',
  connector: 'connector',
  switch: 'switch',
  buffer: 'buffer',
  wire: 'wire, by the metre',
  fuse: 'fuse',
  charger: 'charger',
  protection: 'cell protection',
}

export const legsOf = (part: Part): number | undefined => {
  if (part.kind === 'board') return part.headers.reduce((n, h) => n + h.positions.length, 0)
  return 'package' in part ? part.package.legs : undefined
}

/** In words a builder would search for. */
export const offersOf = (part: Part, nameOf: (id: string) => string): string => {
  if (part.kind === 'chip')
    return [...new Set(part.units.map((u) => u.kind))].filter((k) => k !== 'other').join(', ')
  if (part.kind === 'device')
    return [...new Set(part.wirings.flatMap((w) => w.signals.map((s) => s.bus ?? s.kind)))].join(', ')
  if (part.kind === 'board') return `carries ${nameOf(part.chip)}`
  return part.description ?? ''
}

const spelled: Record<string, string> = {
  io: 'legs as inputs and outputs',
  inputHigh: 'input threshold, high',
  inputLow: 'input threshold, low',
  outputHigh: 'drop of a high output',
  outputLow: 'drop of a low output',
  aboveSupply: 'above the supply, at most',
  pinRecommended: 'one leg, recommended',
  pinAbsolute: 'one leg, absolute maximum',
  totalAbsolute: 'all legs, absolute maximum',
  total: 'all legs',
  price: 'price, €',
  supplyAbsolute: 'supply, absolute maximum',
  inputAbsolute: 'input, absolute maximum',
  inputRecommended: 'input, recommended',
  currentAbsolute: 'current, absolute maximum',
  junctionMax: 'highest junction temperature',
  dropout: 'drop-out',
  converts: 'converts voltage',
  inputCurrent: 'current at its input',
  ripple: 'ripple of its output',
  latch: 'switches the project’s supply',
  drives: 'turns what hangs on it',
  outputs: 'its outputs',
  one: 'one terminal',
  other: 'its other terminal',
  peak: 'for a moment',
  drop: 'what falls in it',
  clamped: 'catches what a coil does',
  pass: 'transistor in the plus',
  behindDiode: 'behind a diode',
  startUp: 'from a supply that is enough to its program',
  gateVoltage: 'between gate and source, at most',
  drainCapacitance: 'of that, between gate and drain',
  leakage: 'leakage',
  ratedAt: 'in air of',
  insulation: 'what its insulation stands',
  usb: 'its own USB plug',
  protection: 'protection on the cell',
  unasked: 'before it is asked for more',
  waits: 'gives nothing before it finds',
  takes: 'takes the plug',
  asks: 'what the plug waits for is on it',
  full: 'above which it ends charging',
  jack: 'its own jack for a hollow plug',
  barrel: 'hollow plug',
  outer: 'across it',
  bore: 'across its hole',
  feeds: 'what it feeds',
  backwards: 'from its output back to its input',
  charging: 'how it may be charged',
  saturation: 'falls in it, saturated',
  baseEmitter: 'base to emitter, saturated',
  setting: 'volts over the resistor that make amperes',
  ends: 'share of its current at which the cell is full',
  headroom: 'needed above the cell',
  back: 'out of the cell, nothing plugged in',
  trips: 'what surely opens it',
  breaking: 'the most that it can interrupt',
  derating: 'what is left of its ratings in warm air',
  air: 'air around it',
  wakes: 'what ends it',
  wakeUps: 'what ends it, to reckon with',
  wakeWire: 'wire by which its clock ends it',
  retains: 'what it still knows',
  discharge: 'voltage as the charge goes',
  used: 'share used',
  cold: 'what is left in cold air',
  worn: 'what is left after so many charges',
  charges: 'charged so often',
  joins: 'cells that may be joined',
  series: 'in a row',
  parallel: 'beside one another',
  selfDischarge: 'loses by itself in a year',
  quiescent: 'current it takes itself',
  pins: 'legs',
  units: 'units (timers, converters, buses …)',
  routing: 'how functions reach legs',
  matrix: 'functions with a choice of legs',
  source: 'place in the sheet',
  frequencyLimits: 'highest clock at a supply',
  pullUp: 'pull-up',
  internalPullUp: 'pull-up inside',
  bulk: 'bulk capacitor',
  within: 'no further than',
  planChooses: 'the plan chooses among its wirings',
  pinCurrent: 'current of a position',
  loads: 'what hangs on its legs already',
  blocks: 'blocks on the board',
  standalone: 'on a board of one’s own',
  restsAt: 'rests at',
  prescalerUpTo: 'prescaler up to',
  loadCapacitance: 'load capacitance',
  perHertz: 'for each hertz',
  esr: 'ESR',
}
/** Names that mean something else in one place. */
const placed: Record<string, string> = { 'clock.source': 'which of the chip’s clock sources' }
/** Of a fact where in the sheet it stands, and not itself a fact. */
export const isPlace = (path: string): boolean => /(?:^|\.)source$/.test(path) && !(path in placed)
/** The last step of a path as words. */
export const wordsAt = (steps: FieldPath): string => {
  const named = steps.filter((step) => typeof step === 'string')
  return placed[named.slice(-2).join('.')] ?? fieldWords(named.at(-1) ?? '')
}

/** `pinRecommended` as words. */
export const fieldWords = (name: string): string =>
  spelled[name] ?? name.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)

/** `pins[3].legs[0]` as one reads it: “legs 4, legs 1”. */
export const pathWords = (path: string): string =>
  stepsOf(path).reduce<string>(
    (words, step, i, all) =>
      typeof step === 'number'
        ? `${words} ${step + 1}`
        : `${words}${words && ', '}${wordsAt(all.slice(0, i + 1))}`,
    '',
  )
