// The series resistor of an LED on a leg, and the current the LED then really gets.

import type { FittingContext } from '../levels'
import { fittedResistor, preferred, type Stock, type SupportPart, twoLegs } from '../circuit'
import { driverCurve } from '../levels'
import { careful, supportChoice } from '../design'
import { fromDecision, fromPart, fromRule, type Worked, say } from '../findings'
import { type Chip, findPart, type Led, type Library } from '../parts'
import { formatQuantity, fullRange, nextDown } from '../quantity'
import {
  currentInSeries,
  dimensionOf,
  greatest,
  number,
  readCurve,
  type SeriesPart,
  type SheetCurve,
  sum,
} from '../sums'
import { onceAWire } from './once'
import { endsOf, type Wire } from '../legs'
import { type SignalSupport } from './context'

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

/** Ohms of leads and board, where nothing else is in the way. */
const leads = 0.01

const ledKey = (signal: string) => `led:${signal}`

/** All about the LED on a wire; undefined when there is none. */
export const ledOnLeg = (
  wire: Wire,
  { chip, rail, library, stock }: Pick<FittingContext, 'chip' | 'rail' | 'library' | 'stock'>,
): LedOnLeg | undefined => makeLed(wire, chip, rail, library, stock)
const makeLed = onceAWire(
  (wire, chip: Chip, rail: Worked, library: Library, stock: Stock): LedOnLeg | undefined => {
    const [found] = endsOf(wire, 'led')
    if (!found) return undefined
    const { end, electrical } = found
    const led = findPart(library, 'led', electrical.led)
    const series = stock.resistors
    if (!led || !series) return undefined
    const setting = end.instance.need.settings?.[`${end.signal.id}.current`]
    const wanted = setting ?? electrical.current
    const side = electrical.to === 'ground' ? 'high' : 'low'
    const key = ledKey(wire.signal.id)
    const I =
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
    const forward: SheetCurve = {
      part: led,
      field: 'forward',
      points: led.forward.map((p) => ({ x: p.current, y: { source: p.source, ...p.voltage } })),
      specimen: key,
    }
    const drop = driverCurve(chip, wire.pin, side)
    const at = (label: string, symbol: string, curve: SheetCurve) =>
      readCurve({ label, symbol, unit: 'V' }, curve, ['I', I])
    const needed = sum(
      {
        label: `Series resistor of ${wire.signal.name}`,
        symbol: 'R',
        unit: 'Ω',
        note: `Fitted is the next preferred value above the usual one (${series.series}).`,
      },
      {
        V_DD: rail,
        V_drop: at('Drop in the leg’s driver', 'V_drop', drop),
        V_F: at(`Forward voltage of ${led.name}`, 'V_F', forward),
        I,
      },
      (i) => greatest(number(0, dimensionOf('Ω')), i.V_DD.minus(i.V_drop).minus(i.V_F).over(i.I)),
    )
    const chosen = preferred(series, needed.value.typ, 'up')
    const R = fittedResistor('R', 'series resistor', series, chosen, key)
    const inSeries: SeriesPart[] = [
      { symbol: 'V_F', label: `Forward voltage of ${led.name}`, curve: forward },
      { symbol: 'V_drop', label: 'Drop in the leg’s driver', curve: drop },
    ]
    const current = currentInSeries(
      {
        label: `Current through ${wire.signal.name}`,
        symbol: 'I_LED',
        note: 'V_F and the driver’s drop follow their curves at this very current.',
      },
      ['V_DD', rail],
      ['R', R],
      inSeries,
    )
    const bare = currentInSeries(
      {
        label: `Current through ${wire.signal.name} without its resistor`,
        symbol: 'I_bare',
        note: 'Only the leg’s own driver limits it then.',
      },
      ['V_DD', rail],
      ['R_lead', fromRule('R_lead', 'leads and board', leads, 'Ω', 'so that something is in the way')],
      inSeries,
    )
    return {
      led,
      side,
      wanted,
      resistor: chosen,
      resistance: needed,
      current,
      bare,
      power: sum(
        { label: 'Heat in the series resistor', symbol: 'P_R', unit: 'W' },
        { I_LED: current, R },
        (i) => i.I_LED.times(i.I_LED).times(i.R),
      ),
    }
  },
)

/** The greatest preferred current below what is asked now with which the LED is as it should be, amperes. */
export const smallerLed = (
  wire: Wire,
  context: Omit<FittingContext, 'design'>,
  asked: number,
  fits: (on: LedOnLeg) => boolean,
): number | undefined => {
  for (let at = asked; at > 0.1e-3;) {
    const lower = nextDown(at * (1 - 1e-6), 'E24')
    const ends = wire.signal.ends.map((e) => ({
      ...e,
      instance: {
        ...e.instance,
        need: {
          ...e.instance.need,
          settings: { ...e.instance.need.settings, [`${e.signal.id}.current`]: lower },
        },
      },
    }))
    const on = ledOnLeg({ ...wire, signal: { ...wire.signal, ends } }, context)
    if (on && fits(on)) return lower
    at = lower
  }
  return undefined
}

export const ledResistor: SignalSupport = (wire, context) => {
  const on = ledOnLeg(wire, context)
  if (!on || !context.stock.resistors) return []
  const key = ledKey(wire.signal.id)
  const net = wire.signal.net
  const limit = fullRange(context.chip.limits.pinAbsolute)
  const support: SupportPart = {
    key,
    role: 'lamp resistor',
    name: `series resistor of ${wire.signal.name}`,
    part: context.stock.resistors,
    value: { value: on.resistor.value, unit: 'Ω', marking: on.resistor.marking },
    legs: twoLegs(net, `${net}_LED`),
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
      ...say`Without it ${wire.signal.name} draws up to ${formatQuantity(on.bare.value.max, 'A', 3)}, limited only by the leg’s driver.`,
      facts: [
        say`The leg may carry ${formatQuantity(limit.max, 'A')} at the absolute maximum (${context.chip.sheet}, ${context.chip.limits.pinAbsolute.source ?? 'limits'})`,
        {
          ...say`The current without a resistor is ${formatQuantity(on.bare.value.min, 'A', 2)} to ${formatQuantity(on.bare.value.max, 'A', 2)}`,
          worked: on.bare,
        },
      ],
    },
  }
  return [support]
}
