// Something that draws current.

import { fromWorked, type Worked, type WorkedInput } from '../../findings'
import { overTime, type State, type StateId } from '../../states'
import { dimensionOf, sum, total } from '../../sums'
import type { RailId } from '../../supply'

export interface Consumer {
  id: string
  name: string
  count: number
  /** What feeds it. */
  from: RailId
  /** All of them together, where everything rests and where everything works at once. */
  rest: Worked
  work: Worked
  /** In each state of the project. */
  cycle: Readonly<Record<StateId, Worked>>
  /** Over all states. */
  average: Worked
  /** The support part that it is; the builder may leave it out. */
  support?: string
}

/** Currents that add up, by their symbols. */
export const together = (label: string, symbol: string, inputs: readonly WorkedInput[]): Worked =>
  sum({ label, symbol, unit: 'A' }, Object.fromEntries(inputs.map((i) => [i.symbol, i])), (i) =>
    total(Object.values(i), dimensionOf('A')),
  )
export const nothing = (label: string): Worked => together(label, 'I', [])

/** Numbered, since several have the same symbol. */
export const numbered = (currents: readonly { current: Worked; label: string }[]): WorkedInput[] =>
  currents.map(({ current, label }, i) => ({ ...fromWorked(current), symbol: `I_${i + 1}`, label }))

type Known = Pick<Consumer, 'id' | 'name' | 'count' | 'from' | 'work' | 'support'> &
  Partial<Pick<Consumer, 'rest'>>

/** `of`: what it takes in a state; absent: what it takes at work. `rest`: absent: nothing. */
export const consumer = (
  known: Known,
  states: readonly State[],
  of: (state: State) => Worked = () => known.work,
  symbol = 'I',
): Consumer => {
  const cycle = Object.fromEntries(states.map((s) => [s.id, of(s)]))
  return {
    ...known,
    rest: known.rest ?? nothing(`${known.name}, off`),
    cycle,
    average: overTime({ label: `${known.name}, over time`, symbol }, states, (s) => cycle[s.id]!),
  }
}
