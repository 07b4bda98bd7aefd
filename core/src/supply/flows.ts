// How much flows out of every rail, from the last ones to the sources.

import { fromPart, type Worked, type WorkedInput } from '../findings'
import type { Regulator } from '../parts'
import { capital, exactly, fullRange, type Range } from '../quantity'
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

const assumedEfficiency = 0.8
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
        value: exactly(assumedEfficiency),
        unit: '',
        origin: { kind: 'rule', source: 'assumed: its sheet says nothing of it' },
      }

/** What a switching converter takes for its load, at its input’s voltage. */
export const takenBy = (
  { part, to }: Pick<Converter, 'part' | 'to'>,
  I_out: SumInput,
  V_in: SumInput,
): Worked =>
  sum(
    {
      label: `Current into ${part.name}, for its load`,
      symbol: `I_${to}`,
      unit: 'A',
      note: 'A switching regulator takes power: the less voltage it gets, the more current.',
    },
    {
      V_out: fromPart('V_out', 'output', part, 'output', part.output, 'V'),
      I_out,
      V_in,
      η: efficiencyOf(part, I_out),
    },
    (i) => i.V_out.times(i.I_out).over(i.η.times(i.V_in)),
  )

/** One of several on a rail, with its own symbols. */
const ofConverter = (c: Converter, I_out: SumInput, only: boolean, V_in: WorkedInput | undefined) => {
  const q = only ? 'I_q' : `I_q,${c.to}`
  const { part } = c
  return {
    [`I_${c.to}`]:
      part.topology === 'switching' && V_in
        ? takenBy(c, 'inputs' in I_out ? asVariable(I_out) : I_out, V_in)
        : I_out,
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

/** What hangs on a rail: by itself, and behind converters and diodes. */
const hanging = (supply: OpenSupply, rail: Rail) => ({
  beyond: supply.guards.filter((g) => g.from === rail.id),
  converters: supply.converters.filter((c) => c.from === rail.id),
})

/** Of all that a rail feeds, as one sum. */
const addUp = (
  supply: OpenSupply,
  rail: Rail,
  own: Drawn,
  inputs: Inputs,
  meta: { label: string; symbol: string },
  mine: SumInput,
  of: (to: RailId) => SumInput,
): Worked => {
  const { beyond, converters } = hanging(supply, rail)
  const all: Record<string, SumInput> = {}
  for (const c of converters)
    Object.assign(
      all,
      ofConverter(c, of(c.to), converters.length === 1, inputOf(supply, c, inputs.get(c.id))),
    )
  for (const g of beyond) all[`I_${g.to}`] = of(g.to)
  if (!isNothing(own.work)) all.I_beside = mine
  const linear = converters.some((c) => c.part.topology === 'linear')
  return sum({ ...meta, unit: 'A', note: linear ? linearNote : undefined }, all, (i) =>
    total(Object.values(i), amperes),
  )
}

const ownOn = (rail: Rail, draws: Draws, periods: readonly Period[]): Drawn =>
  draws[rail.id] ?? nothing(rail, periods)
export type Draws = Readonly<Record<RailId, Drawn>>

/** Behind a diode nothing is added: what flows there flows here. */
const passesOn = (supply: OpenSupply, rail: Rail, own: Drawn): RailId | undefined => {
  const { beyond, converters } = hanging(supply, rail)
  return converters.length === 0 && beyond.length === 1 && isNothing(own.work) ? beyond[0]!.to : undefined
}

/** What flows out of each rail, from everything at rest to everything at work; the last ones first. */
export const loadedOf = (
  supply: OpenSupply,
  draws: Draws,
  inputs: Inputs,
  periods: readonly Period[],
): Readonly<Record<RailId, Worked>> => {
  const loaded: Record<RailId, Worked> = {}
  for (const rail of [...fromTheSource(supply)].reverse()) {
    const own = ownOn(rail, draws, periods)
    const { beyond, converters } = hanging(supply, rail)
    const ownLoaded = between(
      rail.id === supply.own
        ? 'Rail current, from rest to full work'
        : `${capital(rail.name)}, own loads, from rest to full work`,
      rail.id === supply.own ? 'I_rail' : 'I_own',
      own.rest,
      own.work,
    )
    const passed = passesOn(supply, rail, own)
    loaded[rail.id] = passed
      ? loaded[passed]!
      : converters.length + beyond.length === 0
        ? ownLoaded
        : // A variable each from here on: what is lost on the way goes with the load that it belongs to.
          addUp(
            supply,
            rail,
            own,
            inputs,
            { label: 'Current through the plug, from rest to full work', symbol: 'I' },
            asVariable(ownLoaded),
            (to) => asVariable(loaded[to]!),
          )
  }
  return loaded
}

/** Of `efficiency` at a current, between two points a straight line, beyond the ends the end. */
const usuallyPassedOn = ({ efficiency }: Regulator, amperes: number): number => {
  if (!efficiency?.length) return assumedEfficiency
  const above = efficiency.findIndex((p) => p.current >= amperes)
  if (above < 1) return efficiency.at(above)!.share
  const [p, q] = [efficiency[above - 1]!, efficiency[above]!]
  return p.share + ((q.share - p.share) * (amperes - p.current)) / (q.current - p.current)
}

/**
 * The usual input of switching converters while less flows than at full work: what is lost in front of them is taken to grow
 * evenly with the current. Their least and greatest stay.
 */
const usualInputs = (
  supply: OpenSupply,
  rail: Rail,
  inputs: Inputs,
  /** All that flows out of the rail at full work, A. */
  full: number,
  /** By itself, and to a rail beyond, then, A. */
  own: number,
  to: (rail: RailId) => number,
): Inputs => {
  const { beyond, converters } = hanging(supply, rail)
  const switching = converters.filter((c) => inputs.has(c.id) && supply.open[c.from])
  if (switching.length === 0 || !(full > 0)) return inputs
  const inputAt = (c: Converter, current: number) => {
    const open = supply.open[c.from]!.value.typ
    return open - (open - inputs.get(c.id)!.typ) * Math.min(1, current / full)
  }
  const passed = [...beyond, ...converters.filter((c) => !switching.includes(c))].reduce(
    (sum, link) => sum + to(link.to),
    own + converters.reduce((sum, { part }) => sum + fullRange(part.quiescent).typ, 0),
  )
  const given = (current: number) =>
    switching.reduce(
      (sum, c) =>
        sum +
        (fullRange(c.part.output).typ * to(c.to)) / (usuallyPassedOn(c.part, to(c.to)) * inputAt(c, current)),
      passed,
    )
  let current = passed
  // The less is lost the less is taken: it draws near from below.
  for (let round = 0; round < 60; round++) current = given(current)
  return new Map([
    ...inputs,
    ...switching.map((c): [string, Range] => {
      const { min, max } = inputs.get(c.id)!
      return [c.id, { min, typ: Math.max(min, Math.min(max, inputAt(c, current))), max }]
    }),
  ])
}

/** What flows out of each rail, the last ones first. */
export const flowsOf = (
  supply: OpenSupply,
  draws: Draws,
  inputs: Inputs,
  periods: readonly Period[],
  loaded: Readonly<Record<RailId, Worked>>,
) => {
  const loads: Record<RailId, RailLoad> = {}
  for (const rail of [...fromTheSource(supply)].reverse()) {
    const own = ownOn(rail, draws, periods)
    const { beyond, converters } = hanging(supply, rail)
    const passed = passesOn(supply, rail, own)
    if (passed) {
      loads[rail.id] = { ...loads[passed]!, rail, own }
      continue
    }
    if (converters.length + beyond.length === 0) {
      loads[rail.id] = { rail, own, ...own, loaded: loaded[rail.id]! }
      continue
    }
    const inputsAt = (of: (load: RailLoad) => Worked, mine: Worked) =>
      usualInputs(
        supply,
        rail,
        inputs,
        loaded[rail.id]!.value.typ,
        mine.value.typ,
        (to) => of(loads[to]!).value.typ,
      )
    const at = (when: When) =>
      addUp(
        supply,
        rail,
        own,
        inputsAt((load) => load[when], own[when]),
        { label: `Current from the ${rail.name}, ${how[when]}`, symbol: `I_${before[when]}${rail.id}` },
        own[when],
        (to) => loads[to]![when],
      )
    const cycle = Object.fromEntries(
      periods.map(({ id, name: words, symbol }) => [
        id,
        addUp(
          supply,
          rail,
          own,
          inputsAt((load) => load.cycle[id]!, own.cycle[id]!),
          { label: `Current from the ${rail.name}, ${words}`, symbol: `I_${symbol},${rail.id}` },
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
      loaded: loaded[rail.id]!,
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
      origin: {
        kind: 'rule',
        source: 'the lowest is what is left at full work, the usual what is left with this very current',
      },
      variable: `input of ${c.id}`,
    }
  )
}
