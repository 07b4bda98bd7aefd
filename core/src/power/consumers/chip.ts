import { blocksCurrent } from '../../chip'
import type { ClockResult } from '../../clock'
import { fromPart, type Worked } from '../../findings'
import type { Board, Chip } from '../../parts'
import { modeOf, type State } from '../../states'
import { sum } from '../../sums'
import type { RailId } from '../../supply'
import { consumer, type Consumer, nothing } from './consumer'

type Mode = Chip['modes'][number]
const words: Record<Mode['kind'], string> = { active: 'working', idle: 'idle', sleep: 'asleep' }

/** What a mode takes at standstill, and what each hertz of the clock adds. */
const ofMode = (chip: Chip, { id, kind, name, current, perHertz }: Mode, { frequency: f }: ClockResult) => {
  const meta = { label: `${chip.name} ${words[kind]}`, symbol: 'I_chip', unit: 'A' as const }
  const I_0 = fromPart('I_0', `${name}, clock stopped`, chip, `modes.${id}.current`, current, 'A')
  if (!perHertz) return sum(meta, { I_0 }, (i) => i.I_0)
  const k = fromPart('k', 'current for each hertz', chip, `modes.${id}.perHertz`, perHertz, 'A/Hz')
  return sum(meta, { I_0, k, f }, (i) => i.I_0.plus(i.k.times(i.f)))
}

const withRadio = (chip: Chip, I_run: Worked): Worked =>
  chip.radio
    ? sum(
        { label: `${I_run.label}, radio on`, symbol: 'I_chip', unit: 'A' },
        {
          I_run,
          I_radio: fromPart('I_radio', chip.radio.name, chip, 'radio.current', chip.radio.current, 'A'),
        },
        (i) => i.I_run.plus(i.I_radio),
      )
    : I_run

export const chipConsumer = (
  chip: Chip,
  clock: ClockResult,
  radio: boolean,
  states: readonly State[],
  from: RailId,
): Consumer => {
  const current = (mode: Mode | undefined) => (mode ? ofMode(chip, mode, clock) : undefined)
  const running = current(modeOf(chip, 'active')) ?? nothing(`${chip.name} working`)
  const work = radio ? withRadio(chip, running) : running
  const name = chip.board ? 'Chip on the board' : chip.name
  const rest = current(modeOf(chip, 'idle')) ?? running
  return consumer(
    { id: 'chip', name, count: 1, from, work, rest },
    states,
    ({ mode, radio: on }) => {
      // The very current that counts as its work, where that is what it does.
      const own = mode === modeOf(chip, 'active') ? running : (current(mode) ?? running)
      return !on ? own : own === running && radio ? work : withRadio(chip, own)
    },
    'I_chip',
  )
}

/** A board's own blocks; its regulator is left out, since the path from the source counts that. */
export const boardConsumer = (board: Board, states: readonly State[], from: RailId): Consumer => {
  const blocks = board.blocks.filter((b) => b.part === undefined || b.part !== board.regulator)
  const of = (which: 'asleep' | 'awake') =>
    blocksCurrent(board, blocks, which, `Blocks of ${board.name}, ${which}`, 'I_blocks')
  const [work, rest] = [of('awake'), of('asleep')]
  return consumer(
    { id: 'board', name: 'Blocks of the board', count: 1, from, work, rest },
    states,
    ({ asleep }) => (asleep ? rest : work),
    'I_blocks',
  )
}
