import type { Check, Fix } from '../../findings'
import { overlapsOf, stackOverlap } from './stack-overlap'

export const clash: Check = {
  id: 'pins.clash',
  stage: 'pins',
  looksFor: 'signals that the chip can’t serve all at once',
  rule: 'the chip’s functions, one signal a leg',
  run: (stages) => {
    const {
      chip,
      design,
      needs,
      pins: { plan },
    } = stages
    if (!chip.chip || !plan || plan.status !== 'clash') return []
    // Told by its own check, with the links that clear it.
    if (overlapsOf(plan.clash).length > 0 && stackOverlap.run(stages).length > 0) return []
    const locked = plan.clash.filter((s) => design.pins.locks[s.id])
    const other = stages.fitting()
    const devices = [
      ...new Map(
        [
          ...plan.clash.flatMap((s) => s.ends.map((e) => e.instance.need)),
          ...plan.clashChoices.map((c) => c.need),
        ].map((need) => [need.id, need] as const),
      ).values(),
    ]
    const fixes: Fix[] = [
      ...(Object.keys(design.pins.locks).length > 0
        ? [
            {
              label: 'Release all locks',
              edits: Object.keys(design.pins.locks).map((signal) => ({
                kind: 'unlockSignal' as const,
                signal,
                name: needs.signals.find((s) => s.id === signal)?.name ?? signal,
              })),
            },
          ]
        : []),
      ...(design.pins.excluded.length > 0
        ? [
            {
              label: 'Allow the legs kept free',
              edits: design.pins.excluded.map((pin) => ({ kind: 'includePin' as const, pin })),
            },
          ]
        : []),
      ...(other
        ? [
            {
              label: `Choose ${other.name}`,
              edits: [{ kind: 'chooseChip' as const, part: other.id, name: other.name }],
            },
          ]
        : []),
      ...devices.slice(0, 3).map((d) => ({
        label: `Do without ${d.name}`,
        edits: [{ kind: 'removeDevice' as const, id: d.id }],
      })),
    ]
    return [
      {
        id: 'pins.clash',
        severity: 'stops',
        grade: 'impossible',
        text: `${chip.chip.name} can’t serve everything: ${plan.clashText}.`,
        because: [
          ...plan.clash.map((s) => ({
            text: `${s.name} needs a leg of its own${locked.includes(s) ? `, locked on ${design.pins.locks[s.id]}` : ''}`,
          })),
          ...plan.clashChoices.map((c) => ({
            text: `${c.need.name} can be wired by ${c.wirings.map((w) => w.name).join(' or ')}`,
          })),
          { text: 'Without any one of these the others would fit' },
        ],
        fixes,
      },
    ]
  },
}
