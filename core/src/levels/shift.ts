// What can join two levels, with its values and the highest rate it passes: divider, clamp, MOSFET, buffer.

import { preferred } from '../circuit'
import { busMode } from './bus-modes'
import { forwardOf, voltageFor } from '../supply'
import { type NeedDevice, type ShiftKind, shiftKinds } from '../design'
import { fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import { type Buffer, type Chip, type Diode, partsOfKind, type Transistor } from '../parts'
import { fullRange, within } from '../quantity'
import {
  asStated,
  greatest,
  number,
  parallel,
  sum,
  type SumInput,
  type Term,
  total,
  dimensionOf,
} from '../sums'
import type { Wire } from '../legs'
import type { FittingContext } from './context'
import { busLow, chipDrives, chipStands, deviceDrives, type End, thresholdOf } from './sides'
import { programmerGives } from './programmer'
import { converterRange, type Divider, highestOf } from './verdict'

/** A voltage whose value counts, and not only whether it is high or low. */
const isAnalog = ({ signal: { electrical } }: End): boolean =>
  ['analog', 'analog-load', 'reference'].includes(electrical.kind)

type Preferred = ReturnType<typeof preferred>

/** What a builder calls each. */
export const shiftNames: Record<ShiftKind, string> = {
  divider: 'divider',
  clamp: 'clamp',
  mosfet: 'MOSFET',
  buffer: 'buffer',
  resistor: 'series resistor',
}

export interface Shift {
  kind: ShiftKind
  /** In the order in which they are named; resistors with their values. */
  resistors: { role: 'upper' | 'lower' | 'series' | 'near' | 'far'; value: Preferred; worked: Worked }[]
  part?: Transistor | Diode | Buffer
  divider?: Divider
  /** Of a clamp: what its diode drops. */
  forward?: Worked
  /** Bits a second; of a bus line its clock. */
  rate: Worked
  /** What the line needs. */
  needed: number
}

/** Lines beyond the shift: those of devices on another supply, or all where none is. */
export const isFar = (wire: Pick<Wire, 'signal'>, end: { instance: { need: NeedDevice } }): boolean =>
  end.instance.need.fedBy !== undefined || wire.signal.ends.every((e) => !e.instance.need.fedBy)

export const farNet = (net: string): string => `${net}_FAR`

const busRates = { i2c: 100e3, spi: 1e6, uart: 115.2e3, can: 500e3 }
/** Bits a second that a line must pass: its bus’s speed or usual rate, its PWM, or a few edges a millisecond. */
const neededRate = ({ signal }: Wire): number =>
  Math.max(
    signal.bus
      ? (signal.frequency ?? busRates[signal.bus.kind])
      : (signal.frequency ?? (signal.kind === 'analog-in' ? 100 : 10e3)),
    ...signal.ends.map((e) => e.signal.rate ?? 0),
  )

/** Whether what is fitted, at the worst of its values, is fast enough for its line. */
export const passes = ({ rate, needed }: Shift): boolean => rate.value.min >= needed * (1 - 1e-9)

const rateMeta = {
  label: 'Highest rate it passes',
  symbol: 'f_max',
  unit: 'Hz' as const,
  counts: 'min' as const,
}
/** Of a line whose bits last at least two rise times; t_r = 2.2 · R · C. */
const rateOf = (R: Record<string, SumInput>, C: Record<string, SumInput>): Worked =>
  sum(
    { ...rateMeta, note: 'Each bit lasts at least two rise times of 2.2 · R · C.' },
    { ...R, ...C },
    (i: Record<string, Term>) =>
      number(1).over(
        number(4.4)
          .times(parallel(...Object.keys(R).map((k) => i[k]!)))
          .times(
            total(
              Object.keys(C).map((k) => i[k]!),
              dimensionOf('F'),
            ),
          ),
      ),
  )
/** Of an I2C line: its rise time of 0.8473 · R · C is so much of its clock’s period at most (table 10). */
const busRateOf = (speed: number, R: SumInput, C: Record<string, SumInput>): Worked => {
  const mode = busMode(speed)
  const k = fromRule(
    'k',
    `longest rise time at ${mode.name}, as a share of the clock’s period`,
    mode.rise * mode.speed,
    '',
    'I2C-bus specification, table 10',
  )
  return sum(
    { ...rateMeta, note: 'The rise time is 0.8473 · R · C (I2C-bus specification, section 7.1).' },
    { k, R, ...C },
    (i: Record<string, Term>) =>
      i.k!.over(
        number(0.8473)
          .times(i.R!)
          .times(
            total(
              Object.keys(C).map((c) => i[c]!),
              dimensionOf('F'),
            ),
          ),
      ),
  )
}

/** A resistor as it will be fitted into a line. */
const fittedInto = (
  wire: Wire,
  symbol: string,
  role: string,
  ohms: number,
  tolerance: number,
): WorkedInput => ({
  symbol,
  label: `${role} resistor`,
  value: within(ohms, tolerance),
  unit: 'Ω',
  origin: { kind: 'rule', source: 'fitted value and its tolerance' },
  variable: `shift ${role} of ${wire.signal.id}`,
})

const legCapacitance = (chip: Chip) =>
  fromPart('C', 'capacitance of the leg', chip, 'io.capacitance', chip.io.capacitance, 'F')

type Maker = (wire: Wire, end: End, context: FittingContext) => Shift | undefined

/** The highest voltage that comes from the device, and what the leg may get. */
const fromDevice = (wire: Wire, end: End, { chip, rail, supplies, reference }: FittingContext) => {
  const supply = voltageFor(supplies, end.instance.need)
  if (!supply) return undefined
  const { electrical } = end.signal
  if (electrical.kind === 'analog') {
    const high = electrical.dividerTo ? undefined : highestOf(end, rail, supply)
    if (!high) return undefined
    const range = converterRange(chip, wire, rail, reference)
    const stands = chipStands(chip, wire, rail)
    return { high, limit: range.value.min <= stands.value.min ? range : stands }
  }
  const drives = deviceDrives(end, supply)
  return drives && { high: drives.high, limit: rail }
}

const divider: Maker = (wire, end, context) => {
  const { chip, stock } = context
  const sides = fromDevice(wire, end, context)
  if (!sides || !stock.resistors) return undefined
  const { tolerance, sheet } = stock.resistors
  const { electrical } = end.signal
  const source =
    electrical.kind === 'analog' && electrical.sourceResistance
      ? fullRange(electrical.sourceResistance).max
      : 0
  const lower = preferred(stock.resistors, Math.max(10e3, 10 * source), 'nearest')
  const bottom = fittedInto(wire, 'R_2', 'lower', lower.value, tolerance)
  const needed = sum(
    {
      label: 'Least upper resistor',
      symbol: 'R_1',
      unit: 'Ω',
      counts: 'max',
      note: `Fitted is the next preferred value above the greatest. The lower one is ${source > 1e3 ? 'ten times what the sensor’s own resistance is' : 'ten kilohms: little current, little noise'}.`,
    },
    {
      R_2: bottom,
      t: fromRule('t', 'how far the upper one may be below its value', tolerance, '', sheet),
      V: sides.high,
      V_limit: sides.limit,
    },
    (i) =>
      greatest(
        number(0, dimensionOf('Ω')),
        i.R_2.times(i.V.over(i.V_limit).minus(1)).over(number(1).minus(i.t)),
      ),
  )
  const least = needed.value.max
  if (least === 0) return undefined
  const upper = preferred(stock.resistors, least, 'up')
  const top = fittedInto(wire, 'R_1', 'upper', upper.value, tolerance)
  return {
    kind: 'divider',
    resistors: [
      { role: 'upper', value: upper, worked: needed },
      { role: 'lower', value: lower, worked: needed },
    ],
    divider: { top, bottom },
    rate: rateOf({ R_1: top, R_2: bottom }, { C: legCapacitance(chip) }),
    needed: neededRate(wire),
  }
}

/** What may flow through the clamp: small against what the rail draws anyway. */
const clampCurrent = 1e-3

const clamp: Maker = (wire, end, context) => {
  const { chip, stock, rail, library } = context
  if (isAnalog(end)) return undefined
  const sides = fromDevice(wire, end, context)
  const above = fullRange(chip.io.aboveSupply).max
  const I = fromRule(
    'I_clamp',
    'through the clamp',
    clampCurrent,
    'A',
    'less than the rail draws anyway, so that it is not lifted',
  )
  const found = partsOfKind(library, 'diode')
    .map((d) => ({ diode: d, V_F: forwardOf(d, I) }))
    .filter(({ V_F }) => V_F.value.max <= above + 1e-9)
    .sort((a, b) => a.diode.price - b.diode.price)[0]
  if (!sides || !stock.resistors || !found) return undefined
  const { diode, V_F } = found
  const needed = sum(
    {
      label: 'Least series resistor',
      symbol: 'R',
      unit: 'Ω',
      counts: 'max',
      note: `The diode holds the leg within ${above} V above the rail. Fitted is the next preferred value above the greatest.`,
    },
    {
      V: sides.high,
      V_DD: rail,
      V_F,
      I_clamp: fromRule(
        'I_clamp',
        'through the clamp',
        clampCurrent,
        'A',
        'less than the rail draws anyway, so that it is not lifted',
      ),
    },
    (i) => i.V.minus(i.V_DD).minus(i.V_F).over(i.I_clamp),
  )
  const least = needed.value.max
  if (least <= 0) return undefined
  const value = preferred(stock.resistors, least / (1 - stock.resistors.tolerance), 'up')
  return {
    kind: 'clamp',
    resistors: [{ role: 'series', value, worked: needed }],
    part: diode,
    forward: V_F,
    rate: rateOf(
      { R: fittedInto(wire, 'R', 'series', value.value, stock.resistors.tolerance) },
      { C: legCapacitance(chip) },
    ),
    needed: neededRate(wire),
  }
}

/** What an output pulls low where its sheet doesn’t say: usual for CMOS, amperes. */
const usualSink = 4e-3

const mosfet: Maker = (wire, end, { chip, stock, rail, supplies, library }) => {
  const supply = voltageFor(supplies, end.instance.need)
  const { electrical, id } = end.signal
  if (!supply || !stock.resistors || isAnalog(end)) return undefined
  const lower = supply.value.min < rail.value.min ? supply : rail
  const higher = lower === rail ? supply : rail
  const driveOf = (t: Transistor) =>
    sum(
      {
        label: 'Gate drive left above the threshold',
        symbol: 'V_drive',
        unit: 'V',
        counts: 'min',
        note: 'The gate is at the lower supply, the source at the low level of the line.',
      },
      {
        V_low: asStated('Lower of the two supplies', 'V_low', 'V', lower),
        V_OL: busLow(lower),
        V_th: fromPart('V_th', 'gate threshold', t, 'threshold', t.threshold!, 'V'),
      },
      (i) => i.V_low.minus(i.V_OL).minus(i.V_th),
    )
  const part = partsOfKind(library, 'transistor')
    .filter(
      (t) =>
        t.sort === 'n-mosfet' &&
        t.threshold &&
        driveOf(t).value.min >= 0 &&
        fullRange(t.voltage).max >= 2 * higher.value.max,
    )
    .sort((a, b) => a.price - b.price)[0]
  if (!part) return undefined
  const bus = electrical.kind === 'open-drain'
  const needed = neededRate(wire)
  const C: Record<string, SumInput> = {
    C_leg: legCapacitance(chip),
    ...(part.gateCapacitance && {
      C_gate: fromPart('C_gate', 'the transistor', part, 'gateCapacitance', part.gateCapacitance, 'F'),
    }),
    C_end: bus
      ? fromPart(
          'C_end',
          `${end.instance.name} with its leads`,
          end.instance.part,
          `${id}.capacitance`,
          electrical.capacitance,
          'F',
        )
      : fromRule('C_end', 'an input with its leads', 10e-12, 'F', 'usual for a CMOS input'),
  }
  const rateWith = (ohms: number): Worked => {
    const R = fittedInto(wire, 'R', 'pull-up', ohms, stock.resistors!.tolerance)
    return bus ? busRateOf(needed, R, C) : rateOf({ R }, C)
  }
  // The usual value; a smaller one where its line is too slow for it.
  const usual = bus ? 4.7e3 : 10e3
  const fast = usual * Math.min(1, rateWith(usual).value.min / needed)
  const pull = preferred(stock.resistors, fast, fast < usual ? 'down' : 'nearest')
  // Whoever pulls the line low takes the current of both sides: no smaller than that allows.
  const sink = bus
    ? fullRange(electrical.sinkCurrent).min
    : Math.min(usualSink, fullRange(chip.limits.pinRecommended).max)
  const across = higher.value.max + lower.value.max - 2 * busLow(lower).value.max
  if (across / (pull.value * (1 - stock.resistors.tolerance)) > sink) return undefined
  const drive = driveOf(part)
  return {
    kind: 'mosfet',
    resistors: [
      { role: 'near', value: pull, worked: drive },
      { role: 'far', value: pull, worked: drive },
    ],
    part,
    rate: rateWith(pull.value),
    needed,
  }
}

const buffer: Maker = (wire, end, { chip, rail, supplies, library }) => {
  const supply = voltageFor(supplies, end.instance.need)
  if (!supply || end.signal.electrical.kind !== 'logic-input') return undefined
  const drives = chipDrives(chip, wire, rail, (e) => voltageFor(supplies, e.instance.need))
  const part = partsOfKind(library, 'buffer')
    .filter((b) => {
      const range = fullRange(b.supply)
      const left = (over: Worked, under: Worked) =>
        sum({ label: 'Margin', symbol: 'M', unit: 'V' }, { over, under }, (i) => i.over.minus(i.under)).value
          .min
      return (
        supply.value.min >= range.min &&
        supply.value.max <= range.max &&
        left(drives.high, thresholdOf('High', 'V_IH', supply, b.high, b.sheet)) >= 0 &&
        left(thresholdOf('Low', 'V_IL', supply, b.low, b.sheet), drives.low) >= 0 &&
        drives.high.value.max <= b.stands
      )
    })
    .sort((a, b) => a.price - b.price)[0]
  return (
    part && {
      kind: 'buffer',
      resistors: [],
      part,
      rate: asStated(
        rateMeta.label,
        rateMeta.symbol,
        'Hz',
        fromPart('f_sheet', part.name, part, 'rate', { typ: part.rate, kind: 'guaranteed' }, 'Hz'),
      ),
      needed: neededRate(wire),
    }
  )
}

/** What an input’s own diode stands for long where no sheet says more, A; and the least that falls in it, V. */
export const safeInDiode = 1e-3
export const leastInDiode = 0.3

/** Against what flows when one side is off: it changes no level, since inputs take next to nothing. */
const alone: Maker = (wire, end, { chip, stock, rail, supplies }) => {
  const supply = voltageFor(supplies, end.instance.need)
  const { electrical } = end.signal
  if (!supply || !stock.resistors || wire.signal.bus?.kind === 'i2c') return undefined
  if (electrical.kind !== 'logic-output' && (electrical.kind !== 'logic-input' || electrical.pullResistance))
    return undefined
  const needed = sum(
    {
      label: 'Least series resistor',
      symbol: 'R',
      unit: 'Ω',
      counts: 'max',
      note: 'With either side off, the other’s voltage less a diode’s is across it; a programmer may feed the chip’s side. Fitted is the next preferred value above the greatest.',
    },
    {
      V_DD: rail,
      V_far: supply,
      V_prog: programmerGives(chip, rail),
      V_F: fromRule(
        'V_F',
        'falls in an input’s diode at least',
        leastInDiode,
        'V',
        'silicon, at microamperes',
      ),
      I_safe: fromRule(
        'I_safe',
        'into an input’s diode',
        safeInDiode,
        'A',
        'usual, where no sheet says more',
      ),
    },
    (i) => greatest(i.V_DD, i.V_far, i.V_prog).minus(i.V_F).over(i.I_safe),
  )
  const value = preferred(stock.resistors, needed.value.max / (1 - stock.resistors.tolerance), 'up')
  return {
    kind: 'resistor',
    resistors: [{ role: 'series', value, worked: needed }],
    rate: rateOf(
      { R: fittedInto(wire, 'R', 'series', value.value, stock.resistors.tolerance) },
      {
        C:
          electrical.kind === 'logic-output'
            ? legCapacitance(chip)
            : fromRule('C_end', 'an input with its leads', 10e-12, 'F', 'usual for a CMOS input'),
      },
    ),
    needed: neededRate(wire),
  }
}

const makers: Record<ShiftKind, Maker> = { divider, clamp, mosfet, buffer, resistor: alone }

const makeShift = (kind: ShiftKind, wire: Wire, end: End, context: FittingContext): Shift | undefined =>
  makers[kind](wire, end, context)

/** What is fitted in this line, as the builder decided. */
export const fittedShift = (wire: Wire, end: End, context: FittingContext): Shift | undefined => {
  const kind = context.design.pins.shifts?.[wire.signal.id]
  return kind && isFar(wire, end) ? makeShift(kind, wire, end, context) : undefined
}

/** All that could be fitted, those that pass the line’s rate first, the fewest parts first among them. */
export const shiftsFor = (wire: Wire, end: End, direction: string, context: FittingContext): Shift[] =>
  shiftKinds
    .filter((kind) => kind !== 'resistor' && (direction !== 'both ways' || kind === 'mosfet'))
    .flatMap((kind) => makeShift(kind, wire, end, context) ?? [])
    .sort(
      (a, b) =>
        Number(passes(b)) - Number(passes(a)) ||
        a.resistors.length + (a.part ? 1 : 0) - b.resistors.length - (b.part ? 1 : 0),
    )

export const nearNet = (wire: Wire): string => wire.signal.net
