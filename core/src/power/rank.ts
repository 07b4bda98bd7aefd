// Every regulator and every source of the library in the place of the present one, with what speaks against each. Worked out
// when somebody asks. The loads are taken as they are: of a rail at another voltage some of them would draw otherwise.

import { type Design, type Edit, type FurtherId, leadField, leadOwners } from '../design'
import { type Said, say, type Stages, type Worked } from '../findings'
import { givenUnasked, partsOfKind, type Protection, type Source } from '../parts'
import { formatQuantity, fullRange, type Range } from '../quantity'
import {
  againstPlug,
  type CellGuard,
  cellGuards,
  choosing,
  type Converter,
  headOf,
  misfits,
  needless,
  onTheSource,
  ownVoltage,
  railFor,
  type RailId,
  supplyOf,
  unprotected,
  guardAgainst,
  sourcesFor,
  wearOf,
} from '../supply'
import { type CellsUse, cellsUse } from './cells'
import { feedingOf, type Fed } from './feeding'
import { faultsInLeads, type RankedLead, rankLeads } from './leads'
import { eatenBy, type Objection, objections, type Regulation } from './regulate'
import { alwaysAtWork, stopAt } from './resolve'
import { starved } from './starved'

type Asked = Pick<Stages, 'design' | 'library' | 'needs' | 'chip' | 'power' | 'clock'>

export interface RankedRegulator extends Regulation {
  no: Objection[]
  chosen: boolean
}

export interface RankedSource {
  source: Source
  /** What choosing it does: what guards the present cell goes with that. */
  edits: Edit[]
  no: Objection[]
  /** What speaks neither for nor against it, since it hangs on what else is at the plug. */
  unsure: Said[]
  chosen: boolean
  /** At the regulator’s input with all that can flow; of the rail where there is none. */
  input?: Worked
  fromSource: Worked
  /** Of one that runs down. */
  cells?: CellsUse
}

/** The project fed in another way, with what is drawn as it is. */
const fedAs = ({ design, library, power }: Asked, change: Partial<Design['power']>): Fed => {
  const supplies = supplyOf({ ...design, power: { ...design.power, ...change } }, library)
  const { own, fed } = power.supplies
  const moved = (id: string, from: string): string => {
    const need = design.needs.devices.find((d) => d.id === id.split('.')[0])
    if (need && from !== own) return railFor(supplies, need).id
    if (need?.fedBy === 'source') return railFor(supplies, need).id
    return from === own ? supplies.own : from === fed.source ? supplies.fed.source : from
  }
  const consumers = power.consumers.map((c) => ({ ...c, from: moved(c.id, c.from) }))
  return feedingOf(supplies, consumers, power.states, design.needs.limits.ambient)
}

/** Chip and devices that a voltage doesn’t suit, by the rail that it is on. */
const unhappyWith = (
  { chip: { chip }, needs }: Asked,
  { supplies, regulator }: Fed,
  /** Of whose rail it is said. */
  of: 'regulator' | 'source',
  /** Of the regulator of a further rail, that one alone; of the chip’s, none of them. */
  rail?: RailId,
): Objection[] => {
  const looked = (id: RailId) =>
    (rail !== undefined || onTheSource(supplies, id)) &&
    (of === 'source' ||
      (rail ? id === rail : !supplies.converters.some((c) => c.to === id && id !== supplies.own)))
  const rails = supplies.rails.flatMap(({ id }) => {
    const voltage = supplies.open[id]
    return voltage && looked(id) ? [{ id, voltage }] : []
  })
  return rails.flatMap(({ id, voltage }): Objection[] => {
    const on = [
      ...(chip && id === supplies.own
        ? [{ name: chip.name, supply: fullRange(chip.supply.recommended) }]
        : []),
      ...needs.instances.flatMap((i) =>
        i.part.supply && railFor(supplies, i.need).id === id
          ? [{ name: i.name, supply: fullRange(i.part.supply) }]
          : [],
      ),
    ]
    const converter = supplies.converters.find((c) => c.to === id)
    const through = id === supplies.own ? regulator : converter?.part
    // That it lacks room is told of the regulator: here, whether what it is made for suits.
    const { min, max } =
      through && voltage.value.max <= fullRange(through.output).max
        ? fullRange(through.output)
        : voltage.value
    const said = formatQuantity(through ? fullRange(through.output).typ : voltage.value.typ, 'V', 3)
    const whose = through && of === 'source' ? say`${through.name}’s ${said}` : say`its ${said}`
    const names = [...new Set(on.flatMap((w) => (min < w.supply.min || max > w.supply.max ? [w.name] : [])))]
    if (names.length === 0) return []
    const text =
      names.length > 1 ? `suits neither ${names.slice(0, 3).join(' nor ')}` : `doesn’t suit ${names[0]!}`
    return [{ ...say`${whose} ${text}`, worked: voltage }]
  })
}

/**
 * Those that nothing speaks against first, the cheapest first among them: of the chip’s rail, or of a further one. None for the
 * rail of a board: its own is soldered on.
 */
export const rankRegulators = (asked: Asked, rail?: FurtherId): RankedRegulator[] => {
  const { design, library, chip, power } = asked
  const rails = design.power.rails ?? []
  const present = rail ? rails.find((r) => r.id === rail)?.regulator : power.regulator?.id
  if (!rail && (!power.input || chip.chip?.board)) return []
  return partsOfKind(library, 'regulator')
    .flatMap((regulator): RankedRegulator[] => {
      const fed = fedAs(
        asked,
        rail
          ? { rails: rails.map((r) => (r.id === rail ? { ...r, regulator: regulator.id } : r)) }
          : { regulator: regulator.id },
      )
      const at = rail ?? fed.supplies.own
      const found = fed.regulations.find((r) => r.converter.to === at)
      if (!found) return []
      const { regulation } = found
      const no = [
        ...unhappyWith(asked, fed, 'regulator', rail),
        ...objections(regulation, fed.loads.rails[at]!.loaded),
        ...collapse(fed, at),
        ...eaten(fed, found.converter),
        ...(rail ? inFront(fed, found.converter) : []),
        ...furtherRails(
          fed,
          fed.supplies.converters.filter((c) => c.from === at),
        ),
        ...overdrawn(fed, power.loads),
        ...inTheLead(fed, at),
        ...onTheWay(asked, fed, at),
      ]
      return [{ ...regulation, no, chosen: regulator.id === present }]
    })
    .sort((a, b) => a.no.length - b.no.length || a.regulator.price - b.regulator.price)
}

const collapse = ({ supplies, loads }: Fed, rail?: RailId): Objection[] =>
  loads.collapsing.some((c) => rail === undefined || headOf(supplies, c.to) === headOf(supplies, rail))
    ? [say`it takes more the lower its input gets, until the source can’t give it: all collapses`]
    : []

/** What speaks against the converters that a further one hangs on, and against their source, once it is there. */
const inFront = (fed: Fed, { from }: Converter): Objection[] => {
  const { supplies, loads, regulations } = fed
  const before = regulations.find((r) => r.converter.to === from)
  if (before) {
    const { converter, regulation } = before
    return [
      ...objections(regulation, loads.rails[from]!.loaded).map((o, n) =>
        n > 0 ? o : { ...say`${converter.part.name} in front of it: ${o}`, worked: o.worked },
      ),
      ...inFront(fed, converter),
    ]
  }
  const source = loads.sources.find((s) => s.source.to === headOf(supplies, from))
  const gives = source && fullRange(source.source.part.current).max
  return source && source.work.value.max > gives!
    ? [
        {
          ...say`${source.source.part.name} gives ${formatQuantity(gives!, 'A')}, and ${formatQuantity(source.work.value.max, 'A', 3)} is asked`,
          worked: source.work,
        },
      ]
    : []
}

/** Its own current against cells. */
const eaten = (fed: Fed, converter: Converter): Objection[] => {
  const part = eatenBy(fed, converter)
  return part
    ? [
        {
          ...say`it takes ${formatQuantity(fullRange(converter.part.quiescent).typ, 'A', 2)} for itself, ${Math.round(part.value.typ * 100)} % of all that the cells give`,
          worked: part,
        },
      ]
    : []
}

/** With it a source gives more than it is made for, and with what is there it doesn’t. */
const overdrawn = ({ loads }: Pick<Fed, 'loads'>, now: Fed['loads']): Objection[] => {
  const over = (of: Fed['loads']) =>
    of.sources.filter((s) => s.work.value.max > fullRange(s.source.part.current).max)
  const already = new Set(over(now).map((s) => s.source.id))
  return over(loads)
    .filter((s) => !already.has(s.source.id))
    .map(({ source, work }) => ({
      ...say`${source.part.name} gives ${formatQuantity(fullRange(source.part.current).max, 'A')}, and ${formatQuantity(work.value.max, 'A', 3)} is asked of it then`,
      worked: work,
    }))
}

/** What its lead is not made for: of what feeds this rail. */
const inTheLead = ({ supplies, loads }: Fed, rail: RailId): Objection[] =>
  faultsInLeads(loads)
    .flatMap(({ of, faults }) => ((of === 'source') === onTheSource(supplies, rail) ? faults : []))
    .filter((f) => f.severity !== 'notes')
    .map((f) => ({ ...f.says, worked: f.because.find((b) => b.worked)?.worked }))

/** What hangs beside the chip’s rail, on what feeds this one, and gets too little then. */
const onTheWay = ({ needs }: Asked, { supplies, loads }: Fed, rail: RailId): Objection[] =>
  starved(needs, supplies, loads)
    .filter((s) => headOf(supplies, s.rail) === headOf(supplies, rail))
    .map((s) => ({
      ...say`${s.name} gets down to ${formatQuantity(s.gets.value.min, 'V', 3)}, and needs ${formatQuantity(s.least, 'V', 3)}`,
      worked: s.gets,
    }))

const inside = (given: Range, { min, max }: Range) => given.min >= min && given.max <= max

/** Every source with the present regulator, those that nothing speaks against first, the cheapest first among them. */
export const rankSources = (asked: Asked): RankedSource[] => {
  const { design, library, needs, chip, clock, power } = asked
  const board = chip.chip?.board && fullRange(chip.chip.board.input)
  return sourcesFor('source', design, library)
    .map((source): RankedSource => {
      // What guards a cell is of no use to what is none, and goes with it.
      const goes = needless('source', source, design, library)
      const fed = fedAs(asked, {
        source: source.id,
        cells: source.joined,
        ...(goes && { lead: { ...design.power.lead, protection: undefined } }),
      })
      const { head, own, regulation, regulator, input, supplies } = fed
      const converter = supplies.converters.find((c) => c.to === supplies.own)
      const lead = supplies.sources.find((s) => s.id === 'source')?.lead
      const gives = fullRange(source.current).max
      const most = head.work
      const no: Objection[] = [
        ...(board && !inside(fullRange(source.voltage), board)
          ? [
              {
                ...say`the board’s input takes ${formatQuantity(board.min, 'V')} to ${formatQuantity(board.max, 'V')}`,
                worked: supplies.open[supplies.fed.source],
              },
            ]
          : []),
        ...(most.value.max > gives
          ? [
              {
                ...say`it gives ${formatQuantity(gives, 'A')}, and ${formatQuantity(most.value.max, 'A', 3)} is asked`,
                worked: most,
              },
            ]
          : []),
        ...(source.sort === 'panel' ? [say`it gives that in full sun alone, and nothing in the dark`] : []),
        ...(unprotected(source, lead) ? [say`nothing on it keeps it from being emptied too far`] : []),
        ...cellGuards(source, lead).flatMap((g) => opened(g, most)),
        ...(lead?.protection ? unsuited(source, lead.protection) : []),
        ...againstPlug(source, chip.chip?.board, library),
        ...(lead?.guard ? guardAgainst(lead.guard, source) : []),
        ...unhappyWith(asked, fed, 'source'),
        ...(regulation && regulator
          ? objections(regulation, own.loaded).map((o, n) =>
              n > 0 ? o : { ...say`${regulator.name}: ${o}`, worked: o.worked },
            )
          : sagging(asked, fed)),
        ...collapse(fed, supplies.own),
        ...(converter ? eaten(fed, converter) : []),
        ...furtherRails(
          fed,
          supplies.converters.filter((c) => onTheSource(supplies, c.to)),
        ),
        ...inTheLead(fed, supplies.own),
        ...onTheWay(asked, fed, supplies.own),
      ]
      const cells = cellsUse(
        source,
        wearOf(design.needs.limits),
        head.average,
        stopAt(fed, chip.chip, clock.lowestSupply, needs),
        alwaysAtWork(power.consumers, design, chip.chip, supplies),
      )
      return {
        source,
        no,
        edits: choosing('source', source, design, library),
        unsure: [
          ...(chip.chip?.board ? [] : toAsk(source, most)),
          ...(goes ? [say`${goes.name} goes, there is no cell to guard`] : []),
          ...(lead?.protection && misfits(source, lead.protection).includes('opens early')
            ? [say`${lead.protection.name} may open while it still has charge`]
            : []),
        ],
        chosen: source.id === power.source?.id,
        ...(input && { input }),
        fromSource: most,
        ...(cells && { cells }),
      }
    })
    .sort(
      (a, b) =>
        a.no.length - b.no.length ||
        // Of those that don’t do, what comes nearest: cells that last longer.
        (a.no.length > 0 ? lasting(b) - lasting(a) : 0) ||
        a.source.price - b.source.price,
    )
}

/** What speaks against what feeds them for these regulators of further rails. */
const furtherRails = ({ regulations, supplies, loads }: Fed, of: readonly Converter[]): Objection[] =>
  regulations.flatMap(({ converter, regulation }) =>
    !of.includes(converter) || converter.to === supplies.own
      ? []
      : objections(regulation, loads.rails[converter.to]!.loaded).map((o, n) =>
          n > 0 ? o : { ...say`${converter.part.name}: ${o}`, worked: o.worked },
        ),
  )

/** What guards the cell takes what is asked for a short. */
const opened = ({ part, opens: at }: CellGuard, most: Worked): Objection[] => {
  const opens = at.value.min
  return most.value.max > opens
    ? [
        {
          ...say`${part.kind === 'source' ? 'its protection' : part.name} may open at ${formatQuantity(opens, 'A')}, and ${formatQuantity(most.value.max, 'A', 3)} is asked`,
          worked: most,
        },
      ]
    : []
}

/** What guards the present cell would not do for this source. */
const unsuited = (source: Source, protection: Protection): Objection[] =>
  misfits(source, protection).some((why) => why !== 'opens early')
    ? [say`${protection.name} is made for another cell`]
    : []

/** USB that gives so much only when it is asked for more. */
const toAsk = (source: Source, most: Worked): Said[] => {
  const given = givenUnasked(source)
  return given && most.value.max > given.amperes
    ? [say`${formatQuantity(given.amperes, 'A')} until it is asked for more, and nothing here asks`]
    : []
}

const lasting = ({ cells }: RankedSource): number => cells?.runtime.value.min ?? 0

/** A rail straight from its source that falls under load below what hangs on it. */
const sagging = ({ needs, chip, clock }: Asked, { supplies, own }: Fed): Objection[] => {
  const open = ownVoltage(supplies)
  const loaded = own.voltage
  if (!open || !loaded) return []
  const needed = [
    ...(chip.chip ? [{ name: chip.chip.name, least: fullRange(chip.chip.supply.recommended).min }] : []),
    ...(clock.lowestSupply ? [{ name: 'the chip at its clock', least: clock.lowestSupply.value.max }] : []),
    ...needs.instances.flatMap(({ name, part, need }) =>
      part.supply && railFor(supplies, need).id === supplies.own
        ? [{ name, least: fullRange(part.supply).min }]
        : [],
    ),
  ]
    .filter(({ least }) => least > loaded.value.min + 0.01 && least <= open.value.min)
    .sort((a, b) => b.least - a.least)[0]
  return needed
    ? [
        {
          ...say`under load it sags to ${formatQuantity(loaded.value.min, 'V', 3)}, below the ${formatQuantity(needed.least, 'V')} of ${needed.name}`,
          worked: loaded,
        },
      ]
    : []
}

/** What is too little: for what hangs on a rail, for the regulator, for all. `what` tells them apart. */
const tooLittle = (asked: Asked, fed: Fed): (Objection & { what: string })[] => [
  ...starved(asked.needs, fed.supplies, fed.loads).map((s) => ({
    what: s.rail,
    ...say`${s.name} gets down to ${formatQuantity(s.gets.value.min, 'V', 3)}, and needs ${formatQuantity(s.least, 'V', 3)}`,
    worked: s.gets,
  })),
  ...(!fed.regulation
    ? sagging(asked, fed).map((s) => ({ what: 'sag', ...s }))
    : fed.regulation.margin.value.min < 0
      ? [
          {
            what: 'room',
            ...say`it leaves ${fed.regulation.regulator.name} no room`,
            worked: fed.regulation.margin,
          },
        ]
      : []),
  ...collapse(fed).map((s) => ({ what: 'collapse', ...s })),
]

/** Every wire and every fuse of the library in each lead. */
export const rankedLeads = (asked: Asked): RankedLead[] => {
  const { design, library, power } = asked
  // What would be too little without any lead is not its doing.
  const anyway = Object.fromEntries(
    leadOwners.map((of) => [
      of,
      tooLittle(asked, fedAs(asked, { [leadField[of]]: undefined })).map((s) => s.what),
    ]),
  )
  return rankLeads({
    design,
    library,
    sources: power.loads.sources,
    tried: (of, change) => {
      const field = leadField[of]
      const led = fedAs(asked, { [field]: { ...design.power[field], ...change } })
      return {
        current: led.loads.sources.find((s) => s.source.id === of)!.work,
        suffers: tooLittle(asked, led).filter((s) => !anyway[of]!.includes(s.what)),
      }
    },
  })
}
