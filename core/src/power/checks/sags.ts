import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherRegulators } from '../../pins'
import { insideOf, wearOf } from '../../supply'
import { hair } from '../starved'
import { otherWires } from './lead'
import { otherSources, withoutHungriest } from './ways-out'

export const sags: Check = {
  id: 'power.sags',
  stage: 'power',
  looksFor: 'a rail straight from its source that sags under load below what hangs on it',
  rule: 'the resistance of the source and of its lead at full work; the lowest supply of chip, clock and devices, by more than 10 mV',
  run: (stages) => {
    const { design, power, chip, clock, needs } = stages
    const { source, regulator, rail, railLoaded: loaded } = power
    const ownChip = chip.chip
    const inside = source && insideOf(source, wearOf(design.needs.limits))
    const lead = power.leads.find((l) => l.of === 'source')
    if (!source || !(inside || lead) || !loaded || !rail || regulator || !ownChip) return []
    const needed = [
      { name: ownChip.name, least: fullRange(ownChip.supply.recommended).min },
      ...(clock.lowestSupply
        ? [
            {
              name: `${ownChip.name} at ${formatQuantity(clock.nominal.value.typ, 'Hz')}`,
              least: clock.lowestSupply.value.max,
              worked: clock.lowestSupply,
            },
          ]
        : []),
      ...needs.instances.flatMap(({ name, part, need }) =>
        part.supply && !need.fedBy ? [{ name, least: fullRange(part.supply).min }] : [],
      ),
    ]
      // What the rail is too low for even without load is told elsewhere.
      .filter(({ least }) => least > loaded.value.min + hair && least <= rail.value.min)
      .sort((a, b) => b.least - a.least)[0]
    if (!needed) return []
    const low = formatQuantity(loaded.value.min, 'V', 4)
    return [
      {
        id: 'power.sags',
        // Only at the end of the charge, or well before.
        severity: loaded.value.typ < needed.least ? 'risks' : 'notes',
        grade: 'outside the sheet',
        ...say`At full work the rail sags to ${low}, below the ${formatQuantity(needed.least, 'V')} that ${needed.name} needs.`,
        because: [
          {
            ...say`All together draw up to ${formatQuantity(power.through.value.max, 'A', 3)}`,
            worked: power.through,
          },
          ...(lead
            ? [
                {
                  ...say`In its lead up to ${formatQuantity(lead.drop.value.max, 'V', 2)} are lost`,
                  worked: lead.drop,
                },
              ]
            : []),
          {
            ...(inside
              ? say`Inside ${source.name} are up to ${formatQuantity(inside.value.max, 'Ω', 3)}, so that ${formatQuantity(rail.value.min, 'V', 3)} become ${low}`
              : say`So ${formatQuantity(rail.value.min, 'V', 3)} become ${low}`),
            worked: loaded,
          },
          { ...say`${needed.name} needs ${formatQuantity(needed.least, 'V')}`, worked: needed.worked },
        ],
        fixes: [
          ...(lead ? otherWires(stages, 'source') : []),
          ...otherRegulators(stages),
          ...otherSources(stages),
          ...withoutHungriest(stages),
        ],
      },
    ]
  },
}
