// What each side of a line drives, reads and stands, from the sheets and the supply that feeds it.

import { fromPart, fromRule, fromWorked, type Worked, type WorkedInput } from '../../findings'
import type { Chip, ChipPin, Rated } from '../../parts'
import { exactly, formatQuantity, fullRange, type Range } from '../../quantity'
import { sum } from '../../sums'
import type { Wire } from '../plan'
import { outputOf } from '../support/context'
import { attributeOf } from '../ways'

export type End = Wire['signal']['ends'][number]

/** Volts of a high and a low, with their sums. */
export interface Levels {
  high: Worked
  low: Worked
}

/** How far above its own supply an ordinary input may be taken, where a device’s sheet says nothing. */
const aboveSupply = 0.3
/** A low level of a push-pull output, where a sheet says nothing. */
const pushPullLow = 0.4

/** A voltage as a part’s sheet states it. */
export const statedVoltage = (
  label: string,
  symbol: string,
  { instance: { part }, signal }: End,
  field: string,
  rated: Rated,
): Worked =>
  sum(
    { label, symbol, unit: 'V' },
    {
      V_sheet: fromPart(
        'V_sheet',
        label,
        part,
        `${signal.id}.${field}`,
        { source: signal.source, ...rated },
        'V',
      ),
    },
    (i) => i.V_sheet,
  )

const volts = (
  label: string,
  symbol: string,
  value: Range,
  formula: string,
  inputs: WorkedInput[],
  note?: string,
): Worked => ({
  label,
  symbol,
  value,
  unit: 'V',
  formula,
  inputs,
  note,
})

/** What the device’s end takes from the line: leakage, and its own pull at the highest supply. */
const loadOf = ({ signal: { electrical } }: End, supply: Range): number => {
  if (electrical.kind !== 'logic-input') return 0
  const leak = electrical.leakage ? fullRange(electrical.leakage).max : 0
  const pull = electrical.pullResistance ? supply.max / fullRange(electrical.pullResistance).min : 0
  return leak + pull
}

export const chipDrives = (chip: Chip, pin: ChipPin, rail: Worked, end: End): Levels => {
  const load = loadOf(end, rail.value)
  const side = (which: 'high' | 'low') => {
    const { driver, input, table } = outputOf(chip, pin, which)
    const inputs = [
      input(load),
      fromRule('I_load', `what ${end.instance.name} takes`, load, 'A', end.instance.part.sheet),
    ]
    const drop = (corner: keyof Range) => driver(load, corner)
    return { drop, inputs: table ? inputs.slice(0, 1) : inputs, lost: table ? 'V_drop' : 'R_out · I_load' }
  }
  const [high, low] = [side('high'), side('low')]
  return {
    high: volts(
      'High level of the leg',
      'V_OH',
      {
        min: rail.value.min - high.drop('max'),
        typ: rail.value.typ - high.drop('typ'),
        max: rail.value.max,
      },
      `V_DD − ${high.lost}`,
      [fromWorked(rail), ...high.inputs],
    ),
    low: volts(
      'Low level of the leg',
      'V_OL',
      { min: 0, typ: low.drop('typ'), max: low.drop('max') },
      low.lost,
      low.inputs,
    ),
  }
}

/** Thresholds that follow a supply: V = factor · V_supply + offset. */
const thresholds = (
  supply: Worked,
  high: { factor: number; offset?: number },
  low: { factor: number; offset?: number },
  source: string,
): Levels => {
  const at = (t: { factor: number; offset?: number }, label: string, symbol: string) =>
    volts(
      label,
      symbol,
      {
        min: t.factor * supply.value.min + (t.offset ?? 0),
        typ: t.factor * supply.value.typ + (t.offset ?? 0),
        max: t.factor * supply.value.max + (t.offset ?? 0),
      },
      t.factor === 0
        ? 'V_sheet'
        : `${t.factor} · ${supply.symbol}${t.offset ? ` + ${formatQuantity(t.offset, 'V')}` : ''}`,
      t.factor === 0 ? [fromRule('V_sheet', label, t.offset ?? 0, 'V', source)] : [fromWorked(supply)],
    )
  return {
    high: at(high, 'Least voltage read as high', 'V_IH'),
    low: at(low, 'Greatest voltage read as low', 'V_IL'),
  }
}

export const chipReads = (chip: Chip, rail: Worked): Levels =>
  thresholds(rail, chip.io.inputHigh, chip.io.inputLow, chip.sheet)

/** What the leg stands. A tolerant leg is so as a digital one only. */
export const chipStands = (chip: Chip, { pin, signal }: Wire, rail: Worked): Worked => {
  const tolerant = signal.kind === 'analog-in' ? undefined : attributeOf(pin, 'tolerant')
  if (tolerant)
    return volts(`What ${pin.id} stands`, 'V_max', exactly(tolerant.voltage), 'V_tolerant', [
      fromRule('V_tolerant', tolerant.reason ?? 'tolerant leg', tolerant.voltage, 'V', chip.sheet),
    ])
  const above = fullRange(chip.io.aboveSupply).max
  return volts(
    `What ${pin.id} stands`,
    'V_max',
    exactly(rail.value.min + above),
    'V_DD + V_above',
    [
      fromWorked(rail),
      fromPart(
        'V_above',
        'above the supply, absolute maximum',
        chip,
        'io.aboveSupply',
        chip.io.aboveSupply,
        'V',
      ),
    ],
    'At the lowest supply.',
  )
}

const below = (a: Range, top: Range): Range => ({
  min: Math.min(a.min, top.min),
  typ: Math.min(a.typ, top.typ),
  max: Math.min(a.max, top.max),
})

/** What a device’s output gives: what its sheet says, else its own supply. */
export const deviceDrives = (end: End, supply: Worked): Levels | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'logic-output' || electrical.openDrain) return undefined
  const { name, part } = end.instance
  return {
    high: electrical.high
      ? volts(
          `High level of ${name}`,
          'V_OH',
          below(fullRange(electrical.high), supply.value),
          `min(V_sheet, ${supply.symbol})`,
          [
            fromPart('V_sheet', 'high level', part, `${end.signal.id}.high`, electrical.high, 'V'),
            fromWorked(supply),
          ],
          'No output goes above its own supply.',
        )
      : volts(`High level of ${name}`, 'V_OH', supply.value, supply.symbol, [fromWorked(supply)]),
    low: volts(`Low level of ${name}`, 'V_OL', { min: 0, typ: pushPullLow / 2, max: pushPullLow }, 'V_low', [
      fromRule(
        'V_low',
        'low level of a push-pull output',
        pushPullLow,
        'V',
        'usual for CMOS and TTL outputs',
      ),
    ]),
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
  volts(
    `What an input of ${instance.name} stands`,
    'V_max',
    exactly(supply.value.min + aboveSupply),
    `${supply.symbol} + V_above`,
    [
      fromWorked(supply),
      fromRule('V_above', 'above its supply', aboveSupply, 'V', 'usual absolute maximum of a CMOS input'),
    ],
    'At its lowest supply.',
  )
