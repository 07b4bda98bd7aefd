import type { Assumption } from '../findings'
import type { Plug, Standing } from './standing'
import type { BackWay } from './ways'

/** A way that can be gone: in which standings. */
export interface Way extends Omit<BackWay, 'open'> {
  /** By their ids. */
  standings: readonly string[]
}

export interface PlugsResult {
  plugs: readonly Plug[]
  standings: readonly Standing[]
  ways: readonly Way[]
  /** The lines to devices are not among the ways yet: no leg is planned. */
  lineless: boolean
  /** What the currents and voltages stand on and no sheet states. */
  assumed: readonly Assumption[]
}
