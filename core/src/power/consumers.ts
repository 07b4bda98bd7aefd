// Who draws how much from the rail, at rest and at work.

import { blocksCurrent } from '../chip'
import type { ClockResult } from '../clock'
import type { Design, FedBy, NeedDevice } from '../design'
import { fromPart, fromRule, fromWorked, type Worked, type WorkedInput } from '../findings'
import type { Instance, NeedsResult } from '../needs'
import type { Board, Chip, Device, DeviceSignal } from '../parts'
import type { PinsResult } from '../pins'
import { add, divide, exactly, fullRange, multiply, type Range, scale } from '../quantity'
import type { PowerLamp } from './lamp'

export interface Consumer {
  id: string
  name: string
  count: number
  /** What feeds it. */
  from: FedBy
  /** All of them together. */
  rest: Worked
  work: Worked
  /** Over the device's own cycle. */
  average: Worked
}

const current = (
  label: string,
  formula: string,
  value: Range,
  inputs: WorkedInput[],
  symbol = 'I',
  note?: string,
): Worked => ({
  label,
  symbol,
  value,
  unit: 'A',
  formula,
  inputs,
  note,
})
const same = (id: string, name: string, count: number, work: Worked, rest?: Worked): Consumer => ({
  id,
  name,
  count,
  from: 'rail',
  work,
  rest: rest ?? { ...work, label: `${name}, off`, value: exactly(0), formula: '0', inputs: [] },
  average: work,
})

const chipConsumer = (chip: Chip, clock: ClockResult, radio: boolean): Consumer => {
  const f = clock.frequency
  const ofMode = (kind: 'active' | 'idle' | 'sleep', word: string): Worked | undefined => {
    const mode = chip.modes.find((m) => m.kind === kind)
    if (!mode) return undefined
    const base = fullRange(mode.current)
    const per = mode.perHertz ? fullRange(mode.perHertz) : exactly(0)
    const inputs = [
      fromPart('I_0', `${mode.name}, clock stopped`, chip, `modes.${mode.id}.current`, mode.current, 'A'),
      ...(mode.perHertz
        ? [
            fromPart('k', 'current for each hertz', chip, `modes.${mode.id}.perHertz`, mode.perHertz, ''),
            fromWorked(f),
          ]
        : []),
    ]
    return current(
      `${chip.name} ${word}`,
      mode.perHertz ? 'I_0 + k · f' : 'I_0',
      add(base, multiply(per, f.value)),
      inputs,
      'I_chip',
    )
  }
  const running = ofMode('active', 'working') ?? current(`${chip.name} working`, '0', exactly(0), [])
  const rest = ofMode('idle', 'idle') ?? running
  const work =
    radio && chip.radio
      ? current(
          `${chip.name} working, radio on`,
          'I_run + I_radio',
          add(running.value, fullRange(chip.radio.current)),
          [
            { ...fromWorked(running), symbol: 'I_run' },
            fromPart('I_radio', chip.radio.name, chip, 'radio.current', chip.radio.current, 'A'),
          ],
          'I_chip',
        )
      : running
  const name = chip.board ? 'Chip on the board' : chip.name
  return { id: 'chip', name, count: 1, from: 'rail', work, rest, average: work }
}

/** A board's own blocks; its regulator is left out, since the path from the source counts that. */
const boardConsumer = (board: Board): Consumer => {
  const blocks = board.blocks.filter((b) => b.part === undefined || b.part !== board.regulator)
  const of = (which: 'asleep' | 'awake') =>
    blocksCurrent(board, blocks, which, `Blocks of ${board.name}, ${which}`, 'I_blocks')
  return same('board', 'Blocks of the board', 1, of('awake'), of('asleep'))
}

const deviceConsumer = (
  { id, name, fedBy }: NeedDevice,
  part: Device,
  count: number,
): Consumer | undefined => {
  const modes = part.modes
  if (modes.length === 0) return undefined
  const of = (mode: Device['modes'][number], word: string): Worked =>
    current(`${name}, ${word}`, count > 1 ? 'n · I_mode' : 'I_mode', scale(fullRange(mode.current), count), [
      fromPart('I_mode', mode.name, part, `modes.${mode.id}.current`, mode.current, 'A'),
      ...(count > 1 ? [fromRule('n', 'how many', count, '', 'Needs page')] : []),
    ])
  const shared = modes.every((m) => m.share !== undefined)
  const average: Worked | undefined = shared
    ? current(
        `${name}, average`,
        'Σ share · I_mode',
        add(...modes.map((m) => scale(fullRange(m.current), m.share! * count))),
        modes.flatMap((m, i) => [
          fromPart(`I_${i + 1}`, m.name, part, `modes.${m.id}.current`, m.current, 'A'),
          fromRule(`s_${i + 1}`, `share of the time in ${m.name}`, m.share!, '', part.sheet),
        ]),
      )
    : undefined
  const work = of(modes[modes.length - 1]!, modes[modes.length - 1]!.name)
  return {
    id,
    name,
    count,
    from: fedBy ?? 'rail',
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
  rail: Worked | undefined,
  lamp: PowerLamp | undefined,
): Consumer[] => {
  const devices = design.needs.devices.flatMap((need) => {
    const instances = needs.instances.filter((i) => i.need.id === need.id)
    const part = instances[0]?.part
    const own = part && deviceConsumer(need, part, instances.length)
    const leds = instances.flatMap((i) =>
      i.wiring.signals.flatMap((s) => {
        const on = pins.leds[`${i.id}.${s.id}`]
        const fitted = on && pins.support.find((p) => p.key === `led:${i.id}.${s.id}`)?.present
        return on ? [fitted ? on.current : on.bare] : []
      }),
    )
    const light =
      leds.length > 0
        ? [
            same(
              `${need.id}.light`,
              need.name,
              leds.length,
              current(
                `${need.name}, lit`,
                leds.map((_, i) => `I_${i + 1}`).join(' + '),
                add(...leds.map((l) => l.value)),
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
              `${need.id}.load`,
              need.name,
              loads.length,
              current(
                `${need.name}, at full scale`,
                loads.map((_, i) => `V_DD / R_${i + 1}`).join(' + '),
                add(...loads.map((l) => divide(rail.value, fullRange(l.resistance)))),
                [
                  fromWorked(rail),
                  ...loads.map((l, i) =>
                    fromPart(`R_${i + 1}`, `resistance of ${l.name}`, part!, l.field, l.resistance, 'Ω'),
                  ),
                ],
              ),
            ),
          ]
        : []
    return [...(own ? [own] : []), ...light, ...taken]
  })
  const pulls = pins.support.filter((s) => s.present && s.key.startsWith('pull:') && s.value)
  const pulled =
    rail && pulls.length > 0
      ? [
          same(
            'pull-ups',
            'Pull-ups, lines low',
            pulls.length,
            current(
              'Pull-ups, all lines low',
              'Σ V_DD / R',
              add(...pulls.map((p) => scale(rail.value, 1 / p.value!.value))),
              [
                fromWorked(rail),
                ...pulls.map((p, i) =>
                  fromRule(`R_${i + 1}`, p.name, p.value!.value, 'Ω' as const, 'fitted value'),
                ),
              ],
            ),
          ),
        ]
      : []
  return [
    ...(chip?.board ? [boardConsumer(chip.board)] : []),
    ...(chip ? [chipConsumer(chip, clock, design.needs.radio ?? false)] : []),
    ...devices,
    ...pulled,
    ...(lamp?.present ? [same('power-lamp', 'Power lamp', 1, lamp.current, lamp.current)] : []),
  ]
}

/** Sum over the consumers of one of their currents. */
export const sumOf = (
  consumers: Consumer[],
  which: 'rest' | 'work' | 'average',
  label: string,
  symbol: string,
): Worked => ({
  label,
  symbol,
  value: add(...consumers.map((c) => c[which].value)),
  unit: 'A',
  formula: consumers.map((_, i) => `I_${i + 1}`).join(' + ') || '0',
  inputs: consumers.map((c, i) => ({ ...fromWorked(c[which]), symbol: `I_${i + 1}`, label: c.name })),
})
