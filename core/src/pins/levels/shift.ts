// What can join two levels, with its values and the highest rate it passes: divider, clamp, MOSFET, buffer.

import { type Stock, supplyOf, preferred, type Supplies, supplyNet } from '../../circuit'
import { type Design, type NeedDevice, type ShiftKind, shiftKinds } from '../../design'
import { leastTopResistor, rateThrough, voltageAt } from '../../electrical'
import { fromPart, fromRule, fromWorked, type Worked } from '../../findings'
import { type Buffer, type Chip, type Diode, type Library, partsOfKind, type Transistor } from '../../parts'
import { exactly, fullRange, parallel, type Range, within } from '../../quantity'
import type { Wire } from '../plan'
import { netOf } from '../support/context'
import { chipDrives, chipStands, deviceDrives, type End } from './sides'
import { converterRange } from './verdict'

export interface ShiftContext {
  design: Design
  library: Library
  chip: Chip
  rail: Worked
  supplies: Supplies
  stock: Stock
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
}

/** A voltage whose value counts, and not only whether it is high or low. */
const isAnalog = ({ signal: { electrical } }: End): boolean =>
  ['analog', 'analog-load', 'reference'].includes(electrical.kind)

type Preferred = ReturnType<typeof preferred>

export interface Shift {
  kind: ShiftKind
  /** In the order in which they are named; resistors with their values. */
  resistors: { role: 'upper' | 'lower' | 'series' | 'near' | 'far'; value: Preferred; worked: Worked }[]
  part?: Transistor | Diode | Buffer
  /** Of a divider, with tolerance. */
  top?: Range
  bottom?: Range
  /** Bits a second. */
  rate: Worked
  /** What the line needs. */
  needed: number
}

/** Lines beyond the shift: those of devices on another supply, or all where none is. */
export const isFar = (wire: Pick<Wire, 'signal'>, end: { instance: { need: NeedDevice } }): boolean =>
  end.instance.need.fedBy !== undefined || wire.signal.ends.every((e) => !e.instance.need.fedBy)

export const farNet = (name: string): string => `${netOf(name)}_FAR`

const busRates = { i2c: 100e3, spi: 1e6, uart: 115.2e3, can: 500e3 }
/** Bits a second that a line must pass: its bus’s usual rate, its PWM, or a few edges a millisecond. */
export const neededRate = ({ signal }: Wire): number =>
  Math.max(
    signal.bus ? busRates[signal.bus.kind] : (signal.frequency ?? (signal.kind === 'analog-in' ? 100 : 10e3)),
    ...signal.ends.map((e) => e.signal.rate ?? 0),
  )

const rateOf = (resistance: number, capacitance: number, inputs: Worked['inputs']): Worked => ({
  label: 'Highest rate it passes',
  symbol: 'f_max',
  value: exactly(rateThrough(resistance, capacitance)),
  unit: 'Hz',
  formula: '1 / (2 · 2.2 · R · C)',
  inputs: [
    fromRule('R', 'resistance in front of the capacitance', resistance, 'Ω', 'fitted values'),
    ...inputs,
  ],
  note: 'Each bit lasts at least two rise times.',
})

const legCapacitance = (chip: Chip) =>
  fromPart('C', 'capacitance of the leg', chip, 'io.capacitance', chip.io.capacitance, 'F')

type Maker = (wire: Wire, end: End, context: ShiftContext) => Shift | undefined

/** The highest voltage that comes from the device, and what the leg may get. */
const fromDevice = (wire: Wire, end: End, { chip, rail, supplies, reference }: ShiftContext) => {
  const supply = supplyOf(supplies, end.instance.need)
  if (!supply) return undefined
  const { electrical } = end.signal
  if (electrical.kind === 'analog') {
    if (electrical.dividerTo) return undefined
    const range = converterRange(chip, wire, rail, reference)
    const stands = chipStands(chip, wire, rail)
    const limit = range.value.min <= stands.value.min ? range : stands
    const high: Worked =
      electrical.max === undefined
        ? supply
        : {
            ...supply,
            label: `Highest level of ${end.instance.name}`,
            value: exactly(electrical.max),
            formula: 'V_sheet',
            inputs: [fromRule('V_sheet', 'highest level', electrical.max, 'V', end.instance.part.sheet)],
          }
    return { high, limit }
  }
  const drives = deviceDrives(end, supply)
  return drives && { high: drives.high, limit: rail }
}

const divider: Maker = (wire, end, context) => {
  const { chip, stock } = context
  const sides = fromDevice(wire, end, context)
  if (!sides || !stock.resistors) return undefined
  const { tolerance } = stock.resistors
  const { electrical } = end.signal
  const source =
    electrical.kind === 'analog' && electrical.sourceResistance
      ? fullRange(electrical.sourceResistance).max
      : 0
  const lower = preferred(stock.resistors, Math.max(10e3, 10 * source), 'nearest')
  const least = leastTopResistor(sides.high.value.max, sides.limit.value.min, lower.value, tolerance)
  if (least === 0) return undefined
  const upper = preferred(stock.resistors, least, 'up')
  const [top, bottom] = [within(upper.value, tolerance), within(lower.value, tolerance)]
  const capacitance = fullRange(chip.io.capacitance).max
  const needed: Worked = {
    label: 'Least upper resistor',
    symbol: 'R_1',
    value: exactly(least),
    unit: 'Ω',
    formula: 'R_2 · (1 + t) / (1 − t) · (V / V_limit − 1)',
    inputs: [
      fromRule(
        'R_2',
        'lower resistor',
        lower.value,
        'Ω',
        source > 10e2
          ? 'ten times what the sensor’s own resistance is'
          : 'ten kilohms: little current, little noise',
      ),
      fromRule('t', 'tolerance of both', tolerance, '', stock.resistors.sheet),
      { ...fromWorked(sides.high), symbol: 'V' },
      { ...fromWorked(sides.limit), symbol: 'V_limit' },
    ],
    note: 'Fitted is the next preferred value up.',
  }
  return {
    kind: 'divider',
    resistors: [
      { role: 'upper', value: upper, worked: needed },
      { role: 'lower', value: lower, worked: needed },
    ],
    top,
    bottom,
    rate: rateOf(parallel(top, bottom).max, capacitance, [legCapacitance(chip)]),
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
  const diode = partsOfKind(library, 'diode')
    .filter((d) => voltageAt(d.forward, clampCurrent).max <= above + 1e-9)
    .sort((a, b) => a.price - b.price)[0]
  if (!sides || !stock.resistors || !diode) return undefined
  const forward = voltageAt(diode.forward, clampCurrent)
  const least = (sides.high.value.max - rail.value.min - forward.min) / clampCurrent
  if (least <= 0) return undefined
  const value = preferred(stock.resistors, least, 'up')
  return {
    kind: 'clamp',
    resistors: [
      {
        role: 'series',
        value,
        worked: {
          label: 'Least series resistor',
          symbol: 'R',
          value: exactly(least),
          unit: 'Ω',
          formula: '(V − V_DD − V_F) / I_clamp',
          inputs: [
            { ...fromWorked(sides.high), symbol: 'V' },
            fromWorked(rail),
            fromPart(
              'V_F',
              diode.name,
              diode,
              'forward',
              { ...forward, kind: 'typical', source: diode.forward[0]!.source },
              'V',
            ),
            fromRule(
              'I_clamp',
              'through the clamp',
              clampCurrent,
              'A',
              'less than the rail draws anyway, so that it is not lifted',
            ),
          ],
          note: `The diode holds the leg within ${above} V above the rail.`,
        },
      },
    ],
    part: diode,
    rate: rateOf(value.value, fullRange(chip.io.capacitance).max, [legCapacitance(chip)]),
    needed: neededRate(wire),
  }
}

const busLow = 0.4

const mosfet: Maker = (wire, end, { chip, stock, rail, supplies, library }) => {
  const supply = supplyOf(supplies, end.instance.need)
  const { electrical } = end.signal
  if (!supply || !stock.resistors || isAnalog(end)) return undefined
  const lower = supply.value.min < rail.value.min ? supply : rail
  const higher = lower === rail ? supply : rail
  const part = partsOfKind(library, 'transistor')
    .filter(
      (t) =>
        t.sort === 'n-mosfet' &&
        t.threshold &&
        fullRange(t.threshold).max <= lower.value.min - busLow &&
        fullRange(t.voltage).max >= 2 * higher.value.max,
    )
    .sort((a, b) => a.price - b.price)[0]
  if (!part) return undefined
  const bus = electrical.kind === 'open-drain'
  const pull = preferred(stock.resistors, bus ? 4.7e3 : 10e3, 'nearest')
  const capacitance =
    fullRange(chip.io.capacitance).max +
    (part.gateCapacitance ? fullRange(part.gateCapacitance).max : 0) +
    (electrical.kind === 'open-drain' ? fullRange(electrical.capacitance).max : 10e-12)
  const drive: Worked = {
    label: 'Gate drive left above the threshold',
    symbol: 'V_drive',
    value: exactly(lower.value.min - busLow - fullRange(part.threshold!).max),
    unit: 'V',
    formula: 'V_low − V_OL − V_th',
    inputs: [
      { ...fromWorked(lower), symbol: 'V_low' },
      fromRule('V_OL', 'low level of the line', busLow, 'V', 'I2C-bus specification, table 9'),
      fromPart('V_th', 'gate threshold', part, 'threshold', part.threshold!, 'V'),
    ],
    note: 'At the lowest supply and the highest threshold.',
  }
  return {
    kind: 'mosfet',
    resistors: [
      { role: 'near', value: pull, worked: drive },
      { role: 'far', value: pull, worked: drive },
    ],
    part,
    rate: rateOf(pull.value, capacitance, [
      fromRule('C', 'leg, transistor and device', capacitance, 'F', 'sum of the sheets’ highest'),
    ]),
    needed: neededRate(wire),
  }
}

const buffer: Maker = (wire, end, { chip, rail, supplies, library }) => {
  const supply = supplyOf(supplies, end.instance.need)
  if (!supply || end.signal.electrical.kind !== 'logic-input') return undefined
  const drives = chipDrives(chip, wire.pin, rail, end)
  const part = partsOfKind(library, 'buffer')
    .filter((b) => {
      const range = fullRange(b.supply)
      return (
        supply.value.min >= range.min &&
        supply.value.max <= range.max &&
        drives.high.value.min >= b.high.factor * supply.value.max + (b.high.offset ?? 0) &&
        drives.low.value.max <= b.low.factor * supply.value.min + (b.low.offset ?? 0) &&
        drives.high.value.max <= b.stands
      )
    })
    .sort((a, b) => a.price - b.price)[0]
  return (
    part && {
      kind: 'buffer',
      resistors: [],
      part,
      rate: {
        label: 'Highest rate it passes',
        symbol: 'f_max',
        value: exactly(part.rate),
        unit: 'Hz',
        formula: 'f_sheet',
        inputs: [fromPart('f_sheet', part.name, part, 'rate', { typ: part.rate, kind: 'guaranteed' }, 'Hz')],
      },
      needed: neededRate(wire),
    }
  )
}

const makers: Record<ShiftKind, Maker> = { divider, clamp, mosfet, buffer }

export const makeShift = (kind: ShiftKind, wire: Wire, end: End, context: ShiftContext): Shift | undefined =>
  makers[kind](wire, end, context)

/** What is fitted in this line, as the builder decided. */
export const fittedShift = (wire: Wire, end: End, context: ShiftContext): Shift | undefined => {
  const kind = context.design.pins.shifts?.[wire.signal.id]
  return kind && isFar(wire, end) ? makeShift(kind, wire, end, context) : undefined
}

/** All that could be fitted, those that pass the line’s rate first, the fewest parts first among them. */
export const shiftsFor = (wire: Wire, end: End, direction: string, context: ShiftContext): Shift[] =>
  shiftKinds
    .filter((kind) => direction !== 'both ways' || kind === 'mosfet')
    .flatMap((kind) => makeShift(kind, wire, end, context) ?? [])
    .sort(
      (a, b) =>
        Number(b.rate.value.typ >= b.needed) - Number(a.rate.value.typ >= a.needed) ||
        a.resistors.length + (a.part ? 1 : 0) - b.resistors.length - (b.part ? 1 : 0),
    )

export const nearNet = (wire: Wire): string => netOf(wire.signal.name)
export const farSupply = (design: Design, end: End): string => supplyNet(design, end.instance.need)
