// What one element's value does to one voltage, and what a change does without solving anew.

import { LuDecomposition, Matrix } from 'ml-matrix'
import type { NetId } from '../models'
import type { Solved } from './point'
import { seenBy } from './system'

const unit = (size: number, at: number) => {
  const e = Array<number>(size).fill(0)
  e[at] = 1
  return Matrix.columnVector(e)
}
const placeOf = ({ system }: Solved, net: NetId) => {
  const k = system.nets.indexOf(net)
  if (k < 0) throw new Error(`There is no net ${net} but ground.`)
  return k
}

/**
 * d V(net) / d parameter of each element that has such a number, in V by the parameter's unit. One solution of the transposed
 * equations serves all (S. W. Director and R. A. Rohrer, The generalized adjoint network, 1969).
 */
export const sensitivities = (solved: Solved, net: NetId, parameter: string): Record<string, number> => {
  const { system, slopes, x } = solved
  const adjoint = new LuDecomposition(slopes.transpose())
    .solve(unit(system.size, placeOf(solved, net)))
    .to1DArray()
  const answers: Record<string, number> = {}
  for (const seat of system.seated) {
    const value = (seat.element.model as unknown as Record<string, unknown>)[parameter]
    if (typeof value !== 'number') continue
    const at = { ...seenBy(seat, x), t: 0, share: 1 }
    const h = Math.max(1e-12, Math.abs(value)) * 1e-5
    const with_ = (p: number) => {
      const { into, rest } = seat.form.respond({ ...seat.element.model, [parameter]: p }, at)
      return [...into, ...rest]
    }
    const [up, down] = [with_(value + h), with_(value - h)]
    answers[seat.element.id] = -seat.at.reduce(
      (sum, row, r) => sum + (row < 0 ? 0 : (adjoint[row]! * (up[r]! - down[r]!)) / (2 * h)),
      0,
    )
  }
  return answers
}

/**
 * V(net) after the conductance between two nets has changed by `siemens`, by the formula of Sherman and Morrison (1950): exact where
 * the circuit is linear, else along the slopes at the operating point.
 */
export const afterChange = (
  solved: Solved,
  between: [NetId, NetId],
  siemens: number,
): ((net: NetId) => number) => {
  const { system, slopes, x } = solved
  const a = Array<number>(system.size).fill(0)
  between.forEach((net, n) => {
    if (net !== 'GND') a[placeOf(solved, net)] = n === 0 ? 1 : -1
  })
  const u = new LuDecomposition(slopes).solve(Matrix.columnVector(a)).to1DArray()
  const dot = (y: readonly number[]) => y.reduce((sum, value, k) => sum + value * a[k]!, 0)
  const share = (siemens * dot(x)) / (1 + siemens * dot(u))
  return (net) => (net === 'GND' ? 0 : x[placeOf(solved, net)]! - share * u[placeOf(solved, net)]!)
}
