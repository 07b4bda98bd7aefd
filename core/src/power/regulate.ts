// One linear regulator at one load: heat, junction, drop-out, and what speaks against it.

import { voltageAt } from '../electrical'
import { fromDecision, fromPart, fromWorked, type Worked } from '../findings'
import type { Regulator } from '../parts'
import { exactly, formatQuantity, fullRange, type Range } from '../quantity'
import { dropoutMargin, junctionTemperature, linearDissipation, loadAtLimit } from './formulas'

export interface Regulation {
  regulator: Regulator
  dissipation: Worked
  junction: Worked
  margin: Worked
  /** Load at which the junction reaches its limit. */
  loadLimit: Worked
}

/** `load`: current from the rail; `input`: voltage at its input; `ambient` in °C. */
export const regulate = (regulator: Regulator, load: Worked, input: Worked, ambient: number): Regulation => {
  const out = fullRange(regulator.output)
  const quiescent = fullRange(regulator.quiescent)
  const theta = regulator.package.thermalResistance ?? { typ: 100, kind: 'typical' as const }
  const thermal = fullRange(theta)
  const drop = voltageAt(regulator.dropout, load.value.max)
  const limit = fullRange(regulator.junctionMax).max
  const outInput = fromPart('V_out', 'output', regulator, 'output', regulator.output, 'V')
  const quiescentInput = fromPart(
    'I_q',
    'quiescent current',
    regulator,
    'quiescent',
    regulator.quiescent,
    'A',
  )
  const thetaInput = fromPart(
    'θ_JA',
    'junction to ambient',
    regulator,
    'package.thermalResistance',
    theta,
    'K/W',
  )
  const ambientInput = fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page')
  const heat = (v: number, o: number, i: number, q: number) => Math.max(0, linearDissipation(v, o, i, q))
  const dissipation: Worked = {
    label: `Heat in ${regulator.name}`,
    symbol: 'P',
    value: {
      min: heat(input.value.min, out.max, load.value.min, quiescent.min),
      typ: heat(input.value.typ, out.typ, load.value.typ, quiescent.typ),
      max: heat(input.value.max, out.min, load.value.max, quiescent.max),
    },
    unit: 'W',
    formula: '(V_in − V_out) · I_out + V_in · I_q',
    inputs: [fromWorked(input), outInput, { ...fromWorked(load), symbol: 'I_out' }, quiescentInput],
    note: 'Worst at the highest input, the greatest load and the lowest output.',
  }
  const t = (p: number, r: number) => junctionTemperature(ambient, p, r)
  const junction: Worked = {
    label: `Junction of ${regulator.name}`,
    symbol: 'T_J',
    value: {
      min: t(dissipation.value.min, thermal.min),
      typ: t(dissipation.value.typ, thermal.typ),
      max: t(dissipation.value.max, thermal.max),
    },
    unit: '°C',
    formula: 'T_A + P · θ_JA',
    inputs: [ambientInput, fromWorked(dissipation), thetaInput],
    note: `Its limit is ${formatQuantity(limit, '°C')}. Without a heat sink, in still air.`,
  }
  const margin: Range = {
    min: dropoutMargin(input.value.min, out.max, drop.max),
    typ: dropoutMargin(input.value.typ, out.typ, drop.typ),
    max: dropoutMargin(input.value.max, out.min, drop.min),
  }
  return {
    regulator,
    dissipation,
    junction,
    margin: {
      label: 'Drop-out margin',
      symbol: 'V_margin',
      value: margin,
      unit: 'V',
      formula: 'V_in − V_out − V_DO',
      inputs: [
        fromWorked(input),
        outInput,
        fromPart(
          'V_DO',
          'drop-out voltage at this load',
          regulator,
          'dropout',
          { ...drop, kind: 'guaranteed', source: regulator.dropout[0]!.source },
          'V',
        ),
      ],
      note: 'Least at the lowest input, the highest output and the greatest load.',
    },
    loadLimit: {
      label: 'Load at which the junction reaches its limit',
      symbol: 'I_hot',
      value: exactly(loadAtLimit(input.value.max, out.min, quiescent.max, ambient, limit, thermal.max)),
      unit: 'A',
      formula: '((T_J,max − T_A) / θ_JA − V_in · I_q) / (V_in − V_out)',
      inputs: [
        fromPart(
          'T_J,max',
          'highest junction temperature',
          regulator,
          'junctionMax',
          regulator.junctionMax,
          '°C',
        ),
        ambientInput,
        thetaInput,
        fromWorked(input),
        quiescentInput,
        outInput,
      ],
    },
  }
}

export interface Objection {
  text: string
  worked?: Worked
}

/** Everything that speaks against a regulator here; empty when it fits. */
export const objections = (
  { regulator, junction, margin }: Regulation,
  load: Worked,
  input: Worked,
): Objection[] => {
  const no: Objection[] = []
  const absolute = fullRange(regulator.inputAbsolute).max
  const current = fullRange(regulator.current).max
  const limit = fullRange(regulator.junctionMax).max
  if (input.value.max > absolute)
    no.push({
      text: `its input may be at most ${formatQuantity(absolute, 'V')}, and gets up to ${formatQuantity(input.value.max, 'V', 3)}`,
      worked: input,
    })
  if (load.value.max > current)
    no.push({
      text: `it gives ${formatQuantity(current, 'A')}, and ${formatQuantity(load.value.max, 'A', 3)} is asked`,
      worked: load,
    })
  if (margin.value.min < 0)
    no.push({
      text: `it lacks ${formatQuantity(-margin.value.min, 'V', 2)} at the lowest input: the output sags`,
      worked: margin,
    })
  if (junction.value.max > limit)
    no.push({
      text: `its junction reaches ${formatQuantity(junction.value.max, '°C', 3)}, above ${formatQuantity(limit, '°C')}`,
      worked: junction,
    })
  return no
}
