// What a change would do, before it is made: wires that move, parts that come and go, findings that clear or appear.

import { applyEdits, type Edit, libraryFor } from '../design'
import type { SupportPart } from '../circuit'
import type { Finding } from '../findings'
import type { Library } from '../parts'
import type { Patience } from '../patience'
import { pinsAcross } from '../pins'
import { type Analysis, analyse } from './analyse'
import { gaugeText } from './gauges'

export interface Preview {
  /** In words, the most telling first; empty when nothing changes. */
  lines: string[]
  cleared: Finding[]
  appearing: Finding[]
  /** The plan after it was not decided in the time given: what is gone may be gone for that alone. */
  undecided?: true
}

/** Wires that lie elsewhere. On another board of the same header a wire at its position has not moved. */
const moves = (before: Analysis, after: Analysis): string[] => {
  const [from, to] = [before.chip.chip, after.chip.chip]
  const across = from && to && from.id !== to.id ? pinsAcross(from, to) : (pin: string) => [pin]
  return Object.entries(after.pins.assignment).flatMap(([signal, pin]) => {
    const old = before.pins.assignment[signal]
    if (!old || across(old).includes(pin)) return []
    const name = after.needs.signals.find((s) => s.id === signal)?.name ?? signal
    return [`${name} moves from ${old} to ${pin}`]
  })
}

export const compareAnalyses = (before: Analysis, after: Analysis): Preview => {
  // A finding that has become worse, or milder, is another one.
  const key = (f: Finding) => `${f.severity} ${f.id}`
  const keys = (a: Analysis) => new Set(a.findings.map(key))
  const [was, is] = [keys(before), keys(after)]
  const lines: string[] = []
  lines.push(...moves(before, after))
  const fitted = (a: Analysis) => new Map(a.build.support.filter((s) => s.present).map((s) => [s.key, s]))
  const [had, has] = [fitted(before), fitted(after)]
  const inFull = ({ name, value }: SupportPart) => `${name}${value ? ` ${value.marking}` : ''}`
  for (const [key, part] of has) {
    const old = had.get(key)
    if (!old) lines.push(`adds the ${inFull(part)}`)
    else if (old.value?.marking !== part.value?.marking)
      lines.push(`${inFull(old)} becomes ${part.value?.marking ?? part.part.name}`)
    else if (old.part.id !== part.part.id)
      lines.push(`${old.name}: ${old.part.name} becomes ${part.part.name}`)
  }
  for (const [key, part] of had) if (!has.has(key)) lines.push(`removes the ${inFull(part)}`)
  for (const gauge of after.gauges) {
    const old = before.gauges.find((g) => g.id === gauge.id)?.worked
    if (!old || !gauge.worked) continue
    const [a, b] = [old.value[gauge.corner], gauge.worked.value[gauge.corner]]
    if (Math.abs(a - b) > 1e-9 * Math.max(Math.abs(a), Math.abs(b)))
      lines.push(`${gauge.label.toLowerCase()}: ${gaugeText(gauge, a)} becomes ${gaugeText(gauge, b)}`)
  }
  return {
    lines,
    cleared: before.findings.filter((f) => !is.has(key(f))),
    appearing: after.findings.filter((f) => !was.has(key(f))),
    ...(after.pins.plan?.status === 'undecided' ? { undecided: true } : {}),
  }
}

export const previewEdits = (
  before: Analysis,
  library: Library,
  edits: Edit[],
  patience?: Patience,
): Preview => {
  const after = applyEdits(before.design, edits)
  return compareAnalyses(before, analyse(after, libraryFor(after, library), patience, before))
}
