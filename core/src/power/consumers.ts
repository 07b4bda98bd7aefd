// Who draws how much from the rail, at rest and at work.

import { blocksCurrent } from '../chip'
import { fittedFor } from '../circuit'
import { type OpenSupply, ownVoltage, railFor, type RailId } from '../supply'
import type { ClockResult } from '../clock'
import type { Design, NeedDevice } from '../design'
import { fromDecision, fromPart, fromRule, fromWorked, type Worked, type WorkedInput } from '../findings'
import type { Instance, NeedsResult } from '../needs'
import type { Board, Chip, Device, DeviceSignal } from '../parts'
import type { PinsResult } from '../pins'
import { dimensionOf, number, sum, type Term, total } from '../sums'
import type { PowerLamp } from './lamp'
import type { Consumer } from './consumer'
import { trickle } from './trickle'

const amperes = dimensionOf('A')
/** Currents that add up, by their symbols. */
const together = (label: string, symbol: string, inputs: WorkedInput[]): Worked =>
  sum({ label, symbol, unit: 'A' }, Object.fromEntries(inputs.map((i) => [i.symbol, i])), (i) =>
    total(Object.values(i), amperes),
  )
const nothing = (label: string): Worked => together(label, 'I', [])

const same = (
  from: RailId,
  id: string,
  name: string,
  count: number,
  work: Worked,
  rest?: Worked,
): Consumer => ({
  from,
  id,
  name,
  count,
  work,
  rest: rest ?? nothing(`${name}, off`),
  average: work,
})

/** How much of the time the chip is awake, as an input. */
const awakeShare = (awake: number): WorkedInput =>
  fromDecision('s', 'share of the time awake', awake, '', 'set on the Needs page')

/** Some of the time awake, the rest asleep. */
const overTime = (label: string, symbol: string, awake: number, I_awake: Worked, I_asleep: Worked): Worked =>
  sum({ label, symbol, unit: 'A' }, { s: awakeShare(awake), I_awake, I_asleep }, (i) =>
    i.s.times(i.I_awake).plus(one.minus(i.s).times(i.I_asleep)),
  )
const one = number(1)

/** `awake`: how much of the time; absent: always. */
const chipConsumer = (
  chip: Chip,
  clock: ClockResult,
  radio: boolean,
  awake: number | undefined,
  from: RailId,
): Consumer => {
  const f = clock.frequency
  const ofMode = (kind: 'active' | 'idle' | 'sleep', word: string): Worked | undefined => {
    // Of several sleeps the deepest.
    const mode = chip.modes.filter((m) => m.kind === kind).at(kind === 'sleep' ? -1 : 0)
    if (!mode) return undefined
    const meta = { label: `${chip.name} ${word}`, symbol: 'I_chip', unit: 'A' as const }
    const I_0 = fromPart(
      'I_0',
      `${mode.name}, clock stopped`,
      chip,
      `modes.${mode.id}.current`,
      mode.current,
      'A',
    )
    if (!mode.perHertz) return sum(meta, { I_0 }, (i) => i.I_0)
    const k = fromPart(
      'k',
      'current for each hertz',
      chip,
      `modes.${mode.id}.perHertz`,
      mode.perHertz,
      'A/Hz',
    )
    return sum(meta, { I_0, k, f }, (i) => i.I_0.plus(i.k.times(i.f)))
  }
  const running = ofMode('active', 'working') ?? nothing(`${chip.name} working`)
  const rest = ofMode('idle', 'idle') ?? running
  const work =
    radio && chip.radio
      ? sum(
          { label: `${chip.name} working, radio on`, symbol: 'I_chip', unit: 'A' },
          {
            I_run: running,
            I_radio: fromPart('I_radio', chip.radio.name, chip, 'radio.current', chip.radio.current, 'A'),
          },
          (i) => i.I_run.plus(i.I_radio),
        )
      : running
  const name = chip.board ? 'Chip on the board' : chip.name
  const average =
    awake === undefined
      ? work
      : overTime(`${chip.name}, awake and asleep`, 'I_chip', awake, work, ofMode('sleep', 'asleep') ?? rest)
  return { id: 'chip', name, count: 1, from, work, rest, average }
}

/** A board's own blocks; its regulator is left out, since the path from the source counts that. */
const boardConsumer = (board: Board, awake: number | undefined, from: RailId): Consumer => {
  const blocks = board.blocks.filter((b) => b.part === undefined || b.part !== board.regulator)
  const of = (which: 'asleep' | 'awake') =>
    blocksCurrent(board, blocks, which, `Blocks of ${board.name}, ${which}`, 'I_blocks')
  const [work, rest] = [of('awake'), of('asleep')]
  const always = same(from, 'board', 'Blocks of the board', 1, work, rest)
  return awake === undefined
    ? always
    : {
        ...always,
        average: overTime(`Blocks of ${board.name}, awake and asleep`, 'I_blocks', awake, work, rest),
      }
}

const deviceConsumer = (
  { id, name }: NeedDevice,
  from: RailId,
  part: Device,
  count: number,
): Consumer | undefined => {
  const modes = part.modes
  if (modes.length === 0) return undefined
  const n = fromRule('n', 'how many', count, '', 'Needs page')
  const of = (mode: Device['modes'][number], word: string): Worked => {
    const I_mode = fromPart('I_mode', mode.name, part, `modes.${mode.id}.current`, mode.current, 'A')
    const meta = { label: `${name}, ${word}`, symbol: 'I', unit: 'A' as const }
    return count > 1
      ? sum(meta, { n, I_mode }, (i) => i.n.times(i.I_mode))
      : sum(meta, { I_mode }, (i) => i.I_mode)
  }
  const shared = modes.every((m) => m.share !== undefined)
  const average = shared
    ? sum(
        { label: `${name}, average`, symbol: 'I', unit: 'A' },
        {
          ...(count > 1 ? { n } : {}),
          ...Object.fromEntries(
            modes.flatMap((m, i) => [
              [
                `s_${i + 1}`,
                fromRule(`s_${i + 1}`, `share of the time in ${m.name}`, m.share!, '', part.sheet),
              ],
              [`I_${i + 1}`, fromPart(`I_${i + 1}`, m.name, part, `modes.${m.id}.current`, m.current, 'A')],
            ]),
          ),
        },
        (i: Record<string, Term>) => {
          const shares = total(
            modes.map((_, k) => i[`s_${k + 1}`]!.times(i[`I_${k + 1}`]!)),
            amperes,
          )
          return count > 1 ? i.n!.times(shares) : shares
        },
      )
    : undefined
  const work = of(modes[modes.length - 1]!, modes[modes.length - 1]!.name)
  return {
    id,
    name,
    count,
    from,
    rest: of(modes[0]!, modes[0]!.name),
    work,
    average: average ?? work,
  }
}

/** The resistance that a voltage of the chip’s works into. */
const analogLoad = ({ name }: Instance, { id, electrical }: DeviceSignal) =>
  electrical.kind === 'analog-load'
    ? { name, field: `${id}.resistance`, resistance: electrical.resistance }
    : undefined

export const consumersOf = (
  design: Design,
  needs: NeedsResult,
  chip: Chip | undefined,
  clock: ClockResult,
  pins: PinsResult,
  supplies: OpenSupply,
  lamp: PowerLamp | undefined,
): Consumer[] => {
  const rail = ownVoltage(supplies)
  const { own } = supplies
  const { awake } = design.needs.limits
  const devices = design.needs.devices.flatMap((need) => {
    const instances = needs.instances.filter((i) => i.need.id === need.id)
    const part = instances[0]?.part
    const drawn = part && deviceConsumer(need, railFor(supplies, need).id, part, instances.length)
    const leds = instances.flatMap((i) =>
      i.wiring.signals.flatMap((s) => {
        const on = pins.leds[`${i.id}.${s.id}`]
        const fitted = on && fittedFor(pins.support, 'lamp resistor', `${i.id}.${s.id}`)
        return on ? [fitted ? on.current : on.bare] : []
      }),
    )
    const light =
      leds.length > 0
        ? [
            same(
              own,
              `${need.id}.light`,
              need.name,
              leds.length,
              together(
                `${need.name}, lit`,
                'I',
                leds.map((l, i) => ({ ...fromWorked(l), symbol: `I_${i + 1}` })),
              ),
            ),
          ]
        : []
    const loads = instances.flatMap((i) => i.wiring.signals.flatMap((s) => analogLoad(i, s) ?? []))
    const taken =
      rail && loads.length > 0
        ? [
            same(
              own,
              `${need.id}.load`,
              need.name,
              loads.length,
              sum(
                { label: `${need.name}, at full scale`, symbol: 'I', unit: 'A' },
                {
                  V_DD: rail,
                  ...Object.fromEntries(
                    loads.map((l, i) => [
                      `R_${i + 1}`,
                      {
                        ...fromPart(
                          `R_${i + 1}`,
                          `resistance of ${l.name}`,
                          part!,
                          l.field,
                          l.resistance,
                          'Ω',
                        ),
                        variable: `${l.name} ${l.field}`,
                      },
                    ]),
                  ),
                },
                (i: Record<string, Term>) =>
                  total(
                    loads.map((_, k) => i.V_DD!.over(i[`R_${k + 1}`]!)),
                    amperes,
                  ),
              ),
            ),
          ]
        : []
    return [...(drawn ? [drawn] : []), ...light, ...taken]
  })
  return [
    ...(chip?.board ? [boardConsumer(chip.board, awake, own)] : []),
    ...(chip ? [chipConsumer(chip, clock, design.needs.radio ?? false, awake, own)] : []),
    ...devices,
    ...trickle(chip, pins, supplies),
    ...(lamp?.present ? [same(own, 'power-lamp', 'Power lamp', 1, lamp.current, lamp.current)] : []),
  ]
}

/** Sum over the consumers of one of their currents. */
export const sumOf = (
  consumers: Consumer[],
  which: 'rest' | 'work' | 'average',
  label: string,
  symbol: string,
): Worked =>
  together(
    label,
    symbol,
    consumers.map((c, i) => ({ ...fromWorked(c[which]), symbol: `I_${i + 1}`, label: c.name })),
  )
