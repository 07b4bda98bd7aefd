// The Power stage: one source, one regulator or none, one rail.

import { stockOf, type Supplies, suppliesOf } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design, FedBy } from '../design'
import { fromDecision, fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import type { NeedsResult } from '../needs'
import { type Chip, findPart, type Library, type Source } from '../parts'
import type { PinsResult } from '../pins'
import { fullRange } from '../quantity'
import { asVariable, dimensionOf, greatest, least, sum, type SumInput, type Term, total } from '../sums'
import type { Consumer } from './consumer'
import { consumersOf, sumOf } from './consumers'
import { powerLamp, type PowerLamp } from './lamp'
import { inputVoltage, type Path, pathOf } from './path'
import { regulate, type Regulation } from './regulate'

const sideWords = { rest: 'at rest', work: 'at work', average: 'on average' }

export interface PowerResult extends Path {
  rail?: Worked
  /** With all that can flow: straight from its source it sags. */
  railLoaded?: Worked
  supplies: Supplies
  /** The second feed and what everything on it draws at once. */
  feed?: { source: Source; current: Worked }
  consumers: Consumer[]
  rest: Worked
  work: Worked
  average: Worked
  /** From everything at rest to everything at work. */
  loaded: Worked
  /** Through the plug and what guards it, as much. */
  through: Worked
  /** At the regulator's input then; of the rail where there is none. */
  input?: Worked
  fromSource: Worked
  regulation?: Regulation
  /** Hours on one set of cells; absent where the source doesn't run down. */
  runtime?: Worked
  lamp?: PowerLamp
  hottest?: Worked
}

/** `beside`: what hangs on the source in front of the regulator. */
const sourceCurrent = (
  label: string,
  symbol: string,
  I_rail: SumInput,
  { regulator }: Path,
  I_beside: SumInput | undefined,
): Worked =>
  sum(
    {
      label,
      symbol,
      unit: 'A',
      note: regulator ? 'A linear regulator passes the load’s current on, volt or no volt.' : undefined,
    },
    {
      I_rail,
      ...(regulator && {
        I_q: fromPart(
          'I_q',
          'quiescent current of the regulator',
          regulator,
          'quiescent',
          regulator.quiescent,
          'A',
        ),
      }),
      ...(I_beside && { I_beside }),
    } as Record<string, SumInput>,
    (i) => total(Object.values(i), dimensionOf('A')),
  )

/** How much of the work is being done: none, all, or anything between. */
const share: WorkedInput = {
  symbol: 's',
  label: 'how much of the work is done at once',
  value: { min: 0, typ: 1, max: 1 },
  unit: '',
  origin: { kind: 'rule', source: 'from everything at rest to everything at work' },
  variable: 'share of the work',
}
const between = (label: string, symbol: string, I_rest: Worked, I_work: Worked): Worked =>
  sum({ label, symbol, unit: 'A' }, { I_rest, I_work, s: share }, (i) =>
    i.I_rest.plus(i.s.times(i.I_work.minus(i.I_rest))),
  )

/** At what voltage of the cells the project stops: where the regulator runs out of room, or the chip does. */
const stopAt = (
  path: Path,
  regulation: Regulation | undefined,
  input: Worked | undefined,
  chip: Chip | undefined,
  V_clock: Worked | undefined,
): Worked | undefined => {
  const { source, regulator } = path
  if (!source || !input || source.voltage.max === undefined) return undefined
  const V_lost = sum(
    { label: 'Lost in the cells and on the way', symbol: 'V_lost', unit: 'V' },
    { V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'), V_in: input },
    (i) => i.V_source.minus(i.V_in),
  )
  if (regulator && regulation)
    return sum(
      { label: 'Cells below which the rail sags', symbol: 'V_stop', unit: 'V' },
      {
        V_out: fromPart('V_out', 'output', regulator, 'output', regulator.output, 'V'),
        V_DO: regulation.dropout,
        V_lost,
      },
      (i) => i.V_out.plus(i.V_DO).plus(i.V_lost),
    )
  return (
    chip &&
    sum(
      { label: 'Cells below which the chip stops', symbol: 'V_stop', unit: 'V' },
      {
        V_least: fromRule(
          'V_least',
          `lowest supply of ${chip.name}`,
          fullRange(chip.supply.recommended).min,
          'V',
          chip.supply.recommended.source ?? chip.sheet,
        ),
        V_lost,
        ...(V_clock && { V_clock }),
      } as Record<string, SumInput>,
      (i: Record<string, Term>) => (i.V_clock ? greatest(i.V_least!, i.V_clock) : i.V_least!).plus(i.V_lost!),
    )
  )
}

/** Absent where the source doesn’t run down, or nothing runs it down. */
const runtimeOf = (
  path: Path,
  I_average: Worked,
  V_stop: Worked | undefined,
  /** Who counts as at work all the time, since nothing says otherwise. */
  always: string[],
): Worked | undefined => {
  const { source } = path
  if (!source?.capacity || I_average.value.min <= 0) return undefined
  const { min: empty, max: fresh } = fullRange(source.voltage)
  const Q = fromPart('Q', 'charge of the cells', source, 'capacity', source.capacity, 'Ah')
  const meta = {
    label: 'Runtime on one set of cells',
    symbol: 't',
    unit: 's' as const,
    note: `Pessimistic: weakest cells at the greatest current. Optimistic: the other way round.${
      always.length > 0 ? ` At work all the time, since nothing says otherwise: ${always.join(', ')}.` : ''
    }`,
  }
  if (!V_stop || V_stop.value.max <= empty || fresh <= empty)
    return sum(meta, { Q, I_average }, (i) => i.Q.over(i.I_average))
  const usable = sum(
    {
      label: 'Share of the charge until then',
      symbol: 'k',
      unit: '',
      note: 'Cells fall about evenly from fresh to empty.',
    },
    {
      V_fresh: fromRule('V_fresh', 'fresh cells', fresh, 'V', source.sheet),
      V_empty: fromRule('V_empty', 'empty cells', empty, 'V', source.sheet),
      V_stop: asVariable(V_stop),
    },
    (i) => least(1, greatest(0, i.V_fresh.minus(i.V_stop).over(i.V_fresh.minus(i.V_empty)))),
  )
  return sum(meta, { Q, k: usable, I_average }, (i) => i.Q.times(i.k).over(i.I_average))
}

export const resolvePower = (
  design: Design,
  library: Library,
  needs: NeedsResult,
  chip: Chip | undefined,
  clock: ClockResult,
  pins: PinsResult,
): PowerResult => {
  const board = chip?.board
  const path = pathOf(design, library)
  const supplies = suppliesOf(design, library)
  const { rail } = supplies
  const lamp = board ? undefined : powerLamp(design, library, rail, stockOf(library))
  const consumers = consumersOf(design, needs, chip, clock, pins, supplies, lamp)
  const fedBy = (from: FedBy) => consumers.filter((c) => c.from === from)
  const onRail = fedBy('rail')
  const rest = sumOf(onRail, 'rest', 'Rail current, everything at rest', 'I_rest')
  const work = sumOf(onRail, 'work', 'Rail current, everything working at once', 'I_work')
  const averageRail = sumOf(onRail, 'average', 'Average rail current', 'I_avg')
  const beside = (which: 'rest' | 'work' | 'average') =>
    fedBy('source').length > 0
      ? sumOf(fedBy('source'), which, `Loads in front of the regulator, ${sideWords[which]}`, 'I_beside')
      : undefined
  const fromSource = sourceCurrent(
    'Current from the source, everything working at once',
    'I_source',
    work,
    path,
    beside('work'),
  )
  const average = sourceCurrent(
    'Average current from the source',
    'I_avg,source',
    averageRail,
    path,
    beside('average'),
  )
  const feed = findPart(library, 'source', design.power.feed)
  const [besideRest, besideWork] = [beside('rest'), beside('work')]
  const loaded = between('Rail current, from rest to full work', 'I_rail', rest, work)
  const before =
    besideRest &&
    besideWork &&
    between('In front of the regulator, from rest to full work', 'I_beside', besideRest, besideWork)
  // Load and what hangs beside it are a variable each from here on: what falls in the diode goes with the load it belongs to.
  const through = sourceCurrent(
    'Current through the plug, from rest to full work',
    'I',
    asVariable(loaded),
    path,
    before && asVariable(before),
  )
  const input = inputVoltage(path, through)
  const ambient = design.needs.limits.ambient
  const regulation = path.regulator && input && regulate(path.regulator, loaded, input, ambient)
  return {
    ...path,
    rail,
    railLoaded: path.regulator ? rail : input,
    supplies,
    feed: feed && {
      source: feed,
      current: sumOf(fedBy('feed'), 'work', `Current from ${feed.name}`, 'I_feed'),
    },
    consumers,
    rest,
    work,
    average,
    through,
    input,
    fromSource,
    loaded,
    regulation,
    runtime: runtimeOf(
      path,
      average,
      stopAt(path, regulation, input, chip, clock.lowestSupply),
      alwaysAtWork(consumers, design, chip),
    ),
    lamp,
    hottest: regulation?.junction ?? hottestWithout(chip, consumers, rail, ambient),
  }
}

/** Those that could do less than their work, and of which nothing says for how long; the chip with where it can be said. */
const alwaysAtWork = (consumers: Consumer[], design: Design, chip: Chip | undefined): string[] => {
  const sleeps = chip?.modes.some((m) => m.kind === 'sleep') ?? false
  return consumers.flatMap((c) => {
    if (c.id === 'chip')
      return sleeps && design.needs.limits.awake === undefined
        ? [`${c.name} (“Time the chip is awake” on the Needs page)`]
        : []
    const constant = c.average.value.typ >= c.work.value.typ && c.rest.value.typ < c.work.value.typ
    return constant && c.id !== 'board' && c.from !== 'feed' ? [c.name] : []
  })
}

/** Without a regulator the chip itself is the warmest part that can be computed. */
const hottestWithout = (
  chip: Chip | undefined,
  consumers: Consumer[],
  rail: Worked | undefined,
  ambient: number,
): Worked | undefined => {
  const own = consumers.find((c) => c.id === 'chip')
  const theta = chip?.package.thermalResistance
  if (!chip || !own || !rail || !theta) return undefined
  return sum(
    { label: `Junction of ${chip.name}`, symbol: 'T_J', unit: '°C' },
    {
      T_A: fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page'),
      V_DD: rail,
      I_chip: own.work,
      θ_JA: fromPart('θ_JA', 'junction to ambient', chip, 'package.thermalResistance', theta, 'K/W'),
    },
    (i) => i.T_A.plus(i.V_DD.times(i.I_chip).times(i.θ_JA)),
  )
}
