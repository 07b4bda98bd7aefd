// What could be changed so that the supply works: another regulator, another source for the same one, or a source that
// feeds the rail by itself; or doing without what draws the most.

import { type Edit, type FedBy, feeders } from '../../design'
import type { Fix, Stages } from '../../findings'
import { partsOfKind, type Source } from '../../parts'
import { formatQuantity, fullRange, type Range } from '../../quantity'
import { behindPlug, polarityOf, voltageFor } from '../../supply'
import { straightFrom, suitsRail } from '../../pins'
import { objections, regulate } from '../regulate'
import { hungriest } from './hungriest'

/** Whether the present regulator has nothing against this source. */
const suitsRegulator = ({ design, library, power }: Stages, source: Source): boolean => {
  const { regulator, loaded, through: current } = power
  if (!regulator) return false
  // With the diode that it would then have at its plug.
  const diode = polarityOf({ ...design, power: { ...design.power, source: source.id } }, library)
  const input = behindPlug(source, current, diode && { diode, current })
  const there = regulate(regulator, loaded, input, design.needs.limits.ambient)
  return objections(there, loaded, input).length === 0
}

/** Whether a board's input takes this source; anything does where there is no board. */
const suitsInput = ({ chip }: Stages, source: Source): boolean => {
  const input = chip.chip?.board && fullRange(chip.chip.board.input)
  const voltage = fullRange(source.voltage)
  return !input || (voltage.min >= input.min && voltage.max <= input.max)
}

/** Sources strong enough, with the present regulator or without any. */
export const otherSources = (stages: Stages, most = 3): Fix[] =>
  partsOfKind(stages.library, 'source')
    .filter(
      (s) =>
        stages.proposing &&
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
            edits: [choose, straightFrom],
          },
        ]
      return []
    })
    .slice(0, most)

/** Doing without the device that draws the most from the source. */
export const withoutHungriest = ({ design, power }: Stages): Fix[] => {
  const most = hungriest(power).find((c) => design.needs.devices.some((d) => d.id === c.id))
  return most ? [{ label: `Do without ${most.name}`, edits: [{ kind: 'removeDevice', id: most.id }] }] : []
}

/** Feeding one device from elsewhere: what is there already first, else a second feed of the cheapest source that suits. */
export const otherFeeders = (
  { design, library, power }: Stages,
  id: string,
  name: string,
  /** What it runs on; what feeds it now is outside of that. */
  supply: Range,
): Fix[] => {
  const suits = (v: Range) => v.min >= supply.min && v.max <= supply.max
  const move = (by: FedBy): Edit => ({ kind: 'setFedBy', id, by })
  const there = feeders.flatMap((by): Fix[] => {
    const voltage = voltageFor(power.supplies, { fedBy: by })?.value
    return voltage && suits(voltage)
      ? [{ label: `Feed ${name} from the ${by === 'feed' ? 'second feed' : by}`, edits: [move(by)] }]
      : []
  })
  if (there.length > 0 || design.power.feed) return there
  const most = power.consumers.find((c) => c.id === id)?.work.value.max ?? 0
  const part = partsOfKind(library, 'source')
    .filter((s) => suits(fullRange(s.voltage)) && fullRange(s.current).max >= most)
    .sort((a, b) => a.price - b.price)[0]
  return part
    ? [
        {
          label: `Feed ${name} from a second feed, ${part.name}`,
          edits: [{ kind: 'chooseFeed', part: part.id, name: part.name }, move('feed')],
        },
      ]
    : []
}
