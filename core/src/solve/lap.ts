// The linear assignment problem, rows to pins, kept at its optimum while rows come, go and change their costs: shortest
// augmenting paths with dual prices (the Hungarian method in the form of Jonker and Volgenant), on a square where pins
// that nobody needs are held by idle slots at no cost. After a change only the rows concerned are placed anew.

/** The cost of a pair that may not be. Any real plan costs less. */
export const forbidden = 1e7

export interface Lap {
  size: number
  /** Row in each slot, or −1 for an idle one; and the other way round. */
  rowAt: Int32Array
  slotOf: Int32Array
  /** Pin of each slot, or −1 while it is being placed anew; and the other way round. */
  pinOf: Int32Array
  slotOn: Int32Array
  /** Dual prices: cost − price of the row − price of the pin is 0 or more, and 0 where a row is placed. */
  slotPrice: Float64Array
  pinPrice: Float64Array
}

export const emptyLap = (rows: number, pins: number): Lap => ({
  size: pins,
  rowAt: new Int32Array(pins).fill(-1),
  slotOf: new Int32Array(rows).fill(-1),
  pinOf: Int32Array.from({ length: pins }, (_, i) => i),
  slotOn: Int32Array.from({ length: pins }, (_, i) => i),
  slotPrice: new Float64Array(pins),
  pinPrice: new Float64Array(pins),
})

export const copyLap = (l: Lap): Lap => ({
  size: l.size,
  rowAt: l.rowAt.slice(),
  slotOf: l.slotOf.slice(),
  pinOf: l.pinOf.slice(),
  slotOn: l.slotOn.slice(),
  slotPrice: l.slotPrice.slice(),
  pinPrice: l.pinPrice.slice(),
})

/** Room to work in, shared by all placements of one search. */
export interface Scratch {
  distance: Float64Array
  via: Int32Array
  done: Uint8Array
  order: Int32Array
}
export const scratchFor = (pins: number): Scratch => ({
  distance: new Float64Array(pins),
  via: new Int32Array(pins),
  done: new Uint8Array(pins),
  order: new Int32Array(pins),
})

/** `costs`: rows × pins, row by row. */
const place = (lap: Lap, slot: number, costs: Float64Array, scratch: Scratch): void => {
  const { size, rowAt, pinOf, slotOn, slotPrice, pinPrice } = lap
  const { distance, via, done, order } = scratch
  distance.fill(Infinity)
  done.fill(0)
  let visited = 0
  let current = slot
  let base = 0
  let end = -1
  while (end < 0) {
    const row = rowAt[current]!
    const offset = row * size
    const shift = base - slotPrice[current]!
    let least = Infinity
    let next = -1
    for (let j = 0; j < size; j++) {
      if (done[j]) continue
      const d = (row < 0 ? 0 : costs[offset + j]!) + shift - pinPrice[j]!
      if (d < distance[j]!) {
        distance[j] = d
        via[j] = current
      }
      const known = distance[j]!
      if (
        known < least - 1e-9 ||
        (known <= least + 1e-9 && slotOn[j]! < 0 && (next < 0 || slotOn[next]! >= 0))
      ) {
        if (known < least) least = known
        next = j
      }
    }
    done[next] = 1
    order[visited++] = next
    base = Math.max(base, distance[next]!)
    if (slotOn[next]! < 0) end = next
    else current = slotOn[next]!
  }
  slotPrice[slot]! += base
  for (let i = 0; i < visited - 1; i++) {
    const j = order[i]!
    const change = base - distance[j]!
    if (change <= 0) continue
    pinPrice[j]! -= change
    slotPrice[slotOn[j]!]! += change
  }
  for (let j = end; ;) {
    const s = via[j]!
    const before = pinOf[s]!
    pinOf[s] = j
    slotOn[j] = s
    if (s === slot) return
    j = before
  }
}

const lift = (lap: Lap, slot: number): void => {
  const pin = lap.pinOf[slot]!
  if (pin < 0) return
  lap.slotOn[pin] = -1
  lap.pinOf[slot] = -1
}

/**
 * Makes the assignment optimal again after costs of `changed` rows were written to `costs`. Rows that have no slot get
 * one. Returns false when some row finds no pin at a permitted cost, or there are more rows than pins.
 */
export const settle = (
  lap: Lap,
  changed: readonly number[],
  costs: Float64Array,
  scratch: Scratch,
): boolean => {
  const { size, rowAt, slotOf, pinOf, slotPrice, pinPrice } = lap
  const lifted: number[] = []
  let idle = 0
  for (const row of changed) {
    if (slotOf[row]! < 0) {
      while (idle < size && rowAt[idle]! >= 0) idle++
      if (idle === size) return false
      rowAt[idle] = row
      slotOf[row] = idle
    }
    const slot = slotOf[row]!
    const offset = row * size
    let least = Infinity
    for (let j = 0; j < size; j++) {
      const c = costs[offset + j]! - pinPrice[j]!
      if (c < least) least = c
    }
    slotPrice[slot] = least
    const pin = pinOf[slot]!
    if (pin >= 0 && costs[offset + pin]! - pinPrice[pin]! <= least + 1e-9) continue
    lift(lap, slot)
    lifted.push(slot)
  }
  for (const slot of lifted) place(lap, slot, costs, scratch)
  for (let slot = 0; slot < size; slot++) {
    const row = rowAt[slot]!
    if (row >= 0 && costs[row * size + pinOf[slot]!]! >= forbidden) return false
  }
  return true
}

/** Takes rows out: their slots stand idle, at no cost, where that is cheapest. */
export const release = (lap: Lap, rows: readonly number[], costs: Float64Array, scratch: Scratch): void => {
  const lifted: number[] = []
  for (const row of rows) {
    const slot = lap.slotOf[row]!
    if (slot < 0) continue
    lap.slotOf[row] = -1
    lap.rowAt[slot] = -1
    let least = Infinity
    for (let j = 0; j < lap.size; j++) least = Math.min(least, -lap.pinPrice[j]!)
    lap.slotPrice[slot] = least
    if (-lap.pinPrice[lap.pinOf[slot]!]! <= least + 1e-9) continue
    lift(lap, slot)
    lifted.push(slot)
  }
  for (const slot of lifted) place(lap, slot, costs, scratch)
}

/** What the rows cost where they are. */
export const costOf = (lap: Lap, costs: Float64Array): number => {
  let sum = 0
  for (let slot = 0; slot < lap.size; slot++) {
    const row = lap.rowAt[slot]!
    if (row >= 0) sum += costs[row * lap.size + lap.pinOf[slot]!]!
  }
  return sum
}
