// A capacitor at the leg of a converter, where what is measured comes through too much resistance to fill the converter
// in the time it takes for a reading.

import type { FittingContext } from '../levels'
import { fittedResistor, preferred, twoLegs } from '../circuit'
import { byTheBook, careful, supportChoice } from '../design'
import { fromPart, fromRule, type Worked, type WorkedInput, say } from '../findings'
import type { Capacitors, Chip, ChipUnit, Rated } from '../parts'
import { formatQuantity } from '../quantity'
import { number, parallel, powerOfTwo, sum } from '../sums'
import { fittedShift, isFar } from '../levels'
import type { Wire } from '../legs'
import { type SignalSupport } from './context'

/** Where a chip's file is silent: what converters are usually made for, and the finer of the usual ones. */
const assumed = 'assumed: its sheet has not been read for this'
const usualBits = 12
const usual: { sourceResistance: Rated; samplingCapacitance: Rated } = {
  sourceResistance: { max: 10e3, kind: 'assumed', source: assumed },
  samplingCapacitance: { max: 20e-12, kind: 'assumed', source: assumed },
}

/** Codes by which a reading may be off before it is a risk, and no longer only less than the sheet promises. */
const bearable = 2

/** Ω between the leg and what it measures; undefined where no sheet states it, which the check of it says. */
export const behindTheLeg = (wire: Wire, context: FittingContext): Worked | undefined => {
  const meta = {
    label: `Resistance behind ${wire.signal.name}`,
    symbol: 'R_behind',
    unit: 'Ω' as const,
    counts: 'max' as const,
  }
  for (const end of wire.signal.ends) {
    const { electrical } = end.signal
    if (electrical.kind !== 'analog') continue
    const { name, part } = end.instance
    const R_s = electrical.sourceResistance
      ? fromPart(
          'R_s',
          `inside ${name}`,
          part,
          `${end.signal.id}.sourceResistance`,
          electrical.sourceResistance,
          'Ω',
        )
      : undefined
    const shift = isFar(wire, end) ? fittedShift(wire, end, context)?.divider : undefined
    if (shift) {
      const { top: R_1, bottom: R_2 } = shift
      return R_s
        ? sum(meta, { R_s, R_1, R_2 }, (i) => parallel(i.R_s.plus(i.R_1), i.R_2))
        : sum(meta, { R_1, R_2 }, (i) => parallel(i.R_1, i.R_2))
    }
    const { resistors } = context.stock
    if (electrical.dividerTo && electrical.divider && resistors) {
      const value = preferred(resistors, electrical.divider, 'nearest')
      const key = `divider:${wire.signal.id}`
      const R_div = fittedResistor('R_div', `divider resistor of ${name}`, resistors, value, key)
      // Whatever the sensor is, beside its divider it can’t be more than that.
      return R_s
        ? sum(meta, { R_s, R_div }, (i) => parallel(i.R_s, i.R_div))
        : sum(meta, { R_div }, (i) => i.R_div)
    }
    if (R_s) return sum(meta, { R_s }, (i) => i.R_s)
  }
  return undefined
}

export const samplingCapacitor: SignalSupport = (wire, context) => {
  const { chip, stock, design } = context
  const { unit, signal } = wire
  const R_behind = unit?.kind === 'converter' ? behindTheLeg(wire, context) : undefined
  if (!unit || !R_behind || !stock.ceramics) return []
  const { limit, share, needed, rate, shift } = samplingSums(wire, unit, R_behind, chip, stock.ceramics)
  if (R_behind.value.max <= limit.value.max) return []
  const key = `sampling:${signal.id}`
  const codes = share.value.max * 2 ** (unit.resolution ?? usualBits)
  const percent = formatQuantity(share.value.max * 100, '%', 2)
  const value = preferred(stock.ceramics, needed.value.max, 'up')
  return [
    {
      key,
      role: 'sampling capacitor',
      name: `capacitor at the reading of ${signal.name}`,
      part: stock.ceramics,
      value,
      legs: twoLegs(signal.net, 'GND'),
      why: `${signal.name} comes through up to ${formatQuantity(R_behind.value.max, 'Ω', 3)}: the capacitor fills the converter for each reading${value.value < needed.value.max ? `; ${value.marking} is the drawer’s largest and not enough` : ''}`,
      worked: [R_behind, needed, rate, shift],
      signal: signal.id,
      ...supportChoice(design, key, codes > bearable ? careful : byTheBook),
      risk: {
        severity: codes > bearable ? 'risks' : 'notes',
        grade:
          limit.origin.kind === 'part' && limit.origin.limit === 'assumed' ? 'typical' : 'outside the sheet',
        ...say`Without it a reading of ${signal.name} may keep ${percent} of what was read before it: ${formatQuantity(R_behind.value.max, 'Ω', 3)} is behind the leg, and ${chip.name} reads through ${formatQuantity(limit.value.max, 'Ω', 2)}.`,
        facts: [
          {
            ...say`Behind the leg are up to ${formatQuantity(R_behind.value.max, 'Ω', 3)}`,
            worked: R_behind,
          },
          {
            ...say`That leaves up to ${percent} of the reading before, where the program changes from one to another`,
            worked: share,
          },
        ],
      },
    },
  ]
}

/**
 * Of a reading through R_behind (Ω): the limit of the sheet, the share of the last reading that is left, the capacitor (F) that fills the
 * converter, how often it can be read (Hz), and what leakage adds (V). Sources: a capacitance charges by e^(−t/RC), and the sheet's limit is
 * where half a step is left after n + 1 halvings; two capacitances share a charge.
 */
const samplingSums = (wire: Wire, unit: ChipUnit, R_behind: Worked, chip: Chip, ceramics: Capacitors) => {
  const { name } = wire.signal
  const of = (symbol: string, label: string, field: keyof typeof usual, value: 'Ω' | 'F'): WorkedInput =>
    fromPart(symbol, label, chip, `units.${unit.id}.${field}`, unit[field] ?? usual[field], value)
  const limit = of('R_max', `highest resistance that ${unit.name} reads through`, 'sourceResistance', 'Ω')
  const most: WorkedInput = {
    ...limit,
    value: { min: limit.value.max, typ: limit.value.max, max: limit.value.max },
  }
  const sheet = unit.source ? `${chip.sheet}, ${unit.source}` : chip.sheet
  const n = fromRule(
    'n',
    `bits of ${unit.name}`,
    unit.resolution ?? usualBits,
    '',
    unit.resolution === undefined ? assumed : sheet,
  )
  const C_s = of('C_s', `capacitance inside ${unit.name}`, 'samplingCapacitance', 'F')
  return {
    limit,
    share: sum(
      {
        label: `Share of the last reading that is left in ${name}`,
        symbol: 'k',
        unit: '',
        counts: 'max',
        note: 'At the sheet’s own limit half a step is left.',
      },
      { n, R_max: most, R_behind },
      (i) => number(1).over(powerOfTwo(i.n.plus(1).times(i.R_max.over(i.R_behind)))),
    ),
    needed: sum(
      {
        label: `Least capacitor at the reading of ${name}`,
        symbol: 'C',
        unit: 'F',
        counts: 'max',
        note: 'So large that filling the converter takes less than half a step from it.',
      },
      {
        C_s,
        n,
        t: fromRule(
          't',
          'how far the capacitor may be below its value',
          ceramics.tolerance,
          '',
          ceramics.sheet,
        ),
      },
      (i) => i.C_s.times(powerOfTwo(i.n.plus(1))).over(number(1).minus(i.t)),
    ),
    rate: sum(
      {
        label: `Readings of ${name} that it keeps up with`,
        symbol: 'f',
        unit: 'Hz',
        counts: 'min',
        note: 'Read more often, the capacitor runs down by more than half a step.',
      },
      { R_behind, C_s, n },
      (i) => number(1).over(i.R_behind.times(i.C_s).times(powerOfTwo(i.n.plus(1)))),
    ),
    shift: sum(
      { label: `What leakage of the leg adds to ${name}`, symbol: 'V_leak', unit: 'V', counts: 'max' },
      {
        R_behind,
        I_leak: fromPart('I_leak', 'leakage of the leg', chip, 'io.leakage', chip.io.leakage, 'A'),
      },
      (i) => i.R_behind.times(i.I_leak),
    ),
  }
}
