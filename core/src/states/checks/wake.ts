import { type Check, type Fix, say, type Stages, unsaid, type Found } from '../../findings'
import { timeWords } from '../../quantity'
import { modeOf } from '../made'
import { sleepOf, type Waking, wakingsOf } from '../waking'

const often = ({ every, perDay }: Waking['state']) =>
  every === undefined ? say`${perDay ?? 0} times a day` : say`every ${timeWords(every)}`

/** Not as deep a sleep: a chip that waits is woken by anything that interrupts it. */
const waitInstead = ({ chip: { chip } }: Stages, rest: string): Fix[] => {
  const idle = modeOf(chip, 'idle')
  return idle
    ? [
        {
          label: `Let the chip wait in “${idle.name}” instead`,
          edits: [{ kind: 'changeState', id: rest, change: { chip: idle.id } }],
        },
      ]
    : []
}

const told = (w: Waking, stages: Stages): Found | undefined => {
  const { chip } = stages.chip
  const { state: rest, mode } = sleepOf(stages)!
  const id = `states.wake ${w.state.id}`
  const because = [
    say`${w.state.name} comes ${often(w.state).text}, and in between ${chip!.name} is in “${mode.name}”`,
    mode.wakes
      ? say`what ends “${mode.name}”, by its sheet: ${mode.wakes.join(', ')}`
      : say`its file does not say what ends “${mode.name}”`,
  ]
  const fixes = waitInstead(stages, rest.id)
  if (w.by === 'unsaid')
    return {
      id,
      severity: 'notes',
      ...say`What begins ${w.state.name} is not said: asleep, the chip must be woken for it.`,
      because,
      fixes: stages.needs.instances
        .filter((i) => i.wiring.signals.some((s) => ['wake', 'interrupt', 'touch'].includes(s.kind)))
        .map((i): Fix => ({
          label: `${i.need.name} begins ${w.state.name}`,
          edits: [{ kind: 'changeState', id: w.state.id, change: { begins: i.need.id } }],
        })),
    }
  if (w.can === 'unknown')
    return {
      id,
      severity: 'risks',
      ...say`Whether ${w.by === 'clock' ? say`its time` : say`${w.device ?? 'its device'}`} can end “${mode.name}” for ${w.state.name} is not known${stages.pins.plan ? unsaid : say`: nothing is planned yet`}.`,
      because,
      fixes: [],
    }
  if (w.can === 'no')
    return {
      id,
      severity: 'stops',
      grade: 'impossible',
      ...(w.by === 'clock'
        ? say`Nothing in ${chip!.name} keeps time in “${mode.name}”: ${w.state.name} never begins.`
        : say`${w.device ?? 'Its device'} can’t end “${mode.name}”: it is on no leg that wakes ${chip!.name}, and ${w.state.name} never begins.`),
      because,
      fixes,
    }
  if (!w.wire) return undefined
  const taken = Object.entries(stages.pins.assignment).find(([, pin]) => pin === w.wire!.from)
  const signal = taken && stages.needs.signals.find((s) => s.id === taken[0])
  return {
    id,
    severity: taken ? 'stops' : 'notes',
    ...(taken
      ? say`${w.state.name} begins by a wire from ${w.wire.from} to ${w.wire.to}, and ${w.wire.from} is taken by ${signal?.name ?? taken[0]}.`
      : say`${w.state.name} begins by a wire from ${w.wire.from} to ${w.wire.to}, which resets the chip: put it in once the program is loaded.`),
    because,
    fixes: taken
      ? [
          {
            label: `Keep ${w.wire.from} free`,
            edits: [{ kind: 'excludePin', pin: w.wire.from, kept: stages.pins.assignment }],
          },
        ]
      : [],
  }
}

export const wake: Check = {
  id: 'states.wake',
  stage: 'needs',
  looksFor: 'a state that nothing can begin while the chip sleeps',
  rule: 'what ends the mode, by the part file; legs that wake',
  run: (stages) => wakingsOf(stages).flatMap((w) => told(w, stages) ?? []),
}
