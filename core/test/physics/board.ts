// A planned board as a circuit that can be solved: each part by its own file and by which of its legs lies on which net, and
// by nothing else. What a part is there for isn't looked at, so a part turned round is turned round here too.

import type { Analysis } from '../../src/analysis'
import {
  type Element,
  type Model,
  operatingPoint,
  transconductanceOf,
  type OperatingPoint,
} from '../../src/circuit'
import { formOf } from '../../src/circuit/models'
import type { Chip, ChipPin, Device, Led, Diode, Part, Regulator, Source, Transistor } from '../../src/parts'
import type { Lead, Limits } from '../../src/design'
import { fullRange } from '../../src/quantity'

export type Placed = Analysis['build']['placed'][number]

export interface State {
  /** What the program puts on a signal's leg; all others only read. */
  drives: Record<string, 'high' | 'low'>
  /** Contacts that are closed: device instance and terminal. */
  closed?: string[]
  /** What a device puts on one of its terminals: instance and terminal. */
  device?: Record<string, 'high' | 'low'>
  /** The plug's polarity turned round. */
  reversed?: boolean
  /** Nobody presses the reset button, or somebody does. */
  reset?: boolean
  /** Volts that a programmer puts on the contacts of its header, by their place from 1. */
  programmer?: Record<number, number>
  /** Whether devices draw what they draw at work, or nothing. */
  loads?: boolean
}

const typ = (r: Parameters<typeof fullRange>[0]) => fullRange(r).typ
const legOf = (name: string) => Number(name.split(' ')[0])
const lastWord = (name: string) => name.split(' ').at(-1)!

/** A teraohm to ground: what keeps a leg that only reads from having no voltage at all. */
const listening = 1e12

interface Board {
  elements: Element[]
  add: (id: string, model: Model, ...nets: (string | undefined)[]) => void
}

const curveOf = (part: Led | Diode): Model => ({
  kind: 'curve',
  points: part.forward.map((p) => [p.current, typ(p.voltage)] as const),
})

const regulatorModel = (part: Regulator): Model =>
  part.topology === 'linear'
    ? {
        kind: 'linear regulator',
        output: typ(part.output),
        dropout: [[0, 0], ...part.dropout.map((p) => [p.current, typ(p.voltage)] as const)],
        quiescent: typ(part.quiescent),
      }
    : {
        kind: 'switching regulator',
        output: typ(part.output),
        efficiency: part.efficiency?.[0]?.share ?? 0.85,
        quiescent: typ(part.quiescent),
        least: fullRange(part.inputRecommended).min,
        up: part.converts === 'up',
      }

/** The net of the leg with this number. */
const byNumber = (placed: Placed, leg: number | undefined) =>
  placed.legs.find((l) => legOf(l.name) === leg)?.net

const transistorOn = ({ add }: Board, placed: Placed, part: Transistor) => {
  const at = (role: string) => byNumber(placed, part.legs.find((l) => l.role === role)?.leg)
  const point = part.channel?.at(-1)
  if (part.sort.endsWith('mosfet') && point && part.threshold) {
    const threshold = Math.abs(typ(part.threshold))
    add(
      placed.ref,
      {
        kind: 'mosfet',
        polarity: part.sort === 'n-mosfet' ? 'n' : 'p',
        threshold,
        transconductance: transconductanceOf(typ(point.resistance), Math.abs(point.gate), threshold),
      },
      at('gate'),
      at('drain'),
      at('source'),
    )
  } else
    add(
      placed.ref,
      {
        kind: 'bipolar',
        polarity: part.sort === 'pnp' ? 'pnp' : 'npn',
        gain: part.gain ? typ(part.gain) : 100,
        saturation: 1e-14,
      },
      at('base'),
      at('collector'),
      at('emitter'),
    )
}

/** Copper by its temperature coefficient at 20 °C, 3.93e-3 a kelvin (IEC 60028); each joint, the fuse, and what guards a cell. */
export const ohmsOf = (
  lead: Lead | undefined,
  library: (id: string) => Part | undefined,
  air: number,
): number => {
  const part = (id: string | undefined) => (id === undefined ? undefined : library(id))
  const [wire, joint, fuse] = [part(lead?.wire), part(lead?.joint), part(lead?.fuse)]
  const guard = part(lead?.protection)
  return (
    (wire?.kind === 'wire'
      ? 2 * (lead!.length ?? 0) * typ(wire.resistance) * (1 + 3.93e-3 * (air - 20))
      : 0) +
    (joint?.kind === 'connector' ? (lead!.joints ?? 0) * typ(joint.resistance!) : 0) +
    (fuse?.kind === 'fuse' ? typ(fuse.resistance) : 0) +
    (guard?.kind === 'protection' ? typ(guard.resistance) : 0)
  )
}

/** Ω usually inside a source, in air of 20 °C or as near to that as it gets, and half way through the charges that it is to stand: by its file’s figures. */
export const ohmsInside = (source: Source | undefined, { ambient, coldest, charges }: Limits): number => {
  if (!source?.resistance) return 0
  const between = (points: readonly { x: number; y: number }[], x: number): number => {
    const k = points.findIndex((p) => p.x >= x)
    const [a, b] = [points[k - 1], points[k] ?? points.at(-1)!]
    return a && k > 0 ? a.y + ((x - a.x) / (b.x - a.x)) * (b.y - a.y) : b.y
  }
  const cold =
    coldest !== undefined && source.cold
      ? between(
          source.cold.map((p) => ({ x: p.air, y: typ(p.resistance) })),
          Math.min(ambient, Math.max(20, coldest)),
        )
      : 1
  const worn =
    charges !== undefined && source.worn
      ? between(
          [{ x: 0, y: 1 }, ...source.worn.map((p) => ({ x: p.charges, y: typ(p.resistance) }))],
          charges / 2,
        )
      : 1
  return typ(source.resistance) * cold * worn
}

/** Ω usually of the channel in the plus that stops a source the wrong way round: by its sheet, with the source’s voltage at its gate. */
export const ohmsOfGuard = (guard: Transistor | undefined, source: Source | undefined): number => {
  const points = [...(guard?.channel ?? [])].sort((a, b) => a.gate - b.gate)
  const V = source ? typ(source.voltage) : 0
  const k = points.findIndex((p) => p.gate >= V)
  if (points.length === 0) return 0
  if (k <= 0) return typ((k === 0 ? points[0]! : points.at(-1)!).resistance)
  const [a, b] = [points[k - 1]!, points[k]!]
  return typ(a.resistance) + ((V - a.gate) / (b.gate - a.gate)) * (typ(b.resistance) - typ(a.resistance))
}

type Fed = Pick<Analysis, 'power' | 'design'> & { library: (id: string) => Part | undefined }

const supportOn = (board: Board, placed: Placed, state: State, { power, design, library }: Fed) => {
  const { add } = board
  const { part, ref, support } = placed
  const net = (name: string) => placed.legs.find((l) => l.name === name)?.net
  const [first, second] = placed.legs
  switch (part.kind) {
    case 'resistors':
      return add(ref, { kind: 'resistor', resistance: support!.value!.value }, first?.net, second?.net)
    case 'capacitors':
      return add(
        ref,
        { kind: 'capacitor', capacitance: support!.value!.value },
        net('+') ?? first?.net,
        net('−') ?? second?.net,
      )
    case 'diode':
    case 'led':
      return add(ref, curveOf(part), net('anode'), net('cathode'))
    case 'transistor': {
      transistorOn(board, placed, part)
      // The program holds: the gate of a latch is pulled down.
      const gate = byNumber(placed, part.legs.find((l) => l.role === 'gate')?.leg)
      if (placed.support?.role === 'latch transistor')
        add(`${ref} held`, { kind: 'resistor', resistance: 1 }, gate, 'GND')
      return
    }
    case 'regulator': {
      const at = (role: string) => byNumber(placed, part.legs.find((l) => l.role === role)?.leg)
      return add(ref, regulatorModel(part), at('in'), at('out'), at('ground'))
    }
    case 'charger': {
      // Nothing is plugged in for charging: it takes from the cell what its sheet says.
      const at = (role: string) => byNumber(placed, part.legs.find((l) => l.role === role)?.leg)
      return add(ref, { kind: 'load', current: typ(part.back), full: 1 }, at('out'), at('ground'))
    }
    case 'switch':
      return add(ref, { kind: 'contact', closed: state.reset === true }, first?.net, second?.net)
    case 'connector': {
      if (part.sort === 'programming header') {
        for (const leg of placed.legs) {
          const u = state.programmer?.[legOf(leg.name)]
          if (u !== undefined)
            add(`${ref}.${legOf(leg.name)}`, { kind: 'source', voltage: u, resistance: 1 }, leg.net, 'GND')
        }
        return
      }
      if (support?.role === 'charge entry') return
      const apart = placed.legs.some((l) => l.net === 'VFEED')
      const fed = apart ? power.feed?.source : power.source
      const lead = apart ? design.power.feedLead : design.power.lead
      // What is wired to a jack’s first leg is at the plug’s centre, whatever the leg is called.
      const [plus, minus] =
        part.sort !== 'barrel jack'
          ? [net('+'), net('−')]
          : fed?.polarity === 'centre negative'
            ? [second?.net, first?.net]
            : [first?.net, second?.net]
      if (fed && plus && minus)
        add(
          ref,
          {
            kind: 'source',
            voltage: (state.reversed && !apart ? -1 : 1) * typ(fed.voltage),
            // A source that states no resistance inside gives its current at its voltage.
            resistance:
              (ohmsInside(fed, design.needs.limits) || 1e-3) +
              ohmsOf(lead, library, design.needs.limits.ambient),
          },
          plus,
          minus,
        )
      return
    }
    // Crystals pass no direct current; a buffer hands on what it reads, which is no matter of direct current either.
    default:
      return
  }
}

/** Volts over amperes of a leg's output, from the points of its sheet or the table of its driver. */
const outputOf = (chip: Chip, pin: ChipPin, to: 'high' | 'low'): Model => {
  const driver = chip.io.drivers?.find((d) => d.id === pin.driver)
  const table = to === 'high' ? driver?.pullUp : driver?.pullDown
  const points: [number, number][] = []
  if (table) {
    for (const row of table)
      if (typ(row.current) > (points.at(-1)?.[0] ?? 0)) points.push([typ(row.current), row.voltage])
  } else
    for (const p of to === 'high' ? chip.io.outputHigh : chip.io.outputLow)
      points.push([p.current, typ(p.drop)])
  return { kind: 'curve', points, bothWays: true }
}

const pinAt = (chip: Chip, name: string): ChipPin | undefined =>
  chip.board
    ? chip.pins.find((p) => p.id === lastWord(name))
    : chip.pins.find((p) => p.legs.includes(legOf(name)))

const chipOn = ({ add }: Board, a: Analysis, placed: Placed, chip: Chip, state: State) => {
  const seated = placed.legs.map((leg) => ({ leg, pin: pinAt(chip, leg.name) }))
  const feedOf = (type: string) => seated.find(({ pin }) => pin?.type === type)?.leg.net
  const [vcc, gnd] = [feedOf('supply') ?? 'VCC', feedOf('ground') ?? 'GND']
  if (chip.board && a.power.rail)
    add(
      `${placed.ref}.regulator`,
      { kind: 'source', voltage: a.power.rail.value.typ, resistance: 0.1 },
      vcc,
      gnd,
    )
  // Its own plug brings the source, which is at its input as well.
  const input = seated.find(({ leg }) => leg.net === 'VIN')?.leg.net
  if (chip.board && a.power.input && input)
    add(
      `${placed.ref}.input`,
      { kind: 'source', voltage: a.power.input.value.typ, resistance: 0.1 },
      input,
      gnd,
    )
  const own = a.power.consumers.find((c) => c.id === 'chip')
  if (state.loads && own)
    add(`${placed.ref}.own`, { kind: 'load', current: own.work.value.typ, full: 1 }, vcc, gnd)
  for (const { leg, pin } of seated) {
    if (!pin || pin.type === 'supply' || pin.type === 'ground' || leg.net === 'VIN') {
      // Every supply and ground leg is joined inside.
      if (pin?.type === 'supply' && leg.net !== vcc)
        add(`${placed.ref}.${leg.name}`, { kind: 'resistor', resistance: 0.1 }, leg.net, vcc)
      if (pin?.type === 'ground' && leg.net !== gnd)
        add(`${placed.ref}.${leg.name}`, { kind: 'resistor', resistance: 0.1 }, leg.net, gnd)
      continue
    }
    const id = `${placed.ref}.${leg.name}`
    const wire = a.pins.plan?.wires.find((w) => w.pin.id === pin.id && !w.impossible)
    const drive = wire && state.drives[wire.signal.id]
    add(`${id}.reads`, { kind: 'resistor', resistance: listening }, leg.net, gnd)
    if (drive === 'high') add(`${id}.high`, outputOf(chip, pin, 'high'), vcc, leg.net)
    if (drive === 'low') add(`${id}.low`, outputOf(chip, pin, 'low'), leg.net, gnd)
    // The program switches the leg's own pull-up on for a contact that has none on the board.
    const contact = wire?.signal.ends.some((e) => e.signal.electrical.kind === 'contact')
    const able = !pin.attributes?.some((x) => x.kind === 'no-pull-up')
    if (contact && able && chip.io.pullUp)
      add(`${id}.pull`, { kind: 'resistor', resistance: typ(chip.io.pullUp) }, vcc, leg.net)
  }
}

const deviceOn = (
  { add }: Board,
  a: Analysis,
  library: (id: string) => Part | undefined,
  placed: Placed,
  part: Device,
  state: State,
) => {
  const { ref, instance } = placed
  const net = (terminal: string) => placed.legs.find((l) => lastWord(l.name) === terminal)?.net
  const withRole = (role: string) =>
    part.terminals.filter((t) => t.role === role).flatMap((t) => net(t.id) ?? [])
  const [supply] = withRole('supply')
  const [ground] = withRole('ground')
  const signals = instance!.wiring.signals
  const current = Math.max(0, ...part.modes.map((m) => typ(m.current)))
  if (state.loads && supply && ground && current > 0)
    add(`${ref}.own`, { kind: 'load', current, full: 1 }, supply, ground)
  for (const s of signals) {
    const at = net(s.terminal)
    if (!at) continue
    const id = `${ref}.${s.id}`
    const e = s.electrical
    add(`${id}.reads`, { kind: 'resistor', resistance: listening }, at, ground ?? 'GND')
    const puts = state.device?.[`${instance!.id}.${s.terminal}`]
    const output = 'openDrain' in e && e.openDrain ? undefined : supply
    // An output of some tens of ohms, as most have.
    if (puts === 'low' || (puts === 'high' && output))
      add(`${id}.puts`, { kind: 'resistor', resistance: 50 }, puts === 'low' ? (ground ?? 'GND') : output, at)
    if (e.kind === 'led') {
      const led = library(e.led) as Led
      // Its other end: ground or supply; of digits that share their segments, the first digit.
      const digit = signals.find((x) => x.electrical.kind === 'switched')
      if (e.to === 'ground') add(id, curveOf(led), at, digit ? net(digit.terminal) : ground)
      else add(id, curveOf(led), supply, at)
    }
    if (e.kind === 'switched' && supply)
      add(id, { kind: 'resistor', resistance: loadOhms(instance!.part, e.current) }, supply, at)
    if (e.kind === 'contact')
      add(
        id,
        { kind: 'contact', closed: state.closed?.includes(`${instance!.id}.${s.terminal}`) === true },
        at,
        ground ?? 'GND',
      )
    if (e.kind === 'open-drain' && e.fitted && supply)
      add(`${id}.pull`, { kind: 'resistor', resistance: typ(e.fitted) }, supply, at)
    if (e.kind === 'logic-input' && e.pull && (e.pull === 'down' || supply))
      add(
        `${id}.pull`,
        { kind: 'resistor', resistance: e.pullResistance ? typ(e.pullResistance) : 100e3 },
        e.pull === 'up' ? supply : at,
        e.pull === 'up' ? at : (ground ?? 'GND'),
      )
    if (e.kind === 'analog' && e.dividerTo && supply)
      add(
        id,
        { kind: 'resistor', resistance: e.sourceResistance ? typ(e.sourceResistance) : 10e3 },
        supply,
        at,
      )
  }
}

/** The elements of a board in a state. `placed` is what lies where; given, so that it can be spoilt. */
const elementsOf = (
  a: Analysis,
  library: (id: string) => Part | undefined,
  placed: readonly Placed[],
  state: State,
): Element[] => {
  const elements: Element[] = []
  const joined = new Map<string, string>()
  const root = (net: string): string => (joined.has(net) ? root(joined.get(net)!) : net)
  for (const p of placed)
    if (p.bridged && p.legs.length === 2) {
      const [x, y] = p.legs.map((l) => root(l.net))
      if (x !== y) joined.set(y!, x!)
    }
  const rooted = placed
    .filter((p) => !p.bridged)
    .map((p): Placed => ({ ...p, legs: p.legs.map((l) => ({ ...l, net: root(l.net) })) }))
  const board: Board = {
    elements,
    add: (id, model, ...nets) => {
      // A terminal that is wired to nothing hangs by itself.
      const { terminals } = formOf(model)
      elements.push({
        id,
        role: model.kind,
        model,
        terminals: Object.fromEntries(terminals.map((t, k) => [t, nets[k] ?? `${id} ${t}`])),
      })
      terminals.forEach((t, k) => {
        if (nets[k] === undefined && `${id} ${t}` !== 'GND')
          elements.push({
            id: `${id} ${t} hangs`,
            role: 'air',
            model: { kind: 'resistor', resistance: listening },
            terminals: { 1: `${id} ${t}`, 2: 'GND' },
          })
      })
    },
  }
  for (const p of rooted) {
    if (p.part.kind === 'chip') chipOn(board, a, p, p.part, state)
    else if (p.part.kind === 'device') deviceOn(board, a, library, p, p.part, state)
    else supportOn(board, p, state, { ...a, library })
  }
  // Nets that only capacitors or open contacts reach.
  const nets = new Set(elements.flatMap((e) => Object.values(e.terminals)))
  nets.delete('GND')
  // No chip insulates its supply better than 100 MΩ: without that the picoamperes through a reversed diode would carry a
  // rail to any voltage. What takes 3 nA from it still shows.
  if (state.reversed && nets.has('VCC'))
    elements.push({
      id: 'chip at rest',
      role: 'air',
      model: { kind: 'resistor', resistance: 1e8 },
      terminals: { 1: 'VCC', 2: 'GND' },
    })
  ;[...nets].forEach((net, k) =>
    elements.push({
      id: `air ${k}`,
      role: 'air',
      model: { kind: 'resistor', resistance: listening },
      terminals: { 1: net, 2: 'GND' },
    }),
  )
  return elements
}

/** A load behind a transistor: it takes its current at the supply of its sheet, 12 V for a valve of 12 V. */
export const loadOhms = (
  { supply }: Pick<Device, 'supply'>,
  current: Parameters<typeof fullRange>[0],
): number => (supply ? typ(supply) : 3.3) / typ(current)

export const solveBoard = (
  a: Analysis,
  library: (id: string) => Part | undefined,
  placed: readonly Placed[],
  state: State,
): OperatingPoint & { elements: Element[]; has: (net: string) => boolean } => {
  const elements = elementsOf(a, library, placed, state)
  const nets = new Set(elements.flatMap((e) => Object.values(e.terminals)))
  return { ...operatingPoint(elements), elements, has: (net) => nets.has(net) }
}
