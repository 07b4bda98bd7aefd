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
}
