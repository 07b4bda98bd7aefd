// What could be changed so that the supply works: another regulator, another source for the same one, or a source that
// feeds the rail by itself; or doing without what draws the most.

import { type Edit, type FedBy, feederName, feedersOf, nextRail } from '../../design'
import type { Fix, Stages, Worked } from '../../findings'
import { givesAtOnce, partsOfKind, type Regulator, type Source, type Transistor } from '../../parts'
import { capital, formatQuantity, fullRange, namesInWords, type Range } from '../../quantity'
import {
  againstPlug,
  behindPlug,
  choosing,
  guardAgainst,
  leadOf,
  polarityOf,
  sourcesFor,
  unprotected,
  voltageFor,
  wearOf,
} from '../../supply'
import { otherRegulators, straightFrom, suitsRail } from '../../pins'
import { sumOf } from '../consumers'
import { objections, regulate } from '../regulate'
import { hungriest } from './hungriest'

/** Whether a regulator, the present one at the present load, has nothing against this source. */
const suitsRegulator = (
  { design, library, power }: Stages,
  source: Source,
  regulator = power.regulator,
  loaded = power.loaded,
): boolean => {
  const { through: current } = power
  if (!regulator) return false
  const ambient = design.needs.limits.ambient
  // With the diode that it would then have at its plug.
  const there = { ...design, power: { ...design.power, source: source.id, cells: source.joined } }
  const diode = polarityOf(there, library)
  const lead = leadOf(there, library, 'source')
  const input = behindPlug(
    { part: source, lead, wear: wearOf(design.needs.limits) },
    current,
    diode && { diode, current },
  )
  const at = power.supplies.fed.source
  return [
    { part: regulator, load: loaded },
    // Of the further rails those that hang there too.
    ...power.supplies.converters
      .filter((c) => c.from === at && c.to !== power.supplies.own)
      .map(({ part, to }) => ({ part, load: power.loads.rails[to]!.loaded })),
  ].every(({ part, load }) => objections(regulate(part, load, input, ambient), load).length === 0)
}

/** Whether its plug goes in, and a board's input takes this source; any voltage does where there is no board. */
const suitsInput = ({ chip, library }: Stages, source: Source): boolean => {
  const board = chip.chip?.board
  const input = board && fullRange(board.input)
  const voltage = fullRange(source.voltage)
  return (
    againstPlug(source, board, library).length === 0 &&
    (!input || (voltage.min >= input.min && voltage.max <= input.max))
  )
}

/** A board asks its port for more by itself. */
const givesHere = ({ chip }: Stages, source: Source): number =>
  chip.chip?.board ? fullRange(source.current).max : givesAtOnce(source)

/** Sources strong enough, with the present regulator or without any. */
export const otherSources = (stages: Stages, most = 3): Fix[] =>
  sourcesFor('source', stages.design, stages.library)
    .filter(
      (s) =>
        stages.proposing &&
        s.id !== stages.power.source?.id &&
        !unprotected(s) &&
        givesHere(stages, s) >= stages.power.fromSource.value.max &&
        suitsInput(stages, s),
    )
    .sort((a, b) => a.price - b.price)
    .flatMap((s): Fix[] => {
      const choose = choosing('source', s, stages.design, stages.library)
      const label = `Feed it from ${s.name} (${formatQuantity(fullRange(s.voltage).typ, 'V')})`
      if (suitsRegulator(stages, s)) return [{ label, edits: choose }]
      if (suitsRail(stages, s))
        return [
          {
            label: `${label}, without a regulator`,
            edits: [...choose, straightFrom],
          },
        ]
      return []
    })
    .slice(0, most)

/** Transistors that could lie in the plus against a source the wrong way round, by their sheets; the cheapest first. */
export const guardsFor = ({ library, power, proposing }: Stages): Transistor[] => {
  const { source, through } = power
  if (!proposing || !source) return []
  return partsOfKind(library, 'transistor')
    .filter(
      (t) =>
        t.sort === 'p-mosfet' &&
        t.gateVoltage !== undefined &&
        (t.channel ?? []).length > 0 &&
        guardAgainst(t, source).length === 0 &&
        fullRange(t.current).max >= through.value.max,
    )
    .sort((a, b) => a.price - b.price)
}

/** A transistor in the place of the diode at the plug, where what falls in that is what is short, V. */
export const insteadOfDiode = (stages: Stages, short: number): Fix[] => {
  const { polarity, input } = stages.power
  const falls = input?.inputs.find((i) => i.symbol === 'V_F')?.value.max ?? 0
  if (!polarity?.present || short > falls) return []
  return guardsFor(stages)
    .slice(0, 1)
    .map(({ id, name }) => ({
      label: `${capital(name)} against a plug the wrong way round, in the place of the diode`,
      edits: [{ kind: 'chooseGuard', part: id, name }],
    }))
}

/** Doing without the device that draws the most from the source. */
export const withoutHungriest = ({ design, power }: Stages): Fix[] => {
  const most = hungriest(power).find((c) => design.needs.devices.some((d) => d.id === c.id))
  return most ? [{ label: `Do without ${most.name}`, edits: [{ kind: 'removeDevice', id: most.id }] }] : []
}

/** Feeding one device from elsewhere: what is there already first, else a second feed of the cheapest source that suits. */
export const otherFeeders = (
  stages: Stages,
  id: string,
  name: string,
  /** What it runs on; what feeds it now is outside of that. */
  supply: Range,
): Fix[] => {
  const { design, library, power } = stages
  const suits = (v: Range) => v.min >= supply.min && v.max <= supply.max
  const move = (by: FedBy): Edit => ({ kind: 'setFedBy', id, by })
  const there = feedersOf(design).flatMap((by): Fix[] => {
    const voltage = voltageFor(power.supplies, { fedBy: by })?.value
    return voltage && suits(voltage)
      ? [{ label: `Feed ${name} from the ${feederName(by)}`, edits: [move(by)] }]
      : []
  })
  if (there.length > 0) return there
  const load = power.consumers.find((c) => c.id === id)?.work
  const most = load?.value.max ?? 0
  const behind = load ? behindItsOwn(stages, load, suits) : undefined
  const rail = nextRail(design)
  // What is off while the chip is fed by a programmer alone must not be fed through its inputs.
  const lines = (stages.pins.plan?.wires ?? []).filter(
    ({ signal }) =>
      signal.bus === undefined &&
      design.pins.shifts?.[signal.id] === undefined &&
      signal.ends.some((e) => e.instance.need.id === id && e.signal.electrical.kind === 'logic-input'),
  )
  const limited = (fix: Fix): Fix[] =>
    lines.length === 0
      ? []
      : [
          {
            label: `${fix.label}, with a resistor in ${lines.length === 1 ? 'its line' : 'each of its lines'}`,
            edits: [
              ...fix.edits,
              ...lines.map(({ signal }) => ({
                kind: 'fitShift' as const,
                signal: signal.id,
                name: signal.name,
                shift: 'resistor' as const,
              })),
            ],
          },
        ]
  const own: Fix | undefined =
    behind && rail
      ? {
          label: `Feed ${name} from a rail of its own, behind ${behind.name}`,
          edits: [
            { kind: 'addRail', rail: { id: rail, regulator: behind.id }, name: behind.name },
            move(rail),
          ],
        }
      : undefined
  const apart = own ? [own, ...limited(own)] : []
  if (design.power.feed) return apart
  const part = sourcesFor('feed', design, library)
    .filter((s) => s.sort !== 'panel' && suits(fullRange(s.voltage)) && givesAtOnce(s) >= most)
    .sort((a, b) => a.price - b.price)[0]
  return [
    ...apart,
    ...(part
      ? [
          {
            label: `Feed ${name} from a second feed, ${part.name}`,
            edits: [...choosing('feed', part, design, library), move('feed')],
          },
        ]
      : []),
  ]
}

/** The cheapest regulator on the source that gives what is wanted, with nothing against it at this load. */
const behindItsOwn = (
  { proposing, library, power, design }: Stages,
  load: Worked,
  suits: (v: Range) => boolean,
): Regulator | undefined => {
  const input = power.loads.rails[power.supplies.fed.source]?.voltage
  if (!proposing || !input) return undefined
  return partsOfKind(library, 'regulator')
    .filter(
      (r) =>
        suits(fullRange(r.output)) &&
        objections(regulate(r, load, input, design.needs.limits.ambient), load).length === 0,
    )
    .sort((a, b) => a.price - b.price)[0]
}

/**
 * One way for all that runs on another voltage than the rail: each of them straight from one source, the present one
 * first, and on the rail the cheapest regulator that carries what is left; a board has its own.
 */
export const eachItsVoltage = (stages: Stages, most = 2): Fix[] => {
  const { design, library, power, needs, chip, proposing } = stages
  const { rail } = power
  const board = chip.chip?.board
  // Where one rail suits all, that is simpler.
  if (!proposing || !rail || (!board && otherRegulators(stages, 1).length > 0)) return []
  const rated = (id: string) => needs.instances.find((i) => i.need.id === id)?.part.supply
  const suits = (v: Range, id: string) => {
    const supply = fullRange(rated(id) ?? v)
    return v.min >= supply.min && v.max <= supply.max
  }
  const elsewhere = design.needs.devices.filter(({ id, fedBy }) => !fedBy && !suits(rail.value, id))
  if (elsewhere.length === 0) return []
  const all = power.consumers.reduce((sum, c) => sum + c.work.value.max, 0)
  const staying = power.consumers.filter(
    (c) => c.from === power.supplies.own && !elsewhere.some((d) => d.id === c.id),
  )
  const stays = needs.instances.filter((i) => !i.need.fedBy && !elsewhere.some((d) => d.id === i.need.id))
  const wanted = [chip.chip?.supply.recommended, ...stays.map((i) => i.part.supply)].flatMap((s) =>
    s ? fullRange(s) : [],
  )
  const left = sumOf(staying, (c) => c.work, 'What stays on the rail', 'I_left')
  return sourcesFor('source', design, library)
    .filter(
      (s) =>
        elsewhere.every((d) => suits(fullRange(s.voltage), d.id)) &&
        givesHere(stages, s) >= all &&
        suitsInput(stages, s),
    )
    .sort(
      (a, b) => Number(b.id === power.source?.id) - Number(a.id === power.source?.id) || a.price - b.price,
    )
    .slice(0, most)
    .flatMap((source) => {
      const through = board ? power.regulator : coolest(stages, source, left, wanted)
      if (!board && !through) return []
      const rest = board || !through ? '' : `, the rest through ${through.name}`
      return [
        {
          label: `Feed ${namesInWords(elsewhere.map((d) => d.name))} straight from ${source.name}${rest}`,
          edits: [
            ...(source.id === power.source?.id
              ? []
              : choosing('source', source, stages.design, stages.library)),
            ...elsewhere.map((d): Edit => ({ kind: 'setFedBy', id: d.id, by: 'source' })),
            ...(!through || through.id === power.regulator?.id
              ? []
              : [{ kind: 'chooseRegulator' as const, part: through.id, name: through.name }]),
          ],
        },
      ]
    })
}

/**
 * The present regulator, or the cheapest, that suits the chip and what stays on the rail, from this source at this load;
 * one of the present voltage before others.
 */
const coolest = (
  stages: Stages,
  source: Source,
  load: Worked,
  staying: readonly Range[],
): Regulator | undefined => {
  const { rail, regulator: present } = stages.power
  const other = (r: Regulator) => Math.abs(fullRange(r.output).typ / (rail?.value.typ ?? 0) - 1) > 0.05
  const rank = (r: Regulator) => (r.id === present?.id ? 0 : other(r) ? 2 : 1)
  return partsOfKind(stages.library, 'regulator')
    .filter((r) => {
      const out = fullRange(r.output)
      return (
        r.topology === 'linear' &&
        staying.every((s) => out.min >= s.min && out.max <= s.max) &&
        suitsRegulator(stages, source, r, load)
      )
    })
    .sort((a, b) => rank(a) - rank(b) || a.price - b.price)[0]
}
