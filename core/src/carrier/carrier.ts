// What carries the project: a bare chip or module as its file gives it, or a board, seen as the chip on it with the
// board's header positions for legs and the board's own loads and limits on them. Every later stage works on this.

import { type Board, type Chip, type ChipPin, findPart, type Library, type PinAttribute } from '../parts'
import { formatQuantity, fullRange } from '../quantity'

/** The answer that was given for the same two objects before: what stands on it can see that nothing changed. */
const remember = <A extends object, B extends object, T>(work: (a: A, b: B) => T): ((a: A, b: B) => T) => {
  const known = new WeakMap<A, WeakMap<B, { of: T }>>()
  return (a, b) => {
    const of = known.get(a) ?? new WeakMap<B, { of: T }>()
    known.set(a, of)
    const answer = of.get(b) ?? { of: work(a, b) }
    of.set(b, answer)
    return answer.of
  }
}

/** A header position in the order in which positions are numbered: header by header, as the board file lists them. */
export interface Seat {
  number: number
  /** As expansion boards know it: footprint, header and place in it, `trestle main.3`. */
  at: string
  header: string
  label: string
  pin?: string
  rail?: string
  program?: number
}

export const seatsOf = (board: Board): Seat[] =>
  board.headers
    .flatMap((header) => header.positions.map((position, n) => ({ header, position, n })))
    .map(({ header, position, n }, i) => ({
      number: i + 1,
      at: `${header.footprint ?? board.id} ${header.id}.${n + 1}`,
      header: header.name,
      label: position.label,
      pin: position.pin,
      rail: position.rail,
      program: position.number,
    }))

const lampOf = (board: Board, pin: string): PinAttribute[] =>
  (board.loads ?? [])
    .filter((load) => load.pin === pin && load.pull === undefined)
    .map((load) => ({
      kind: 'on-board-lamp',
      reason: `${load.what}${load.current ? `, ${formatQuantity(fullRange(load.current).max, 'A', 2)}` : ''}, on the board`,
      source: load.source,
    }))

/** The chip as the board offers it. Legs are the positions of the headers; pins that no header brings out are gone. */
const onBoard = (board: Board, chip: Chip): Chip => {
  const places = seatsOf(board)
  const pins: ChipPin[] = []
  const signalPins = new Map(chip.pins.map((p) => [p.id, p]))
  for (const place of places) {
    const known = place.pin === undefined ? undefined : signalPins.get(place.pin)
    const id = known ? known.id : place.label
    const there = pins.find((p) => p.id === id)
    if (there) {
      there.legs.push(place.number)
      there.labels!.push(place.label)
      there.places!.push(place.at)
      continue
    }
    const program = place.program === undefined ? undefined : { number: place.program }
    pins.push(
      known
        ? {
            ...known,
            ...program,
            legs: [place.number],
            labels: [place.label],
            places: [place.at],
            names: [...new Set([place.label, ...(known.names ?? [])])].filter((n) => n !== known.id),
            attributes: [
              ...(known.attributes ?? []).filter((a) => a.kind !== 'oscillator'),
              ...lampOf(board, known.id),
            ],
          }
        : {
            id,
            legs: [place.number],
            labels: [place.label],
            places: [place.at],
            type: place.rail === 'GND' ? 'ground' : place.rail === 'LOGIC' ? 'supply' : 'none',
            rail: place.rail,
          },
    )
  }
  const own = fullRange(chip.limits.pinRecommended).max
  const given = board.pinCurrent && fullRange(board.pinCurrent).max
  return {
    ...chip,
    id: board.id,
    name: board.name,
    maker: board.maker,
    description: board.description,
    price: board.price,
    package: {
      ...chip.package,
      name: `board with ${board.headers.length} headers`,
      style: 'two-sided',
      legs: places.length,
      solder: 'through-hole',
    },
    limits:
      given !== undefined && given < own
        ? { ...chip.limits, pinRecommended: board.pinCurrent! }
        : chip.limits,
    pins,
    matrix: chip.matrix?.map((m) => ({ ...m, pins: m.pins.filter((id) => pins.some((p) => p.id === id)) })),
    programming: [],
    support: { ...chip.support, decoupling: [], bulk: undefined, reset: undefined },
    board,
  }
}

/** The same board and chip are the same carrier. */
const seated = remember(onBoard)

/** The chip, or the chip as a board offers it; undefined when the library has no such carrier. */
export const carrierOf = (library: Library, id: string | undefined): Chip | undefined => {
  const board = findPart(library, 'board', id)
  if (!board) return findPart(library, 'chip', id)
  const chip = findPart(library, 'chip', board.chip)
  return chip && seated(board, chip)
}

/** Every carrier there is. */
export const carriers = (library: Library): Chip[] =>
  Object.values(library.parts).flatMap((part) =>
    part.kind === 'chip' || part.kind === 'board' ? (carrierOf(library, part.id) ?? []) : [],
  )

/** Boards that are wired like this one: of the same header. */
export const alike = (carrier: Chip, library: Library): Chip[] => {
  const footprint = carrier.board?.headers[0]?.footprint
  return footprint === undefined
    ? []
    : carriers(library).filter((c) => c.id !== carrier.id && c.board?.headers[0]?.footprint === footprint)
}

/** The carrier with the other boards that its plan must hold on; those of another header are left out. */
export const withTargets = (carrier: Chip, also: string[], library: Library): Chip => {
  const others = alike(carrier, library).filter((c) => also.includes(c.id))
  return others.length > 0 ? { ...carrier, alsoOn: others } : carrier
}
