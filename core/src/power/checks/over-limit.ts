// The limits that a builder sets beside current and price: how long cells must last, what a day may take, how hot a part may get, how many
// pieces there may be, how large the board.

import type { LimitName } from '../../design'
import { type Check, type Said, say, type Stages, type Worked, type Found } from '../../findings'
import { hottestOf } from '../hottest'
import { celsiusWords, durationWords, formatQuantity } from '../../quantity'

interface Over {
  limit: LimitName
  says: Said
  worked: Worked
  /** What it would have to be. */
  raised: number
  raise: string
  /** Not in it, since nobody knows. */
  missing?: readonly string[]
}

const day = 86_400

const overOf = (stages: Stages): Over[] => {
  const { design, power, build } = stages
  const { runtime, energy, heat, parts, area } = design.needs.limits
  const over: Over[] = []
  const lasts = power.runtime
  if (runtime !== undefined && lasts && lasts.value.min < runtime) {
    const raised = Math.max(
      1,
      lasts.value.min >= day ? Math.floor(lasts.value.min / day) * day : Math.floor(lasts.value.min),
    )
    const [least, asked] = [durationWords(lasts.value.min), durationWords(runtime)]
    over.push({
      limit: 'runtime',
      says:
        least === asked
          ? say`One set of cells may last ${durationWords(runtime - lasts.value.min)} less than the ${asked} that are asked for.`
          : say`One set of cells lasts at least ${least}, and ${asked} are asked for.`,
      worked: lasts,
      raised,
      raise: `Ask for ${durationWords(raised)} only`,
    })
  }
  const spent = power.energy
  if (energy !== undefined && spent && spent.value.max > energy) {
    const raised = Number(spent.value.max.toPrecision(2)) * 1.1
    over.push({
      limit: 'energy',
      says: say`A day takes up to ${formatQuantity(spent.value.max, 'Wh', 3)}, and ${formatQuantity(energy, 'Wh', 3)} is the limit.`,
      worked: spent,
      raised: Number(raised.toPrecision(2)),
      raise: `Raise the limit to ${formatQuantity(Number(raised.toPrecision(2)), 'Wh')} a day`,
    })
  }
  const hottest = hottestOf(stages)
  if (heat !== undefined && hottest && hottest.value.max > heat) {
    const raised = Math.ceil(hottest.value.max)
    over.push({
      limit: 'heat',
      says: say`${hottest.label} gets up to ${celsiusWords(hottest.value.max)}, and ${celsiusWords(heat)} is the limit.`,
      worked: hottest,
      raised,
      raise: `Raise the limit to ${celsiusWords(raised)}`,
    })
  }
  const pieces = build.pieces.value.typ
  if (parts !== undefined && pieces > parts)
    over.push({
      limit: 'parts',
      says: say`There are ${pieces} pieces to fit and to join, and ${parts} is the limit.`,
      worked: build.pieces,
      raised: pieces,
      raise: `Raise the limit to ${pieces} pieces`,
    })
  const { value } = build.area
  if (area !== undefined && value.max > area) {
    const raised = Math.ceil(value.max)
    over.push({
      limit: 'area',
      says: say`The board takes up to ${formatQuantity(value.max, 'cm²', 2)} with room between its parts, and ${formatQuantity(area, 'cm²', 3)} is the limit.`,
      worked: build.area,
      raised,
      raise: `Raise the limit to ${formatQuantity(raised, 'cm²')}`,
      missing: build.unsized,
    })
  }
  return over
}

export const overLimit: Check = {
  id: 'power.over-limit',
  stage: 'power',
  looksFor:
    'cells that don’t last as long as is asked, a day that takes more, a part hotter, more pieces or board than the limit',
  rule: 'the limits in the budget on the Power page',
  run: (stages) =>
    overOf(stages).map(({ limit, says, worked, raised, raise, missing = [] }): Found => ({
      id: `power.over-limit:${limit}`,
      severity: 'risks',
      ...says,
      because: [
        { ...say`${worked.label}`, worked },
        ...(missing.length > 0
          ? [say`Not counted, since their files give no size: ${missing.join(', ')}`]
          : []),
      ],
      fixes: [{ label: raise, edits: [{ kind: 'setLimit', limit, value: raised }] }],
    })),
}
