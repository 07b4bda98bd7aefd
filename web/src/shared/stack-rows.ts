import type { Analysis } from '@root-board/core/analysis'
import { seatsOf } from '@root-board/core/carrier'
import type { Instance, Seat, SignalNeed } from '@root-board/core/needs'

type Place = ReturnType<typeof seatsOf>[number]
export interface StackRow {
  place: Place
  /** What the boards of the stack want this position for. */
  here: { signal: SignalNeed; seat: Seat }[]
  /** More than one line wants it. */
  over: boolean
  /** Signals that are wired here by hand. */
  loose: string[]
}

/** The boards plugged onto the carrier, the lowest first. */
export const boardsOf = ({ needs }: Analysis): Instance[] =>
  needs.instances
    .filter((i) => i.part.expansion)
    .sort((a, b) => Number(a.part.expansion!.top ?? false) - Number(b.part.expansion!.top ?? false))

/** Every position of the carrier’s headers that has a leg, and what each board does with it. */
export const stackRows = ({ chip: { chip }, needs, pins }: Analysis): StackRow[] => {
  const claims = needs.signals.flatMap((signal) => (signal.at ?? []).map((seat) => ({ signal, seat })))
  return (chip?.board ? seatsOf(chip.board) : [])
    .filter((p) => p.pin !== undefined)
    .map((place) => {
      const here = claims.filter((c) => c.seat.place === place.at)
      return {
        place,
        here,
        over: new Set(here.map((c) => c.signal.id)).size > 1,
        loose: (pins.plan?.wires ?? [])
          .filter((w) => w.pin.id === place.pin && !w.signal.at && w.pin.places?.[0] === place.at)
          .map((w) => w.signal.name),
      }
    })
}

/** A board’s own name for a position that it has, whether it uses it or not. */
export const labelAt = ({ part: { expansion } }: Instance, place: string): string | undefined =>
  expansion!.positions.find((p) => `${expansion!.fits} ${p.at}` === place)?.label
