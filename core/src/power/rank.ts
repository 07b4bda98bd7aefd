// Every linear regulator of the library at this input and this load. Worked out when somebody asks: each is four sums.

import { type Stages, type Worked, say } from '../findings'
import type { NeedsResult } from '../needs'
import { type Chip, partsOfKind } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { type Objection, objections, regulate, type Regulation } from './regulate'

export interface RankedRegulator extends Regulation {
  no: Objection[]
  chosen: boolean
}

/** Those that nothing speaks against first, the cheapest first among them. None on a board: its own is soldered on. */
export const rankRegulators = ({
  design,
  library,
  needs,
  chip: { chip },
  power: { input, loaded, rail, regulator: chosen },
}: Pick<Stages, 'design' | 'library' | 'needs' | 'chip' | 'power'>): RankedRegulator[] =>
  input && !chip?.board
    ? partsOfKind(library, 'regulator')
        .filter((r) => r.topology === 'linear')
        .map((regulator) => {
          const one = regulate(regulator, loaded, input, design.needs.limits.ambient)
          return {
            ...one,
            no: [...outputObjection(one, rail, chip, needs), ...objections(one, loaded, input)],
            chosen: regulator.id === chosen?.id,
          }
        })
        .sort((a, b) => a.no.length - b.no.length || a.regulator.price - b.regulator.price)
    : []

/** A regulator whose output chip or devices can't use. */
const outputObjection = (
  { regulator }: Regulation,
  rail: Worked | undefined,
  chip: Chip | undefined,
  needs: NeedsResult,
): Objection[] => {
  const out = fullRange(regulator.output)
  const wants = [
    ...(chip ? [{ name: chip.name, supply: fullRange(chip.supply.recommended) }] : []),
    ...needs.instances.flatMap((i) =>
      i.part.supply && !i.need.fedBy ? [{ name: i.name, supply: fullRange(i.part.supply) }] : [],
    ),
  ]
  const unhappy = wants.filter((w) => out.min < w.supply.min || out.max > w.supply.max)
  if (unhappy.length === 0) return []
  const names = [...new Set(unhappy.map((u) => u.name))]
  const text =
    names.length > 1 ? `suits neither ${names.slice(0, 3).join(' nor ')}` : `doesn’t suit ${names[0]!}`
  return [{ ...say`its ${formatQuantity(out.typ, 'V')} ${text}`, worked: rail }]
}
