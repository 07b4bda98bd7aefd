// The linear assignment problem, rows to columns, by shortest augmenting paths with dual prices (the Hungarian
// method in the O(n²m) form of Jonker and Volgenant). Used as the bound of the pin solver's search.

export const forbidden = Infinity

export interface Assignment {
  cost: number
  /** For each row its column. */
  columns: Int32Array
  /** Dual prices: cost − rowPrice − columnPrice is 0 or more for every pair, and adding a pair costs at least that. */
  rowPrice: Float64Array
  columnPrice: Float64Array
}

/**
 * Least-cost assignment of every row to a column of its own.
 * `costs` is rows × columns, row by row; `forbidden` marks a pair that may not be used.
 * Returns undefined when some row can't be placed.
 */
export const assign = (costs: Float64Array, rows: number, columns: number): Assignment | undefined => {
  if (rows > columns) return undefined
  const rowPrice = new Float64Array(rows + 1)
  const columnPrice = new Float64Array(columns + 1)
  const rowAt = new Int32Array(columns + 1)
  const cameFrom = new Int32Array(columns + 1)
  const slack = new Float64Array(columns + 1)
  const reached = new Uint8Array(columns + 1)
  for (let row = 1; row <= rows; row++) {
    rowAt[0] = row
    let column = 0
    slack.fill(Infinity)
    reached.fill(0)
    do {
      reached[column] = 1
      const from = rowAt[column]!
      const offset = (from - 1) * columns - 1
      const price = rowPrice[from]!
      let step = Infinity
      let next = 0
      for (let j = 1; j <= columns; j++) {
        if (reached[j]) continue
        const reduced = costs[offset + j]! - price - columnPrice[j]!
        if (reduced < slack[j]!) {
          slack[j] = reduced
          cameFrom[j] = column
        }
        if (slack[j]! < step) {
          step = slack[j]!
          next = j
        }
      }
      if (step === Infinity) return undefined
      for (let j = 0; j <= columns; j++) {
        if (reached[j]) {
          rowPrice[rowAt[j]!]! += step
          columnPrice[j]! -= step
        } else slack[j]! -= step
      }
      column = next
    } while (rowAt[column] !== 0)
    while (column !== 0) {
      const previous = cameFrom[column]!
      rowAt[column] = rowAt[previous]!
      column = previous
    }
  }
  const result = new Int32Array(rows)
  let cost = 0
  for (let j = 1; j <= columns; j++) {
    const row = rowAt[j]!
    if (row === 0) continue
    result[row - 1] = j - 1
    cost += costs[(row - 1) * columns + j - 1]!
  }
  return { cost, columns: result, rowPrice: rowPrice.subarray(1), columnPrice: columnPrice.subarray(1) }
}
