// Every converter of the supply, for the checks that look at each.

import type { Stages } from '../../findings'
import type { RailLoad } from '../../supply'
import type { Regulation } from '../regulate'

export interface InPlace extends Regulation {
  /** At the end of a finding’s name; nothing for the one that feeds the chip’s own rail. */
  tail: string
  /** The rail that it feeds. */
  out: RailLoad
}

export const convertersOf = ({ power }: Pick<Stages, 'power'>): InPlace[] =>
  power.regulations.map(({ converter, regulation }) => ({
    ...regulation,
    tail: converter.to === power.supplies.own ? '' : `:${converter.id}`,
    out: power.loads.rails[converter.to]!,
  }))
