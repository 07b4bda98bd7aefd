// The name of a leg as a sheet writes it, with whatever functions stand in the same cell.

import type { ChipPin } from '../parts'
import { bareName, readToken, resetWord } from './functions'
import { remember } from './remember'
import { type TypeCodes, typeOfWord } from './words'

const port =
  /^(?:P[A-Z]_?\d{1,2}|P\d{1,2}[._]\d{1,2}|P\d{2,3}|IO_?\d{1,3}|GPIO_?\d{1,3}|GP\d{1,3}|R[A-Z]\d{1,2}|PORT[A-Z]\.?\d{1,2}|DIO\d{1,3})$/
const ground = /^(?:[ADPE]|DIG|ANA)?_?(?:GND|VSS|VEE|COM)[A-Z]{0,3}_?\d{0,2}$|^(?:EP|EPAD|THERMAL|PAD|0V)$/
const supply =
  /^(?:A|D|P|IO|IN|CORE)?_?V(?:DD|CC)[A-Z]{0,4}(?:\d{0,2}|\d[PV.]\d)(?:_[A-Z0-9]+)?$|^(?:\+?\d(?:[.V]\d)V?|\+?\dV\d?)$|^(?:VBAT|VIN|VBUS|VSUP|VIO|VM|V\+|VEXT|VLCD|VUSB)\d{0,2}$/
const reference = /^(?:A?V?REF[A-Z0-9+-]{0,3}|VCAP_?\d?|DECAP|VREG|VCORE|BYP(?:ASS)?|DEC\d?)$/
const none = /^(?:N\.?C\.?|N\/C|DNC|DNU|RESERVED|RSVD|RFU|UNUSED|NO CONNECT(?:ION)?|NOT CONNECTED|NO PIN)$/
const radio = /^(?:ANT\d?|ANTENNA|RF|RF_?IO|RF[PN]|RF_?OUT)$/

export const isPort = (name: string): boolean => port.test(name.toUpperCase())

/** What a leg is by its name alone; undefined for an ordinary one. */
export const typeByName = remember((name: string): ChipPin['type'] | undefined => {
  const bare = bareName(name).toUpperCase()
  if (none.test(bare)) return 'none'
  if (ground.test(bare)) return 'ground'
  if (supply.test(bare)) return 'supply'
  if (reference.test(bare)) return 'reference'
  if (radio.test(bare)) return 'radio'
  return undefined
})
export const isReset = (name: string): boolean => resetWord.test(bareName(name).toUpperCase())

/** What a type column's cell says; undefined where it isn't one. An analog mark says nothing about direction. */
export const typeIn = (text: string, codes?: TypeCodes): ChipPin['type'] | 'analog' | undefined =>
  typeOfWord(bareName(text), codes) ?? typeOfWord(text, codes)

export interface Token {
  text: string
  /** Where in the cell. */
  from: number
  to: number
}

/** Whether a word among others is the name of a function: of a known form, with a number or a mark in it. */
export const isFunctionName = (text: string): boolean => {
  const read = /[\d_]/.test(text) && /^[A-Z]/.test(text) ? readToken(text) : undefined
  return read !== undefined && 'function' in read && read.function.kind !== undefined
}
/** Whether a piece of a joined name stands for itself: a port, or a function of a known form. */
const stands = (piece: string): boolean => {
  if (isPort(piece)) return true
  const read = piece.length > 1 ? readToken(piece) : undefined
  return (
    read !== undefined &&
    (!('function' in read) || read.function.kind !== undefined || /^[A-Z]+\d*_[A-Z]/.test(piece))
  )
}
/** `PA5-ADC5` is two names of one leg; a range of one name, or a name with a minus, is not. */
const partedAtHyphens = (t: Token): Token[] => {
  if (!t.text.includes('-')) return [t]
  // Behind a footnote’s mark a hyphen stands first.
  if (t.text.startsWith('-')) return partedAtHyphens({ ...t, text: t.text.slice(1), from: t.from + 1 })
  const pieces = t.text.split('-')
  if (pieces.length < 2 || namesInRange(t.text) || !pieces.every(stands)) return [t]
  let from = t.from
  return pieces.map((text) => {
    const token = { text, from, to: from + text.length }
    from += text.length + 1
    return token
  })
}

/** The names in a cell, at commas, slashes, bars, brackets and spaces. A break inside a name has been mended before. */
export const tokensOf = (text: string, atSpaces = true): Token[] =>
  [...text.matchAll(atSpaces ? /[^\s,;/|·•()[\]{}]+/g : /[^,;/|·•()[\]{}]+/g)].flatMap((m) => {
    const raw = m[0]
    const lead = raw.length - raw.trimStart().length
    const bare = raw.trim()
    return bare === '' || /^[-–—]+$/.test(bare)
      ? []
      : partedAtHyphens({ text: bare, from: m.index + lead, to: m.index + lead + bare.length })
  })

export interface NameCell {
  id: string
  /** Everything in the cell but the name. */
  others: Token[]
}

/** Whether a text can be the name of a leg at all. */
export const isLegName = (text: string): boolean =>
  /^[A-Z0-9+][A-Z0-9_.:+-]{0,79}$/.test(text) && !/^\d+$/.test(text)

/** Splits `PB3 (DOUT/TB1/INT3)`: the leg is known by its port where there is one, else by what comes first. */
export const nameIn = remember((text: string): NameCell | undefined => {
  const unmarked = text.replace(/[([]\d{1,2}[)\]]|[¹²³⁴⁵⁶⁷⁸⁹⁰†‡*]+/g, (mark) => ' '.repeat(mark.length))
  if (typeByName(unmarked.trim()) === 'none') return { id: 'NC', others: [] }
  const tokens = tokensOf(unmarked)
  const ids = tokens.map((t) => bareName(t.text).toUpperCase())
  // RX1 is a port of some chips, and beside another port a receiver.
  const ports = ids.flatMap((id, i) => (port.test(id) ? [i] : []))
  const at = ports.find((i) => !isFunctionName(ids[i]!)) ?? ports[0] ?? 0
  const id = ids[at]
  if (id === undefined || !isLegName(id)) return undefined
  return { id, others: tokens.filter((_, i) => i !== at) }
})

/** `PA0-PA7` is eight names; undefined where it is no range. */
export const namesInRange = (text: string): string[] | undefined => {
  const match = /^([A-Z]+[A-Z0-9_.]*?)(\d{1,2})\s*(?:[-–—]|\.\.+|…|to)\s*(?:\1)?(\d{1,2})$/i.exec(text.trim())
  if (!match) return undefined
  const [first, last] = [Number(match[2]), Number(match[3])]
  const step = last >= first ? 1 : -1
  const count = Math.abs(last - first) + 1
  return count < 2 || count > 64
    ? undefined
    : Array.from({ length: count }, (_, i) => `${match[1]!.toUpperCase()}${first + i * step}`)
}
