// The same problem written as an integer programme in CPLEX-LP text, for the general solver that serves as oracle.
// One binary per candidate; a binary per (group, unit) and per (unit, frequency) carries the unit rules.

import type { PlanProblem } from '../problem'

export interface IntegerProgrammeSolver {
  solve: (text: string, options?: object) => { Status: string; ObjectiveValue: number }
}

export const integerProgramme = ({ signals }: PlanProblem): string => {
  const objective: string[] = []
  const rows: string[] = []
  const binaries = new Set<string>()
  const perPin = new Map<number, string[]>()
  const perChannel = new Map<number, string[]>()
  const unitsOfGroup = new Map<number, Set<number>>()
  const frequenciesOfUnit = new Map<number, Set<number>>()
  const into = <K>(map: Map<K, string[]>, key: K, name: string) =>
    map.set(key, [...(map.get(key) ?? []), name])
  signals.forEach((signal, s) => {
    const names: string[] = []
    signal.candidates.forEach((c, i) => {
      const name = `x${s}_${i}`
      names.push(name)
      binaries.add(name)
      if (c.cost) objective.push(`${c.cost} ${name}`)
      into(perPin, c.pin, name)
      if (c.channel >= 0) into(perChannel, c.channel, name)
      if (signal.group !== undefined) {
        unitsOfGroup.set(signal.group, (unitsOfGroup.get(signal.group) ?? new Set()).add(c.unit))
        rows.push(`${name} - g${signal.group}_${c.unit} <= 0`)
      }
      if (signal.frequency !== undefined && c.unit >= 0) {
        frequenciesOfUnit.set(c.unit, (frequenciesOfUnit.get(c.unit) ?? new Set()).add(signal.frequency))
        rows.push(`${name} - f${c.unit}_${signal.frequency} <= 0`)
      }
    })
    // A signal without candidates makes an equation that nothing can meet.
    rows.push(names.length > 0 ? `${names.join(' + ')} = 1` : 'never = 2')
    if (names.length === 0) binaries.add('never')
  })
  for (const names of [...perPin.values(), ...perChannel.values()])
    if (names.length > 1) rows.push(`${names.join(' + ')} <= 1`)
  const groupsOfUnit = new Map<number, string[]>()
  for (const [group, units] of unitsOfGroup) {
    const names = [...units].map((unit) => `g${group}_${unit}`)
    names.forEach((n, i) => {
      binaries.add(n)
      into(groupsOfUnit, [...units][i]!, n)
    })
    rows.push(`${names.join(' + ')} = 1`)
  }
  for (const names of groupsOfUnit.values()) if (names.length > 1) rows.push(`${names.join(' + ')} <= 1`)
  for (const [unit, frequencies] of frequenciesOfUnit) {
    const names = [...frequencies].map((f) => `f${unit}_${f}`)
    names.forEach((n) => binaries.add(n))
    rows.push(`${names.join(' + ')} <= 1`)
  }
  return [
    'Minimize',
    ` obj: ${objective.length > 0 ? objective.join(' + ') : `0 ${[...binaries][0]}`}`,
    'Subject To',
    ...rows.map((row, i) => ` c${i}: ${row}`),
    'Binary',
    ` ${[...binaries].join('\n ')}`,
    'End',
  ].join('\n')
}
