// What could be changed so that the supply works: another regulator, another source for the same one, or a source that
// feeds the rail by itself; or doing without what draws the most.

import { type Edit, type FedBy, feeders } from '../../design'
import type { Fix, Stages, Worked } from '../../findings'
import { partsOfKind, type Regulator, type Source } from '../../parts'
import { formatQuantity, fullRange, namesInWords, type Range } from '../../quantity'
import { againstPlug, behindPlug, leadOf, polarityOf, unprotected, voltageFor } from '../../supply'
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
  // With the diode that it would then have at its plug.
  const there = { ...design, power: { ...design.power, source: source.id } }
  const diode = polarityOf(there, library)
  const lead = leadOf(there, library, 'source')
  const input = behindPlug({ part: source, lead }, current, diode && { diode, current })
  const regulated = regulate(regulator, loaded, input, design.needs.limits.ambient)
  return objections(regulated, loaded).length === 0
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

/** Sources strong enough, with the present regulator or without any. */
export const otherSources = (stages: Stages, most = 3): Fix[] =>
  partsOfKind(stages.library, 'source')
    .filter(
      (s) =>
        stages.proposing &&
        s.id !== stages.power.source?.id &&
        !unprotected(s) &&
        fullRange(s.current).max >= stages.power.fromSource.value.max &&
        suitsInput(stages, s),
    )
    .sort((a, b) => a.price - b.price)
    .flatMap((s): Fix[] => {
      const choose: Edit = { kind: 'chooseSource', part: s.id, name: s.name }
      const label = `Feed it from ${s.name} (${formatQuantity(fullRange(s.voltage).typ, 'V')})`
      if (suitsRegulator(stages, s)) return [{ label, edits: [choose] }]
      if (suitsRail(stages, s))
        return [
          {
            label: `${label}, without a regulator`,
            edits: [choose, straightFrom],
          },
        ]
      return []
    })
    .slice(0, most)

/** Doing without the device that draws the most from the source. */
export const withoutHungriest = ({ design, power }: Stages): Fix[] => {
  const most = hungriest(power).find((c) => design.needs.devices.some((d) => d.id === c.id))
  return most ? [{ label: `Do without ${most.name}`, edits: [{ kind: 'removeDevice', id: most.id }] }] : []
}

/** Feeding one device from elsewhere: what is there already first, else a second feed of the cheapest source that suits. */
export const otherFeeders = (
  { design, library, power }: Stages,
  id: string,
  name: string,
  /** What it runs on; what feeds it now is outside of that. */
  supply: Range,
): Fix[] => {
  const suits = (v: Range) => v.min >= supply.min && v.max <= supply.max
  const move = (by: FedBy): Edit => ({ kind: 'setFedBy', id, by })
  const there = feeders.flatMap((by): Fix[] => {
    const voltage = voltageFor(power.supplies, { fedBy: by })?.value
    return voltage && suits(voltage)
      ? [{ label: `Feed ${name} from the ${by === 'feed' ? 'second feed' : by}`, edits: [move(by)] }]
      : []
  })
  if (there.length > 0 || design.power.feed) return there
  const most = power.consumers.find((c) => c.id === id)?.work.value.max ?? 0
  const part = partsOfKind(library, 'source')
    .filter((s) => suits(fullRange(s.voltage)) && fullRange(s.current).max >= most)
    .sort((a, b) => a.price - b.price)[0]
  return part
    ? [
        {
          label: `Feed ${name} from a second feed, ${part.name}`,
          edits: [{ kind: 'chooseFeed', part: part.id, name: part.name }, move('feed')],
        },
      ]
    : []
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
  return partsOfKind(library, 'source')
    .filter(
      (s) =>
        elsewhere.every((d) => suits(fullRange(s.voltage), d.id)) &&
        fullRange(s.current).max >= all &&
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
              : [{ kind: 'chooseSource' as const, part: source.id, name: source.name }]),
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
