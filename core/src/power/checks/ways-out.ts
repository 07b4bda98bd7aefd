// What could be changed so that the supply works: another regulator, another source for the same one, or a source that
// feeds the rail by itself; or doing without what draws the most.

import type { Edit } from '../../design'
import type { Fix, Stages } from '../../findings'
import { partsOfKind, type Source } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { inputVoltage } from '../path'
import { objections, regulate } from '../regulate'

export const otherRegulators = ({ power }: Stages, most = 3): Fix[] =>
  power.ranked
    .filter((r) => r.no.length === 0 && !r.chosen)
    .slice(0, most)
    .map((r) => ({
      label: `Use ${r.regulator.name}`,
      edits: [{ kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name }],
    }))

/** Whether the present regulator has nothing against this source. */
const suitsRegulator = ({ design, power }: Stages, source: Source): boolean => {
  const path = { ...power, source, polarity: source.sort === 'adapter' ? power.polarity : undefined }
  const input = power.regulator && inputVoltage(path, power.fromSource)
  return (
    power.regulator !== undefined &&
    input !== undefined &&
    objections(regulate(power.regulator, power.work, input, design.needs.limits.ambient), power.work, input)
      .length === 0
  )
}

/** Whether a board's input takes this source; anything does where there is no board. */
const suitsInput = ({ chip }: Stages, source: Source): boolean => {
  const input = chip.chip?.board && fullRange(chip.chip.board.input)
  const voltage = fullRange(source.voltage)
  return !input || (voltage.min >= input.min && voltage.max <= input.max)
}

/** Whether chip and devices can live on this source without a regulator. */
const suitsRail = ({ chip, needs }: Stages, source: Source): boolean => {
  if (chip.chip?.board) return false
  const voltage = fullRange(source.voltage)
  return [chip.chip?.supply.recommended, ...needs.instances.map((i) => i.part.supply)].every((rated) => {
    if (!rated) return true
    const supply = fullRange(rated)
    return voltage.min >= supply.min && voltage.max <= supply.max
  })
}

/** Sources strong enough, with the present regulator or without any. */
export const otherSources = (stages: Stages, most = 3): Fix[] =>
  partsOfKind(stages.library, 'source')
    .filter(
      (s) =>
        s.id !== stages.power.source?.id &&
        fullRange(s.current).max >= stages.power.fromSource.value.max &&
        suitsInput(stages, s),
    )
    .sort((a, b) => a.price - b.price)
    .flatMap((s): Fix[] => {
      const choose: Edit = { kind: 'chooseSource', part: s.id, name: s.name }
      const label = `Feed it from ${s.name} (${formatQuantity(fullRange(s.voltage).typ, 'V')})`
      if (suitsRegulator(stages, s)) return [{ label, edits: [choose] }]
      if (suitsRail(stages, s))
        return [
          {
            label: `${label}, without a regulator`,
            edits: [choose, { kind: 'chooseRegulator', part: null, name: '' }],
          },
        ]
      return []
    })
    .slice(0, most)

/** Doing without the device that draws the most. */
export const withoutHungriest = ({ design, power }: Stages): Fix[] => {
  const devices = power.consumers.filter((c) => design.needs.devices.some((d) => d.id === c.id))
  const hungriest = [...devices].sort((a, b) => b.work.value.max - a.work.value.max)[0]
  return hungriest
    ? [{ label: `Do without ${hungriest.name}`, edits: [{ kind: 'removeDevice', id: hungriest.id }] }]
    : []
}
