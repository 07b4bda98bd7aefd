// The Power stage: one source, one regulator or none, one rail.

import { railVoltage, stockOf, type Supplies, suppliesOf } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design, FedBy } from '../design'
import { fromDecision, fromPart, fromWorked, type Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { type Chip, findPart, type Library, partsOfKind, type Source } from '../parts'
import type { PinsResult } from '../pins'
import { add, exactly, fullRange, type Range } from '../quantity'
import { type Consumer, consumersOf, sumOf } from './consumers'
import { powerLamp, type PowerLamp } from './lamp'
import { inputVoltage, type Path, pathOf } from './path'
import { type Objection, objections, regulate, type Regulation } from './regulate'

export interface RankedRegulator extends Regulation {
  no: Objection[]
  chosen: boolean
}

export interface PowerResult extends Path {
  rail?: Worked
  supplies: Supplies
  /** The second feed and what everything on it draws at once. */
  feed?: { source: Source; current: Worked }
  consumers: Consumer[]
  rest: Worked
  work: Worked
  average: Worked
  /** At the regulator's input, with everything working. */
  input?: Worked
  fromSource: Worked
  regulation?: Regulation
  ranked: RankedRegulator[]
  /** Hours on one set of cells; absent where the source doesn't run down. */
  runtime?: Worked
  lamp?: PowerLamp
  hottest?: Worked
}

/** `beside`: what hangs on the source in front of the regulator. */
const sourceCurrent = (
  label: string,
  symbol: string,
  load: Worked,
  path: Path,
  beside: Worked | undefined,
): Worked => ({
  label,
  symbol,
  value: add(
    load.value,
    path.regulator ? fullRange(path.regulator.quiescent) : exactly(0),
    beside?.value ?? exactly(0),
  ),
  unit: 'A',
  formula: ['I_rail', ...(path.regulator ? ['I_q'] : []), ...(beside ? ['I_beside'] : [])].join(' + '),
  inputs: [
    { ...fromWorked(load), symbol: 'I_rail' },
    ...(beside ? [{ ...fromWorked(beside), symbol: 'I_beside' }] : []),
    ...(path.regulator
      ? [
          fromPart(
            'I_q',
            'quiescent current of the regulator',
            path.regulator,
            'quiescent',
            path.regulator.quiescent,
            'A',
          ),
        ]
      : []),
  ],
  note: path.regulator ? 'A linear regulator passes the load’s current on, volt or no volt.' : undefined,
})

const runtimeOf = (path: Path, average: Worked): Worked | undefined => {
  const capacity = path.source?.capacity
  if (!path.source || !capacity) return undefined
  const charge = fullRange(capacity)
  const hours = (c: number, i: number) => (i > 0 ? (c / i) * 3600 : Infinity)
  const value: Range = {
    min: hours(charge.min, average.value.max),
    typ: hours(charge.typ, average.value.typ),
    max: hours(charge.max, average.value.min),
  }
  return {
    label: 'Runtime on one set of cells',
    symbol: 't',
    value,
    unit: 's',
    formula: 'Q / I_average',
    inputs: [
      fromPart('Q', 'charge of the cells', path.source, 'capacity', capacity, 'Ah'),
      { ...fromWorked(average), symbol: 'I_average' },
    ],
    note: 'Pessimistic: weakest cells at the greatest current. Optimistic: the other way round.',
  }
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
  const path = pathOf(design, library, board !== undefined)
  const rail = railVoltage(design, library)
  const lamp = board ? undefined : powerLamp(design, library, rail, stockOf(library))
  const consumers = consumersOf(design, needs, chip, clock, pins, rail, lamp)
  const fedBy = (from: FedBy) => consumers.filter((c) => c.from === from)
  const onRail = fedBy('rail')
  const rest = sumOf(onRail, 'rest', 'Rail current, everything at rest', 'I_rest')
  const work = sumOf(onRail, 'work', 'Rail current, everything working at once', 'I_work')
  const averageRail = sumOf(onRail, 'average', 'Average rail current', 'I_avg')
  const beside = (which: 'work' | 'average') =>
    fedBy('source').length > 0
      ? sumOf(fedBy('source'), which, 'Loads in front of the regulator', 'I_beside')
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
  const span: Worked = {
    ...fromSource,
    value: { min: rest.value.min, typ: fromSource.value.typ, max: fromSource.value.max },
  }
  const input = inputVoltage(path, span)
  const ambient = design.needs.limits.ambient
  const loaded: Worked = { ...work, value: { min: rest.value.min, typ: work.value.typ, max: work.value.max } }
  const regulation = path.regulator && input && regulate(path.regulator, loaded, input, ambient)
  // A board’s regulator is soldered on: there is nothing to rank.
  const ranked =
    input && !board
      ? partsOfKind(library, 'regulator')
          .filter((r) => r.topology === 'linear')
          .map((regulator) => {
            const one = regulate(regulator, loaded, input, ambient)
            return {
              ...one,
              no: [...outputObjection(one, rail, chip, needs), ...objections(one, loaded, input)],
              chosen: regulator.id === path.regulator?.id,
            }
          })
          .sort((a, b) => a.no.length - b.no.length || a.regulator.price - b.regulator.price)
      : []
  return {
    ...path,
    rail,
    supplies: suppliesOf(design, library),
    feed: feed && {
      source: feed,
      current: sumOf(fedBy('feed'), 'work', `Current from ${feed.name}`, 'I_feed'),
    },
    consumers,
    rest,
    work,
    average,
    input,
    fromSource,
    regulation,
    ranked,
    runtime: runtimeOf(path, average),
    lamp,
    hottest: regulation?.junction ?? hottestWithout(chip, consumers, rail, ambient),
  }
}

/** A regulator whose output chip or devices can't use. */
const outputObjection = (
  { regulator }: Regulation,
  rail: Worked | undefined,
  chip: Chip | undefined,
  needs: NeedsResult,
): Objection[] => {
  const out = fullRange(regulator.output)
  const wants = [
    ...(chip ? [{ name: chip.name, supply: fullRange(chip.supply.recommended) }] : []),
    ...needs.instances.flatMap((i) =>
      i.part.supply && !i.need.fedBy ? [{ name: i.name, supply: fullRange(i.part.supply) }] : [],
    ),
  ]
  const unhappy = wants.filter((w) => out.min < w.supply.min || out.max > w.supply.max)
  if (unhappy.length === 0) return []
  const names = [...new Set(unhappy.map((u) => u.name))]
  return [
    {
      text: `its ${out.typ} V suits neither ${names.slice(0, 3).join(' nor ')}`.replace(
        'neither',
        names.length > 1 ? 'neither' : 'not',
      ),
      worked: rail,
    },
  ]
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
  const thermal = fullRange(theta)
  const t = (k: keyof Range) => ambient + rail.value[k] * own.work.value[k] * thermal[k]
  return {
    label: `Junction of ${chip.name}`,
    symbol: 'T_J',
    value: { min: t('min'), typ: t('typ'), max: t('max') },
    unit: '°C',
    formula: 'T_A + V_DD · I_chip · θ_JA',
    inputs: [
      fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page'),
      fromWorked(rail),
      fromWorked(own.work),
      fromPart('θ_JA', 'junction to ambient', chip, 'package.thermalResistance', theta, 'K/W'),
    ],
  }
}
