// What holds a line before the program runs: the devices, the parts that we fit ourselves, the board, and the leg's own
// pull; and the level that they come to together.

import type { SupportPart } from '../circuit'
import type { Chip, Library, PinAttribute, Rated } from '../parts'
import { findPart } from '../parts'
import { exactly, formatQuantity, fullRange, type Range, within } from '../quantity'
import type { Wire } from './plan'

export type End = Wire['signal']['ends'][number]

export interface Hold {
  to: 'low' | 'high'
  resistance: Range
  /** An LED holds no nearer to its side than its forward voltage. */
  offset: Range
  text: string
  /** The device that it comes from; absent: a part of ours, or the board. */
  end?: End
  support?: SupportPart
  from?: { rated: Rated; field: string }
}

/** A device that drives the line, to a level that nobody knows before its own program or its sensor says so. */
export interface Driver {
  end: End
  text: string
}

export interface Holds {
  holds: Hold[]
  drivers: Driver[]
}

const none = exactly(0)

const ofEnd = (end: End, wire: Wire, library: Library): Hold | Driver | undefined => {
  const { electrical } = end.signal
  const { name, part } = end.instance
  const place = `${part.sheet}, ${end.signal.source ?? 'signals'}`
  switch (electrical.kind) {
    case 'tied':
      return {
        to: electrical.to === 'ground' ? 'low' : 'high',
        resistance: none,
        offset: none,
        text: `${name} has no ${end.signal.terminal} here: its place is tied to ${electrical.to} (${part.sheet})`,
        end,
      }
    case 'logic-input':
      return electrical.pull && electrical.pullResistance
        ? {
            to: electrical.pull === 'down' ? 'low' : 'high',
            resistance: fullRange(electrical.pullResistance),
            offset: none,
            text: `${name} pulls ${end.signal.terminal} ${electrical.pull} (${place})`,
            end,
            from: { rated: electrical.pullResistance, field: `${end.signal.id}.pullResistance` },
          }
        : undefined
    case 'open-drain':
      return electrical.fitted
        ? {
            to: 'high',
            resistance: fullRange(electrical.fitted),
            offset: none,
            text: `${name} has a pull-up of ${formatQuantity(fullRange(electrical.fitted).typ, 'Ω', 3)} on its own board (${place})`,
            end,
            from: { rated: electrical.fitted, field: `${end.signal.id}.fitted` },
          }
        : undefined
    case 'led': {
      const led = findPart(library, 'led', electrical.led)
      const forward = led && fullRange(led.forward[0]!.voltage)
      return {
        to: electrical.to === 'ground' ? 'low' : 'high',
        resistance: none,
        offset: forward ?? exactly(1.6),
        text: `${name} conducts to ${electrical.to} above its forward voltage of about ${formatQuantity(forward?.typ ?? 1.6, 'V', 2)} (${led?.sheet ?? part.sheet})`,
        end,
      }
    }
    case 'logic-output':
      if (electrical.openDrain) return undefined
      // A serial line rests high between its bytes, by the convention of all asynchronous serial links.
      return wire.signal.bus?.kind === 'uart'
        ? {
            to: 'high',
            resistance: none,
            offset: none,
            text: `${name} holds its serial line high while it says nothing (${place})`,
            end,
          }
        : {
            end,
            text: `${name} drives ${end.signal.terminal} high or low, as it happens to stand (${place})`,
          }
    default:
      return undefined
  }
}

/** Parts of ours that pull the line itself, or the gate behind a resistor. */
const ofSupport = (support: SupportPart, wire: Wire): Hold | undefined => {
  const tolerance = support.part.kind === 'resistors' ? support.part.tolerance : 0
  if (!support.present || !support.value || support.signal !== wire.signal.id) return undefined
  const to = { pull: 'high', select: 'high', 'gate-pull-down': 'low' }[support.key.split(':')[0]!]
  return to === undefined
    ? undefined
    : {
        to: to as 'low' | 'high',
        resistance: within(support.value.value, tolerance),
        offset: none,
        text: `The ${support.name} of ${support.value.marking} holds it ${to} until the program runs`,
        support,
      }
}

const ofBoard = (chip: Chip, wire: Wire): Hold[] =>
  (chip.board?.loads ?? [])
    .filter((l) => l.pin === wire.pin.id && l.pull && l.resistance)
    .map((l) => ({
      to: l.pull === 'down' ? 'low' : 'high',
      resistance: fullRange(l.resistance!),
      offset: none,
      text: `${chip.board!.name}: ${l.what} pulls it ${l.pull} (${l.source ?? chip.board!.sheet})`,
    }))

/** Everything that holds or drives the line of a wire before the program runs, but for the leg itself. */
export const holdsOf = (wire: Wire, chip: Chip, support: SupportPart[], library: Library): Holds => {
  const ends = wire.signal.ends.flatMap((e) => ofEnd(e, wire, library) ?? [])
  return {
    holds: [
      ...ends.filter((h): h is Hold => 'to' in h),
      ...support.flatMap((s) => ofSupport(s, wire) ?? []),
      ...ofBoard(chip, wire),
    ],
    drivers: ends.filter((h): h is Driver => !('to' in h)),
  }
}

type Strap = PinAttribute & { kind: 'strap' }

/** The leg’s own pull while it samples. */
export const ownPull = (chip: Chip, strap: Strap): { to: 'low' | 'high'; rated: Rated } | undefined => {
  const rated = strap.pull === 'up' ? chip.io.pullUp : strap.pull === 'down' ? chip.io.pullDown : undefined
  return rated && { to: strap.pull === 'up' ? 'high' : 'low', rated }
}

/** Volts of a node that resistors pull to ground and to the supply; diodes take what is above or below them. */
const solved = (
  supply: number,
  pulls: { to: 'low' | 'high'; ohms: number }[],
  clamps: { to: 'low' | 'high'; volts: number }[],
): number | undefined => {
  const fixed = pulls.filter((p) => p.ohms === 0)
  if (fixed.length > 0) return fixed.some((p) => p.to === 'low') ? 0 : supply
  let up = 0
  let all = 0
  for (const { to, ohms } of pulls) {
    if (to === 'high') up += 1 / ohms
    all += 1 / ohms
  }
  if (all === 0) return undefined
  let volts = (supply * up) / all
  for (const { to, volts: forward } of clamps)
    volts = to === 'low' ? Math.min(volts, forward) : Math.max(volts, supply - forward)
  return volts
}

/** The level at the leg over all corners: the least when what pulls up is weakest and what pulls down strongest. */
export const heldLevel = (
  supply: Range,
  holds: Hold[],
  own: { to: 'low' | 'high'; resistance: Range } | undefined,
): Range | undefined => {
  const all = [...holds, ...(own ? [{ ...own, offset: none }] : [])]
  const isClamp = (h: { offset: Range }) => h.offset.max > 0
  const corner = (volts: number, weak: 'low' | 'high' | undefined, which: 'min' | 'max' | 'typ') =>
    solved(
      volts,
      all
        .filter((h) => !isClamp(h))
        .map((h) => ({
          to: h.to,
          ohms: weak === undefined ? h.resistance.typ : h.to === weak ? h.resistance.max : h.resistance.min,
        })),
      all.filter(isClamp).map((h) => ({
        to: h.to,
        volts:
          which === 'typ'
            ? h.offset.typ
            : h.to === 'low'
              ? h.offset[which]
              : h.offset[which === 'min' ? 'max' : 'min'],
      })),
    )
  const [min, typ, max] = [
    corner(supply.min, 'high', 'min'),
    corner(supply.typ, undefined, 'typ'),
    corner(supply.max, 'low', 'max'),
  ]
  return min === undefined || typ === undefined || max === undefined ? undefined : { min, typ, max }
}
