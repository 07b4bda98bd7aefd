// What could be changed so that the supply works: another regulator, or another source for the same one.

import type { Fix, Stages } from '../../findings'
import { partsOfKind } from '../../parts'
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

/** Sources strong enough, at which the present regulator has nothing against it. */
export const otherSources = ({ design, library, power }: Stages, most = 3): Fix[] =>
  partsOfKind(library, 'source')
    .filter((s) => s.id !== power.source?.id && fullRange(s.current).max >= power.fromSource.value.max)
    .filter((source) => {
      const input = inputVoltage(
        { ...power, source, polarity: source.sort === 'adapter' ? power.polarity : undefined },
        power.fromSource,
      )
      if (!input) return false
      if (!power.regulator)
        return (
          input.value.max <= (power.rail?.value.max ?? 0) && input.value.min >= (power.rail?.value.min ?? 0)
        )
      return (
        objections(
          regulate(power.regulator, power.work, input, design.needs.limits.ambient),
          power.work,
          input,
        ).length === 0
      )
    })
    .sort((a, b) => a.price - b.price)
    .slice(0, most)
    .map((s) => ({
      label: `Feed it from ${s.name} (${formatQuantity(fullRange(s.voltage).typ, 'V')})`,
      edits: [{ kind: 'chooseSource', part: s.id, name: s.name }],
    }))
