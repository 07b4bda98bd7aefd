import type { StateChoice } from '../../design'
import { modesOf } from '../modes'
import { type Check, type Stages, say, unsaid } from '../../findings'

const listed = (modes: readonly { name: string }[]) => modes.map((m) => `“${m.name}”`).join(', ')

interface Lack {
  /** Of what: `chip`, `radio`, the id of a device. */
  of: string
  text: string
}

/** What a state asks for and is not there, and what it counts as instead. */
const lacksOf = (state: StateChoice, { chip: { chip }, design, needs }: Stages): Lack[] => {
  const lacks: Lack[] = []
  if (chip && state.chip !== undefined && !chip.modes.some((m) => m.id === state.chip))
    lacks.push({
      of: 'chip',
      ...say`${chip.name} has no mode ${state.chip}, only ${listed(chip.modes)}. It counts as working.`,
    })
  if (state.radio && chip && !chip.radio)
    lacks.push({ of: 'radio', ...say`the radio is to be on, and ${chip.name} has none.` })
  else if (state.radio && !design.needs.radio)
    lacks.push({
      of: 'radio',
      ...say`the radio is to be on, and the Needs page says that the program uses none. It counts as on here.`,
    })
  for (const [id, mode] of Object.entries(state.modes ?? {})) {
    const instance = needs.instances.find((i) => i.need.id === id)
    if (!instance || modesOf(instance.part).some((m) => m.id === mode)) continue
    const all = listed(modesOf(instance.part))
    lacks.push({
      of: id,
      ...say`${instance.need.name} has no mode ${mode}${all ? say`, only ${all}` : unsaid}. It goes through its own cycle.`,
    })
  }
  return lacks
}

export const unknownMode: Check = {
  id: 'states.unknown-mode',
  stage: 'needs',
  looksFor: 'a state in a mode that the chip or the device does not have, or with a radio that is not there',
  rule: 'the modes of the part files',
  run: (stages) =>
    (stages.design.needs.states ?? []).flatMap((choice) => {
      const share = stages.states.find((s) => s.id === choice.id)?.share.value.typ ?? 0
      return lacksOf(choice, stages).map(({ of, text }) => ({
        id: `states.unknown-mode ${choice.id} ${of}`,
        severity: 'risks' as const,
        ...say`${choice.name}: ${text}`,
        because: [say`“${choice.name}” has ${Math.round(share * 1000) / 10} % of the time`],
        fixes: [],
      }))
    }),
}
