// Every converter of the supply, for the checks that look at each.

import type { FurtherId } from '../../design'
import type { Fix, Stages } from '../../findings'
import { otherRegulators } from '../../pins'
import { onTheSource, type RailLoad } from '../../supply'
import type { Regulation } from '../regulate'
import { eachItsVoltage, otherSources } from './ways-out'

export interface InPlace extends Regulation {
  /** At the end of a finding’s name; nothing for the one that feeds the chip’s own rail. */
  tail: string
  /** What it hangs on, in a sentence. */
  before: string
  /** The rail that it feeds. */
  out: RailLoad
  /** In its place, those that nothing speaks against; none where it is a board’s. */
  others: (most?: number) => Fix[]
  /** Of the project’s source, where it hangs on that. */
  sources: (most?: number) => Fix[]
  /** What of its rail could be fed otherwise. */
  apart: () => Fix[]
}

/** Of a further rail the regulators that nothing speaks against, best first. */
const othersFor = ({ regulators }: Stages, rail: FurtherId, most = 3): Fix[] =>
  regulators(rail)
    .filter((r) => r.no.length === 0 && !r.chosen)
    .slice(0, most)
    .map(({ regulator: { id, name } }) => ({
      label: `Use ${name} for it`,
      edits: [{ kind: 'changeRail', id: rail, change: { regulator: id }, what: name }],
    }))

export const convertersOf = (stages: Stages): InPlace[] => {
  const { power, chip } = stages
  const { supplies, loads } = power
  return power.regulations.map(({ converter: { id, from, to }, regulation }) => {
    const own = to === supplies.own
    return {
      ...regulation,
      tail: own ? '' : `:${id.replace(' ', '-')}`,
      before: loads.rails[from]!.rail.name,
      out: loads.rails[to]!,
      others: (most) =>
        !own
          ? othersFor(stages, to as FurtherId, most)
          : chip.chip?.board
            ? []
            : otherRegulators(stages, most),
      sources: (most) => (onTheSource(supplies, to) ? otherSources(stages, most) : []),
      apart: () => (own ? eachItsVoltage(stages) : []),
    }
  })
}
