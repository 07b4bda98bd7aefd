import type { Check, Finding, Fix } from '../../findings'
import type { Instance } from '../../needs'
import { formatQuantity } from '../../quantity'
import { type ClockOption, deviationOf, optionTooFast } from '../resolve'

/**
 * How far a clock may be off on a serial line, ppm. Asynchronous: a frame of ten bits is sampled in the middle of its
 * bits, so both ends together may be off by half a bit in nine and a half, less a sixteenth for finding its start: 4.6 %;
 * half of that for each, rounded down. CAN at its usual speeds: ISO 11898-1 leaves about a quarter of its 1.58 %.
 */
const allowed = { uart: 20_000, can: 5_000 }

interface Line {
  id: string
  words: string
  names: string[]
  /** ppm. */
  bears: number
  because: string
}

/** The lines whose timing hangs on the clock, with what each bears. */
const timed = (instances: readonly Instance[]): Line[] => {
  const on = (kind: 'uart' | 'can') => [
    ...new Set(instances.filter((i) => i.wiring.signals.some((s) => s.bus === kind)).map((i) => i.name)),
  ]
  const buses: Line[] = [
    {
      id: 'uart',
      words: 'a serial line',
      names: on('uart'),
      bears: allowed.uart,
      because:
        'Ten bits are read by one start: together both ends may be off by half a bit in nine and a half',
    },
    {
      id: 'can',
      words: 'a CAN line',
      names: on('can'),
      bears: allowed.can,
      because: 'The nodes of a CAN line find their place anew only at edges (ISO 11898-1)',
    },
  ]
  const pulses = instances.flatMap((i): Line[] => {
    const stated = i.wiring.signals.flatMap((s) => s.timing ?? [])
    return stated.length > 0
      ? [
          {
            id: i.id,
            words: i.name,
            names: [i.name],
            bears: Math.min(...stated) * 1e6,
            because: `The length of its pulses says what they mean (${i.part.sheet})`,
          },
        ]
      : []
  })
  return [...buses.filter((b) => b.names.length > 0), ...pulses]
}

export const clockTooLoose: Check = {
  id: 'clock.too-loose',
  stage: 'chip',
  looksFor: 'a line whose timing is told by the clock, on a clock that is further off than the line bears',
  rule: 'sampling of a frame of ten bits; ISO 11898-1; the device’s sheet',
  run: ({ chip: { chip }, clock, needs, power }) => {
    const off = clock.deviation?.value.max
    if (!chip) return []
    return timed(needs.instances).flatMap((line): Omit<Finding, 'check' | 'stage'>[] => {
      const { id, words, bears } = line
      const each = id in allowed ? ' at each end' : ''
      const who = id in allowed ? ` (${line.names.join(', ')})` : ''
      const bearing = `${words} bears ${formatQuantity(bears / 1e4, '%')}${each}${who}`
      if (off === undefined)
        return [
          {
            id: `clock.too-loose:${id}:unknown`,
            severity: 'notes' as const,
            grade: 'typical' as const,
            text: `By how much the clock is off is not stated; ${bearing}.`,
            because: [
              {
                text: `${clock.source?.name ?? 'The clock'}: its sheet states no tolerance`,
                worked: clock.frequency,
              },
            ],
            fixes: [],
          },
        ]
      if (off <= bears) return []
      const tight = (o: ClockOption) =>
        (deviationOf(chip, o.source, o.part, undefined)?.value.max ?? Infinity) <= bears
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
          id: `clock.too-loose:${id}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          text: `The clock may be off by ${formatQuantity(off / 1e4, '%', 3)}; ${bearing}.`,
          because: [
            {
              text: `The clock is off by up to ${formatQuantity(off / 1e4, '%', 3)}`,
              worked: clock.deviation,
            },
            { text: line.because },
          ],
          fixes,
        },
      ]
    })
  },
}
