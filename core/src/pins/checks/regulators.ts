// Ways to another rail that several checks propose: another regulator, or none.

import type { Edit } from '../../design'
import type { Fix, Stages } from '../../findings'
import type { Source } from '../../parts'
import { fullRange } from '../../quantity'

/** The source is the rail. */
export const straightFrom: Edit = { kind: 'chooseRegulator', part: null, name: '' }

/** Whether chip and devices can live on this source without a regulator. */
export const suitsRail = ({ chip, needs }: Stages, source: Source): boolean => {
  if (chip.chip?.board) return false
  const voltage = fullRange(source.voltage)
  const fed = needs.instances.filter((i) => !i.need.fedBy).map((i) => i.part.supply)
  return [chip.chip?.supply.recommended, ...fed].every((rated) => {
    if (!rated) return true
    const supply = fullRange(rated)
    return voltage.min >= supply.min && voltage.max <= supply.max
  })
}

/** None where chip and devices live on the source as it is; then the others that nothing speaks against, best first. */
export const otherRegulators = (stages: Stages, most = 3): Fix[] => {
  const { regulators, power } = stages
  const { source, regulator } = power
  const straight: Fix[] =
    source && regulator && suitsRail(stages, source)
      ? [{ label: `Feed the rail straight from ${source.name}`, edits: [straightFrom] }]
      : []
  const others = regulators()
    .filter((r) => r.no.length === 0 && !r.chosen)
    .map((r): Fix => ({
      label: `Use ${r.regulator.name}`,
      edits: [{ kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name }],
    }))
  return [...straight, ...others.slice(0, most)]
}
