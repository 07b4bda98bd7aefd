import { type Check, type Finding, type Said, say } from '../../findings'

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
      names.has(signal) ? say`${chip.name} has no leg ${pin}` : say`nothing asks for that signal`
    const found = (
      id: string,
      said: Said,
      because: Said,
      fix: Finding['fixes'][number],
      severity: Finding['severity'] = 'notes',
    ) => ({ id: `pins.lost-mark:${id}`, severity, ...said, because: [because], fixes: [fix] })
    return [
      ...lost(design.pins.soldered ?? {}).map(([signal, pin]) => {
        const name = names.get(signal) ?? signal
        return found(
          `soldered ${signal}`,
          say`${name} is marked as soldered to ${pin}, and the plan can’t keep that: ${why(signal, pin)}.`,
          say`The project says that ${name} is soldered to ${pin}`,
          { label: `Take the mark off ${name}`, edits: [{ kind: 'unsolder', signal, name }] },
          'risks',
        )
      }),
      ...lost(design.pins.locks).map(([signal, pin]) => {
        const name = names.get(signal) ?? signal
        return found(
          `lock ${signal}`,
          say`The lock of ${name} on ${pin} has no effect: ${why(signal, pin)}.`,
          say`The project locks ${name} on ${pin}`,
          { label: `Release the lock of ${name}`, edits: [{ kind: 'unlockSignal', signal, name }] },
        )
      }),
      ...design.pins.excluded
        .filter((pin) => !legs.has(pin))
        .map((pin) =>
          found(
            `free ${pin}`,
            say`Leg ${pin} is to be kept free, and ${chip.name} has none of that name.`,
            say`The project keeps ${pin} free`,
            { label: `Forget ${pin}`, edits: [{ kind: 'includePin', pin }] },
          ),
        ),
    ]
  },
}
