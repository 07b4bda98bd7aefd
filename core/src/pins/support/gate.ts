// A load switched by a MOSFET: the transistor, the pull-down that keeps its gate quiet before the program runs, the
// resistor into the gate, and the diode across a coil.

import { preferred, supplyNet, type SupportPart } from '../../circuit'
import { byTheBook, careful, everyStance, supportChoice } from '../../design'
import { largestPullDown, timeToThreshold } from '../../electrical'
import { fromPart, fromWorked, type Worked } from '../../findings'
import { findPart } from '../../parts'
import { exactly, formatQuantity, fullRange } from '../../quantity'
import { netOf, type SignalSupport } from './context'

export const gateKey = (signal: string) => `gate-pull-down:${signal}`

export const switchedLoad: SignalSupport = (wire, { chip, rail, stock, design, library }) => {
  const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'switched')
  const load = end?.signal.electrical
  if (!end || load?.kind !== 'switched' || !stock.resistors) return []
  const transistor = findPart(library, 'transistor', load.transistor)
  if (!transistor) return []
  const net = netOf(wire.signal.name)
  const gate = `${net}_GATE`
  const drain = `${net}_LOW`
  const name = wire.signal.name
  const threshold = transistor.threshold ? fullRange(transistor.threshold) : exactly(1)
  const legLeak = fullRange(chip.io.leakage)
  const ownLeak = transistor.gateLeakage ? fullRange(transistor.gateLeakage).max : 0
  const leak = legLeak.max + ownLeak
  const capacitance = transistor.gateCapacitance ? fullRange(transistor.gateCapacitance).typ : 50e-12
  const thresholdInput = fromPart(
    'V_th',
    'least gate threshold',
    transistor,
    'threshold',
    transistor.threshold ?? { typ: 1, kind: 'typical' },
    'V',
  )
  const leakInput = fromPart(
    'I_leak',
    'leakage of the leg',
    chip,
    'io.leakage',
    { ...chip.io.leakage, max: leak },
    'A',
  )
  const largest: Worked = {
    label: `Largest pull-down of ${name}`,
    symbol: 'R_max',
    value: exactly(largestPullDown(threshold.min, leak)),
    unit: 'Ω',
    formula: 'V_th / (2 · I_leak)',
    inputs: [thresholdInput, leakInput],
    note: 'Leakage must leave the gate below half its least threshold.',
  }
  const creep: Worked = {
    label: 'Time until a floating gate can switch on',
    symbol: 't',
    value: exactly(timeToThreshold(capacitance, threshold.min, leak)),
    unit: 's',
    formula: 'C_gate · V_th / I_leak',
    inputs: [
      fromPart(
        'C_gate',
        'gate capacitance',
        transistor,
        'gateCapacitance',
        transistor.gateCapacitance ?? { typ: 50e-12, kind: 'typical' },
        'F',
      ),
      thresholdInput,
      leakInput,
    ],
    note: 'Leakage alone; noise from a finger is faster.',
  }
  const pull = preferred(stock.resistors, Math.min(100e3, largest.value.typ), 'down')
  const pinLimit = fullRange(chip.limits.pinRecommended).max
  const series = preferred(stock.resistors, rail.value.max / pinLimit, 'up')
  const seriesWorked: Worked = {
    label: `Gate resistor of ${name}`,
    symbol: 'R_G',
    value: exactly(rail.value.max / pinLimit),
    unit: 'Ω',
    formula: 'V_DD / I_leg',
    inputs: [
      fromWorked(rail),
      fromPart(
        'I_leg',
        'recommended current of a leg',
        chip,
        'limits.pinRecommended',
        chip.limits.pinRecommended,
        'A',
      ),
    ],
    note: 'A gate is a capacitor: at each edge only this resistor limits the current.',
  }
  const pullKey = gateKey(wire.signal.id)
  const seriesKey = `gate-series:${wire.signal.id}`
  const fetKey = `transistor:${wire.signal.id}`
  const legOf = (role: string) => String(transistor.legs.find((l) => l.role === role)?.leg ?? role)
  const seriesChoice = supportChoice(design, seriesKey, byTheBook)
  const quantityOf = (w: Worked) => formatQuantity(w.value.typ, w.unit, 2)
  const parts: SupportPart[] = [
    {
      key: fetKey,
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
        text: `From power-up until the program drives ${wire.pin.id}, the gate floats: leakage can switch ${end.instance.name} on after ${quantityOf(creep)}.`,
        facts: [
          { text: `${wire.pin.id} is an input until the program sets it` },
          { text: `The gate holds its charge; it switches from ${formatQuantity(threshold.min, 'V')}` },
          { text: `Leakage charges it in ${quantityOf(creep)}`, worked: creep },
        ],
      },
    },
  ]
  const diode = findPart(library, 'diode', load.diode)
  if (load.inductive && diode) {
    const key = `flyback:${wire.signal.id}`
    parts.push({
      key,
      name: `flyback diode of ${name}`,
      part: diode,
      legs: [
        { name: 'cathode', net: supplyNet(design, end.instance.need) },
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
