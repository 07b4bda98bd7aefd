// All the names of a leg, and finding a leg by any of them.

import { type Said, say } from '../findings'
import type { Chip, ChipPin, UnitKind } from '../parts'
import type { PinName } from './names'
import type { Wire } from './wires'

export interface Passport {
  pin: ChipPin
  /** `leg 5`, or the board's labels for it. */
  place: string
  /** Every name, the port name first. */
  names: string[]
  /** Everything it could be, in words. */
  abilities: string[]
}

const abilityWords: Partial<Record<UnitKind, string>> = {
  converter: 'analog',
  timer: 'PWM',
  interrupt: 'interrupt',
  touch: 'touch',
  wake: 'wake-up',
}
const routedWords: Partial<Record<UnitKind, string>> = {
  ...abilityWords,
  uart: 'serial',
  i2c: 'I2C',
  spi: 'SPI',
  can: 'CAN',
}

/** What a matrix can bring to the pin, by kind: no list of lines is worth reading when it can be any of them. */
const routed = (chip: Chip, pin: ChipPin): string[] => {
  const ids = new Set((chip.matrix ?? []).filter((m) => m.pins.includes(pin.id)).flatMap((m) => m.units))
  const kinds = new Set(chip.units.filter((u) => ids.has(u.id)).map((u) => routedWords[u.kind] ?? u.kind))
  return kinds.size > 0 ? [`any line of ${[...kinds].join(', ')}`] : []
}

export const passport = (chip: Chip, pin: ChipPin): Passport => ({
  pin,
  place: placeName(pin),
  names: [pin.id, ...(pin.number === undefined ? [] : [`number ${pin.number}`]), ...(pin.names ?? [])],
  abilities: [
    ...(pin.functions ?? []).map((f) => {
      const unit = chip.units.find((u) => u.id === f.unit)
      const word = unit && abilityWords[unit.kind]
      return `${word ? `${word} ` : ''}${f.unit} ${f.signal}${f.select === undefined ? '' : ` (function ${f.select})`}`
    }),
    ...routed(chip, pin),
  ],
})

/**
 * Pins with this name: leg number (`17` or `leg 17`), port, program number, chart name or function; `names` adds what
 * boards, expansion boards and devices call them.
 */
export const findPins = (chip: Chip, text: string, names?: Map<string, PinName[]>): ChipPin[] => {
  const also = (p: ChipPin) => (names?.get(p.id) ?? []).map((n) => n.name)
  const wanted = text
    .trim()
    .toLowerCase()
    .replace(/^leg\s+/, '')
  if (!wanted) return []
  const exact = chip.pins.filter(
    (p) =>
      p.id.toLowerCase() === wanted ||
      (!p.labels && p.legs.some((l) => String(l) === wanted)) ||
      [...(p.names ?? []), ...also(p)].some((n) => n.toLowerCase() === wanted),
  )
  const loose = chip.pins.filter(
    (p) =>
      !exact.includes(p) &&
      [
        p.id,
        ...(p.names ?? []),
        ...also(p),
        ...(p.functions ?? []).flatMap((f) => [f.signal, `${f.unit}.${f.signal}`, `${f.unit} ${f.signal}`]),
      ].some((n) => n.toLowerCase().includes(wanted)),
  )
  return [...exact, ...loose]
}

/** Where to find it: `leg 5`, or on a board what is printed there: `T5`. */
export const placeName = (pin: ChipPin): string => pin.labels?.join('/') ?? `leg ${pin.legs.join('/')}`

/** In a table of legs: `5 PA4`, or on a board what is printed there. */
export const shortPlace = (pin: ChipPin): string => pin.labels?.join('/') ?? `${pin.legs.join('/')} ${pin.id}`

/** `leg 5 (PA4)`, or on a board `T5 (PA4)`: the way a leg is named everywhere. */
export const legSaid = (pin: ChipPin): Said => {
  const place = placeName(pin)
  if (place === pin.id) return say`${place}`
  return pin.labels ? say`${place} (${pin.id})` : say`leg ${pin.legs.join('/')} (${pin.id})`
}

export const legName = (pin: ChipPin): string => legSaid(pin).text

export const wireOn = (wires: Wire[], pin: ChipPin): Wire | undefined =>
  wires.find((w) => w.pin.id === pin.id)
