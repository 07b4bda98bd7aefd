// Where the legs of a package are, seen from above or from below: counted anticlockwise from the mark, from above.

export type SideName = 'left' | 'bottom' | 'right' | 'top'
export interface Seat {
  side: SideName
  /** From the top on the left and right, from the left on the others; 0 is the first. */
  at: number
}

/**
 * The place of each of `count` legs in the order of their numbers. With two sides: down the left, up the right; with four:
 * down the left, along the bottom, up the right, back along the top. From below left and right change places.
 */
export const seatsAround = (count: number, sides: 2 | 4, from: 'above' | 'below'): Seat[] => {
  const each = Math.ceil(count / sides)
  const order: SideName[] = sides === 2 ? ['left', 'right'] : ['left', 'bottom', 'right', 'top']
  return Array.from({ length: count }, (_, i) => {
    const side = order[Math.floor(i / each)]!
    const along = i % each
    // Up the right side and back along the top.
    const at = side === 'right' || side === 'top' ? each - 1 - along : along
    if (from === 'above') return { side, at }
    if (side === 'left') return { side: 'right', at }
    if (side === 'right') return { side: 'left', at }
    return { side, at: each - 1 - at }
  })
}
