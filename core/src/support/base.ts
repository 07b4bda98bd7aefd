// A load switched by a bipolar transistor: what its base must get, the resistor that gives it that, and what then really flows.

import { fittedResistor, preferred, type Stock, type SupportPart, twoLegs } from '../circuit'
import { everyStance, supportChoice } from '../design'
import { fromPart, fromRule, say, type Worked, type WorkedInput } from '../findings'
import { endsOf, type Wire } from '../legs'
import { driverCurve, type FittingContext } from '../levels'
import type { Chip, Transistor } from '../parts'
import { exactly, formatQuantity, fullRange } from '../quantity'
import { currentInSeries, dimensionOf, greatest, number, type SeriesPart, readCurve, sum } from '../sums'
import { onceAWire } from './once'
import { legLeakage } from './pull'

/** A bipolar one is saturated with a tenth of its load’s current in its base: its sheet says what falls in it then. */
export const forced = 10

export interface BaseOnLeg {
  /** What the base must get, A. */
  asked: Worked
  /** The largest resistor with which it does, Ω. */
  resistance: Worked
  /** The smallest that the leg stands, Ω. */
  spared: Worked
  resistor: { value: number; marking: string }
  /** Through leg and base, with the resistor and without it, A. */
  current: Worked
  bare: Worked
  /** Collector over base, as it is fitted. */
  ratio: Worked
  /** Through the load while the leg only reads: leakage, times the gain. Absent where nothing says. */
  creep?: Worked
}

export const baseEmitterOf = (transistor: Transistor): WorkedInput =>
  fromPart(
    'V_BE',
    'base to emitter, saturated',
    transistor,
    'baseEmitter',
    transistor.baseEmitter ?? { min: 0.6, typ: 0.8, max: 1.2, kind: 'assumed' },
    'V',
  )

const key = (signal: string) => `base-series:${signal}`
/** Ohms of leads and board, where nothing else is in the way. */
const leads = 0.01

/** Undefined where no load is switched on this wire, or no resistors are in the drawer. */
export const baseOnLeg = (
  wire: Wire,
  transistor: Transistor,
  { chip, rail, stock }: { chip: Chip; rail: Worked; stock: Stock },
): BaseOnLeg | undefined => makeBase(wire, transistor, chip, rail, stock)
const makeBase = onceAWire(
  (wire, transistor: Transistor, chip: Chip, rail: Worked, stock: Stock): BaseOnLeg | undefined => {
    const [found] = endsOf(wire, 'switched')
    const series = stock.resistors
    if (!found || !series) return undefined
    const { end, electrical } = found
    const { name, id } = wire.signal
    const I_load = fromPart(
      'I_load',
      `what ${end.instance.name} draws`,
      end.instance.part,
      `${end.signal.id}.current`,
      electrical.current,
      'A',
    )
    const V_BE = baseEmitterOf(transistor)
    const asked = sum(
      { label: `Into the base of ${transistor.name}, asked`, symbol: 'I_asked', unit: 'A', counts: 'max' },
      {
        I_load,
        β: fromRule(
          'β',
          'collector over base, saturated',
          forced,
          '',
          'usual: its sheet states what falls in it at this',
        ),
      },
      (i) => i.I_load.over(i.β),
    )
    const drop = driverCurve(chip, wire.pin, 'high')
    const V_left = sum(
      { label: `Left for the base resistor of ${name}`, symbol: 'V_left', unit: 'V' },
      { V_DD: rail, V_BE },
      (i) => greatest(number(0, dimensionOf('V')), i.V_DD.minus(i.V_BE)),
    )
    const resistance = sum(
      {
        label: `Base resistor of ${name}`,
        symbol: 'R_B',
        unit: 'Ω',
        counts: 'min',
        note: 'The largest with which the base gets what it asks for; fitted is the next preferred value below, but none that the leg doesn’t stand.',
      },
      {
        V_left,
        V_drop: readCurve({ label: 'Drop in the leg’s driver', symbol: 'V_drop', unit: 'V' }, drop, [
          'I_asked',
          asked,
        ]),
        I_asked: asked,
      },
      (i) => greatest(number(0, dimensionOf('Ω')), i.V_left.minus(i.V_drop).over(i.I_asked)),
    )
    const rated = chip.limits.pinRecommended
    const spared = sum(
      {
        label: `Least resistor that the leg of ${name} stands`,
        symbol: 'R_leg',
        unit: 'Ω',
        counts: 'max',
        note: 'With less it gives more than it is good for, whatever the base asks for.',
      },
      {
        V_left,
        I_leg: {
          ...fromPart('I_leg', 'recommended current of a leg', chip, 'limits.pinRecommended', rated, 'A'),
          value: exactly(fullRange(rated).max),
        },
      },
      (i) => i.V_left.over(i.I_leg),
    )
    const enough = preferred(series, resistance.value.min / (1 + series.tolerance), 'down')
    const safe = preferred(series, spared.value.max / (1 - series.tolerance), 'up')
    // A leg that can’t give what the base asks for is spared: that the transistor gets too little is told.
    const chosen = enough.value >= safe.value ? enough : safe
    const R = fittedResistor('R', 'base resistor', series, chosen, key(id))
    const inSeries: SeriesPart[] = [{ symbol: 'V_drop', label: 'Drop in the leg’s driver', curve: drop }]
    const current = currentInSeries(
      {
        label: `Into the base of the transistor of ${name}`,
        symbol: 'I_B',
        note: 'The driver’s drop follows its curve at this very current.',
      },
      ['V_left', V_left],
      ['R', R],
      inSeries,
    )
    const bare = currentInSeries(
      {
        label: `Into the base of the transistor of ${name}, without its resistor`,
        symbol: 'I_bare',
        note: 'Only the leg’s own driver limits it then.',
      },
      ['V_left', V_left],
      ['R_lead', fromRule('R_lead', 'leads and board', leads, 'Ω', 'so that something is in the way')],
      inSeries,
    )
    const ratio = sum(
      { label: `Collector over base of ${transistor.name}`, symbol: 'β_on', unit: '', counts: 'max' },
      { I_load, I_B: current },
      (i) => i.I_load.over(greatest(number(1e-9, dimensionOf('A')), i.I_B)),
    )
    const creep =
      transistor.gain &&
      sum(
        {
          label: `Through ${end.instance.name} before the program drives the leg`,
          symbol: 'I_creep',
          unit: 'A',
          counts: 'max',
          note: 'The leg only reads then, and leaks into the base: that times the gain.',
        },
        {
          I_leak: legLeakage(chip),
          β: fromPart('β', 'gain', transistor, 'gain', transistor.gain, ''),
        },
        (i) => i.I_leak.times(i.β),
      )
    return { asked, resistance, spared, resistor: chosen, current, bare, ratio, ...(creep && { creep }) }
  },
)

/** The resistor between leg and base: without it only the driver limits what flows. */
export const baseResistorOf = (
  wire: Wire,
  transistor: Transistor,
  context: FittingContext,
  nets: { leg: string; base: string },
): SupportPart[] => {
  const on = baseOnLeg(wire, transistor, context)
  const { chip, design, stock } = context
  if (!on || !stock.resistors) return []
  const { name, id } = wire.signal
  const absolute = fullRange(chip.limits.pinAbsolute).max
  return [
    {
      key: key(id),
      role: 'base resistor',
      name: `base resistor of ${name}`,
      part: stock.resistors,
      value: { value: on.resistor.value, unit: 'Ω', marking: on.resistor.marking },
      legs: twoLegs(nets.leg, nets.base),
      series: true,
      why:
        on.ratio.value.max <= forced * (1 + 1e-9)
          ? `gives the base ${formatQuantity(on.current.value.typ, 'A', 2)}, a tenth of the load’s current or more, so that little falls in the transistor`
          : `keeps the leg within what it is good for: ${formatQuantity(on.current.value.typ, 'A', 2)}, less than the base asks for`,
      worked: [on.resistance, on.spared, on.current, on.ratio],
      signal: id,
      ...supportChoice(design, key(id), everyStance),
      risk: {
        severity: on.bare.value.max > absolute ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`Without it up to ${formatQuantity(on.bare.value.max, 'A', 3)} flow from the leg into the base, limited only by the leg’s driver.`,
        facts: [
          say`The leg may carry ${formatQuantity(absolute, 'A')} at the absolute maximum (${chip.sheet}, ${chip.limits.pinAbsolute.source ?? 'limits'})`,
          { ...say`A base is a diode to ground: what is over its volt falls in the driver`, worked: on.bare },
        ],
      },
    },
  ]
}

export const baseNet = (wire: Wire): string => `${wire.signal.net}_BASE`
