// Cells as they are where they lie, and after what they have been through: their files state charge and resistance of new ones at
// 20 °C, and beside that what is left of them in the cold and with every charge.

import type { Limits } from '../design'
import { fromDecision, fromPart, type Worked, type WorkedInput } from '../findings'
import type { Rated, Source } from '../parts'
import { formatQuantity } from '../quantity'
import { readCurve, sum, type SumInput } from '../sums'

/** °C: what sheets of cells are measured at. */
export const usualAir = 20

/** What cells go through in a project. */
export interface Wear {
  /** °C; absent: nobody has said. */
  coldest?: number
  /** °C. */
  ambient: number
  /** How often they are charged before others take their place; absent: nobody has said. */
  charges?: number
}

export const wearOf = ({ coldest, ambient, charges }: Limits): Wear => ({
  ambient,
  ...(coldest !== undefined && { coldest }),
  ...(charges !== undefined && { charges }),
})

type Field = 'charge' | 'resistance'
type Points = readonly { x: number; y: Rated }[]
const inTheCold = ({ cold }: Source, of: Field): Points => (cold ?? []).map((p) => ({ x: p.air, y: p[of] }))
const whenWorn = ({ worn }: Source, of: Field): Points =>
  worn ? [{ x: 0, y: { typ: 1, kind: 'typical' } }, ...worn.map((p) => ({ x: p.charges, y: p[of] }))] : []

const airAround = ({ coldest, ambient }: Wear): WorkedInput => {
  const from = Math.min(coldest!, ambient)
  return {
    ...fromDecision('T', 'air around the cells', ambient, '°C', 'set on the Needs page'),
    value: { min: from, typ: Math.min(Math.max(usualAir, from), ambient), max: ambient },
    variable: 'air around the cells',
  }
}
const chargedSoFar = ({ charges }: Wear): WorkedInput => ({
  ...fromDecision('N', 'how often they have been charged', charges!, '', 'set on the Needs page'),
  value: { min: 0, typ: charges! / 2, max: charges! },
  variable: 'charges of the cells',
})

const words: Record<Field, { cold: string; worn: string }> = {
  charge: { cold: 'Share of the charge in this air', worn: 'Share of the charge, worn' },
  resistance: {
    cold: 'Resistance inside, in this air, of that at 20 °C',
    worn: 'Resistance inside, worn, of new',
  },
}

/** What is left of `new` ones at 20 °C, or what they become; as the file has it where nothing is said or known of cold and age. */
const asItIs = (
  source: Source,
  wear: Wear | undefined,
  of: Field,
  fresh: WorkedInput,
  label: string,
  unit: 'Ah' | 'Ω',
): SumInput => {
  const [cold, worn] = [inTheCold(source, of), whenWorn(source, of)]
  const factors: Record<string, Worked> = {
    ...(wear?.coldest !== undefined &&
      cold.length > 0 && {
        k_air: readCurve(
          { label: words[of].cold, symbol: 'k_air', unit: '' },
          { part: source, field: 'cold', points: cold, held: true, specimen: of },
          ['T', airAround(wear)],
        ),
      }),
    ...(wear?.charges !== undefined &&
      worn.length > 0 && {
        k_worn: readCurve(
          { label: words[of].worn, symbol: 'k_worn', unit: '' },
          { part: source, field: 'worn', points: worn, held: true, specimen: of },
          ['N', chargedSoFar(wear)],
        ),
      }),
  }
  return Object.keys(factors).length === 0
    ? fresh
    : sum({ label, symbol: fresh.symbol, unit }, { [`${fresh.symbol}_new`]: fresh, ...factors }, (i) =>
        Object.values(i).reduce((all, factor) => all.times(factor)),
      )
}

/** Charge of full cells, Ah; undefined where the file states none. */
export const chargeOf = (source: Source, wear?: Wear): SumInput | undefined =>
  source.capacity &&
  asItIs(
    source,
    wear,
    'charge',
    fromPart('Q', 'charge of the cells', source, 'capacity', source.capacity, 'Ah'),
    'Charge of the cells, in this air and as worn as they get',
    'Ah',
  )

/** What lies inside a source, Ω; undefined where the file states nothing. */
export const insideOf = (source: Source, wear?: Wear): SumInput | undefined =>
  source.resistance &&
  asItIs(
    source,
    wear,
    'resistance',
    fromPart('R_i', `inside ${source.name}`, source, 'resistance', source.resistance, 'Ω'),
    `Inside ${source.name}, in this air and as worn as it gets`,
    'Ω',
  )

export interface NotCounted {
  of: 'cold' | 'age'
  /** Nobody has said how cold it gets or how often they are charged; else the file doesn’t know it. */
  unsaid: boolean
  text: string
}

/** What of cold and age is not counted with these cells; nothing for what is no cell. */
export const notCounted = (source: Source, { coldest, ambient, charges }: Wear): NotCounted[] => {
  if (source.sort !== 'cells') return []
  const from = source.cold?.[0]?.air
  const until = source.worn?.at(-1)?.charges
  const air = coldest === undefined ? undefined : Math.min(coldest, ambient)
  const told = (of: NotCounted['of'], text: string) => ({ of, unsaid: false, text })
  return [
    ...(air === undefined
      ? [
          {
            of: 'cold' as const,
            unsaid: true,
            text: `In air of ${usualAir} °C: how cold it gets nobody has said, and in the cold cells give less.`,
          },
        ]
      : from === undefined
        ? air < usualAir
          ? [told('cold', `What is left of ${source.name} in the cold is not in the file, and not counted.`)]
          : []
        : air < from
          ? [
              told(
                'cold',
                `The file of ${source.name} says nothing of air below ${formatQuantity(from, '°C')}: counted as at that; in colder air less is left.`,
              ),
            ]
          : []),
    ...(!source.rechargeable
      ? []
      : charges === undefined
        ? [
            {
              of: 'age' as const,
              unsaid: true,
              text: 'As new: how often they will have been charged nobody has said.',
            },
          ]
        : until === undefined
          ? [told('age', `What age leaves of ${source.name} is not in the file, and not counted.`)]
          : charges > until
            ? [
                told(
                  'age',
                  `The file of ${source.name} says nothing of more than ${until} charges: counted as after so many; later less is left.`,
                ),
              ]
            : []),
  ]
}
