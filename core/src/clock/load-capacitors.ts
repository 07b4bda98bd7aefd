// The two load capacitors of a crystal at a chip's legs, for the support circuit.

import { fromDecision, fromPart, fromRule, type Worked } from '../findings'
import type { Chip, ClockSource, Crystal } from '../parts'
import { fullRange, type Range } from '../quantity'
import { loadCapacitor, loadOf, loadPull } from './formulas'

export interface LoadCapacitors {
  wanted: Worked
  /** With the preferred value `fitted`: the load the crystal then sees. */
  load: (fitted: number) => Worked
  pull: (fitted: number) => Worked | undefined
}

/** The two load capacitors of a crystal at this chip's legs. */
export const loadCapacitors = (chip: Chip, source: ClockSource, crystal: Crystal): LoadCapacitors => {
  const stray = fullRange(source.strayCapacitance ?? { typ: 5e-12 })
  const strayInput = source.strayCapacitance
    ? fromPart(
        'C_stray',
        'legs and traces',
        chip,
        `clockSources.${source.id}.strayCapacitance`,
        source.strayCapacitance,
        'F',
      )
    : fromRule('C_stray', 'legs and traces', 5e-12, 'F', 'usual for short traces')
  const loadInput = fromPart(
    'C_L',
    'load capacitance the crystal is cut for',
    crystal,
    'loadCapacitance',
    { typ: crystal.loadCapacitance, kind: 'condition' },
    'F',
  )
  const range = (f: (s: number) => number): Range => {
    const [a, b] = [f(stray.min), f(stray.max)]
    return { min: Math.min(a, b), typ: f(stray.typ), max: Math.max(a, b) }
  }
  return {
    wanted: {
      label: 'Each load capacitor',
      symbol: 'C',
      value: range((s) => loadCapacitor(crystal.loadCapacitance, s)),
      unit: 'F',
      formula: '2 · (C_L − C_stray)',
      inputs: [loadInput, strayInput],
      note: 'The two capacitors are in series as the crystal sees them, so each is twice the load.',
    },
    load: (fitted) => ({
      label: 'Load with the fitted value',
      symbol: 'C_load',
      value: range((s) => loadOf(fitted, s)),
      unit: 'F',
      formula: 'C / 2 + C_stray',
      inputs: [
        fromDecision('C', 'fitted, preferred value', fitted, 'F', 'nearest preferred value'),
        strayInput,
      ],
    }),
    pull: (fitted) =>
      crystal.motional !== undefined && crystal.shunt !== undefined
        ? {
            label: 'Frequency pulled by that load',
            symbol: 'Δf/f',
            value: range(
              (s) =>
                1e6 * loadPull(crystal.motional!, crystal.shunt!, crystal.loadCapacitance, loadOf(fitted, s)),
            ),
            unit: 'ppm',
            formula: 'C_1/2 · (1/(C_0 + C_load) − 1/(C_0 + C_L))',
            inputs: [
              fromPart(
                'C_1',
                'motional capacitance',
                crystal,
                'motional',
                { typ: crystal.motional, kind: 'typical' },
                'F',
              ),
              fromPart(
                'C_0',
                'shunt capacitance',
                crystal,
                'shunt',
                { typ: crystal.shunt, kind: 'typical' },
                'F',
              ),
              loadInput,
              strayInput,
            ],
          }
        : undefined,
  }
}
