// The states of a design: those that the builder named, or asleep and at work.

import type { Design, StateChoice } from '../design'
import { fromDecision, type Worked, type WorkedInput } from '../findings'
import type { Chip } from '../parts'
import { asStated, dimensionOf, greatest, number, sum, type Term, total } from '../sums'
import type { State } from './state'

type Mode = Chip['modes'][number]
const day = 86400
const none = dimensionOf('')

/** Of several sleeps the deepest, which the sheets list last. */
export const modeOf = (chip: Chip | undefined, kind: Mode['kind']): Mode | undefined =>
  chip?.modes.filter((m) => m.kind === kind).at(kind === 'sleep' ? -1 : 0)

const named = (symbol: string, label: string, value: number, unit: WorkedInput['unit']): WorkedInput =>
  fromDecision(symbol, label, value, unit, 'as the project names its states')

/** What is left of the time. Where the others take more than all of it, nothing. */
const theRest = (name: string, symbol: string, others: readonly Worked[]): Worked =>
  sum(
    { label: `Share of the time ${name}`, symbol: `s_${symbol}`, unit: '' },
    Object.fromEntries(others.map((s) => [s.symbol, s])),
    (i: Record<string, Term>) => greatest(0, number(1).minus(total(Object.values(i), none))),
  )

/** So long each time, every so often. */
const shareOf = ({ name, lasts, every, perDay }: StateChoice, symbol: string): Worked =>
  sum(
    { label: `Share of the time ${name}`, symbol: `s_${symbol}`, unit: '' },
    {
      t: named(`t_${symbol}`, `each time ${name}`, lasts!, 's'),
      ...(every === undefined
        ? { n: named(`n_${symbol}`, `times a day ${name}`, perDay!, '') }
        : { T: named(`T_${symbol}`, `from one ${name} to the next`, every, 's') }),
    },
    (i: Record<string, Term>) =>
      i.T ? i.t!.over(i.T) : i.t!.times(i.n!).over(number(day, dimensionOf('s'))),
  )

/** With nothing said of the time it is always at work, and only that state is there. */
const unnamed = (design: Design, chip: Chip | undefined): State[] => {
  const { awake } = design.needs.limits
  const share = asStated(
    'Share of the time awake',
    's_work',
    '',
    fromDecision('s_work', 'share of the time awake', awake ?? 1, '', 'set on the Needs page'),
  )
  const work: State = {
    id: 'work',
    name: 'at work',
    symbol: 'work',
    share,
    mode: modeOf(chip, 'active'),
    asleep: false,
    radio: design.needs.radio ?? false,
    modes: {},
  }
  if (awake === undefined) return [work]
  const asleep: State = {
    id: 'asleep',
    name: 'asleep',
    symbol: 'asleep',
    share: theRest('asleep', 'asleep', [share]),
    // One that can't sleep idles.
    mode: modeOf(chip, 'sleep') ?? modeOf(chip, 'idle') ?? modeOf(chip, 'active'),
    asleep: true,
    radio: false,
    modes: {},
  }
  return [work, asleep]
}

/** The states that a project goes through; their shares add up to one, unless what is named takes longer than the time there is. */
export const statesOf = (design: Design, chip: Chip | undefined): State[] => {
  const { states, radio } = design.needs
  if (!states) return unnamed(design, chip)
  const shares = new Map(
    states.flatMap((s, n) => (s.lasts === undefined ? [] : [[s.id, shareOf(s, String(n + 1))] as const])),
  )
  return states.map((choice, n): State => {
    const symbol = String(n + 1)
    // A mode that this chip hasn't got is found by a check; until then it counts as working.
    const mode = chip?.modes.find((m) => m.id === choice.chip) ?? modeOf(chip, 'active')
    const asleep = mode?.kind === 'sleep'
    return {
      id: choice.id,
      name: choice.name,
      symbol,
      share: shares.get(choice.id) ?? theRest(choice.name, symbol, [...shares.values()]),
      mode,
      asleep,
      // One that the state names counts, whatever the program is said to use: the careful side, and told by a check.
      radio: choice.radio ?? (!asleep && (radio ?? false)),
      modes: choice.modes ?? {},
    }
  })
}
