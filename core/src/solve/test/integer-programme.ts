// The same problem written as an integer programme in CPLEX-LP text, for the general solver that serves as oracle.
// One binary per candidate and per option; a binary per (group, unit) and per (unit, frequency) carries the unit rules.

import { lpText } from '../../../test/lp'
import type { PlanProblem } from '../problem'

export const integerProgramme = ({ signals, choices, budgets }: PlanProblem): string => {
  const objective: string[] = []
  const rows: string[] = []
  const binaries = new Set<string>()
  const perPin = new Map<number, string[]>()
  const perChannel = new Map<number, string[]>()
  const unitsOfGroup = new Map<string, Set<number>>()
  const frequenciesOfUnit = new Map<number, Set<number>>()
  const into = <K>(map: Map<K, string[]>, key: K, name: string) => {
    const list = map.get(key)
    if (list) list.push(name)
    else map.set(key, [name])
  }
  const binary = (name: string) => {
    binaries.add(name)
    return name
  }
  for (const { options } of choices ?? []) {
    for (const o of options) if (o.cost) objective.push(`${o.cost} ${binary(`o${o.id}`)}`)
    rows.push(
      options.length > 0
        ? `${options.map((o) => binary(`o${o.id}`)).join(' + ')} = 1`
        : `${binary('never')} = 2`,
    )
  }
  signals.forEach((signal, s) => {
    const names: string[] = []
    /** One row for all of the signal's candidates that need the same switch: tighter than a row for each. */
    const behind = new Map<string, string[]>()
    signal.candidates.forEach((c, i) => {
      const name = binary(`x${s}_${i}`)
      names.push(name)
      if (c.cost) objective.push(`${c.cost} ${name}`)
      if (c.option !== undefined) into(behind, `o${c.option}`, name)
      into(perPin, c.pin, name)
      for (const channel of c.channels) into(perChannel, channel, name)
      c.units.forEach((unit, t) => {
        if (signal.group !== undefined) {
          const key = `${signal.group}_${t}`
          unitsOfGroup.set(key, (unitsOfGroup.get(key) ?? new Set()).add(unit))
          into(behind, `g${key}_${unit}`, name)
        }
        if (signal.frequency !== undefined && unit >= 0) {
          frequenciesOfUnit.set(unit, (frequenciesOfUnit.get(unit) ?? new Set()).add(signal.frequency))
          into(behind, `f${unit}_${signal.frequency}`, name)
        }
      })
    })
    for (const [by, members] of behind) rows.push(`${members.join(' + ')} - ${by} <= 0`)
    // A signal without candidates makes an equation that nothing can meet.
    const sum = names.length > 0 ? names.join(' + ') : `0 ${binary('never')}`
    if (signal.when === undefined) rows.push(`${sum} = 1`)
    else {
      for (const o of signal.when) rows.push(`${sum} - o${o} >= 0`)
      rows.push(`${sum} <= 1`, `${sum} ${signal.when.map((o) => `- o${o}`).join(' ')} <= 0`)
    }
  })
  for (const names of [...perPin.values(), ...perChannel.values()])
    if (names.length > 1) rows.push(`${names.join(' + ')} <= 1`)
  const groupsOfUnit = new Map<number, string[]>()
  for (const [key, units] of unitsOfGroup) {
    const names = [...units].map((unit) => {
      const name = binary(`g${key}_${unit}`)
      into(groupsOfUnit, unit, name)
      return name
    })
    rows.push(`${names.join(' + ')} <= 1`)
  }
  for (const names of groupsOfUnit.values()) if (names.length > 1) rows.push(`${names.join(' + ')} <= 1`)
  for (const [unit, frequencies] of frequenciesOfUnit)
    rows.push(`${[...frequencies].map((f) => binary(`f${unit}_${f}`)).join(' + ')} <= 1`)
  for (const { pins, limit } of budgets ?? []) {
    const loads = signals.flatMap((signal, s) =>
      signal.load
        ? signal.candidates.flatMap((c, i) => (pins.includes(c.pin) ? [`${signal.load} x${s}_${i}`] : []))
        : [],
    )
    if (loads.length > 0) rows.push(`${loads.join(' + ')} <= ${limit}`)
  }
  return lpText(objective, rows, binaries)
}
