import type { Check, Finding } from '../../findings'

export const lostMark: Check = {
  id: 'pins.lost-mark',
  stage: 'pins',
  looksFor: 'a lock, a soldered wire or a leg kept free that names a leg or a signal which is not there',
  rule: 'what the builder said and the planner can’t keep is said',
  run: ({ chip: { chip }, design, needs }) => {
    if (!chip) return []
    const legs = new Set(chip.pins.map((p) => p.id))
    const names = new Map(needs.open.signals.map((s) => [s.id, s.name]))
    const lost = (of: Record<string, string>) =>
      Object.entries(of).filter(([signal, pin]) => !legs.has(pin) || !names.has(signal))
    const why = (signal: string, pin: string) =>
      names.has(signal) ? `${chip.name} has no leg ${pin}` : 'nothing asks for that signal'
    const found = (
      id: string,
      text: string,
      because: string,
      fix: Finding['fixes'][number],
      severity: Finding['severity'] = 'notes',
    ) => ({ id: `pins.lost-mark:${id}`, severity, text, because: [{ text: because }], fixes: [fix] })
    return [
      ...lost(design.pins.soldered ?? {}).map(([signal, pin]) => {
        const name = names.get(signal) ?? signal
        return found(
          `soldered ${signal}`,
          `${name} is marked as soldered to ${pin}, and the plan can’t keep that: ${why(signal, pin)}.`,
          `The project says that ${name} is soldered to ${pin}`,
          { label: `Take the mark off ${name}`, edits: [{ kind: 'unsolder', signal, name }] },
          'risks',
        )
      }),
      ...lost(design.pins.locks).map(([signal, pin]) => {
        const name = names.get(signal) ?? signal
        return found(
          `lock ${signal}`,
          `The lock of ${name} on ${pin} has no effect: ${why(signal, pin)}.`,
          `The project locks ${name} on ${pin}`,
          { label: `Release the lock of ${name}`, edits: [{ kind: 'unlockSignal', signal, name }] },
        )
      }),
      ...design.pins.excluded
        .filter((pin) => !legs.has(pin))
        .map((pin) =>
          found(
            `free ${pin}`,
            `Leg ${pin} is to be kept free, and ${chip.name} has none of that name.`,
            `The project keeps ${pin} free`,
            { label: `Forget ${pin}`, edits: [{ kind: 'includePin', pin }] },
          ),
        ),
    ]
  },
}
