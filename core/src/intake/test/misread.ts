// What was misread of a table, and whether it shows: a misreading is silent where no question, fault, mark of doubt or
// word not understood stands at its leg.

import type { Understood } from '..'
import type { ExpectedLeg, TableCase } from './expected'
import { printed } from './cases'

export interface Misreading {
  /** `leg 7 PB3`, `leg 7 PB3: UART1.TX missing`. */
  what: string
  silent: boolean
}
const keyOf = (l: { id: string; legs: number[] }) => `${l.id} ${[...l.legs].sort((a, b) => a - b).join()}`

/** Lines that something is said about, and names of legs and functions that something is said about. */
const saidIn = (understood: Understood) => {
  const text: string[] = [
    ...understood.questions.flatMap((q) => [q.id, q.text, q.why ?? '', ...q.choices.map((c) => c.label)]),
    ...understood.faults.map((f) => `${f.path} ${f.message}`),
    ...understood.legs
      .filter((l) => (l.unsure ?? []).length > 0)
      .flatMap((l) => [l.id, ...l.legs.map((n) => `leg ${n}`)]),
    ...understood.account.open.map((o) => o.text),
  ]
  const lines = new Set([
    ...understood.questions.flatMap((q) => q.places.map((p) => p.line)),
    ...understood.account.open.map((p) => p.line),
    ...understood.legs.filter((l) => (l.unsure ?? []).length > 0).flatMap((l) => l.places.map((p) => p.line)),
  ])
  // A question about the whole table, such as which reading or package is meant, is about every leg.
  const whole = understood.questions.some((q) => ['reading', 'package', 'order', 'select'].includes(q.id))
  return { text: text.join('\n').toUpperCase(), lines, whole }
}

export const misreadings = (one: TableCase, understood: Understood): { all: number; wrong: Misreading[] } => {
  const found = printed(understood).map((l, i) => ({
    ...l,
    lines: understood.legs[i]!.places.map((p) => p.line),
  }))
  const byKey = new Map(found.map((l) => [keyOf(l), l]))
  const said = saidIn(understood)
  const numbered = new Map<number, (typeof found)[number]>()
  for (const l of found) for (const n of l.legs) numbered.set(n, l)
  const wrong: Misreading[] = []
  let all = 0
  const speaks = (leg: ExpectedLeg, word: string) =>
    said.whole ||
    new RegExp(`(?:^|[^A-Z0-9_.])${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?:[^A-Z0-9_]|$)`, 'm').test(
      said.text,
    ) ||
    leg.legs.some((n) => new RegExp(`(?:LEG|LEG:|MISSING:|MISSING: .*\\b) ?${n}\\b`).test(said.text)) ||
    leg.legs.some((n) => numbered.get(n)?.lines.some((l) => said.lines.has(l)))
  for (const leg of one.expected) {
    all += 1 + leg.functions.length
    const mine = byKey.get(keyOf(leg))
    const name = `leg ${leg.legs.join()} ${leg.id}`
    if (mine?.type !== leg.type)
      wrong.push({
        what: `${name}: ${mine ? `is ${mine.type}, not ${leg.type}` : 'missing'}`,
        silent: !speaks(leg, leg.id),
      })
    for (const f of leg.functions)
      if (!mine?.functions.includes(f))
        wrong.push({
          what: `${name}: ${f} missing`,
          silent: !speaks(leg, leg.id) && !speaks(leg, f.split('.')[0]!),
        })
    for (const f of mine?.functions ?? [])
      if (!leg.functions.includes(f))
        wrong.push({
          what: `${name}: ${f} too many`,
          silent: !speaks(leg, leg.id) && !speaks(leg, f.split('.')[0]!),
        })
  }
  const wanted = new Set(one.expected.map(keyOf))
  const ids = new Set(one.expected.map((l) => l.id))
  for (const l of found)
    if (!wanted.has(keyOf(l)) && !ids.has(l.id) && l.id !== 'NC')
      wrong.push({ what: `leg ${l.legs.join()} ${l.id}: is none`, silent: !speaks(l, l.id) })
  return { all, wrong }
}
