// What each side of a line drives, reads and stands, from the sheets and the supply that feeds it.

import { driverCurve } from './driver'
import { fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import type { Chip, Device, Rated } from '../parts'
import { fullRange } from '../quantity'
import {
  asStated,
  dimensionOf,
  least,
  number,
  readCurve,
  sum,
  type SumInput,
  type Term,
  total,
} from '../sums'
import { type Wire, attributeOf } from '../legs'

export type End = Wire['signal']['ends'][number]

/** Volts of a high and a low, with their sums. */
export interface Levels {
  high: Worked
  low: Worked
}

/** How far above its own supply an ordinary input may be taken, where a device’s sheet says nothing. */
const aboveSupply = 0.3
/** The greatest low level of a push-pull output, where a sheet says nothing. */
const pushPullLow = 0.4

/** A voltage as a part’s sheet states it. */
export const statedVoltage = (
  label: string,
  symbol: string,
  { instance: { part }, signal }: End,
  field: string,
  rated: Rated,
): Worked =>
  asStated(
    label,
    symbol,
    'V',
    fromPart('V_sheet', label, part, `${signal.id}.${field}`, { source: signal.source, ...rated }, 'V'),
  )

/** A range that a rule gives. */
const ruled = (symbol: string, label: string, value: WorkedInput['value'], source: string): WorkedInput => ({
  symbol,
  label,
  value,
  unit: 'V',
  origin: { kind: 'rule', source },
  variable: `${symbol} ${label}`,
})

/** One that has no supply terminal is fed by nothing of ours: what it gives follows its own sheet alone. */
const feedsItself = (part: Device): boolean => !part.terminals.some((t) => t.role === 'supply')

/**
 * What the devices’ ends take from the leg while it is high, or give it while it is low, amperes: leakage, and pulls
 * the other way. `supplies`: what feeds each end.
 */
const loadOf = (which: 'high' | 'low', rail: Worked, ends: { end: End; supply?: Worked }[]): Worked => {
  const inputs: Record<string, SumInput> = {}
  const pulls: [V: string, R: string][] = []
  const leaks: string[] = []
  for (const [k, { end, supply }] of ends.entries()) {
    const { electrical, id } = end.signal
    if (electrical.kind !== 'logic-input') continue
    const { part, name } = end.instance
    if (electrical.leakage) {
      const symbol = `I_leak,${k + 1}`
      leaks.push(symbol)
      inputs[symbol] = {
        ...fromPart(symbol, `leakage of ${name}`, part, `${id}.leakage`, electrical.leakage, 'A'),
        variable: `${name} ${id}.leakage`,
      }
    }
    // A pull-down is against a high only, a pull-up against a low only.
    if (!electrical.pullResistance || electrical.pull === (which === 'high' ? 'up' : 'down')) continue
    const [V, R] = [which === 'high' ? 'V_DD' : `V_${k + 1}`, `R_${k + 1}`]
    inputs[V] = which === 'high' ? rail : (supply ?? rail)
    inputs[R] = {
      ...fromPart(R, `pull of ${name}`, part, `${id}.pullResistance`, electrical.pullResistance, 'Ω'),
      variable: `${name} ${id}.pullResistance`,
    }
    pulls.push([V, R])
  }
  return sum(
    { label: `What the line takes while it is ${which}`, symbol: 'I_load', unit: 'A' },
    inputs,
    (i: Record<string, Term>) =>
      total([...leaks.map((l) => i[l]!), ...pulls.map(([V, R]) => i[V]!.over(i[R]!))], dimensionOf('A')),
  )
}

/** `supplyOf`: what feeds a device. */
export const chipDrives = (
  chip: Chip,
  { pin, signal }: Pick<Wire, 'pin' | 'signal'>,
  rail: Worked,
  supplyOf: (end: End) => Worked | undefined,
): Levels => {
  const ends = signal.ends.map((end) => ({ end, supply: supplyOf(end) }))
  const drop = (side: 'high' | 'low') =>
    readCurve(
      { label: `Drop in the driver of ${pin.id}, ${side}`, symbol: 'V_drop', unit: 'V' },
      driverCurve(chip, pin, side),
      ['I_load', loadOf(side, rail, ends)],
    )
  return {
    high: sum(
      { label: 'High level of the leg', symbol: 'V_OH', unit: 'V' },
      { V_DD: rail, V_drop: drop('high') },
      (i) => i.V_DD.minus(i.V_drop),
    ),
    low: asStated('Low level of the leg', 'V_OL', 'V', drop('low')),
  }
}

type Threshold = { factor: number; offset?: number }

/** One that follows a supply: V = factor · V_supply + offset. */
export const thresholdOf = (
  label: string,
  symbol: string,
  supply: Worked,
  { factor, offset = 0 }: Threshold,
  source: string,
): Worked => {
  const V_0 = ruled(
    'V_0',
    `${label}, part that doesn’t follow the supply`,
    fullRange({ typ: offset }),
    source,
  )
  const note = `Thresholds: ${source}.`
  if (factor === 0) return sum({ label, symbol, unit: 'V', note }, { V_0 }, (i) => i.V_0)
  const V = supply.symbol
  return offset === 0
    ? sum({ label, symbol, unit: 'V', note }, { [V]: supply }, (i) => number(factor).times(i[V]!))
    : sum({ label, symbol, unit: 'V', note }, { [V]: supply, V_0 }, (i) =>
        number(factor).times(i[V]!).plus(i.V_0!),
      )
}
const thresholds = (supply: Worked, high: Threshold, low: Threshold, source: string): Levels => ({
  high: thresholdOf('Least voltage read as high', 'V_IH', supply, high, source),
  low: thresholdOf('Greatest voltage read as low', 'V_IL', supply, low, source),
})

export const chipReads = (chip: Chip, rail: Worked): Levels =>
  thresholds(rail, chip.io.inputHigh, chip.io.inputLow, chip.sheet)

/** A part’s supply, and so far above it. */
const above = (label: string, supply: Worked, V_above: WorkedInput): Worked => {
  const V = supply.symbol
  return sum({ label, symbol: 'V_max', unit: 'V' }, { [V]: supply, V_above }, (i) => i[V]!.plus(i.V_above!))
}

/** What the leg stands. A tolerant leg is so as a digital one only. */
export const chipStands = (
  chip: Chip,
  { pin, signal }: Pick<Wire, 'pin' | 'signal'>,
  rail: Worked,
): Worked => {
  const tolerant = signal.kind === 'analog-in' ? undefined : attributeOf(pin, 'tolerant')
  if (tolerant)
    return asStated(
      `What ${pin.id} stands`,
      'V_max',
      'V',
      fromRule('V_tolerant', tolerant.reason ?? 'tolerant leg', tolerant.voltage, 'V', chip.sheet),
    )
  return above(
    `What ${pin.id} stands`,
    rail,
    fromPart(
      'V_above',
      'above the supply, absolute maximum',
      chip,
      'io.aboveSupply',
      chip.io.aboveSupply,
      'V',
    ),
  )
}

/** A high level as a sheet states it: no output goes above its own supply. */
const highOf = (name: string, V_sheet: WorkedInput, supply: Worked): Worked =>
  sum(
    {
      label: `High level of ${name}`,
      symbol: 'V_OH',
      unit: 'V',
      note: 'No output goes above its own supply.',
    },
    { V_sheet, [supply.symbol]: supply },
    (i) => least(i.V_sheet!, i[supply.symbol]!),
  )

/** What a device’s output gives: what its sheet says, else its own supply. */
export const deviceDrives = (end: End, supply: Worked): Levels | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'logic-output' || electrical.openDrain) return undefined
  const { name, part } = end.instance
  const stated =
    electrical.high && fromPart('V_sheet', 'high level', part, `${end.signal.id}.high`, electrical.high, 'V')
  const label = `High level of ${name}`
  return {
    high: !stated
      ? asStated(label, 'V_OH', 'V', supply)
      : feedsItself(part)
        ? asStated(label, 'V_OH', 'V', stated, 'It has no supply terminal: what it gives is its own.')
        : highOf(name, stated, supply),
    low: asStated(
      `Low level of ${name}`,
      'V_OL',
      'V',
      ruled(
        'V_low',
        `low level of a push-pull output, ${name}`,
        { min: 0, typ: pushPullLow / 2, max: pushPullLow },
        'usual for CMOS and TTL outputs',
      ),
    ),
  }
}

/** Thresholds of the device’s input. An I2C device’s are shares of its supply (I2C-bus specification, table 9). */
export const deviceReads = (end: End, supply: Worked): Levels | undefined => {
  const { electrical } = end.signal
  if (electrical.kind === 'open-drain')
    return thresholds(
      supply,
      { factor: 0.7 },
      { factor: 0.3 },
      end.signal.bus === 'i2c'
        ? 'I2C-bus specification, table 9'
        : 'usual shares of the supply of a CMOS input',
    )
  return electrical.kind === 'logic-input'
    ? thresholds(supply, electrical.high, electrical.low, end.instance.part.sheet)
    : undefined
}

export const deviceStands = ({ instance }: End, supply: Worked): Worked =>
  above(
    `What an input of ${instance.name} stands`,
    supply,
    fromRule('V_above', 'above its supply', aboveSupply, 'V', 'usual absolute maximum of a CMOS input'),
  )

/** Below this supply a bus line’s low level is a share of it, volts. */
const low = 2

/**
 * The low level of a bus line, that whoever pulls it guarantees: 0.4 V above a supply of 2 V, a fifth of the supply
 * below (I2C-bus specification, table 9).
 */
export const busLow = (supply: Worked): Worked => {
  const source = 'I2C-bus specification, table 9'
  if (supply.value.min > low)
    return asStated(
      'Low level of a bus line',
      'V_OL',
      'V',
      ruled('V_low', 'low level of a bus line', { min: 0, typ: 0.2, max: 0.4 }, source),
    )
  const share: WorkedInput = {
    ...ruled(
      'k',
      'low level of a bus line, as a share of its supply',
      { min: 0, typ: 0.1, max: 0.2 },
      source,
    ),
    unit: '',
  }
  return sum(
    { label: 'Low level of a bus line', symbol: 'V_OL', unit: 'V' },
    { k: share, [supply.symbol]: supply },
    (i: Record<string, Term>) => i.k!.times(least(i[supply.symbol]!, number(low, dimensionOf('V')))),
  )
}
