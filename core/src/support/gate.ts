// A load switched by a transistor, and the diode across a coil. A MOSFET has a pull-down that keeps its gate quiet before the
// program runs, and a resistor into the gate; a bipolar one a resistor into its base; one in the plus (`above`) what pulls its gate.

import { preferred, type SupportPart, twoLegs } from '../circuit'
import { railFor, voltageFor } from '../supply'
import { byTheBook, careful, everyStance, supportChoice } from '../design'
import { fromPart, type Worked, say } from '../findings'
import { type EndOf, endsOf, type Wire, type WireEnd } from '../legs'
import { findPart, type Resistors, type Transistor } from '../parts'
import { exactly, formatQuantity, fullRange } from '../quantity'
import { sum } from '../sums'
import type { FittingContext } from '../levels'
import { type PlusOnLeg, plusOnLeg } from './above'
import { baseNet, baseOnLeg, baseResistorOf } from './base'
import { type SignalSupport } from './context'
import { largestHolding, thresholdOf } from './mosfet'
import { legLeakage } from './pull'

const gateKey = (signal: string) => `gate-pull-down:${signal}`

/** The most that a pull-down is, ohms: above it dirt and damp decide. */
const cleanBoard = 100e3

/** One load on one leg, and what switches it. */
interface Switched extends FittingContext {
  wire: Wire
  end: WireEnd
  load: EndOf<'switched'>['electrical']
  transistor: Transistor
  resistors: Resistors
  /** The leg’s net, that of the gate or base behind its resistor, and that of the transistor’s far side: the load’s minus, if that is what it switches. */
  nets: { leg: string; gate: string; drain: string }
  /** Between which the load’s coil lies, plus first. */
  coil: [plus: string, minus: string]
}

const leakageOnGate = ({ chip, transistor: { gateLeakage }, transistor }: Switched) =>
  legLeakage(
    chip,
    gateLeakage && fromPart('I_in', 'leakage of the gate', transistor, 'gateLeakage', gateLeakage, 'A'),
  )

const largestPullDown = (of: Switched): Worked =>
  largestHolding(`Largest pull-down of ${of.wire.signal.name}`, of.transistor, leakageOnGate(of))

const creepOf = (of: Switched): Worked =>
  sum(
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
        of.transistor,
        'gateCapacitance',
        of.transistor.gateCapacitance ?? { typ: 50e-12, kind: 'assumed' },
        'F',
      ),
      V_th: thresholdOf(of.transistor),
      I_leak: leakageOnGate(of),
    },
    (i) => i.C_gate.times(i.V_th).over(i.I_leak),
  )

const leastSeries = ({ chip, rail, wire }: Switched): Worked => {
  const rated = chip.limits.pinRecommended
  const I_leg = fromPart('I_leg', 'recommended current of a leg', chip, 'limits.pinRecommended', rated, 'A')
  return sum(
    {
      label: `Gate resistor of ${wire.signal.name}`,
      symbol: 'R_G',
      unit: 'Ω',
      counts: 'max',
      note: 'A gate is a capacitor: at each edge only this resistor limits the current.',
    },
    { V_DD: rail, I_leg: { ...I_leg, value: exactly(fullRange(rated).max) } },
    (i) => i.V_DD.over(i.I_leg),
  )
}

const transistorOf = ({
  chip,
  design,
  end,
  load,
  transistor,
  nets,
  rail,
  stock,
  wire,
}: Switched): SupportPart => {
  const { signal } = wire
  const key = `transistor:${signal.id}`
  const legOf = (role: string) => String(transistor.legs.find((l) => l.role === role)?.leg ?? role)
  const bipolar = transistor.sort === 'npn'
  const on = bipolar ? baseOnLeg(wire, transistor, { chip, rail, stock }) : undefined
  const { pinRecommended } = chip.limits
  return {
    key,
    role: 'transistor',
    name: `transistor of ${signal.name}`,
    part: transistor,
    legs: bipolar
      ? [
          { name: `${legOf('base')} base`, net: nets.gate },
          { name: `${legOf('collector')} collector`, net: nets.drain },
          { name: `${legOf('emitter')} emitter`, net: 'GND' },
        ]
      : [
          { name: `${legOf('gate')} gate`, net: nets.gate },
          { name: `${legOf('drain')} drain`, net: nets.drain },
          { name: `${legOf('source')} source`, net: 'GND' },
        ],
    why: end.instance.part.latch
      ? 'pulls the latch’s gate low while the program holds: the leg itself must not, since the source’s voltage is on the gate'
      : `${end.instance.name} draws ${formatQuantity(fullRange(load.current).max, 'A', 2)}, more than a leg should carry`,
    worked: on?.creep ? [on.creep] : [],
    signal: signal.id,
    ...supportChoice(design, key, everyStance),
    risk: {
      severity: 'stops',
      grade: 'impossible',
      ...say`Without the transistor nothing switches ${end.instance.name}.`,
      facts: [
        say`A leg is good for ${formatQuantity(fullRange(pinRecommended).max, 'A')} (${chip.sheet}, ${pinRecommended.source ?? 'limits'})`,
      ],
    },
  }
}

const gateResistorOf = (of: Switched): SupportPart => {
  const { chip, design, resistors, nets, wire } = of
  const key = `gate-series:${wire.signal.id}`
  const needed = leastSeries(of)
  return {
    key,
    role: 'gate resistor',
    name: `gate resistor of ${wire.signal.name}`,
    part: resistors,
    value: preferred(resistors, needed.value.max / (1 - resistors.tolerance), 'up'),
    legs: twoLegs(nets.leg, nets.gate),
    series: true,
    why: 'keeps the current into the gate at each edge within the leg’s recommended one',
    worked: [needed],
    signal: wire.signal.id,
    ...supportChoice(design, key, byTheBook),
    risk: {
      severity: 'notes',
      grade: 'typical',
      ...say`Each edge draws a short pulse above ${formatQuantity(fullRange(chip.limits.pinRecommended).max, 'A')} from the leg.`,
      facts: [{ ...say`Only the leg’s own driver limits the charging current of the gate`, worked: needed }],
    },
  }
}

const gatePullDownOf = (of: Switched): SupportPart => {
  const { design, end, resistors, nets, wire } = of
  const key = gateKey(wire.signal.id)
  const [largest, creep] = [largestPullDown(of), creepOf(of)]
  const soonest = formatQuantity(creep.value.min, 's', 2)
  return {
    key,
    role: 'gate pull-down',
    name: `gate pull-down of ${wire.signal.name}`,
    part: resistors,
    value: preferred(resistors, Math.min(cleanBoard, largest.value.min / (1 + resistors.tolerance)), 'down'),
    legs: twoLegs(nets.gate, 'GND'),
    why: `keeps ${end.instance.name} off until the program drives the leg`,
    worked: [largest, creep],
    signal: wire.signal.id,
    // What switches the whole project can’t do without.
    ...supportChoice(design, key, end.instance.part.latch ? everyStance : careful),
    risk: {
      severity: 'risks',
      grade: 'outside the sheet',
      ...say`From power-up until the program drives ${wire.pin.id}, the gate floats: leakage can switch ${end.instance.name} on after ${soonest}.`,
      facts: [
        say`${wire.pin.id} is an input until the program sets it`,
        say`The gate holds its charge; it switches from ${formatQuantity(thresholdOf(of.transistor).value.min, 'V')}`,
        { ...say`Leakage charges it in ${soonest}`, worked: creep },
      ],
    },
  }
}

/** Across a coil, cathode to what feeds it. */
const flybackOf = ({ design, library, end, load, transistor, coil, wire }: Switched): SupportPart[] => {
  const diode = findPart(library, 'diode', load.diode)
  if (!load.inductive || !diode) return []
  const key = `flyback:${wire.signal.id}`
  const stands = formatQuantity(fullRange(transistor.voltage).max, 'V')
  return [
    {
      key,
      role: 'flyback diode',
      name: `flyback diode of ${wire.signal.name}`,
      part: diode,
      legs: [
        { name: 'cathode', net: coil[0] },
        { name: 'anode', net: coil[1] },
      ],
      why: `the coil of ${end.instance.name} drives its current on when switched off; the diode gives it a way`,
      worked: [],
      signal: wire.signal.id,
      ...supportChoice(design, key, careful),
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`When it switches off, the coil’s ${formatQuantity(fullRange(load.current).max, 'A', 2)} pulls the transistor beyond its ${stands}.`,
        facts: [
          say`The current of a coil can’t stop at once; without a path its voltage rises until something breaks down`,
          say`${transistor.name} stands ${stands} (${transistor.sheet}, ${transistor.voltage.source ?? 'limits'})`,
        ],
      },
    },
  ]
}

/** What pulls the gate of the one in the plus low while the line is high. */
const pullingOf = (of: Switched): SupportPart => {
  const { design, end, transistor, wire } = of
  const key = `pulling:${wire.signal.id}`
  return {
    ...transistorOf(of),
    key,
    role: 'pulling transistor',
    name: `pulling transistor of ${wire.signal.name}`,
    why: `pulls the gate in the plus low while the line is high: the leg itself must not, since the supply of ${end.instance.name} is on that gate`,
    ...supportChoice(design, key, everyStance),
    risk: {
      severity: 'stops',
      grade: 'impossible',
      ...say`Without ${transistor.name} nothing pulls the gate low: ${end.instance.name} stays off.`,
      facts: [say`The gate is held at the plus by its resistor`],
    },
  }
}

/** In the plus: the p-channel one, what pulls its gate, what holds it off, and what spares a gate that doesn’t stand the supply. */
const inPlusOf = (of: Switched, on: PlusOnLeg): SupportPart[] => {
  const { design, end, resistors, nets, supplies, transistor, wire } = of
  const { id, name } = wire.signal
  const feed = railFor(supplies, end.instance.need).net
  const load = end.instance.name
  const at = (role: string, net: string) => ({
    name: `${transistor.legs.find((l) => l.role === role)?.leg ?? role} ${role}`,
    net,
  })
  const pass = transistorOf(of)
  const gate = passNet(wire)
  const [up, down] = [`gate-pull-up:${id}`, `gate-divider:${id}`]
  const ohms = (value: PlusOnLeg['pullUp']) => ({ ...value, unit: 'Ω' as const })
  const stands = transistor.gateVoltage && formatQuantity(fullRange(transistor.gateVoltage).max, 'V')
  return [
    {
      ...pass,
      legs: [at('gate', gate), at('drain', highNet(wire)), at('source', feed)],
    },
    {
      key: up,
      role: 'gate pull-up',
      name: `gate pull-up of ${name}`,
      part: resistors,
      value: ohms(on.pullUp),
      legs: twoLegs(feed, gate),
      why: `holds ${load} off until the program asks for it, and lets the gate go when it no longer does`,
      worked: [on.largest, on.off],
      signal: id,
      ...supportChoice(design, up, everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Without it nothing takes the gate back to the plus: once on, ${load} stays on.`,
        facts: [say`What pulls the gate low doesn’t push it up again`],
      },
    },
    ...(on.divider
      ? [
          {
            key: down,
            role: 'gate divider' as const,
            name: `gate divider of ${name}`,
            part: resistors,
            value: ohms(on.divider),
            legs: twoLegs(gate, nets.drain),
            series: true,
            why: `the gate stands ${stands} against its source, and the supply of ${load} is more`,
            worked: [on.most, on.drive],
            signal: id,
            ...supportChoice(design, down, everyStance),
            risk: {
              severity: 'stops' as const,
              grade: 'outside the sheet' as const,
              ...say`Without it the gate gets the whole supply, and breaks above ${stands!}.`,
              facts: [
                say`${transistor.name}: ${stands!} between gate and source (${transistor.sheet}, ${transistor.gateVoltage?.source ?? 'limits'})`,
              ],
            },
          },
        ]
      : []),
  ]
}

/** The p-channel one’s gate, and the load’s plus behind it. */
const passNet = (wire: Wire) => `${wire.signal.net}_PASS`
const highNet = (wire: Wire) => `${wire.signal.net}_HIGH`

export const switchedLoad: SignalSupport = (wire, context) => {
  const [found] = endsOf(wire, 'switched')
  const { resistors } = context.stock
  if (!found || !resistors) return []
  const { end, electrical: load } = found
  const transistor = findPart(context.library, 'transistor', load.transistor)
  if (!transistor) return []
  const leg = wire.signal.net
  const drain = `${leg}_LOW`
  const feed = railFor(context.supplies, end.instance.need).net
  const below = {
    ...context,
    wire,
    end,
    load,
    transistor,
    resistors,
    coil: [feed, drain] as [string, string],
  }
  if (transistor.sort === 'npn') {
    const of: Switched = { ...below, nets: { leg, gate: baseNet(wire), drain } }
    return [
      transistorOf(of),
      ...baseResistorOf(wire, transistor, context, { leg, base: of.nets.gate }),
      ...flybackOf(of),
    ]
  }
  const nets = { leg, gate: `${leg}_GATE`, drain }
  if (load.plus) {
    const { ambient } = context.design.needs.limits
    const on = plusOnLeg(wire, transistor, voltageFor(context.supplies, end.instance.need), {
      ...context,
      ambient,
    })
    if (!on) return []
    const pulling: Switched = {
      ...below,
      transistor: on.pull,
      nets: { ...nets, drain: on.divider ? `${leg}_PULL` : passNet(wire) },
    }
    return [
      ...inPlusOf({ ...below, nets: pulling.nets }, on),
      pullingOf(pulling),
      gateResistorOf(pulling),
      gatePullDownOf(pulling),
      ...flybackOf({ ...below, nets, coil: [highNet(wire), 'GND'] }),
    ]
  }
  const of: Switched = { ...below, nets }
  return [transistorOf(of), gateResistorOf(of), gatePullDownOf(of), ...flybackOf(of)]
}
