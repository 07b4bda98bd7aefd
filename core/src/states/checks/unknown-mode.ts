import type { Check, Fact } from '../../findings'

const listed = ({ modes }: { modes: readonly { name: string }[] }) =>
  modes.map((m) => `“${m.name}”`).join(', ')

export const unknownMode: Check = {
  id: 'states.unknown-mode',
  stage: 'needs',
  looksFor: 'a state in a mode that the chip or the device does not have',
  rule: 'the modes of the part files',
  run: ({ design, chip: { chip }, needs, states }) => {
    const wrong = (design.needs.states ?? []).flatMap((state): { key: string; fact: Fact }[] => {
      const own =
        chip && state.chip !== undefined && !chip.modes.some((m) => m.id === state.chip)
          ? [
              {
                key: `${state.id}.chip`,
                fact: {
                  text: `${state.name}: ${chip.name} has no mode ${state.chip}, only ${listed(chip)}. It counts as working.`,
                },
              },
            ]
          : []
      const devices = Object.entries(state.modes ?? {}).flatMap(([id, mode]) => {
        const instance = needs.instances.find((i) => i.need.id === id)
        if (!instance || instance.part.modes.some((m) => m.id === mode)) return []
        const all = listed(instance.part)
        return [
          {
            key: `${state.id}.${id}`,
            fact: {
              text: `${state.name}: ${instance.need.name} has no mode ${mode}${all ? `, only ${all}` : ''}. It goes through its own cycle.`,
            },
          },
        ]
      })
      return [...own, ...devices]
    })
    return wrong.map(({ key, fact }) => ({
      id: `states.unknown-mode ${key}`,
      severity: 'risks' as const,
      text: fact.text,
      because: states
        .filter((s) => key.startsWith(`${s.id}.`))
        .map((s) => ({ text: `“${s.name}” has ${Math.round(s.share.value.typ * 1000) / 10} % of the time` })),
      fixes: [],
    }))
  },
}
