// A load switched by a MOSFET: the transistor, the pull-down that keeps its gate quiet before the program runs, the
// resistor into the gate, and the diode across a coil.

import { netOf, preferred, type SupportPart } from '../circuit'
import { railFor } from '../supply'
import { byTheBook, careful, everyStance, supportChoice } from '../design'
import { fromDecision, fromPart, type Worked } from '../findings'
import { type Chip, findPart, type Rated, type Transistor } from '../parts'
import { exactly, formatQuantity, fullRange } from '../quantity'
import { number, readCurve, sum } from '../sums'
import { chipDrives } from '../levels'
import type { Wire } from '../legs'
import { type SignalSupport } from './context'
import { legLeakage } from './pull'

export const gateKey = (signal: string) => `gate-pull-down:${signal}`

export const switchedLoad: SignalSupport = (wire, { chip, rail, stock, design, library, supplies }) => {
  const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'switched')
  const load = end?.signal.electrical
  if (!end || load?.kind !== 'switched' || !stock.resistors) return []
  const transistor = findPart(library, 'transistor', load.transistor)
  if (!transistor) return []
  const net = netOf(wire.signal.name)
  const gate = `${net}_GATE`
  const drain = `${net}_LOW`
  const name = wire.signal.name
  const rated: Rated = transistor.threshold ?? { typ: 1, kind: 'assumed' }
  const threshold = fullRange(rated)
  const V_th = fromPart('V_th', 'gate threshold', transistor, 'threshold', rated, 'V')
  const I_leak = legLeakage(
    chip,
    transistor.gateLeakage &&
      fromPart('I_in', 'leakage of the gate', transistor, 'gateLeakage', transistor.gateLeakage, 'A'),
  )
  const largest = sum(
    {
      label: `Largest pull-down of ${name}`,
      symbol: 'R_max',
      unit: 'Ω',
      counts: 'min',
      note: 'Leakage must leave the gate below half its least threshold.',
    },
    { V_th, I_leak },
    (i) => i.V_th.over(number(2).times(i.I_leak)),
  )
  const creep = sum(
    {
      label: 'Time until a floating gate can switch on',
      symbol: 't',
      unit: 's',
      counts: 'min',
      note: 'Leakage alone; noise from a finger is faster.',
    },
    {
      C_gate: fromPart(
        'C_gate',
        'gate capacitance',
        transistor,
        'gateCapacitance',
        transistor.gateCapacitance ?? { typ: 50e-12, kind: 'assumed' },
        'F',
      ),
      V_th,
      I_leak,
    },
    (i) => i.C_gate.times(i.V_th).over(i.I_leak),
  )
  const { tolerance } = stock.resistors
  const pull = preferred(stock.resistors, Math.min(100e3, largest.value.min / (1 + tolerance)), 'down')
  const pinLimit = fullRange(chip.limits.pinRecommended).max
  const seriesWorked = sum(
    {
      label: `Gate resistor of ${name}`,
      symbol: 'R_G',
      unit: 'Ω',
      counts: 'max',
      note: 'A gate is a capacitor: at each edge only this resistor limits the current.',
    },
    {
      V_DD: rail,
      I_leg: {
        ...fromPart(
          'I_leg',
          'recommended current of a leg',
          chip,
          'limits.pinRecommended',
          chip.limits.pinRecommended,
          'A',
        ),
        value: exactly(pinLimit),
      },
    },
    (i) => i.V_DD.over(i.I_leg),
  )
  const series = preferred(stock.resistors, seriesWorked.value.max / (1 - tolerance), 'up')
  const pullKey = gateKey(wire.signal.id)
  const seriesKey = `gate-series:${wire.signal.id}`
  const fetKey = `transistor:${wire.signal.id}`
  const legOf = (role: string) => String(transistor.legs.find((l) => l.role === role)?.leg ?? role)
  const seriesChoice = supportChoice(design, seriesKey, byTheBook)
  const soonest = formatQuantity(creep.value.min, 's', 2)
  const parts: SupportPart[] = [
    {
      key: fetKey,
      role: 'transistor',
      name: `transistor of ${name}`,
      part: transistor,
      legs: [
        { name: `${legOf('gate')} gate`, net: gate },
        { name: `${legOf('drain')} drain`, net: drain },
        { name: `${legOf('source')} source`, net: 'GND' },
      ],
      why: `${end.instance.name} draws ${formatQuantity(fullRange(load.current).max, 'A', 2)}, more than a leg should carry`,
      worked: [],
      signal: wire.signal.id,
      ...supportChoice(design, fetKey, everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        text: `Without the transistor nothing switches ${end.instance.name}.`,
        facts: [
          {
            text: `A leg is good for ${formatQuantity(pinLimit, 'A')} (${chip.sheet}, ${chip.limits.pinRecommended.source ?? 'limits'})`,
          },
        ],
      },
    },
    {
      key: seriesKey,
      role: 'gate resistor',
      name: `gate resistor of ${name}`,
      part: stock.resistors,
      value: { ...series },
      legs: [
        { name: '1', net },
        { name: '2', net: gate },
      ],
      series: true,
      why: 'keeps the current into the gate at each edge within the leg’s recommended one',
      worked: [seriesWorked],
      signal: wire.signal.id,
      ...seriesChoice,
      risk: {
        severity: 'notes',
        grade: 'typical',
        text: `Each edge draws a short pulse above ${formatQuantity(pinLimit, 'A')} from the leg.`,
        facts: [
          { text: 'Only the leg’s own driver limits the charging current of the gate', worked: seriesWorked },
        ],
      },
    },
    {
      key: pullKey,
      role: 'gate pull-down',
      name: `gate pull-down of ${name}`,
      part: stock.resistors,
      value: { ...pull },
      legs: [
        { name: '1', net: gate },
        { name: '2', net: 'GND' },
      ],
      why: `keeps ${end.instance.name} off until the program drives the leg`,
      worked: [largest, creep],
      signal: wire.signal.id,
      ...supportChoice(design, pullKey, careful),
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        text: `From power-up until the program drives ${wire.pin.id}, the gate floats: leakage can switch ${end.instance.name} on after ${soonest}.`,
        facts: [
          { text: `${wire.pin.id} is an input until the program sets it` },
          { text: `The gate holds its charge; it switches from ${formatQuantity(threshold.min, 'V')}` },
          { text: `Leakage charges it in ${soonest}`, worked: creep },
        ],
      },
    },
  ]
  const diode = findPart(library, 'diode', load.diode)
  if (load.inductive && diode) {
    const key = `flyback:${wire.signal.id}`
    parts.push({
      key,
      role: 'flyback diode',
      name: `flyback diode of ${name}`,
      part: diode,
      legs: [
        { name: 'cathode', net: railFor(supplies, end.instance.need).net },
        { name: 'anode', net: drain },
      ],
      why: `the coil of ${end.instance.name} drives its current on when switched off; the diode gives it a way`,
      worked: [],
      signal: wire.signal.id,
      ...supportChoice(design, key, careful),
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        text: `When it switches off, the coil’s ${formatQuantity(fullRange(load.current).max, 'A', 2)} pulls the transistor above its ${formatQuantity(fullRange(transistor.voltage).max, 'V')}.`,
        facts: [
          {
            text: 'The current of a coil can’t stop at once; without a path its voltage rises until something breaks down',
          },
          {
            text: `${transistor.name} stands ${formatQuantity(fullRange(transistor.voltage).max, 'V')} (${transistor.sheet}, ${transistor.voltage.source ?? 'limits'})`,
          },
        ],
      },
    })
  }
  return parts
}

/** What a switching transistor gets and makes of it. */
export interface SwitchOnLeg {
  /** Between gate and source while the leg is high. */
  drive: Worked
  /** Its channel at that voltage; absent where the sheet states none. */
  channel?: Worked
  heat?: Worked
  /** At the ambient that the project sets; absent where the package’s way for the heat isn’t known. */
  junction?: Worked
}

export const switchOnLeg = (
  wire: Pick<Wire, 'pin' | 'signal'>,
  transistor: Transistor,
  current: Rated,
  { chip, rail, ambient }: { chip: Chip; rail: Worked; ambient: number },
): SwitchOnLeg => {
  const end = wire.signal.ends[0]!
  const { name } = wire.signal
  const drive = sum(
    { label: `Gate of ${name} while it is on`, symbol: 'V_GS', unit: 'V' },
    { V_OH: chipDrives(chip, wire, rail, () => rail).high },
    (i) => i.V_OH,
  )
  if (!transistor.channel?.length) return { drive }
  const channel = readCurve(
    {
      label: `Channel of ${transistor.name}`,
      symbol: 'R_DS',
      unit: 'Ω',
      note: 'Beyond the sheet’s gate voltages as at the nearest.',
    },
    {
      part: transistor,
      field: 'channel',
      points: transistor.channel.map((p) => ({ x: p.gate, y: { source: p.source, ...p.resistance } })),
      held: true,
    },
    ['V_GS', drive],
  )
  const I_load = fromPart(
    'I_load',
    `what ${end.instance.name} draws`,
    end.instance.part,
    `${end.signal.id}.current`,
    current,
    'A',
  )
  const heat = sum(
    { label: `Heat in the transistor of ${name}`, symbol: 'P', unit: 'W', note: 'Switched on all the time.' },
    { I_load, R_DS: channel },
    (i) => i.I_load.times(i.I_load).times(i.R_DS),
  )
  const { thermalResistance } = transistor.package
  return {
    drive,
    channel,
    heat,
    junction:
      thermalResistance &&
      sum(
        { label: `Junction of the transistor of ${name}`, symbol: 'T_J', unit: '°C' },
        {
          T_A: fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page'),
          P: heat,
          θ_JA: fromPart(
            'θ_JA',
            'junction to ambient',
            transistor,
            'package.thermalResistance',
            thermalResistance,
            'K/W',
          ),
        },
        (i) => i.T_A.plus(i.P.times(i.θ_JA)),
      ),
  }
}
