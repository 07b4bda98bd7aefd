// From needs and a chip to the pin problem that the solver speaks, and back.

import type { RadioAnswer } from '../design'
import { type ByteNeed, type OpenNeeds, type SignalNeed, type WiringChoice, wiringKey } from '../needs'
import type { Chip, ChipPin, Device, DeviceWiring } from '../parts'
import { fullRange } from '../quantity'
import {
  type CostContext,
  type CostItem,
  costContext,
  costsOf,
  legName,
  attributeOf,
  type RadioUse,
  stoppedByRadio,
  type Way,
  waysToServe,
  type OnOther,
} from '../legs'
import type { Candidate, PlanBudget, PlanChoice, PlanProblem } from '../solve'

export interface PinChoices {
  locks: Record<string, string>
  /** Stronger than a lock: signals that are soldered to their pin. */
  soldered?: Record<string, string>
  excluded: readonly string[]
  kept: Record<string, string>
  radio?: Record<string, RadioAnswer>
}

/** What the planner is asked. */
export interface PinQuestion {
  chip: Chip
  needs: OpenNeeds
  choices: PinChoices
  /** Pins that something else needs, with the reason in words. */
  taken: Record<string, string>
  /** Hertz of the chip’s clock, for what its timers can make of it; absent: timers are not judged. */
  clock?: number
}

/** A candidate that remembers what it stands for. */
export interface Offer extends Candidate {
  signal: SignalNeed
  chipPin: ChipPin
  way: Way
  items: CostItem[]
  /** The same header position on the other boards. */
  others: OnOther[]
}

export interface WiringOption {
  id: number
  cost: number
  choice: WiringChoice
  wiring: DeviceWiring
}

/** Why a leg can’t serve a signal. */
export interface Refusal {
  words: string
  /** The builder decided it: a lock, a soldered wire, a leg kept free. */
  yours?: true
}

export interface Demand {
  chip: Chip
  signals: SignalNeed[]
  problem: PlanProblem & { signals: { candidates: Offer[] }[] }
  /** Wirings to choose from, by option. */
  wirings: WiringOption[]
  /** Why a pin can't serve a signal: [signal index][pin index]; undefined where it can. */
  reasons: (Refusal | undefined)[][]
  /** Locks that no way serves: the builder's word stands, and is a mistake. */
  impossible: { signal: SignalNeed; pin: ChipPin; reason: string }[]
}

/** Links of a device that must be changed from how they leave the factory for this wiring. */
export const linksToSet = (part: Device, wiring: DeviceWiring): { link: string; to: string }[] =>
  Object.entries(wiring.links ?? {}).flatMap(([id, to]) => {
    const link = part.links?.find((l) => l.id === id)
    const position = link?.positions.find((p) => p.id === to)
    return link && position && link.factory !== to ? [{ link: link.name, to: position.effect }] : []
  })

const wiringOptions = (choices: WiringChoice[]): WiringOption[] => {
  let id = 0
  return choices.flatMap((choice) =>
    choice.wirings.map((wiring, i) => ({
      id: id++,
      cost: 3 * linksToSet(choice.part, wiring).length + (i > 0 ? 1 : 0),
      choice,
      wiring,
    })),
  )
}

/** Runs of consecutive pins of one port that can carry a byte, lowest bit first. */
const portRuns = (chip: Chip, bits: number): string[][] => {
  const known = new Set(chip.pins.map((p) => p.id))
  return chip.pins.flatMap((pin) => {
    const port = /^(.*?)(\d+)$/.exec(pin.id)
    if (!port) return []
    const run = Array.from({ length: bits }, (_, i) => `${port[1]}${Number(port[2]) + i}`)
    return run.every((id) => known.has(id)) ? [run] : []
  })
}
const scatteredCost = 8

/**
 * Bytes as choices: one option for each run of a port, one for lying scattered. For each signal, by its index, the
 * option under which it may be anywhere, and those under which it is on a certain pin.
 */
const byteChoices = (
  chip: Chip,
  bytes: ByteNeed[],
  signals: SignalNeed[],
  firstOption: number,
  optionOf: Map<string, number>,
) => {
  let id = firstOption
  const choices: PlanChoice[] = []
  const places = new Map<number, { anywhere: number; at: Map<string, number[]> }>()
  for (const byte of bytes) {
    const members = byte.signals.map((of) =>
      signals.findIndex((s) => s.id === of && (byte.when === undefined || s.when?.includes(byte.when))),
    )
    // A bit that is locked where it can't be is planned around: what is left makes no byte.
    if (members.includes(-1)) continue
    const runs = portRuns(chip, members.length)
    const options = [...runs.map((run) => ({ id: id++, cost: 0, run })), { id: id++, cost: scatteredCost }]
    choices.push({
      options: options.map((o) => ({ id: o.id, cost: o.cost })),
      when: optionOf.get(byte.when ?? ''),
    })
    members.forEach((signal, bit) => {
      const at = new Map<string, number[]>()
      for (const o of options) if ('run' in o) at.set(o.run[bit]!, [...(at.get(o.run[bit]!) ?? []), o.id])
      places.set(signal, { anywhere: options.at(-1)!.id, at })
    })
  }
  return { choices, places }
}

/** What the builder asks for through the leg, in microamperes. */
const microamps = (signal: SignalNeed): number =>
  Math.round(
    1e6 *
      signal.ends.reduce((sum, { instance, signal: { id, electrical } }) => {
        if (electrical.kind !== 'led') return sum
        return sum + (instance.need.settings?.[`${id}.current`] ?? electrical.current)
      }, 0),
  )

const budgetsOf = (chip: Chip): PlanBudget[] =>
  (chip.limits.groups ?? []).flatMap((group) => {
    const limit = group.recommended ?? group.absolute
    return limit
      ? [
          {
            pins: group.pins.map((id) => chip.pins.findIndex((p) => p.id === id)),
            limit: Math.round(1e6 * fullRange(limit).max),
          },
        ]
      : []
  })

interface Target {
  chip: Chip
  taken: Record<string, string>
  context: CostContext
}

/** The other boards that the plan must hold on. */
const targetsOf = ({ chip, needs, clock }: PinQuestion, radio: RadioUse): Target[] =>
  (chip.alsoOn ?? []).map((other) => ({
    chip: other,
    taken: Object.fromEntries(
      other.pins.filter((p) => attributeOf(p, 'reset')).map((p) => [p.id, 'it is the reset leg']),
    ),
    // Each board’s timers run from its own clock.
    context: costContext({
      chip: other,
      signals: needs.signals,
      kept: {},
      radio,
      clock: other.board?.clock?.frequency ?? clock,
    }),
  }))

interface Served {
  ways: Way[]
  /** Each combination of ways on the other boards; one empty one where there are none. */
  others: OnOther[][]
}

/** Ways on the pin, and on the pins of the other boards at the same header position. */
const serveOnAll = (
  chip: Chip,
  pin: ChipPin,
  signal: SignalNeed,
  taken: Record<string, string>,
  radio: RadioUse,
  targets: Target[],
): Served | { reason: string } => {
  const served = waysToServe(chip, pin, signal, taken, radio)
  if ('reason' in served) return served
  if (targets.length === 0) return { ways: served.ways, others: [[]] }
  // A pin may be on several positions: each is a place of its own on the other boards.
  const places = (pin.places ?? []).filter((p) => !signal.at || signal.at.some((seat) => seat.place === p))
  const found = places.map((place) => onOthers(place, signal, radio, targets))
  const others = found.flatMap((f) => ('reason' in f ? [] : f))
  const [first] = found
  if (others.length > 0) return { ways: served.ways, others }
  return first && 'reason' in first ? first : { reason: 'the other boards have nothing at this position' }
}

const onOthers = (
  place: string,
  signal: SignalNeed,
  radio: RadioUse,
  targets: Target[],
): OnOther[][] | { reason: string } => {
  let others: OnOther[][] = [[]]
  for (const { chip, taken, context } of targets) {
    const pin = chip.pins.find((p) => p.places?.includes(place))
    if (!pin) return { reason: `${chip.name} has nothing at this position` }
    const also = waysToServe(chip, pin, signal, taken, radio)
    if ('reason' in also) return { reason: `on ${chip.name}, ${legName(pin)}: ${also.reason}` }
    const ways = also.ways.map((way): OnOther => {
      const items = costsOf(signal, pin, way, context)
      return {
        chip,
        pin,
        place,
        way,
        items: items.map((i) => ({ ...i, reason: `on ${chip.name}: ${i.reason}` })),
      }
    })
    others = others.flatMap((before) => ways.map((way) => [...before, way]))
  }
  return others
}

/** Where the builder locked signals: who can't be there, and who may. */
const readLocks = (
  chip: Chip,
  signals: SignalNeed[],
  locks: Record<string, string>,
  soldered: Record<string, string>,
  serve: (pin: ChipPin, signal: SignalNeed) => Served | { reason: string },
) => {
  const pinById = new Map(chip.pins.map((p) => [p.id, p]))
  const impossible: Demand['impossible'] = []
  const owners = new Map<string, SignalNeed>()
  const seen = new Set<string>()
  // What is soldered was there first.
  const isSoldered = (s: SignalNeed) => Object.hasOwn(soldered, s.id)
  for (const signal of [...signals.filter(isSoldered), ...signals.filter((s) => !isSoldered(s))]) {
    const pin = pinById.get(locks[signal.id] ?? '')
    if (!pin || seen.has(signal.id)) continue
    seen.add(signal.id)
    const owner = owners.get(pin.id)
    if (owner) {
      impossible.push({
        signal,
        pin,
        reason: `${owner.name} is ${isSoldered(owner) ? 'soldered' : 'locked'} there already`,
      })
      continue
    }
    owners.set(pin.id, signal)
    // The same line under other wirings of its device: one that can be there is enough, and decides the wiring.
    const reasons = signals
      .filter((s) => s.id === signal.id)
      .map((s) => {
        const served = serve(pin, s)
        return 'reason' in served ? served.reason : undefined
      })
    if (reasons.every((r) => r !== undefined)) impossible.push({ signal, pin, reason: reasons[0]! })
  }
  const blocked = new Set(impossible.map((i) => i.signal.id))
  const misplaced = new Map(
    impossible.filter((i) => owners.get(i.pin.id) === i.signal).map((i) => [i.pin.id, i.signal]),
  )
  return { impossible, blocked, misplaced }
}

/** Units numbered through, of the first board and of the others. */
const unitsOf = (chips: Chip[]): { of: Map<string, number>[]; count: number } => {
  let count = 0
  const of = chips.map((c) => new Map(c.units.map((u) => [u.id, count++])))
  return { of, count }
}

/** What only one signal may use: a unit’s line on each board, and a pin of another board by whichever of its positions. */
const channelsOf = (way: Way, others: OnOther[], channel: (key: string) => number): number[] => {
  const line = (t: number, w: Way) => (w.unit === undefined ? [] : [channel(`${t} ${w.unit}.${w.line}`)])
  return others.length === 0
    ? line(0, way)
    : [way, ...others.map((o) => o.way)]
        .flatMap((w, t) => line(t, w))
        .concat(others.map((o, t) => channel(`${t + 1} pin ${o.pin.id}`)))
}

const noUnit: readonly number[] = [-1]
const noChannel: readonly number[] = []

/** What signals on one timer must have in common: its frequency; a timer that measures runs free, one that counts is alone. */
const rateOf = ({ kind, frequency }: SignalNeed, group: number): number | undefined =>
  kind === 'pwm' ? frequency : kind === 'capture' ? 0 : kind === 'quadrature' ? -1 - group : undefined

/** Numbers for keys, from 0 on in the order in which they are first asked for. */
class Numbers {
  private readonly known = new Map<string, number>()
  readonly of = (key: string): number => {
    const before = this.known.get(key)
    if (before !== undefined) return before
    this.known.set(key, this.known.size)
    return this.known.size - 1
  }
  get count(): number {
    return this.known.size
  }
}

type Serving = (pin: ChipPin) => Served | { reason: string }
/**
 * How each signal can be served. Those that ask the same of a leg are served by it alike; those of expansion boards have
 * places of their own, and on other boards each has its own costs.
 */
const servingOf = ({ chip, taken }: PinQuestion, radio: RadioUse, targets: Target[]) => {
  const servedAlike = new Map<string, Map<ChipPin, Served | { reason: string }>>()
  return (signal: SignalNeed): Serving => {
    const { id, kind, bus, pair, mayPauseRadio, at } = signal
    const anew = (pin: ChipPin) => serveOnAll(chip, pin, signal, taken, radio, targets)
    if (at || targets.length > 0) return anew
    const key = [kind, bus?.kind, bus?.line, pair?.line, mayPauseRadio, radio.answers[id]].join()
    const served = servedAlike.get(key) ?? new Map<ChipPin, Served | { reason: string }>()
    servedAlike.set(key, served)
    return (pin) => {
      const here = served.get(pin) ?? anew(pin)
      served.set(pin, here)
      return here
    }
  }
}

/** Why a signal can’t be on a leg that could serve it. */
const refusalsOf = (
  { chip, choices }: PinQuestion,
  misplaced: ReturnType<typeof readLocks>['misplaced'],
): ((pin: ChipPin, signal: SignalNeed) => Refusal | undefined) => {
  const known = new Set(chip.pins.map((p) => p.id))
  return (pin, signal) => {
    const lock = choices.locks[signal.id]
    const other = misplaced.get(pin.id)
    if (other) return { words: `${other.name} is wired there` }
    if (choices.excluded.includes(pin.id) && lock !== pin.id)
      return { words: 'you keep it free', yours: true }
    return lock !== undefined && known.has(lock) && lock !== pin.id
      ? { words: `${choices.soldered?.[signal.id] ? 'soldered to' : 'locked on'} ${lock}`, yours: true }
      : undefined
  }
}

/** What an offer is numbered and priced by. */
interface Offering {
  chip: Chip
  context: CostContext
  unitOf: (target: number, way: Way) => number
  channel: (key: string) => number
}
type Places = ReturnType<typeof byteChoices>['places']

/** Everything that a leg offers to a signal that it can serve: by each way, and for each place of the byte that it is a bit of. */
const offersAt = (
  signal: SignalNeed,
  at: number,
  served: Served,
  places: ReturnType<Places['get']>,
  { chip, context, unitOf, channel }: Offering,
): Offer[] => {
  const pin = chip.pins[at]!
  const options = places ? [...(places.at.get(pin.id) ?? []), places.anywhere] : [undefined]
  // A leg costs the same by all its ways, but for converters that the radio stops.
  const priced: CostItem[][] = []
  const offers: Offer[] = []
  for (const way of served.ways) {
    const own = (priced[Number(stoppedByRadio(chip, way))] ??= costsOf(signal, pin, way, context))
    for (const others of served.others) {
      const alone = others.length === 0
      const items = alone ? own : [...own, ...others.flatMap((o) => o.items)]
      let cost = 0
      for (const item of items) cost += item.points
      const plain = alone && way.unit === undefined
      const units = plain ? noUnit : [way, ...others.map((o) => o.way)].map((w, t) => unitOf(t, w))
      const channels = plain ? noChannel : channelsOf(way, others, channel)
      for (const option of options)
        offers.push({ pin: at, units, channels, cost, option, signal, chipPin: pin, way, items, others })
    }
  }
  return offers
}

export const makeDemand = (asked: PinQuestion): Demand => {
  const { chip, needs, clock } = asked
  const choices = { ...asked.choices, locks: { ...asked.choices.locks, ...asked.choices.soldered } }
  const question = { ...asked, choices }
  const radio: RadioUse = { on: needs.radio, answers: choices.radio ?? {} }
  const targets = targetsOf(question, radio)
  const serveFor = servingOf(question, radio, targets)
  const unitIndex = unitsOf([chip, ...targets.map((t) => t.chip)])
  const [channels, groups] = [new Numbers(), new Numbers()]
  const offering: Offering = {
    chip,
    context: costContext({ chip, signals: needs.signals, kept: choices.kept, radio, clock }),
    unitOf: (target, { unit }) => (unit === undefined ? -1 : unitIndex.of[target]!.get(unit)!),
    channel: channels.of,
  }
  const wirings = wiringOptions(needs.choices)
  const optionOf = new Map(wirings.map((o) => [wiringKey(o.choice.need, o.wiring), o.id]))
  const { impossible, blocked, misplaced } = readLocks(
    chip,
    needs.signals,
    choices.locks,
    choices.soldered ?? {},
    (pin, signal) => serveFor(signal)(pin),
  )
  const refused = refusalsOf(question, misplaced)
  const wanted = needs.signals.filter((s) => !blocked.has(s.id))
  const bytes = byteChoices(chip, needs.bytes, wanted, wirings.length, optionOf)
  const reasons: Demand['reasons'] = []
  const planned = wanted.map((signal, s) => {
    const candidates: Offer[] = []
    const serve = serveFor(signal)
    reasons.push(
      chip.pins.map((pin, p) => {
        const served = serve(pin)
        if ('reason' in served) return { words: served.reason }
        const reason = refused(pin, signal)
        if (reason === undefined)
          candidates.push(...offersAt(signal, p, served, bytes.places.get(s), offering))
        return reason
      }),
    )
    const together = signal.bus?.group ?? (signal.pair && `encoder ${signal.pair.group}`)
    const group = together === undefined ? undefined : groups.of(together)
    return {
      candidates,
      group,
      frequency: rateOf(signal, group ?? 0),
      when: signal.when?.map((key) => optionOf.get(key)!),
      load: microamps(signal) || undefined,
    }
  })
  return {
    chip,
    signals: wanted,
    wirings,
    problem: {
      pins: chip.pins.length,
      units: unitIndex.count,
      channels: channels.count,
      signals: planned,
      choices: [
        ...needs.choices.map((choice) => ({
          options: wirings.filter((o) => o.choice === choice).map(({ id, cost }) => ({ id, cost })),
        })),
        ...bytes.choices,
      ],
      budgets: budgetsOf(chip),
    },
    reasons,
    impossible,
  }
}
