// From the list of devices to single instances and to the signals they ask of the chip. Devices on a shared bus
// (I2C, SPI) meet in one signal per line; a UART device has a bus of its own.

import { netOf } from '../circuit'
import { busSpeedOf, type Design, type NeedDevice } from '../design'
import { type Feeding, ownVoltage, supplyOf, voltageFor } from '../supply'
import { fullRange } from '../quantity'
import { fromPart, type Worked } from '../findings'
import { dimensionOf, sum, total } from '../sums'
import {
  type Device,
  type DeviceSignal,
  type DeviceWiring,
  findPart,
  type Library,
  type SignalKind,
} from '../parts'
import { bridgeFor, type Hung, ownWiring } from './bridges'
import { busWords, netNames, sharedBuses, sharedName, signalName } from './nets'

export interface Instance {
  /** `d3.1` */
  id: string
  need: NeedDevice
  name: string
  part: Device
  wiring: DeviceWiring
  /** Which of several, from 1. */
  at: number
  /** Its place in a chain of several, from 0, and how many there are. */
  chain?: { at: number; of: number }
  /** It hangs on a bridge: nothing of it is joined to the chip. */
  hung?: Hung
}

/** One wire that the chip must serve, and what hangs on its other end. */
export interface SignalNeed {
  /** `d3.1.SDA`, or `i2c.SDA` for a line that several devices share. */
  id: string
  name: string
  /** Of its net at the chip’s leg: `DISPLAY_SDA`; no other net has it, whatever a builder calls his things. */
  net: string
  kind: SignalKind
  /** Signals of one bus need one unit. */
  bus?: { kind: 'i2c' | 'spi' | 'uart' | 'can'; group: string; line: string }
  /** One of the two lines of an encoder: both on one timer, which then does nothing else. */
  pair?: { group: string; line: string }
  frequency?: number
  quiet: boolean
  /** The reading can wait until the radio is paused. */
  mayPauseRadio: boolean
  /** Wanted only when one of these wirings is chosen (see `wiringKey`); absent: always. */
  when?: string[]
  ends: { instance: Instance; signal: DeviceSignal }[]
  /** Volts that a device on another supply puts on it, where that is more than an ordinary leg on the rail stands. */
  reaches?: number
  /** Header positions that expansion boards have it at: it must lie on all of them. */
  at?: Seat[]
}

/** A line of an expansion board: which position of which footprint, and what the expansion board calls it. */
export interface Seat {
  /** `trestle main.3` */
  place: string
  label: string
  instance: Instance
}

/** A device whose wirings do the same work, and whose wiring the plan may choose. */
export interface WiringChoice {
  need: NeedDevice
  wirings: DeviceWiring[]
  part: Device
}

export const wiringKey = (need: NeedDevice, wiring: DeviceWiring): string => `${need.id}=${wiring.id}`

/** Signals that make a byte: they like to lie on one port in order. */
export interface ByteNeed {
  /** `d2.1 parallel`: instance and wiring. */
  id: string
  name: string
  /** Signal ids, lowest bit first. */
  signals: string[]
  /** Asked for only when this wiring is chosen (see `wiringKey`); absent: always. */
  when?: string
}

/** What the pin planner has to meet: signals, of which some depend on the wirings it chooses. */
export interface OpenNeeds {
  signals: SignalNeed[]
  choices: WiringChoice[]
  bytes: ByteNeed[]
  /** Whether the program uses the radio. */
  radio: boolean
}

export interface NeedsResult {
  /** Before the plan chooses wirings; the rest of this result is with each device’s own or first wiring. */
  open: OpenNeeds
  instances: Instance[]
  signals: SignalNeed[]
  /** By what name each device’s nets go. */
  netNames: ReadonlyMap<string, string>
  /** How many signals of each kind. */
  asked: { kind: string; count: number; names: string[] }[]
  program: Worked
  data: Worked
  /** Devices of the design that are not in the library. */
  unknown: NeedDevice[]
}

export const kindWords: Record<SignalKind, string> = {
  'digital-out': 'output',
  'digital-in': 'input',
  'analog-in': 'analog input',
  'analog-out': 'analog output',
  pwm: 'PWM output',
  interrupt: 'interrupt input',
  touch: 'touch input',
  wake: 'wake-up input',
  bus: 'bus line',
  capture: 'pulse input',
  quadrature: 'encoder input',
  'open-drain': 'two-way line',
  reference: 'converter reference',
}

/** “an I2C line”, “a UART line”: by how it is said. */
export const withArticle = (word: string): string => `${/^(?:[aeio]|SPI)/i.test(word) ? 'an' : 'a'} ${word}`

export const askedWord = (signal: SignalNeed): string =>
  signal.bus ? `${busWords[signal.bus.kind]} line` : kindWords[signal.kind]

/** A maker's or revision's version of a device: other supply, other address, terminals that are missing. */
const asVariant = (part: Device, id: string | undefined): Device => {
  const variant = part.variants?.find((v) => v.id === id)
  if (!variant) return part
  const missing = new Map(variant.missing?.map((m) => [m.terminal, m.restsAt]))
  // A loose wire to a missing terminal is not wired; an expansion board still has its position, and ties it.
  const tied = (s: DeviceSignal): DeviceSignal[] => {
    const restsAt = missing.get(s.terminal)
    if (restsAt === undefined) return [s]
    if (s.at === undefined || restsAt === 'floating') return []
    return [
      { ...s, kind: 'digital-in', bus: undefined, quiet: false, electrical: { kind: 'tied', to: restsAt } },
    ]
  }
  return {
    ...part,
    name: `${part.name}, ${variant.name}`,
    supply: variant.supply ?? part.supply,
    terminals: part.terminals.filter((t) => !missing.has(t.id) || part.expansion),
    wirings: part.wirings.map((w) => ({
      ...w,
      address: variant.address ?? w.address,
      signals: w.signals.flatMap(tied),
    })),
  }
}

const chosenWiring = (need: NeedDevice, part: Device): DeviceWiring | undefined =>
  part.wirings.find((w) => w.id === need.wiring)

/** Several of a kind take the addresses that their links offer, one after the other from the chosen one. */
const withAddress = (wiring: DeviceWiring, need: NeedDevice, index: number): DeviceWiring => {
  if (wiring.address === undefined || !wiring.addresses) return wiring
  const all = [
    { address: wiring.address, links: wiring.links },
    ...wiring.addresses.filter((a) => a.address !== wiring.address),
  ]
  const first = Math.max(
    0,
    all.findIndex((a) => a.address === need.address),
  )
  const own = all[(first + index) % all.length]!
  return { ...wiring, address: own.address, links: { ...wiring.links, ...own.links } }
}

/** Switched by what the builder chose instead of what its file proposes; a p-channel one lies in the plus. */
const withTransistors = (
  wiring: DeviceWiring,
  { transistors = {} }: NeedDevice,
  library: Library,
): DeviceWiring =>
  wiring.signals.some((s) => s.electrical.kind === 'switched')
    ? {
        ...wiring,
        signals: wiring.signals.map((s) => {
          if (s.electrical.kind !== 'switched') return s
          const transistor = transistors[s.id] ?? s.electrical.transistor
          const plus = findPart(library, 'transistor', transistor)?.sort === 'p-mosfet'
          return { ...s, electrical: { ...s.electrical, transistor, ...(plus && { plus }) } }
        }),
      }
    : wiring

/** What hangs on a bridge asks for nothing by itself. */
const onBridge = (design: Pick<Design, 'needs'>, need: NeedDevice, part: Device, library: Library) => {
  const bridge = bridgeFor(design, need, part, ownWiring(part, need), library)
  return bridge && 'need' in bridge ? bridge : undefined
}

/** Each on the next output that is free, in the order of the project. */
const withOutputs = (
  instances: readonly Instance[],
  design: Pick<Design, 'needs'>,
  library: Library,
): Instance[] => {
  const taken = new Map<string, number>()
  return instances.map((i) => {
    const bridge = onBridge(design, i.need, i.part, library)
    if (!bridge) return i
    const { outputs } = bridge.drives
    const n = taken.get(bridge.need.id) ?? 0
    taken.set(bridge.need.id, n + 1)
    const one = Math.floor(n / outputs.length)
    const output = one < bridge.need.count ? outputs[n % outputs.length] : undefined
    return {
      ...i,
      wiring: { ...i.wiring, signals: [] },
      hung: {
        bridge: bridge.need.id,
        instance: `${bridge.need.id}.${Math.min(one + 1, bridge.need.count)}`,
        ...(output && { output }),
      },
    }
  })
}

const instancesOf = (
  library: Library,
  need: NeedDevice,
  part: Device,
  wiring = ownWiring(part, need),
): Instance[] => {
  return Array.from({ length: need.count }, (_, i) => ({
    id: `${need.id}.${i + 1}`,
    need,
    name: need.count > 1 ? `${need.name} ${i + 1}` : need.name,
    at: i + 1,
    part,
    wiring: withAddress(withTransistors(wiring, need, library), need, i),
    ...(wiring.chain && need.count > 1 ? { chain: { at: i, of: need.count } } : {}),
  }))
}

/** Whether the chip’s wire ends at this one of a chain: what is sent enters the first, what comes back leaves the last. */
const isReached = ({ chain, wiring }: Instance, signal: DeviceSignal): boolean =>
  !chain ||
  (signal.id === wiring.chain!.in
    ? chain.at === 0
    : signal.terminal !== wiring.chain!.out || chain.at === chain.of - 1)

const seatOf = (instance: Instance, { at }: DeviceSignal): Seat | undefined => {
  const { expansion } = instance.part
  const position = at === undefined ? undefined : expansion?.positions.find((p) => p.at === at)
  return expansion && position
    ? { place: `${expansion.fits} ${position.at}`, label: position.label, instance }
    : undefined
}

const slotOf = (instance: Instance, key: string | undefined) =>
  key === undefined ? instance.id : `${instance.id} ${key}`

const named = ({ need, wiring, at }: Instance, signal: DeviceSignal, name: string): string =>
  signalName(wiring, signal.id, { need: name, count: need.count, at })

/** `open`: needs whose wiring is not settled; their signals carry the wirings they belong to. */
const signalsOf = (
  instances: Instance[],
  open: ReadonlySet<NeedDevice>,
  design: Asking,
  names: ReadonlyMap<string, string>,
): SignalNeed[] => {
  const signals = new Map<string, SignalNeed>()
  for (const instance of instances)
    for (const signal of instance.wiring.signals.filter((s) => isReached(instance, s))) {
      const key = open.has(instance.need) ? wiringKey(instance.need, instance.wiring) : undefined
      const end = { instance, signal }
      const seat = seatOf(instance, signal)
      const shared = signal.bus !== undefined && sharedBuses.has(signal.bus)
      const bus = signal.bus && `${signal.bus}${instance.need.bus ?? ''}`
      // Two wirings of a device may each have a line of its own on different units.
      const group =
        bus && (shared ? bus : `${bus}.${instance.id}${key === undefined ? '' : ` ${instance.wiring.id}`}`)
      // A chain has one of each line, by the name of its first.
      const owner = instance.chain ? `${instance.need.id}.1` : instance.id
      const id = shared ? `${bus}.${signal.line}` : `${owner}.${signal.id}`
      // A line of its own device is another signal under another wiring, though it goes by the same name.
      const slot = shared || !key ? id : `${id} ${key}`
      const known = signals.get(slot)
      if (known) {
        known.ends.push(end)
        if (seat) known.at = [...(known.at ?? []), seat]
        if (!key) known.when = undefined
        else if (known.when && !known.when.includes(key)) known.when.push(key)
        continue
      }
      signals.set(slot, {
        id,
        name: shared
          ? sharedName(signal.bus!, instance.need.bus, signal.line!)
          : named(instance, signal, instance.need.name),
        net: netOf(
          shared
            ? sharedName(signal.bus!, instance.need.bus, signal.line!)
            : named(instance, signal, names.get(instance.need.id) ?? instance.need.name),
        ),
        kind: signal.kind,
        bus: signal.bus && group ? { kind: signal.bus, group, line: signal.line! } : undefined,
        ...(signal.kind === 'quadrature' && signal.line
          ? { pair: { group: slotOf(instance, key), line: signal.line } }
          : {}),
        frequency:
          signal.bus === 'i2c'
            ? busSpeedOf(design, instance.need.bus)
            : (instance.need.settings?.[`${signal.id}.frequency`] ?? signal.frequency),
        quiet: signal.quiet ?? false,
        mayPauseRadio: signal.mayPauseRadio ?? false,
        when: key === undefined ? undefined : [key],
        at: seat && [seat],
        ends: [end],
      })
    }
  return [...signals.values()]
}

/** Bytes of one memory that the devices' code takes, each kind of device once. */
const memory = (instances: Instance[], which: 'program' | 'data', symbol: string): Worked => {
  const parts = [...new Map(instances.map((i) => [i.part.id, i.part])).values()]
  return sum(
    {
      label:
        which === 'program'
          ? 'Program memory the devices’ code takes'
          : 'Data memory the devices’ code takes',
      symbol,
      unit: '',
      note: 'In bytes; each kind of device once, since its code serves them all.',
    },
    Object.fromEntries(
      parts.map((p, i) => [
        `m${i + 1}`,
        fromPart(`m${i + 1}`, p.name, p, `memory.${which}`, { typ: p.memory[which], kind: 'typical' }, ''),
      ]),
    ),
    (i) => total(Object.values(i), dimensionOf('')),
  )
}

/** Above the rail by more than this an ordinary leg is at risk; each chip’s own figure is checked with the levels. */
const aboveRail = 0.3

/** Devices on another supply drive lines to it, and pull bus lines up to it. A shift in the line keeps that away. */
const withReach = (signals: SignalNeed[], design: Asking, library: Library): SignalNeed[] => {
  const supplies = supplyOf(design, library)
  const rail = ownVoltage(supplies)?.value.min
  if (rail === undefined) return signals
  return signals.map((signal) => {
    if (design.pins.shifts?.[signal.id]) return signal
    const volts = signal.ends.flatMap(({ instance, signal: { electrical } }) => {
      const supply = instance.need.fedBy && voltageFor(supplies, instance.need)?.value.max
      if (!supply) return []
      if (electrical.kind === 'logic-output' && !electrical.openDrain)
        return [electrical.high ? Math.min(fullRange(electrical.high).max, supply) : supply]
      return electrical.kind === 'open-drain' && electrical.fitted ? [supply] : []
    })
    const most = Math.max(0, ...volts)
    return most > rail + aboveRail ? { ...signal, reaches: most } : signal
  })
}

const openNeeds = (
  design: Asking,
  library: Library,
  settled: SignalNeed[],
  names: ReadonlyMap<string, string>,
): OpenNeeds => {
  const radio = design.needs.radio ?? false
  const parts = design.needs.devices.flatMap((need) => {
    const part = findPart(library, 'device', need.part)
    return part ? [{ need, part: asVariant(part, need.variant) }] : []
  })
  const choices = parts
    .filter(
      ({ need, part }) =>
        part.planChooses &&
        part.wirings.length > 1 &&
        !chosenWiring(need, part) &&
        !onBridge(design, need, part, library),
    )
    .map(({ need, part }) => ({ need, part, wirings: part.wirings }))
  const open = new Set(choices.map((c) => c.need))
  const instances = withOutputs(
    parts.flatMap(({ need, part }) =>
      open.has(need)
        ? part.wirings.flatMap((w) => instancesOf(library, need, part, w))
        : instancesOf(library, need, part),
    ),
    design,
    library,
  )
  const bytes = instances.flatMap(({ id, name, need, wiring }): ByteNeed[] =>
    wiring.byte
      ? [
          {
            id: `${id} ${wiring.id}`,
            name,
            signals: wiring.byte.map((signal) => `${id}.${signal}`),
            when: open.has(need) ? wiringKey(need, wiring) : undefined,
          },
        ]
      : [],
  )
  const signals = choices.length > 0 ? signalsOf(instances, open, design, names) : settled
  return { signals: withReach(signals, design, library), choices, bytes, radio }
}

/** The design with the wirings that a plan chose written into it. */
export const withWirings = <D extends Pick<Design, 'needs'>>(
  design: D,
  wirings: Record<string, string>,
): D => ({
  ...design,
  needs: {
    ...design.needs,
    devices: design.needs.devices.map((d) => (wirings[d.id] ? { ...d, wiring: wirings[d.id] } : d)),
  },
})

/** What of a design says what it needs. */
type Asking = Feeding & Pick<Design, 'needs' | 'pins'>

export const resolveNeeds = (design: Asking, library: Library): NeedsResult => {
  const unknown: NeedDevice[] = []
  const all = design.needs.devices.flatMap((need) => {
    const part = findPart(library, 'device', need.part)
    if (part) return instancesOf(library, need, asVariant(part, need.variant))
    unknown.push(need)
    return []
  })
  const instances = withOutputs(all, design, library)
  const names = netNames(design, library)
  const signals = signalsOf(instances, new Set(), design, names)
  const asked = new Map<string, string[]>()
  for (const s of signals) asked.set(askedWord(s), [...(asked.get(askedWord(s)) ?? []), s.name])
  return {
    open: openNeeds(design, library, signals, names),
    instances,
    signals,
    netNames: names,
    asked: [...asked].map(([kind, names]) => ({ kind, count: names.length, names })),
    program: memory(instances, 'program', 'M_program'),
    data: memory(instances, 'data', 'M_data'),
    unknown,
  }
}
