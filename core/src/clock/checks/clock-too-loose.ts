import { type Check, type Fix, type Said, say, type Found } from '../../findings'
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
  /** “a serial line bears 2 % at each end (Link)” */
  bearing: Said
  /** ppm. */
  bears: number
  because: Said
}

/** The lines whose timing hangs on the clock, with what each bears; several of one need are one line. */
const timed = (instances: readonly Instance[]): Line[] => {
  const percent = (ppm: number) => formatQuantity(ppm / 1e4, '%')
  const bus = (id: keyof typeof allowed, words: Said, because: Said): Line[] => {
    const on = instances.filter((i) => i.wiring.signals.some((s) => s.bus === id))
    const names = [...new Set(on.map((i) => i.name))].join(', ')
    const bears = allowed[id]
    return on.length > 0
      ? [{ id, bearing: say`${words} bears ${percent(bears)} at each end (${names})`, bears, because }]
      : []
  }
  const pulses = new Map<string, Line>()
  for (const { need, wiring, part } of instances) {
    const stated = wiring.signals.flatMap((s) => s.timing ?? [])
    if (stated.length === 0) continue
    const bears = Math.min(...stated) * 1e6
    pulses.set(need.id, {
      id: need.id,
      bearing: say`${need.name} bears ${percent(bears)}`,
      bears,
      because: say`The length of its pulses says what they mean (${part.sheet})`,
    })
  }
  return [
    ...bus(
      'uart',
      say`a serial line`,
      say`Ten bits are read by one start: together both ends may be off by half a bit in nine and a half`,
    ),
    ...bus(
      'can',
      say`a CAN line`,
      say`The nodes of a CAN line find their place anew only at edges (ISO 11898-1)`,
    ),
    ...pulses.values(),
  ]
}

export const clockTooLoose: Check = {
  id: 'clock.too-loose',
  stage: 'chip',
  looksFor: 'a line whose timing is told by the clock, on a clock that is further off than the line bears',
  rule: 'sampling of a frame of ten bits; ISO 11898-1; the device’s sheet',
  run: ({ chip: { chip }, clock, needs, power }) => {
    const off = clock.deviation?.value.max
    if (!chip) return []
    return timed(needs.instances).flatMap(({ id, bearing, bears, because }): Found[] => {
      if (off === undefined)
        return [
          {
            id: `clock.too-loose:${id}:unknown`,
            severity: 'notes' as const,
            grade: 'typical' as const,
            ...say`By how much the clock is off is not stated; ${bearing}.`,
            because: [
              {
                ...say`${clock.source?.name ?? 'The clock'}: its sheet states no tolerance`,
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
          ...say`The clock may be off by ${formatQuantity(off / 1e4, '%', 3)}; ${bearing}.`,
          because: [
            {
              ...say`The clock is off by up to ${formatQuantity(off / 1e4, '%', 3)}`,
              worked: clock.deviation,
            },
            because,
          ],
          fixes,
        },
      ]
    })
  },
}
