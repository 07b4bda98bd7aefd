// Who draws how much from which rail: at rest, at work, and in each state.

import type { Around } from '../../blocks'
import type { ClockResult } from '../../clock'
import type { SupportPart } from '../../circuit'
import type { Design } from '../../design'
import { fromPart, type Worked } from '../../findings'
import type { NeedsResult } from '../../needs'
import type { Chip } from '../../parts'
import type { PinsResult } from '../../pins'
import { capital } from '../../quantity'
import type { State } from '../../states'
import { asStated } from '../../sums'
import { type OpenSupply, ownVoltage, railFor } from '../../supply'
import { boardConsumer, chipConsumer } from './chip'
import { consumer, type Consumer, numbered, together } from './consumer'
import { deviceConsumer, lightConsumer, loadConsumer } from './device'
import { trickle } from './trickle'

export { type HeldPull, heldPulls } from './trickle'

export type { Consumer } from './consumer'

/** What there is to look at. */
export interface Drawing {
  design: Design
  needs: NeedsResult
  chip?: Chip
  clock: ClockResult
  pins: PinsResult
  states: readonly State[]
  supplies: OpenSupply
  around: readonly Around[]
}

/** A part of the board that draws all the time. */
const standing = (
  { key, name, present, draws, drawsFrom }: SupportPart,
  { own, fed }: OpenSupply,
  states: readonly State[],
) =>
  present && draws
    ? [
        consumer(
          {
            id: key,
            name: capital(name),
            count: 1,
            from: drawsFrom ? fed[drawsFrom] : own,
            work: draws,
            rest: draws,
            support: key,
          },
          states,
        ),
      ]
    : []

/** What guards a cell draws from it all the time. Before what is no cell, and has a diode, it counts behind that: nothing hangs in front of one. */
const guarding = ({ sources, guards }: OpenSupply, states: readonly State[]): Consumer[] =>
  sources.flatMap(({ id, to, lead }) => {
    const part = lead?.protection
    if (!part) return []
    const work = asStated(
      `Into ${part.name}`,
      'I_guard',
      'A',
      fromPart('I_guard', part.name, part, 'quiescent', part.quiescent, 'A'),
    )
    const from = guards.find((g) => g.from === to)?.to ?? to
    return [consumer({ id: `protection.${id}`, name: part.name, count: 1, from, work, rest: work }, states)]
  })

export const consumersOf = ({
  design,
  needs,
  chip,
  clock,
  pins,
  states,
  supplies,
  around,
}: Drawing): Consumer[] => {
  const { own } = supplies
  const radio = (design.needs.radio ?? false) || states.some((s) => s.radio)
  const devices = design.needs.devices.flatMap((need) => {
    const instances = needs.instances.filter((i) => i.need.id === need.id)
    const part = instances[0]?.part
    return [
      part && deviceConsumer(need, railFor(supplies, need).id, part, instances.length, states),
      lightConsumer(need, own, instances, pins, states),
      loadConsumer(need, own, instances, ownVoltage(supplies), states),
    ]
  })
  return [
    chip?.board && boardConsumer(chip.board, states, own),
    chip && chipConsumer(chip, clock, radio, states, own),
    ...devices,
    ...trickle(chip, pins, supplies, states),
    ...guarding(supplies, states),
    ...[...around.flatMap((a) => a.parts), ...pins.support].flatMap((part) =>
      standing(part, supplies, states),
    ),
  ].filter((c) => c !== undefined)
}

/** Sum over the consumers of one of their currents. */
export const sumOf = (
  consumers: readonly Consumer[],
  of: (consumer: Consumer) => Worked,
  label: string,
  symbol: string,
): Worked => together(label, symbol, numbered(consumers.map((c) => ({ current: of(c), label: c.name }))))
