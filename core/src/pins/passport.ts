// All the names of a leg, and finding a leg by any of them.

import type { Chip, ChipPin } from '../parts'
import type { Wire } from './plan'

export interface Passport {
  pin: ChipPin
  legs: string
  /** Every name, the port name first. */
  names: string[]
  /** Everything it could be, in words. */
  abilities: string[]
}

const abilityWords: Record<string, string> = { converter: 'analog', timer: 'PWM', interrupt: 'interrupt' }

export const passport = (chip: Chip, pin: ChipPin): Passport => ({
  pin,
  legs: pin.legs.join(', '),
  names: [pin.id, ...(pin.number === undefined ? [] : [`number ${pin.number}`]), ...(pin.names ?? [])],
  abilities: (pin.functions ?? []).map((f) => {
    const unit = chip.units.find((u) => u.id === f.unit)
    const word = unit && abilityWords[unit.kind]
    return `${word ? `${word} ` : ''}${f.unit} ${f.signal}${f.select === undefined ? '' : ` (function ${f.select})`}`
  }),
})

/** Pins with this name: leg number (`17` or `leg 17`), port, program number, chart name or function. */
export const findPins = (chip: Chip, text: string): ChipPin[] => {
  const wanted = text
    .trim()
    .toLowerCase()
    .replace(/^leg\s+/, '')
  if (!wanted) return []
  const exact = chip.pins.filter(
    (p) =>
      p.id.toLowerCase() === wanted ||
      p.legs.some((l) => String(l) === wanted) ||
      (p.names ?? []).some((n) => n.toLowerCase() === wanted),
  )
  const loose = chip.pins.filter(
    (p) =>
      !exact.includes(p) &&
      [
        p.id,
        ...(p.names ?? []),
        ...(p.functions ?? []).flatMap((f) => [f.signal, `${f.unit}.${f.signal}`, `${f.unit} ${f.signal}`]),
      ].some((n) => n.toLowerCase().includes(wanted)),
  )
  return [...exact, ...loose]
}

/** `leg 5 (PA4)`, or on a board `D5 (PA4)`: the way a leg is named everywhere. */
export const legName = (pin: ChipPin): string => {
  const place = pin.labels?.join('/') ?? `leg ${pin.legs.join('/')}`
  return place === pin.id ? place : `${place} (${pin.id})`
}

export const wireOn = (wires: Wire[], pin: ChipPin): Wire | undefined =>
  wires.find((w) => w.pin.id === pin.id)
