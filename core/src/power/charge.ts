// Where the charge goes: what each state takes of a day’s, and what each part takes over all of them, as the source sees it.

import { fromPart, type Worked } from '../findings'
import { exactly } from '../quantity'
import type { State } from '../states'
import { asVariable, sum } from '../sums'
import { type Converter, onTheSource, wayTo } from '../supply'
import { aDay, type PowerResult } from './resolve'

/** Of a state or a part. */
export interface Spent {
  id: string
  name: string
  /** From the source: of a state while it lasts, of a part over all the time. */
  current: Worked
  /** In a day, Ah. */
  day: Worked
  /** Of all that the source usually gives, 0 to 1. */
  part: Worked
}

export interface Charge {
  /** Ah. */
  day: Worked
  states: readonly (Spent & { state: State })[]
  /** The greatest first. */
  parts: readonly Spent[]
}

// What is known of a current is carried on as it is: it comes in once in each sum here, and is searched no second time.

const quiescentOf = ({ part }: Converter) =>
  fromPart('I_q', `quiescent current of ${part.name}`, part, 'quiescent', part.quiescent, 'A')

/** A current from behind a converter as what stands before it sees it: the same through a linear one. */
const before = (power: PowerResult, converter: Converter, current: Worked, name: string): Worked => {
  if (converter.part.topology === 'linear') return current
  const { rails } = power.loads
  const [input, output] = [rails[converter.from]!, rails[converter.to]!]
  return sum(
    {
      label: `${name}, at the input of ${converter.part.name}`,
      symbol: 'I_in',
      unit: 'A',
      note: 'Its share of what the regulator takes: a switching one takes another current than it gives.',
    },
    {
      I: current,
      I_taken: input.average,
      I_beside: input.own.average,
      I_q: quiescentOf(converter),
      I_given: output.average,
    },
    (i) => i.I.times(i.I_taken.minus(i.I_beside).minus(i.I_q)).over(i.I_given),
  )
}

const ofItsOwn = (converter: Converter): Worked =>
  sum(
    { label: `${converter.part.name}, for itself`, symbol: 'I_q', unit: 'A' },
    { I_q: quiescentOf(converter) },
    (i) => i.I_q,
  )

/** Undefined where no source is chosen, or nothing is drawn from it. */
export const chargeOf = (power: PowerResult): Charge | undefined => {
  const { supplies, loads, consumers, states } = power
  const way = wayTo(supplies, supplies.own)
  const head = loads.rails[way.head]!
  if (!way.source || head.average.value.typ <= 0) return undefined
  const I_usual = { ...asVariable(head.average), symbol: 'I_usual', value: exactly(head.average.value.typ) }
  const perDay = (name: string, I: Worked): Worked =>
    sum({ label: `${name}, in a day`, symbol: 'Q', unit: 'Ah' }, { I: asVariable(I) }, (i) => i.I.times(aDay))
  const partOf = (name: string, I: Worked): Worked =>
    sum(
      { label: `${name}, of all that is usually taken`, symbol: 'p', unit: '' },
      { I: asVariable(I), I_usual },
      (i) => i.I.over(i.I_usual),
    )
  const spent = (id: string, name: string, current: Worked, over = current): Spent => ({
    id,
    name,
    current,
    day: perDay(name, over),
    part: partOf(name, over),
  })
  const inState = (state: State) => {
    const current = head.cycle[state.id]!
    const over = sum(
      { label: `${state.name}, over all the time`, symbol: 'I', unit: 'A' },
      { s: asVariable(state.share), I_state: asVariable(current) },
      (i) => i.s.times(i.I_state),
    )
    return { ...spent(state.id, state.name, current, over), state }
  }
  const onTheWay = (rail: string): Converter[] => {
    const last = supplies.converters.find((c) => c.to === rail)
    const guard = supplies.guards.find((g) => g.to === rail)
    if (last) return [last, ...onTheWay(last.from)]
    return guard ? onTheWay(guard.from) : []
  }
  const parts = [
    ...consumers
      .filter((c) => onTheSource(supplies, c.from))
      .map((c) =>
        spent(
          c.id,
          c.name,
          onTheWay(c.from).reduce((I, converter) => before(power, converter, I, c.name), c.average),
        ),
      ),
    ...supplies.converters
      .filter((c) => onTheSource(supplies, c.to))
      .map((c) => spent(`converter ${c.id}`, `${c.part.name} itself`, ofItsOwn(c))),
  ]
  return {
    day: perDay('All of it', head.average),
    states: states.map(inState),
    parts: parts.sort((a, b) => b.current.value.typ - a.current.value.typ),
  }
}
