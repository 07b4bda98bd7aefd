// The series resistor of an LED on a leg, and the current the LED then really gets.

import { preferred, type SupportPart } from '../../circuit'
import { careful, supportChoice } from '../../design'
import { ledCurrentsThrough, seriesResistor, voltageAt } from '../../electrical'
import { fromDecision, fromPart, fromRule, fromWorked, type Worked, type WorkedInput } from '../../findings'
import { findPart, type Led } from '../../parts'
import { exactly, formatQuantity, fullRange, within } from '../../quantity'
import type { Wire } from '../plan'
import { netOf, outputOf, type SignalSupport, type SignalSupportContext } from './context'

export interface LedOnLeg {
  led: Led
  /** To ground: the leg gives the current; to supply: it takes it. */
  side: 'high' | 'low'
  wanted: number
  resistor: { value: number; marking: string }
  resistance: Worked
  /** With the resistor. */
  current: Worked
  /** Without it. */
  bare: Worked
  power: Worked
}

export const ledKey = (signal: string) => `led:${signal}`

/** All about the LED on a wire; undefined when there is none. */
export const ledOnLeg = (
  wire: Wire,
  { chip, rail, library, stock }: Omit<SignalSupportContext, 'design'>,
): LedOnLeg | undefined => {
  const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'led')
  const electrical = end?.signal.electrical
  if (!end || electrical?.kind !== 'led') return undefined
  const led = findPart(library, 'led', electrical.led)
  const series = stock.resistors
  if (!led || !series) return undefined
  const setting = end.instance.need.settings?.[`${end.signal.id}.current`]
  const wanted = setting ?? electrical.current
  const side = electrical.to === 'ground' ? 'high' : 'low'
  const points = side === 'high' ? chip.io.outputHigh : chip.io.outputLow
  const output = outputOf(chip, wire.pin, side)
  const drop = output.table
    ? {
        min: output.driver(wanted, 'min'),
        typ: output.driver(wanted, 'typ'),
        max: output.driver(wanted, 'max'),
      }
    : voltageAt(
        points.map((p) => ({ current: p.current, voltage: p.drop })),
        wanted,
      )
  const forward = voltageAt(led.forward, wanted)
  const wantedInput =
    setting === undefined
      ? fromPart(
          'I',
          'wanted current',
          end.instance.part,
          `${end.signal.id}.current`,
          { typ: wanted, kind: 'recommended', source: end.signal.source },
          'A',
        )
      : fromDecision('I', 'wanted current', wanted, 'A', 'set on the Needs page')
  const ohms = (() => {
    try {
      return seriesResistor(rail.value.typ, drop.typ, forward.typ, wanted)
    } catch {
      return series.from
    }
  })()
  const chosen = preferred(series, ohms, 'up')
  const sheetField = `output${side === 'high' ? 'High' : 'Low'}`
  const inputs: WorkedInput[] = [
    fromWorked(rail),
    output.table
      ? output.input(wanted)
      : fromPart(
          'V_drop',
          'drop in the leg’s driver',
          chip,
          `io.${sheetField}`,
          { ...drop, kind: 'typical', source: points[0]!.source },
          'V',
        ),
    fromPart(
      'V_F',
      `forward voltage of ${led.name}`,
      led,
      'forward',
      { ...forward, kind: 'typical', source: led.forward[0]!.source },
      'V',
    ),
    wantedInput,
  ]
  const actual = within(chosen.value, series.tolerance)
  const through = ledCurrentsThrough(rail.value, output.driver, actual, led.forward)
  const unlimited = ledCurrentsThrough(rail.value, output.driver, exactly(0), led.forward)
  const current: Worked = {
    label: `Current through ${wire.signal.name}`,
    symbol: 'I_LED',
    value: through,
    unit: 'A',
    formula: output.table ? '(V_DD − V_F(I) − V_drop(I)) / R' : '(V_DD − V_F(I)) / (R + R_out)',
    inputs: [
      fromWorked(rail),
      inputs[2]!,
      {
        symbol: 'R',
        label: 'series resistor',
        value: actual,
        unit: 'Ω',
        origin: {
          kind: 'part',
          part: series.id,
          name: `${chosen.marking} of ${series.name}`,
          field: 'tolerance',
          sheet: series.sheet,
          limit: 'guaranteed',
        },
      },
      output.input(through.typ),
    ],
    note: 'Most at the highest supply with the lowest forward voltage and resistance; V_F follows the LED’s curve.',
  }
  const bare: Worked = {
    label: `Current through ${wire.signal.name} without its resistor`,
    symbol: 'I_bare',
    value: unlimited,
    unit: 'A',
    formula: output.table ? 'V_DD = V_F(I) + V_drop(I)' : '(V_DD − V_F(I)) / R_out',
    inputs: [fromWorked(rail), inputs[2]!, output.input(unlimited.typ)],
    note: 'Only the leg’s own driver limits it then.',
  }
  return {
    led,
    side,
    wanted,
    resistor: chosen,
    resistance: {
      label: `Series resistor of ${wire.signal.name}`,
      symbol: 'R',
      value: exactly(ohms),
      unit: 'Ω',
      formula: '(V_DD − V_drop − V_F) / I',
      inputs,
      note: `Typical values; fitted is the next preferred value up, ${formatQuantity(chosen.value, 'Ω')} (${series.series}).`,
    },
    current,
    bare,
    power: {
      label: 'Heat in the series resistor',
      symbol: 'P_R',
      value: {
        min: current.value.min ** 2 * actual.min,
        typ: current.value.typ ** 2 * actual.typ,
        max: current.value.max ** 2 * actual.max,
      },
      unit: 'W',
      formula: 'I_LED² · R',
      inputs: [fromWorked(current), fromRule('R', 'series resistor', chosen.value, 'Ω', 'fitted value')],
    },
  }
}

export const ledResistor: SignalSupport = (wire, context) => {
  const on = ledOnLeg(wire, context)
  if (!on || !context.stock.resistors) return []
  const key = ledKey(wire.signal.id)
  const net = netOf(wire.signal.name)
  const limit = fullRange(context.chip.limits.pinAbsolute)
  const support: SupportPart = {
    key,
    name: `series resistor of ${wire.signal.name}`,
    part: context.stock.resistors,
    value: { value: on.resistor.value, unit: 'Ω', marking: on.resistor.marking },
    legs: [
      { name: '1', net },
      { name: '2', net: `${net}_LED` },
    ],
    series: true,
    why: `sets the current of ${wire.signal.name} to ${formatQuantity(on.current.value.typ, 'A', 2)}`,
    worked: [on.resistance, on.current, on.power],
    signal: wire.signal.id,
    ...supportChoice(context.design, key, careful),
    risk: {
      severity:
        on.bare.value.max > limit.max || on.bare.value.max > fullRange(on.led.currentAbsolute).max
          ? 'stops'
          : 'risks',
      grade: 'outside the sheet',
      text: `Without it ${wire.signal.name} draws up to ${formatQuantity(on.bare.value.max, 'A', 2)}, limited only by the leg’s driver.`,
      facts: [
        {
          text: `The leg may carry ${formatQuantity(limit.max, 'A')} at the absolute maximum (${context.chip.sheet}, ${context.chip.limits.pinAbsolute.source ?? 'limits'})`,
        },
        {
          text: `The current without a resistor is ${formatQuantity(on.bare.value.min, 'A', 2)} to ${formatQuantity(on.bare.value.max, 'A', 2)}`,
          worked: on.bare,
        },
      ],
    },
  }
  return [support]
}
