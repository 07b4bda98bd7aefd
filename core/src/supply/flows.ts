// How much flows out of every rail, from the last ones to the sources.

import { fromPart, type Worked, type WorkedInput } from '../findings'
import type { Regulator } from '../parts'
import { capital, type Range } from '../quantity'
import { overTime, type Period, type StateId } from '../states'
import { asVariable, dimensionOf, number, readCurve, sum, type SumInput, total } from '../sums'
import { type Converter, fromTheSource, type OpenSupply, type Rail, type RailId } from './graph'

/** What hangs on a rail by itself. */
export interface Drawn {
  rest: Worked
  work: Worked
  /** In each state. */
  cycle: Readonly<Record<StateId, Worked>>
  average: Worked
}

type When = Exclude<keyof Drawn, 'cycle'>

/** Of everything on a rail, converters on it among it. */
export interface RailLoad extends Drawn {
  rail: Rail
  own: Drawn
  /** From everything at rest to everything at work. */
  loaded: Worked
  /** With that; undefined where nothing feeds it. */
  voltage?: Worked
}

const amperes = dimensionOf('A')
const how: Record<When, string> = {
  rest: 'everything at rest',
  work: 'everything working at once',
  average: 'on average',
}
const before: Record<When, string> = { rest: 'rest,', work: '', average: 'avg,' }

/** How much of the work is being done: none, all, or anything between. */
const share: WorkedInput = {
  symbol: 's',
  label: 'how much of the work is done at once',
  value: { min: 0, typ: 1, max: 1 },
  unit: '',
  origin: { kind: 'rule', source: 'from everything at rest to everything at work' },
  variable: 'share of the work',
}
const between = (label: string, symbol: string, I_rest: Worked, I_work: Worked): Worked =>
  sum({ label, symbol, unit: 'A' }, { I_rest, I_work, s: share }, (i) =>
    i.I_rest.plus(i.s.times(i.I_work.minus(i.I_rest))),
  )

/** The share of what a switching converter takes that comes out again. Where its sheet is silent, four fifths. */
export const efficiencyOf = (part: Regulator, I_out: SumInput): SumInput =>
  part.efficiency?.length
    ? readCurve(
        { label: `Efficiency of ${part.name}`, symbol: 'η', unit: '' },
        {
          part,
          field: 'efficiency',
          points: part.efficiency.map((p) => ({
            x: p.current,
            y: { typ: p.share, kind: 'typical' as const },
          })),
          held: true,
        },
        ['I_out', I_out],
      )
    : {
        symbol: 'η',
        label: `efficiency of ${part.name}`,
        value: { min: 0.8, typ: 0.8, max: 0.8 },
        unit: '',
        origin: { kind: 'rule', source: 'assumed: its sheet says nothing of it' },
      }

/** What a switching converter takes for its load, at its input’s voltage. */
const taken = (c: Converter, I_out: SumInput, V_in: WorkedInput): Worked =>
  sum(
    {
      label: `Current into ${c.part.name}, for its load`,
      symbol: `I_${c.to}`,
      unit: 'A',
      note: 'A switching regulator takes power: the less voltage it gets, the more current.',
    },
    {
      V_out: fromPart('V_out', 'output', c.part, 'output', c.part.output, 'V'),
      I_out,
      V_in,
      η: efficiencyOf(c.part, I_out),
    },
    (i) => i.V_out.times(i.I_out).over(i.η.times(i.V_in)),
  )

/** One of several on a rail, with its own symbols. */
const ofConverter = (c: Converter, I_out: SumInput, only: boolean, V_in: WorkedInput | undefined) => {
  const q = only ? 'I_q' : `I_q,${c.to}`
  const { part } = c
  return {
    [`I_${c.to}`]: part.topology === 'switching' && V_in ? taken(c, I_out, V_in) : I_out,
    [q]: fromPart(
      q,
      only ? 'quiescent current of the regulator' : `quiescent current of ${part.name}`,
      part,
      'quiescent',
      part.quiescent,
      'A',
    ),
  } as Record<string, SumInput>
}

const linearNote = 'A linear regulator passes the load’s current on, volt or no volt.'
const isNothing = ({ value: { min, max } }: Worked) => min === 0 && max === 0

/** The voltage at the input of each switching converter, by its id. */
export type Inputs = ReadonlyMap<string, Range>

/** What flows out of each rail, the last ones first. */
export const flowsOf = (
  supply: OpenSupply,
  draws: Readonly<Record<RailId, Drawn>>,
  inputs: Inputs,
  periods: readonly Period[],
) => {
  const loads: Record<RailId, RailLoad> = {}
  for (const rail of [...fromTheSource(supply)].reverse()) {
    const beyond = supply.guards.filter((g) => g.from === rail.id)
    const converters = supply.converters.filter((c) => c.from === rail.id)
    const own = draws[rail.id] ?? nothing(rail, periods)
    const name = capital(rail.name)
    const ownLoaded = between(
      rail.id === supply.own
        ? 'Rail current, from rest to full work'
        : `${name}, own loads, from rest to full work`,
      rail.id === supply.own ? 'I_rail' : 'I_own',
      own.rest,
      own.work,
    )
    // Behind a diode nothing is added: what flows there flows here.
    if (converters.length === 0 && beyond.length === 1 && isNothing(own.work)) {
      loads[rail.id] = { ...loads[beyond[0]!.to]!, rail, own }
      continue
    }
    if (converters.length + beyond.length === 0) {
      loads[rail.id] = { rail, own, ...own, loaded: ownLoaded }
      continue
    }
    const together = (
      label: string,
      symbol: string,
      mine: SumInput,
      of: (to: RailId) => SumInput,
    ): Worked => {
      const all: Record<string, SumInput> = {}
      for (const c of converters)
        Object.assign(
          all,
          ofConverter(c, of(c.to), converters.length === 1, inputOf(supply, c, inputs.get(c.id))),
        )
      for (const g of beyond) all[`I_${g.to}`] = of(g.to)
      if (!isNothing(own.work)) all.I_beside = mine
      const linear = converters.some((c) => c.part.topology === 'linear')
      return sum({ label, symbol, unit: 'A', note: linear ? linearNote : undefined }, all, (i) =>
        total(Object.values(i), amperes),
      )
    }
    const at = (when: When) =>
      together(
        `Current from the ${rail.name}, ${how[when]}`,
        `I_${before[when]}${rail.id}`,
        own[when],
        (to) => loads[to]![when],
      )
    const cycle = Object.fromEntries(
      periods.map(({ id, name: words, symbol }) => [
        id,
        together(
          `Current from the ${rail.name}, ${words}`,
          `I_${symbol},${rail.id}`,
          own.cycle[id]!,
          (to) => loads[to]!.cycle[id]!,
        ),
      ]),
    )
    loads[rail.id] = {
      rail,
      own,
      rest: at('rest'),
      work: at('work'),
      cycle,
      // Of several states what each takes by itself: a switching converter takes its current at each one's load.
      average:
        periods.length > 1
          ? overTime(
              { label: `Current from the ${rail.name}, on average`, symbol: `I_avg,${rail.id}` },
              periods,
              ({ id }) => cycle[id]!,
            )
          : at('average'),
      // A variable each from here on: what is lost on the way goes with the load that it belongs to.
      loaded: together('Current through the plug, from rest to full work', 'I', asVariable(ownLoaded), (to) =>
        asVariable(loads[to]!.loaded),
      ),
    }
  }
  return loads
}
const nothing = ({ name }: Rail, periods: readonly Period[]): Drawn => {
  const none = sum({ label: `Nothing on the ${name}`, symbol: 'I', unit: 'A' }, {}, () => number(0, amperes))
  return {
    rest: none,
    work: none,
    cycle: Object.fromEntries(periods.map((p) => [p.id, none])),
    average: none,
  }
}

/** The voltage that a switching converter takes its current at. */
const inputOf = (supply: OpenSupply, c: Converter, range: Range | undefined): WorkedInput | undefined => {
  const value = range ?? supply.open[c.from]?.value
  return (
    value && {
      symbol: 'V_in',
      label: `at the input of ${c.part.name}, from unloaded to full work`,
      value,
      unit: 'V',
      origin: { kind: 'rule', source: 'the lowest is what is left with this very current' },
      variable: `input of ${c.id}`,
    }
  )
}
