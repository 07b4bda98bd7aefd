// What is left of every rail’s voltage with what flows, from the sources to the last rails.

import { fromPart, type Worked } from '../findings'
import type { Regulator } from '../parts'
import { fullRange } from '../quantity'
import {
  asVariable,
  dimensionOf,
  greatest,
  least,
  number,
  readCurve,
  sum,
  type SumInput,
  type Term,
} from '../sums'
import { forwardOf } from './forward'
import { insideOf } from './cells'
import { leadResistance } from './lead'
import {
  type Converter,
  convertsUp,
  type Guard,
  type OpenSupply,
  type Plugged,
  type Rail,
  type RailId,
  type Supply,
} from './graph'

const volts = dimensionOf('V')

/** At the end of a source’s lead with so much flowing; behind a diode, with what flows through that. */
export const behindPlug = (
  { part: source, lead, wear }: Pick<Plugged, 'part' | 'lead' | 'wear'>,
  given: SumInput,
  guard?: { diode: Guard['diode']; current: SumInput },
): Worked => {
  const V_source = fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')
  const guarded = guard?.diode.present ? guard : undefined
  const R_lead = lead && asVariable(leadResistance(lead))
  const R_i = insideOf(source, wear)
  const R_most = (R_i?.value.max ?? 0) + (R_lead?.value.max ?? 0)
  // A source that can’t give so much gives nothing at that, and not less.
  const fails = fullRange(source.voltage).min < given.value.max * R_most
  return sum(
    {
      label: guarded
        ? 'Voltage after the polarity diode'
        : lead
          ? 'Voltage at the end of the lead'
          : 'Voltage after the plug',
      symbol: 'V_in',
      unit: 'V',
    },
    {
      V_source,
      ...((R_i ?? R_lead) && { I: given }),
      ...(R_i && { R_i }),
      ...(R_lead && { R_lead }),
      ...(guarded && { V_F: forwardOf(guarded.diode.diode, guarded.current) }),
    },
    (i: Record<string, Term>) => {
      const inside = i.R_i ? i.V_source!.minus(i.I!.times(i.R_i)) : i.V_source!
      const led = i.R_lead ? inside.minus(i.I!.times(i.R_lead)) : inside
      const left = i.V_F ? led.minus(i.V_F) : led
      return i.V_F || fails ? greatest(number(0, volts), left) : left
    },
  )
}

/** What falls across a regulator that has no room left, at this load. */
export const dropoutOf = (part: Regulator, I_out: SumInput): Worked =>
  readCurve(
    { label: 'Drop-out voltage at this load', symbol: 'V_DO', unit: 'V' },
    {
      part,
      field: 'dropout',
      points: part.dropout.map((p) => ({ x: p.current, y: p.voltage })),
    },
    ['I_out', I_out],
  )

/** What a converter makes of its loaded input: what it holds, or what comes in without what it needs itself. */
const converted = (rail: Rail, c: Converter, V_in: Worked, load: Worked, open: Worked): Worked => {
  const V_out = fromPart('V_out', 'output', c.part, 'output', c.part.output, 'V')
  if (convertsUp(c.part)) return open
  const V_DO = dropoutOf(c.part, asVariable(load))
  const meta = { label: `Voltage of the ${rail.name} under load`, symbol: rail.symbol, unit: 'V' as const }
  if (V_in.value.min - V_DO.value.max >= V_out.value.max)
    // Unloaded it may have been taken to have less, with all that its source can give in the diode.
    return open.value.typ === V_out.value.typ ? open : sum(meta, { V_out }, (i) => i.V_out)
  return sum(
    { ...meta, note: 'No more than comes in, less what the regulator needs for itself.' },
    { V_out, V_in, V_DO },
    (i) => greatest(number(0, volts), least(i.V_out, i.V_in.minus(i.V_DO))),
  )
}

/** Behind a diode that no source is straight in front of. */
const behindDiode = (rail: Rail, { diode }: Guard, V_before: Worked, current: SumInput): Worked =>
  diode.present
    ? sum(
        { label: `Voltage of the ${rail.name} behind its diode`, symbol: rail.symbol, unit: 'V' },
        { V_before, V_F: forwardOf(diode.diode, current) },
        (i) => greatest(number(0, volts), i.V_before.minus(i.V_F)),
      )
    : V_before

/** Whether anything hangs on a rail that feeds another. */
const isPassedOn = (supply: Supply, rail: RailId) =>
  [...supply.guards, ...supply.converters].some((l) => l.from === rail)

export type Voltages = Readonly<Record<RailId, Worked | undefined>>

/** What is left of these rails’ voltages with these loads, from the sources on; and those that are known already. */
export const voltagesOf = (
  supply: OpenSupply,
  loads: Readonly<Record<RailId, Worked>>,
  rails: readonly Rail[],
  known: Voltages = {},
): Voltages => {
  const voltage: Record<RailId, Worked | undefined> = { ...known }
  const throughGuard = (rail: Rail, g: Guard, current: SumInput): Worked[] => {
    const plugged = supply.sources.filter((s) => s.to === g.from)
    const before = voltage[g.from]
    if (plugged.length === 0) return before ? [behindDiode(rail, g, before, current)] : []
    // Nothing else hangs in front of the diode: the source gives what flows through it, as the same variable.
    const front = loads[g.from]!
    const given = front === loads[rail.id]! ? current : front
    return plugged.map((s) => behindPlug(s, given, { diode: g.diode, current }))
  }
  const throughConverter = (rail: Rail, c: Converter, current: Worked): Worked[] => {
    const [V_in, open] = [voltage[c.from], supply.open[rail.id]]
    // Until a source is chosen it holds what it is made for.
    return open ? [V_in ? converted(rail, c, V_in, current, open) : open] : []
  }
  for (const rail of rails) {
    const loaded = loads[rail.id]!
    // Where it is one sum with what is beyond it shares that; else it is a variable of its own.
    const current = isPassedOn(supply, rail.id) ? loaded : asVariable(loaded)
    const here = <T extends { to: RailId }>(links: readonly T[]) => links.filter((l) => l.to === rail.id)
    const all = [
      ...here(supply.sources).map((s) => behindPlug(s, current)),
      ...here(supply.guards).flatMap((g) => throughGuard(rail, g, current)),
      ...here(supply.converters).flatMap((c) => throughConverter(rail, c, loaded)),
    ]
    voltage[rail.id] =
      all.length < 2
        ? all[0]
        : sum(
            {
              label: `Voltage of the ${rail.name} under load`,
              symbol: rail.symbol,
              unit: 'V',
              note: 'Each that feeds it for itself, with all of the current.',
            },
            Object.fromEntries(all.map((v, k) => [`V_${k + 1}`, v])),
            (i: Record<string, Term>) => greatest(...Object.values(i)),
          )
  }
  return voltage
}
