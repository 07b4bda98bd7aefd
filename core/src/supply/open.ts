// The voltage of every rail from the parts alone, before anything is known of what is drawn.

import { fromPart, partOrigin, type Worked, type WorkedInput } from '../findings'
import type { Regulator } from '../parts'
import { fullRange } from '../quantity'
import { asVariable, greatest, least, sum, type Term } from '../sums'
import { forwardOf } from './forward'
import {
  type Converter,
  convertsUp,
  fromTheSource,
  type Guard,
  type OpenSupply,
  type Plugged,
  type Rail,
  type Supply,
} from './graph'

type Open = OpenSupply['open']

const labelOf = (supply: Supply, { id, name }: Rail): string =>
  id === supply.own ? 'Rail voltage' : `Voltage of the ${name}`

const straight = (supply: Supply, rail: Rail, { part }: Plugged): Worked =>
  sum(
    {
      label: rail.id === supply.own ? labelOf(supply, rail) : `Voltage of ${part.name}`,
      symbol: rail.symbol,
      unit: 'V',
    },
    {
      V_source: fromPart(
        'V_source',
        rail.id === supply.own ? 'source' : part.name,
        part,
        'voltage',
        part.voltage,
        'V',
      ),
    },
    (i) => i.V_source,
  )

/** Behind a diode, with anything from nothing to all that the sources give. */
const behind = (supply: Supply, rail: Rail, { diode, from }: Guard, open: Open): Worked | undefined => {
  const before = open[from]
  const plugged = supply.sources.filter((s) => s.to === from)
  const one = plugged[0]?.part
  if (!before || !one || !diode.present) return before
  const most = Math.max(...plugged.map((s) => fullRange(s.part.current).max))
  const I: WorkedInput = {
    symbol: 'I',
    label: 'through the plug, anything up to what the source gives',
    value: { min: 0, typ: most / 10, max: most },
    unit: 'A',
    origin: partOrigin(one, 'current', one.current),
    variable: `through ${from}`,
  }
  return sum(
    { label: `Voltage of ${one.name} behind the diode`, symbol: rail.symbol, unit: 'V' },
    { V_plug: before, V_F: forwardOf(diode.diode, I) },
    (i) => i.V_plug.minus(i.V_F),
  )
}

/** What falls across a regulator at the smallest load that its sheet states; at none it may be nothing. */
const leastDropout = (part: Regulator): WorkedInput => {
  const { voltage } = [...part.dropout].sort((a, b) => a.current - b.current)[0]!
  return {
    ...fromPart('V_DO', 'drop-out voltage at a small load', part, 'dropout', voltage, 'V'),
    value: { ...fullRange(voltage), min: 0 },
  }
}

/**
 * What a converter holds; a linear one that its source doesn’t usually leave room for gives what comes in. One that runs out of
 * room only at its source’s lowest is told so (`power.dropout`), and not in every number behind it.
 */
const held = (supply: Supply, rail: Rail, { part, from }: Converter, open: Open): Worked => {
  const meta = { label: labelOf(supply, rail), symbol: rail.symbol, unit: 'V' as const }
  const V_out = fromPart('V_out', 'regulator’s output', part, 'output', part.output, 'V')
  const V_in = open[from]
  if (convertsUp(part)) {
    if (!V_in || V_in.value.max <= V_out.value.min) return sum(meta, { V_out }, (i) => i.V_out)
    const passed = sum(
      {
        label: 'Output of the regulator, or what comes through it',
        symbol: 'V_through',
        unit: 'V',
        note: 'It only adds to what comes in: an input above its output comes straight through.',
      },
      { V_out, V_in },
      (i) => greatest(i.V_out, i.V_in),
    )
    return sum(meta, { V_through: asVariable(passed) }, (i) => i.V_through)
  }
  const V_DO = leastDropout(part)
  if (!V_in || V_in.value.typ - V_DO.value.typ >= V_out.value.typ) return sum(meta, { V_out }, (i) => i.V_out)
  const left = sum(
    {
      label: 'Output of the regulator without room',
      symbol: 'V_left',
      unit: 'V',
      note: 'No more than comes in, less what falls across the regulator at a small load; of less than that a tenth is taken to come through.',
    },
    { V_out, V_in, V_DO },
    (i) => greatest(i.V_in.over(10), least(i.V_out, i.V_in.minus(i.V_DO))),
  )
  // One variable from here on: what hangs on the rail follows the rail, whatever holds it.
  return sum(meta, { V_left: asVariable(left) }, (i) => i.V_left)
}

/** Of several that feed a rail the highest holds it. */
const highest = (supply: Supply, rail: Rail, all: Worked[]): Worked | undefined =>
  all.length < 2
    ? all[0]
    : sum(
        {
          label: labelOf(supply, rail),
          symbol: rail.symbol,
          unit: 'V',
          note: 'The highest of those that feed it holds it.',
        },
        Object.fromEntries(all.map((v, k) => [`V_${k + 1}`, v])),
        (i: Record<string, Term>) => greatest(...(Object.values(i) as [Term, Term])),
      )

/** With the open voltage of each rail; undefined where nothing feeds one. Throws SupplyLoop. */
export const withOpen = (supply: Supply): OpenSupply => {
  const open: Record<string, Worked | undefined> = {}
  for (const rail of fromTheSource(supply)) {
    const all = [
      ...supply.sources.filter((s) => s.to === rail.id).map((s) => straight(supply, rail, s)),
      ...supply.guards.filter((g) => g.to === rail.id).map((g) => behind(supply, rail, g, open)),
      ...supply.converters.filter((c) => c.to === rail.id).map((c) => held(supply, rail, c, open)),
    ].filter((v) => v !== undefined)
    open[rail.id] = highest(supply, rail, all)
  }
  return { ...supply, open }
}
