// Newton's method on a circuit's equations.

import { LuDecomposition, Matrix } from 'ml-matrix'
import { type Assembled, Contradiction, type System } from './system'

/** Voltages closer than this are the same, V; and than this share of themselves. */
const sameVolts = 1e-10
const sameShare = 1e-10

/** Solves slopes · d = −lacks. Throws Contradiction where there is no one answer, naming what is in it. */
const step = (system: System, { lacks, slopes }: Assembled): number[] => {
  const lu = new LuDecomposition(slopes)
  if (!lu.isSingular()) {
    const d = lu.solve(Matrix.columnVector(lacks.map((x) => -x))).to1DArray()
    if (d.every(Number.isFinite)) return d
  }
  // The last pivot that is nothing belongs to an unknown that the others leave free: a branch names its element.
  const pivots = lu.upperTriangularMatrix.diagonal().map(Math.abs)
  const free = pivots.flatMap((p, k) => (p < 1e-300 ? [k] : []))
  const named = system.seated
    .filter(({ at, form }) =>
      at.some((k, n) => free.includes(k) && (n >= form.terminals.length || free.length > 1)),
    )
    .map(({ element }) => element.id)
  throw new Contradiction(named.length > 0 ? named : system.seated.map(({ element }) => element.id))
}

export interface Found {
  x: number[]
  /** The slopes at the answer. */
  slopes: number[][]
}

/**
 * From `start` to where every equation holds; undefined where that takes more than `most` steps.
 * `equations` is told where each element was looked at before.
 */
export const newton = (
  system: System,
  start: readonly number[],
  equations: (
    x: readonly number[],
    last: (number[] | undefined)[] | undefined,
  ) => Assembled & { looked: (number[] | undefined)[]; held: boolean },
  most = 100,
): Found | undefined => {
  let x = [...start]
  let last: (number[] | undefined)[] | undefined
  for (let n = 1; n <= most; n++) {
    const now = equations(x, last)
    const d = step(system, now)
    // Where it goes to and fro, half steps end that.
    const share = n > most / 2 ? 0.5 : 1
    x = x.map((value, k) => value + share * d[k]!)
    last = now.looked
    if (!x.every(Number.isFinite)) return undefined
    const small = d.every((change, k) => Math.abs(change) <= sameVolts + sameShare * Math.abs(x[k]!))
    if (small && !now.held) return { x, slopes: now.slopes }
  }
  return undefined
}
