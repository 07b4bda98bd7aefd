// Everything that is on the board or hangs on it, with its reference and the net of each leg.

import { type BoardPart, legNet } from '../blocks'
import { netOf, type Placed, type SupportPart } from '../circuit'
import { railFor, type Supply } from '../supply'
import type { Design } from '../design'
import { type Instance, type NeedsResult, outputNet } from '../needs'
import type { Chip, ChipPin, Part } from '../parts'
import { farNet, isFar } from '../levels'
import type { PinsResult } from '../pins'

const letters: Partial<Record<Part['kind'], string>> = {
  chip: 'U',
  regulator: 'U',
  resistors: 'R',
  capacitors: 'C',
  diode: 'D',
  led: 'D',
  transistor: 'Q',
  crystal: 'Y',
  resonator: 'Y',
  connector: 'J',
  switch: 'S',
  buffer: 'U',
  device: 'M',
}

/** A chip is wired by all its legs; of a board's positions for one pin, which it joins itself, the first is enough. */
const legNames = (pin: ChipPin): string[] => {
  const label = pin.labels?.[0]
  if (label === undefined) return pin.legs.map((leg) => `${leg} ${pin.id}`)
  return [label === pin.id ? label : `${label} ${pin.id}`]
}

/** Net of each of the chip's legs; legs that hang free are left out. */
const chipLegs = (chip: Chip, pins: PinsResult, nets: Set<string>): Placed['legs'] =>
  chip.pins.flatMap((pin) => {
    const wire = pins.plan?.wires.find((w) => w.pin.id === pin.id)
    const net = legNet(chip, pins, pin.id)
    const joined = wire || net === 'VIN' || pin.type === 'supply' || pin.type === 'ground' || nets.has(net)
    return joined ? legNames(pin).map((name) => ({ name, net })) : []
  })

/** On an expansion board what it prints beside the header’s position comes first. */
const terminalName = ({ part }: Instance, at: string | undefined, id: string): string => {
  const label = part.expansion?.positions.find((p) => p.at === at)?.label
  return label ? `${label} ${id}` : id
}

/** The net from one member of a chain to the next, where the terminal is at one of its two ends. */
const chainNet = (
  { chain, wiring, need }: Instance,
  terminal: string,
  { netNames }: NeedsResult,
): string | undefined => {
  if (!chain) return undefined
  const net = (link: number) => `${netOf(netNames.get(need.id) ?? need.name)}_LINK_${link}`
  const into = wiring.signals.find((s) => s.id === wiring.chain!.in)
  if (terminal === into?.terminal && chain.at > 0) return net(chain.at)
  if (terminal === wiring.chain!.out && chain.at < chain.of - 1) return net(chain.at + 1)
  return undefined
}

/** What there is to be placed, and what its legs are joined by. */
export interface Placing {
  design: Design
  chip: Chip
  pins: PinsResult
  needs: NeedsResult
  support: SupportPart[]
  supplies: Supply
}

/** The plus of a load that is switched there hangs on its transistor. */
const supplyNet = (instance: Instance, role: string, { supplies, needs }: Placing): string | undefined => {
  if (role !== 'supply') return role === 'ground' ? 'GND' : undefined
  const above = instance.wiring.signals.find((s) => s.electrical.kind === 'switched' && s.electrical.plus)
  const need = above && signalFor(needs, instance, above)
  return need ? `${need.net}_HIGH` : railFor(supplies, instance.need).net
}

const signalFor = (
  { signals }: NeedsResult,
  instance: Instance,
  { id }: Instance['wiring']['signals'][number],
) => signals.find((s) => s.ends.some((e) => e.instance.id === instance.id && e.signal.id === id))

/** The net at a signal’s terminal, and what is printed there. */
const signalLeg = (
  instance: Instance,
  signal: Instance['wiring']['signals'][number],
  { design, chip, pins, needs }: Placing,
): Placed['legs'] => {
  const need = signalFor(needs, instance, signal)
  if (!need) return []
  const leg = pins.assignment[need.id]
  if (need.kind === 'reference' && leg) return [{ name: signal.terminal, net: legNet(chip, pins, leg) }]
  if (design.pins.shifts?.[need.id] && isFar({ signal: need }, { instance }))
    return [{ name: signal.terminal, net: farNet(need.net) }]
  const { electrical: e } = signal
  if (e.kind === 'switched' && e.plus)
    return [{ name: terminalName(instance, signal.at, signal.terminal), net: 'GND' }]
  const tail =
    e.kind === 'contact' && e.behindDiode
      ? '_BUTTON'
      : ({ led: '_LED', switched: '_LOW' }[e.kind as string] ?? '')
  return [{ name: terminalName(instance, signal.at, signal.terminal), net: `${need.net}${tail}` }]
}

/** What hangs on a bridge lies between the two terminals of its output: plus at the first. */
const hungLegs = ({ part, hung }: Instance, of: Placing): Placed['legs'] => {
  const bridge = of.needs.instances.find((i) => i.id === hung!.instance)
  const { output } = hung!
  if (!bridge || !output) return []
  return part.terminals.map(({ id, role }) => ({
    name: id,
    net: bridgeNet(bridge, role === 'supply' ? output.one : output.other, of),
  }))
}
const bridgeNet = ({ need, at }: Instance, terminal: string, { needs }: Placing): string =>
  outputNet(needs.netNames.get(need.id) ?? need.name, terminal, { count: need.count, at })

const deviceLegs = (instance: Instance, of: Placing): Placed['legs'] => {
  if (instance.hung) return hungLegs(instance, of)
  const used = new Set(
    of.needs.instances.flatMap(({ hung }) =>
      hung?.instance === instance.id && hung.output ? [hung.output.one, hung.output.other] : [],
    ),
  )
  return instance.part.terminals.flatMap(({ id, role }) => {
    if (used.has(id)) return [{ name: id, net: bridgeNet(instance, id, of) }]
    const link = chainNet(instance, id, of.needs)
    if (link) return [{ name: id, net: link }]
    const signal = instance.wiring.signals.find((s) => s.terminal === id)
    if (signal) return signalLeg(instance, signal, of)
    const net = supplyNet(instance, role, of)
    return net === undefined ? [] : [{ name: id, net }]
  })
}

export const placeParts = (of: Placing): BoardPart[] => {
  const { chip, pins, needs, support } = of
  const counts = new Map<string, number>()
  const ref = (part: Part) => {
    const letter = letters[part.kind] ?? 'X'
    counts.set(letter, (counts.get(letter) ?? 0) + 1)
    return `${letter}${counts.get(letter)}`
  }
  const supportNets = new Set(support.filter((s) => s.present).flatMap((s) => s.legs.map((l) => l.net)))
  const onBoard = support.filter((s) => s.present || s.series)
  return [
    { kind: 'chip', ref: ref(chip), name: chip.name, part: chip, legs: chipLegs(chip, pins, supportNets) },
    ...onBoard.map((s): BoardPart => ({
      kind: 'support',
      ref: s.present ? ref(s.part) : `(${s.name})`,
      name: s.name,
      part: s.part,
      legs: s.legs,
      bridged: !s.present,
      support: s,
    })),
    ...needs.instances.map((i): BoardPart => ({
      kind: 'device',
      ref: ref(i.part),
      name: i.name,
      part: i.part,
      legs: deviceLegs(i, of),
      instance: i,
    })),
  ]
}
