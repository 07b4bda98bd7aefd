import type { Check, Finding, Fix } from '../../findings'
import { formatQuantity } from '../../quantity'
import { type ClockOption, deviationOf, optionTooFast } from '../resolve'

/**
 * How far a clock may be off on a serial line, ppm. Asynchronous: a frame of ten bits is sampled in the middle of its
 * bits, so both ends together may be off by half a bit in nine and a half, less a sixteenth for finding its start: 4.6 %;
 * half of that for each, rounded down. CAN at its usual speeds: ISO 11898-1 leaves about a quarter of its 1.58 %.
 */
const allowed = { uart: 20_000, can: 5_000 }
const words = { uart: 'a serial line', can: 'a CAN line' }

export const clockTooLoose: Check = {
  id: 'clock.too-loose',
  stage: 'chip',
  looksFor: 'a serial or CAN line on a clock that is further off than both ends can bear',
  rule: 'sampling of a frame of ten bits; ISO 11898-1',
  run: ({ chip: { chip }, clock, needs, power }) => {
    const off = clock.deviation?.value.max
    if (!chip) return []
    return (['uart', 'can'] as const).flatMap((kind): Omit<Finding, 'check' | 'stage'>[] => {
      const on = needs.instances.filter((i) => i.wiring.signals.some((s) => s.bus === kind))
      if (on.length === 0) return []
      const names = [...new Set(on.map((i) => i.name))].join(', ')
      if (off === undefined)
        return [
          {
            id: `clock.too-loose:${kind}:unknown`,
            severity: 'notes' as const,
            grade: 'typical' as const,
            text: `By how much the clock is off is not stated; ${words[kind]} bears ${formatQuantity(allowed[kind] / 1e4, '%')} at each end (${names}).`,
            because: [
              {
                text: `${clock.source?.name ?? 'The clock'}: its sheet states no tolerance`,
                worked: clock.frequency,
              },
            ],
            fixes: [],
          },
        ]
      if (off <= allowed[kind]) return []
      const tight = (o: ClockOption) =>
        (deviationOf(chip, o.source, o.part, undefined)?.value.max ?? Infinity) <= allowed[kind]
      const fixes: Fix[] = clock.choices
        .filter((o) => tight(o) && !(power.rail && optionTooFast(chip, o, power.rail)))
        .sort(
          (a, b) =>
            Math.abs(a.frequency - clock.nominal.value.typ) -
              Math.abs(b.frequency - clock.nominal.value.typ) || (a.part?.price ?? 0) - (b.part?.price ?? 0),
        )
        .slice(0, 2)
        .map((o) => ({
          label: `Clock at ${formatQuantity(o.frequency, 'Hz')} from ${o.name}`,
          edits: [
            {
              kind: 'chooseClock',
              name: o.name,
              clock: { source: o.source.id, frequency: o.frequency, part: o.part?.id },
            },
          ],
        }))
      return [
        {
          id: `clock.too-loose:${kind}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          text: `The clock may be off by ${formatQuantity(off / 1e4, '%', 3)}; ${words[kind]} bears ${formatQuantity(allowed[kind] / 1e4, '%')} at each end (${names}).`,
          because: [
            {
              text: `The clock is off by up to ${formatQuantity(off / 1e4, '%', 3)}`,
              worked: clock.deviation,
            },
            {
              text:
                kind === 'uart'
                  ? 'Ten bits are read by one start: together both ends may be off by half a bit in nine and a half'
                  : 'The nodes of a CAN line find their place anew only at edges (ISO 11898-1)',
            },
          ],
          fixes,
        },
      ]
    })
  },
}
