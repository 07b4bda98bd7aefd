// What a state’s current pulls the source down by, and which capacitor across it keeps that within a limit.

import { preferred, type Stock } from '../circuit'
import type { Design } from '../design'
import { fromDecision, fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import { exactly, fullRange, within } from '../quantity'
import {
  asVariable,
  dimensionOf,
  exponential,
  logarithm,
  number,
  sum,
  type SumInput,
  type Term,
  total,
} from '../sums'
import { insideOf, leadResistance, wayTo } from '../supply'
import type { PowerResult } from './resolve'

export interface Burst {
  state: { id: string; name: string }
  /** s */
  lasts: number
  /** Out of the source in that state, A. */
  current: Worked
  /** What that lets fall inside the source and in its lead, V; absent where no sheet states what is in there. */
  falls?: Worked
  /** The capacitor that keeps the fall within what is allowed, F; absent where none is needed. */
  needed?: Worked
  /** Of the drawer, and how many beside one another; what still falls with them, V. */
  fitted?: { marking: string; count: number; left: Worked }
  /** Into them at the most as the source is put in, A. */
  inrush?: Worked
}

/** More than so many beside one another nobody fits. */
const many = 10

/** At its end that counts, and nowhere else. */
const atMost = (input: WorkedInput, end: 'min' | 'max'): WorkedInput => ({
  ...input,
  value: exactly(input.value[end]),
})

/** `allowed`: V. The states that say how long they last; none where no source is chosen. */
export const burstsOf = (
  { design, power }: { design: Pick<Design, 'needs'>; power: PowerResult },
  { electrolytics }: Stock,
  allowed: number,
): Burst[] => {
  const { supplies, loads, source } = power
  const way = wayTo(supplies, supplies.own)
  if (!source || !way.source) return []
  const head = loads.rails[way.head]!
  const { lead, wear } = way.source
  const R_i = insideOf(source, wear)
  const inside: Record<string, SumInput> = {
    ...(R_i && { R_i }),
    ...(lead && { R_lead: asVariable(leadResistance(lead)) }),
  }
  const R =
    Object.keys(inside).length > 0
      ? sum({ label: 'Source and lead', symbol: 'R', unit: 'Ω' }, inside, (i: Record<string, Term>) =>
          total(Object.values(i), dimensionOf('Ω')),
        )
      : undefined
  const dV = fromDecision('ΔV', 'what it may fall', allowed, 'V', 'set on the Power page')
  return (design.needs.states ?? []).flatMap(({ id, name, lasts }): Burst[] => {
    const current = head.cycle[id]
    if (lasts === undefined || !current) return []
    const t = fromDecision('t', `how long it is ${name}`, lasts, 's', 'set on the Power page')
    const falls =
      R &&
      sum(
        { label: `Falls in source and lead, ${name}`, symbol: 'V_R', unit: 'V', counts: 'max' },
        { I: asVariable(current), R: asVariable(R) },
        (i) => i.I.times(i.R),
      )
    const known = { state: { id, name }, lasts, current, ...(falls && { falls }) }
    if (falls && falls.value.max <= allowed) return [known]
    const I = atMost({ ...asVariable(current), symbol: 'I' }, 'max')
    const ends = R && atMost({ ...asVariable(R), symbol: 'R' }, 'max')
    const meta = {
      label: `Capacitor across the source, ${name}`,
      symbol: 'C',
      unit: 'F' as const,
      counts: 'max' as const,
    }
    const needed = ends
      ? sum(
          { ...meta, note: 'Source and capacitor share the current: what falls is I R (1 − e^(−t / R C)).' },
          { t, R: ends, I, ΔV: dV },
          (i) => {
            const all = i.I.times(i.R)
            return i.t.over(i.R.times(logarithm(all.over(all.minus(i.ΔV)))))
          },
        )
      : sum(
          {
            ...meta,
            note: 'As if the source gave nothing meanwhile: its sheet doesn’t state what is inside.',
          },
          { I, t, ΔV: dV },
          (i) => i.I.times(i.t).over(i.ΔV),
        )
    if (!electrolytics || fullRange(source.voltage).max > electrolytics.voltage) return [{ ...known, needed }]
    const asked = needed.value.max / (1 - electrolytics.tolerance)
    const count = Math.ceil(asked / electrolytics.to)
    if (count > many) return [{ ...known, needed }]
    const each = preferred(electrolytics, asked / count, 'up')
    const C: Record<string, SumInput> = {
      n: fromRule('n', 'beside one another', count, '', 'as many as it takes'),
      C_1: {
        symbol: 'C_1',
        label: 'each of them',
        value: within(each.value, electrolytics.tolerance),
        unit: 'F',
        origin: { kind: 'rule', source: 'fitted value and its tolerance' },
        variable: `burst ${id}`,
      },
    }
    const left = sum(
      { label: `Still falls, ${name}`, symbol: 'V_left', unit: 'V', counts: 'max' },
      { I: asVariable(current), t, ...(R && { R: asVariable(R) }), ...C },
      (i: Record<string, Term>) => {
        const all = i.n!.times(i.C_1!)
        return i.R
          ? i.I!.times(i.R).times(number(1).minus(exponential(number(0).minus(i.t!.over(i.R.times(all))))))
          : i.I!.times(i.t!).over(all)
      },
    )
    const { esr } = electrolytics
    return [
      {
        ...known,
        needed,
        fitted: { marking: each.marking, count, left },
        ...(R && {
          inrush: sum(
            {
              label: `Into the capacitor as ${source.name} is put in`,
              symbol: 'I_in',
              unit: 'A',
              counts: 'max',
              note: esr ? undefined : 'Its sheet states no resistance of its own: less flows than this.',
            },
            {
              V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'),
              R: asVariable(R),
              ...(esr && {
                ESR: fromPart('ESR', 'of each of them', electrolytics, 'esr', esr, 'Ω'),
                n: C.n!,
              }),
            },
            (i: Record<string, Term>) => i.V_source!.over(i.ESR ? i.R!.plus(i.ESR.over(i.n!)) : i.R!),
          ),
        }),
      },
    ]
  })
}

/** What a source is let fall where nobody says. */
export const usualFall = 0.1
export const fallLimits = { min: 1e-3, max: 5 }
