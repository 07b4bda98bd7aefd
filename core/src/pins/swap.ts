// From one carrier to another: what keeps its place, what is dropped, and a regulator where the new one needs it.

import { settledBy } from '../carrier'
import { type Design, type Edit, sourceOf } from '../design'
import type { SignalNeed } from '../needs'
import { type Board, type Chip, findPart, type Library, partsOfKind, type Regulator } from '../parts'
import { fullRange } from '../quantity'
import { legName, type Plan, attributeOf } from '../legs'

export interface Swap {
  edits: Edit[]
  /** Locks, soldered wires and legs kept free that have no place on the new carrier, in words. */
  dropped: string[]
  /** What is fed otherwise from then on, in words. */
  feed?: string
}

/** All that a change of carrier does beside choosing it: “Choose QM32-32, fed through BL33; dropped: the lock of …”. */
export const swapWords = (to: Chip, { dropped, feed }: Swap): string => {
  const gone = dropped.length > 3 ? [...dropped.slice(0, 3), `${dropped.length - 3} more`] : dropped
  return `Choose ${to.name}${feed ? `, ${feed}` : ''}${gone.length > 0 ? `; dropped: ${gone.join(', ')}` : ''}`
}

/** The design and what of it was planned. */
interface Planned {
  design: Design
  chip: { chip?: Chip }
  pins: { assignment: Record<string, string>; plan?: Pick<Plan, 'wires'> }
  needs: { signals: Pick<SignalNeed, 'id' | 'name' | 'at'>[] }
}

const footprintOf = (c: Chip) => c.board?.headers[0]?.footprint

/**
 * Pins of another carrier at the place of this one's: at the same header positions, else of the same name. A pin may be
 * at several positions: `used` names those at which it is wired, which come first.
 */
export const pinsAcross = (from: Chip, to: Chip): ((pin: string, used?: readonly string[]) => string[]) => {
  const footprint = footprintOf(from)
  if (footprint !== undefined && footprint === footprintOf(to)) {
    const at = new Map(to.pins.flatMap((p) => (p.places ?? []).map((place) => [place, p.id] as const)))
    return (pin, used = []) => {
      const places = from.pins.find((p) => p.id === pin)?.places ?? []
      const first = used.filter((place) => places.includes(place))
      return [...new Set([...first, ...places].flatMap((place) => at.get(place) ?? []))]
    }
  }
  const known = new Set(to.pins.map((p) => p.id))
  return (pin) => (known.has(pin) ? [pin] : [])
}

/** Header positions at which a signal is known to be wired: those of its expansion board, or of the other boards’ plan. */
const positionsOf = (signal: string, { needs, pins }: Pick<Planned, 'needs' | 'pins'>): string[] => [
  ...(needs.signals.find((s) => s.id === signal)?.at ?? []).map((seat) => seat.place),
  ...(pins.plan?.wires.find((w) => w.signal.id === signal)?.others ?? []).map((o) => o.place),
]

/** The regulator that the new carrier runs on: the one there is where it suits, else the board’s, else the cheapest. */
const regulatorFor = (
  design: Design,
  library: Library,
  to: Chip,
  board: Board | undefined,
): Regulator | 'none' | undefined => {
  const source = sourceOf(design, library)
  const range = fullRange(to.supply.recommended)
  const suits = (volts: { min: number; max: number }) => volts.min >= range.min && volts.max <= range.max
  const holds = (r: Regulator) =>
    suits(fullRange(r.output)) &&
    (!source || fullRange(source.voltage).max <= fullRange(r.inputRecommended).max)
  const own = findPart(library, 'regulator', settledBy(design, library).regulator)
  if (own && holds(own)) return own
  if (!own && source && suits(fullRange(source.voltage))) return 'none'
  const copied = findPart(library, 'regulator', board?.regulator)
  if (copied && holds(copied)) return copied
  return partsOfKind(library, 'regulator')
    .filter(holds)
    .sort((a, b) => a.price - b.price || a.id.localeCompare(b.id))[0]
}

/** The edits that choose another carrier and keep what can be kept. */
export const swapTo = ({ design, chip, pins, needs }: Planned, library: Library, to: Chip): Swap => {
  const from = chip.chip
  const all = from ? pinsAcross(from, to) : () => []
  const across = (pin: string, used?: readonly string[]): string | undefined => all(pin, used)[0]
  const nameOf = (signal: string) => needs.signals.find((s) => s.id === signal)?.name ?? signal
  const dropped: string[] = []
  const carried = (of: Record<string, string>, what?: (signal: string, pin: string) => string) =>
    Object.fromEntries(
      Object.entries(of).flatMap(([signal, pin]) => {
        const there = across(pin, positionsOf(signal, { needs, pins }))
        if (there === undefined && what) dropped.push(what(signal, pin))
        return there === undefined ? [] : [[signal, there]]
      }),
    )
  const legOf = (pin: string) => {
    const found = from?.pins.find((p) => p.id === pin)
    return found ? legName(found) : pin
  }
  const locks = carried(design.pins.locks, (s, p) => `the lock of ${nameOf(s)} on ${legOf(p)}`)
  const soldered = carried(design.pins.soldered ?? {}, (s, p) => `${nameOf(s)} soldered to ${legOf(p)}`)
  const excluded = design.pins.excluded.flatMap((pin) => {
    const there = across(pin)
    if (there === undefined) dropped.push(`${legOf(pin)} kept free`)
    return there ?? []
  })
  const resetAsPort =
    design.pins.resetAsPort && to.pins.some((p) => attributeOf(p, 'reset')?.asPort !== undefined)
  if (design.pins.resetAsPort && !resetAsPort) dropped.push('the reset leg as a port')
  const choose: Edit = {
    kind: 'chooseChip',
    part: to.board?.id ?? to.id,
    name: to.name,
    kept: carried(pins.assignment),
    locks,
    soldered,
    excluded,
    resetAsPort,
    also: (design.chip.also ?? []).filter(
      (id) =>
        id !== to.id && footprintOf(to) !== undefined && footprintOf(to) === (from && footprintOf(from)),
    ),
  }
  if (to.board) return { edits: [choose], dropped }
  const regulator = regulatorFor(design, library, to, from?.board)
  const current = from?.board ? undefined : design.power.regulator
  const wanted = regulator === 'none' ? undefined : regulator
  if (regulator === undefined)
    return {
      edits: [choose],
      dropped,
      ...(design.power.source ? { feed: 'with no regulator yet that suits it' } : {}),
    }
  if (wanted?.id === current) return { edits: [choose], dropped }
  return {
    edits: [choose, { kind: 'chooseRegulator', part: wanted?.id ?? null, name: wanted?.name ?? '' }],
    dropped,
    feed: wanted ? `fed through ${wanted.name}` : 'fed by the source itself',
  }
}
