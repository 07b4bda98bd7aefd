import { type Edit, without } from '../../design'
import { type Check, type Fix, type Stages, say } from '../../findings'
import { askedWord, withArticle } from '../../needs'
import { planPins, questionOf } from '../../planner'
import { type Wire, legSaid, waysToServe } from '../../legs'
import { share } from '../../patience'

/** Where the solver would put a signal if its lock were gone; undefined when nowhere. */
const bestPinFor = (stages: Stages, signal: string): string | undefined => {
  const { design, pins, patience } = stages
  const question = questionOf(stages)
  if (!question) return undefined
  const locks = without(design.pins.locks, signal)
  const kept = without(pins.assignment, signal)
  const plan = planPins(
    { ...question, choices: { ...design.pins, locks, kept } },
    {
      tidied: false,
      patience: share(patience, 300),
    },
  )
  return plan.wires.find((w) => w.signal.id === signal && !w.impossible)?.pin.id
}

/** Moving a wire to where the solver would put it; nothing where it is there already or can't be anywhere. */
export const moveToBest = (stages: Stages, { signal, pin }: Wire): Fix[] => {
  if (!stages.proposing) return []
  const best = bestPinFor(stages, signal.id)
  if (!best || best === pin.id) return []
  const move: Edit = {
    kind: 'moveSignal',
    signal: signal.id,
    name: signal.name,
    pin: best,
    kept: stages.pins.assignment,
  }
  return [{ label: `Move ${signal.name} to ${best}`, edits: [move] }]
}

/** Whether the leg could do the work, were it not for the radio. */
const onlyTheRadio = ({ chip: { chip }, design, needs, pins }: Stages, { pin, signal }: Wire): boolean => {
  const can = (on: boolean) =>
    'ways' in waysToServe(chip!, pin, signal, pins.taken, { on, answers: design.pins.radio ?? {} })
  return needs.open.radio && can(false) && !can(true)
}

/** Where only the radio stands in the way: pause it for the reading, or live without. */
const radioAnswers = (stages: Stages, wire: Wire): Fix[] => {
  const { signal } = wire
  return onlyTheRadio(stages, wire)
    ? (['pause', 'accept'] as const).map((answer) => ({
        label:
          answer === 'pause'
            ? `Pause the radio to read ${signal.name}`
            : `Accept that ${signal.name} fails while the radio is on`,
        edits: [{ kind: 'answerRadio', signal: signal.id, name: signal.name, answer }],
      }))
    : []
}

export const cannotServe: Check = {
  id: 'pins.cannot-serve',
  stage: 'pins',
  looksFor: 'a signal locked on a leg that can’t do its work',
  rule: 'the chip’s functions and what else needs the leg',
  run: (stages) =>
    (stages.pins.plan?.wires ?? [])
      .filter((w) => w.impossible)
      .map((wire) => {
        return {
          id: `pins.cannot-serve:${wire.signal.id}`,
          severity: 'stops',
          grade: 'impossible',
          ...say`${wire.signal.name} can’t be on ${legSaid(wire.pin)}: ${wire.impossible!}.`,
          because: [
            say`${wire.signal.name} is ${stages.design.pins.soldered?.[wire.signal.id] ? say`soldered to` : say`locked on`} ${legSaid(wire.pin)}`,
            say`${wire.signal.name} is ${wire.signal.bus ? say`line ${wire.signal.bus.line} of a bus` : withArticle(askedWord(wire.signal))}`,
            say`${wire.pin.id}: ${wire.impossible!} (${stages.chip.chip!.sheet})`,
          ],
          fixes: [
            ...moveToBest(stages, wire),
            ...radioAnswers(stages, wire),
            stages.design.pins.soldered?.[wire.signal.id]
              ? {
                  label: `Unsolder ${wire.signal.name}`,
                  edits: [{ kind: 'unsolder' as const, signal: wire.signal.id, name: wire.signal.name }],
                }
              : {
                  label: 'Release the lock',
                  edits: [{ kind: 'unlockSignal' as const, signal: wire.signal.id, name: wire.signal.name }],
                },
          ],
          about: { signal: wire.signal.id, pin: wire.pin.id },
        }
      }),
}
