// What begins each state while the chip sleeps, and whether that can end its sleep.

import type { StateChoice } from '../design'
import type { Stages } from '../findings'
import type { Chip, UnitKind } from '../parts'

type Mode = Chip['modes'][number]

export interface Waking {
  state: StateChoice
  /** `clock`: its time has come. */
  by: 'clock' | 'device' | 'unsaid'
  /** The device that begins it. */
  device?: string
  /** The pins by which that can wake the chip. */
  pins: string[]
  /** `unknown`: the chip’s file does not say what ends its sleep, or nothing is planned yet. */
  can: 'yes' | 'no' | 'unknown'
  /** The wire by which the clock ends the sleep, where one is needed. */
  wire?: { from: string; to: string }
}

/** The state that has the rest of the time, if the chip sleeps in it. */
export const sleepOf = ({
  design,
  chip: { chip },
}: Pick<Stages, 'design' | 'chip'>): { state: StateChoice; mode: Mode } | undefined => {
  const state = design.needs.states?.find((s) => s.lasts === undefined)
  const mode = chip?.modes.find((m) => m.id === state?.chip)
  return state && mode?.kind === 'sleep' ? { state, mode } : undefined
}

const wakesThrough: readonly [way: 'leg' | 'touch', unit: UnitKind][] = [
  ['leg', 'wake'],
  ['touch', 'touch'],
]

/** Of every state that comes and goes; none where the chip does not sleep in between. */
export const wakingsOf = (stages: Pick<Stages, 'design' | 'chip' | 'needs' | 'pins'>): Waking[] => {
  const { design, chip, needs, pins } = stages
  const sleep = sleepOf(stages)
  if (!sleep || !chip.chip) return []
  const { wakeUps, wakeWire } = sleep.mode
  const kinds = new Map(chip.chip.units.map((u) => [u.id, u.kind]))
  const wakes = (pin: string) => {
    const functions = chip.chip?.pins.find((p) => p.id === pin)?.functions ?? []
    return wakesThrough.some(
      ([way, kind]) => wakeUps?.includes(way) && functions.some((f) => kinds.get(f.unit) === kind),
    )
  }
  return (design.needs.states ?? []).flatMap((state): Waking[] => {
    // What goes on asleep is begun by nothing that the chip does.
    if (state.lasts === undefined || state.chip === sleep.state.chip) return []
    const begins = state.begins ?? (state.every === undefined ? undefined : 'clock')
    if (begins === undefined) return [{ state, by: 'unsaid', pins: [], can: 'unknown' }]
    if (begins === 'clock')
      return [
        {
          state,
          by: 'clock',
          pins: [],
          can: wakeUps ? (wakeUps.includes('clock') ? 'yes' : 'no') : 'unknown',
          wire: wakeUps?.includes('clock') ? wakeWire : undefined,
        },
      ]
    const instances = needs.instances.filter((i) => i.need.id === begins)
    const all = instances.flatMap((i) =>
      i.wiring.signals.flatMap((s) => pins.assignment[`${i.id}.${s.id}`] ?? []),
    )
    const able = all.filter(wakes)
    return [
      {
        state,
        by: 'device',
        device: instances[0]?.need.name,
        pins: able,
        can: !wakeUps || all.length === 0 ? 'unknown' : able.length > 0 ? 'yes' : 'no',
      },
    ]
  })
}
