// One regulator at one load: heat, junction, room above its output, and what speaks against it.

import {
  fromDecision,
  fromPart,
  fromRule,
  partOrigin,
  type Worked,
  type WorkedInput,
  say,
  type Sentence,
} from '../findings'
import type { Regulator, Source } from '../parts'
import { celsiusWords, exactly, formatQuantity, fullRange, type Unit } from '../quantity'
import { asVariable, dimensionOf, greatest, least as lesser, number, sum } from '../sums'
import { convertsUp, dropoutOf, efficiencyOf, takenBy } from '../supply'

const one = number(1)

export interface Regulation {
  regulator: Regulator
  dissipation: Worked
  junction: Worked
  margin: Worked
  /** Below this input its output isn’t held, at this load. */
  least: Worked
  input: Worked
  /** Into a switching one, for this load. */
  taken?: Worked
  /** Load at which the junction reaches its limit; absent where nothing is dropped. */
  loadLimit?: Worked
}

/** `load`: current from the rail; `input`: voltage at its input; `ambient` in °C. */
export const regulate = (regulator: Regulator, load: Worked, input: Worked, ambient: number): Regulation => {
  const theta = regulator.package.thermalResistance ?? { typ: 100, kind: 'typical' as const }
  const limit = fullRange(regulator.junctionMax).max
  const V_out = fromPart('V_out', 'output', regulator, 'output', regulator.output, 'V')
  const I_q = fromPart('I_q', 'quiescent current', regulator, 'quiescent', regulator.quiescent, 'A')
  const θ_JA = fromPart('θ_JA', 'junction to ambient', regulator, 'package.thermalResistance', theta, 'K/W')
  const T_A = fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page')
  const I_out = asVariable(load)
  const switching = regulator.topology === 'switching'
  const heat = { label: `Heat in ${regulator.name}`, symbol: 'P', unit: 'W', counts: 'max' } as const
  const V_DO = dropoutOf(regulator, I_out)
  const V_start = fromRule(
    'V_start',
    `lowest input that ${regulator.name} is made for`,
    fullRange(regulator.inputRecommended).min,
    'V',
    regulator.inputRecommended.source ?? regulator.sheet,
  )
  const needs = { label: `Least input of ${regulator.name}`, symbol: 'V_least', unit: 'V' } as const
  const least = convertsUp(regulator)
    ? sum(needs, { V_start }, (i) => i.V_start)
    : switching
      ? sum(needs, { V_out, V_DO, V_start }, (i) => greatest(i.V_start, i.V_out.plus(i.V_DO)))
      : sum(needs, { V_out, V_DO }, (i) => i.V_out.plus(i.V_DO))
  // Without room over its output a linear one gives what comes in, less what falls across it all the same.
  const hasRoom = input.value.min - V_out.value.max >= V_DO.value.max
  const dissipation = switching
    ? sum(
        { ...heat, note: 'What goes in and does not come out.' },
        { V_out, I_out, η: efficiencyOf(regulator, I_out), V_in: input, I_q },
        (i) => i.V_out.times(i.I_out).times(one.over(i.η).minus(one)).plus(i.V_in.times(i.I_q)),
      )
    : hasRoom
      ? sum(heat, { V_in: input, V_out, I_out, I_q }, (i) =>
          i.V_in.minus(i.V_out).times(i.I_out).plus(i.V_in.times(i.I_q)),
        )
      : sum(heat, { V_in: input, V_out, V_DO, I_out, I_q }, (i) =>
          greatest(i.V_in.minus(i.V_out), lesser(i.V_DO, i.V_in)).times(i.I_out).plus(i.V_in.times(i.I_q)),
        )
  const junction = sum(
    {
      label: `Junction of ${regulator.name}`,
      symbol: 'T_J',
      unit: '°C',
      counts: 'max',
      note: `Its limit is ${formatQuantity(limit, '°C')}. Without a heat sink, in still air.`,
    },
    // Nothing else in it is shared with the heat: it is searched once.
    { T_A, P: asVariable(dissipation), θ_JA },
    (i) => i.T_A.plus(i.P.times(i.θ_JA)),
  )
  const room = { symbol: 'V_margin', unit: 'V', counts: 'min' } as const
  const margin = switching
    ? sum({ ...room, label: 'Room above the least input' }, { V_in: input, V_least: least }, (i) =>
        i.V_in.minus(i.V_least),
      )
    : sum({ ...room, label: 'Drop-out margin' }, { V_in: input, V_out, V_DO }, (i) =>
        i.V_in.minus(i.V_out).minus(i.V_DO),
      )
  return {
    regulator,
    dissipation,
    junction,
    margin,
    least,
    input,
    // One that gets nothing takes nothing that could be said.
    ...(switching && input.value.min > 0 && { taken: takenBy({ part: regulator, to: 'in' }, I_out, input) }),
    loadLimit: switching ? undefined : loadLimitOf(regulator, input, θ_JA, T_A),
  }
}

/** The load at which the junction reaches its limit, where everything else is at its worst; none without a drop. */
const loadLimitOf = (
  regulator: Regulator,
  input: Worked,
  θ_JA: WorkedInput,
  T_A: WorkedInput,
): Worked | undefined => {
  const worst = (
    symbol: string,
    label: string,
    value: number,
    unit: Unit,
    of: WorkedInput['origin'],
  ): WorkedInput => ({
    symbol,
    label,
    value: exactly(value),
    unit,
    origin: of,
  })
  const out = fullRange(regulator.output)
  if (input.value.max <= out.min) return undefined
  return sum(
    {
      label: 'Load at which the junction reaches its limit',
      symbol: 'I_hot',
      unit: 'A',
      note: 'With the highest input, the lowest output and the worst way for the heat.',
    },
    {
      'T_J,max': worst(
        'T_J,max',
        'highest junction temperature',
        fullRange(regulator.junctionMax).max,
        '°C',
        partOrigin(regulator, 'junctionMax', regulator.junctionMax),
      ),
      T_A,
      θ_JA: { ...θ_JA, value: exactly(θ_JA.value.max) },
      V_in: worst('V_in', 'highest input', input.value.max, 'V', {
        kind: 'rule',
        source: `the highest of “${input.label}”`,
      }),
      I_q: worst(
        'I_q',
        'quiescent current',
        fullRange(regulator.quiescent).max,
        'A',
        partOrigin(regulator, 'quiescent', regulator.quiescent),
      ),
      V_out: worst('V_out', 'lowest output', out.min, 'V', partOrigin(regulator, 'output', regulator.output)),
    },
    (i) =>
      greatest(
        number(0, dimensionOf('A')),
        i['T_J,max'].minus(i.T_A).over(i.θ_JA).minus(i.V_in.times(i.I_q)).over(i.V_in.minus(i.V_out)),
      ),
  )
}

export interface Objection {
  text: string
  says: Sentence
  worked?: Worked
}

/** From so much of what cells give on, a regulator’s own current is told. */
const much = 0.25

/** The share of what the cells give that the regulator takes for itself, where it is much of it; a source that doesn’t run down has enough. */
export const eatenBy = (
  { source, head }: { source?: Source; head: { average: Worked } },
  { part: regulator }: { part: Regulator },
): Worked | undefined => {
  if (!source?.capacity) return undefined
  const { average } = head
  if (fullRange(regulator.quiescent).typ < much * average.value.typ) return undefined
  return sum(
    { label: `${regulator.name} itself, of all that is usually taken`, symbol: 'p', unit: '' },
    {
      I_q: fromPart('I_q', 'quiescent current', regulator, 'quiescent', regulator.quiescent, 'A'),
      I_usual: { ...asVariable(average), symbol: 'I_usual', value: exactly(average.value.typ) },
    },
    (i) => i.I_q.over(i.I_usual),
  )
}

/** Everything that speaks against a regulator at this load; empty when it fits. */
export const objections = (
  { regulator, junction, margin, input, least, taken }: Regulation,
  load: Worked,
): Objection[] => {
  const no: Objection[] = []
  const absolute = fullRange(regulator.inputAbsolute).max
  const recommended = fullRange(regulator.inputRecommended).max
  const swallows = regulator.inputCurrent && fullRange(regulator.inputCurrent).max
  const current = fullRange(regulator.current).max
  const limit = fullRange(regulator.junctionMax).max
  if (input.value.max > absolute)
    no.push({
      ...say`its input may be at most ${formatQuantity(absolute, 'V')}, and gets up to ${formatQuantity(input.value.max, 'V', 3)}`,
      worked: input,
    })
  else if (input.value.max > recommended)
    no.push({
      ...say`it is made for up to ${formatQuantity(recommended, 'V')}, and gets up to ${formatQuantity(input.value.max, 'V', 3)}`,
      worked: input,
    })
  if (load.value.max > current)
    no.push({
      ...say`it gives ${formatQuantity(current, 'A')}, and ${formatQuantity(load.value.max, 'A', 3)} is asked`,
      worked: load,
    })
  if (swallows !== undefined && taken && taken.value.max > swallows)
    no.push({
      ...say`it takes up to ${formatQuantity(taken.value.max, 'A', 3)} at its input, and is made for ${formatQuantity(swallows, 'A')}`,
      worked: taken,
    })
  if (margin.value.min < 0)
    no.push({
      ...(regulator.topology === 'linear'
        ? say`it lacks ${formatQuantity(-margin.value.min, 'V', 2)} at the lowest input: the output sags`
        : say`it needs ${formatQuantity(least.value.max, 'V', 3)} at its input, and gets as little as ${formatQuantity(input.value.min, 'V', 3)}`),
      worked: margin,
    })
  if (junction.value.max > limit)
    no.push({
      ...say`its junction reaches ${celsiusWords(junction.value.max)}, above ${formatQuantity(limit, '°C')}`,
      worked: junction,
    })
  return no
}
