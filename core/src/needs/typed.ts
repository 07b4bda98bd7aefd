// Reading one typed line of wishes: "3 buttons, 1 buzzer, relay module, 4-digit display".

import type { Device } from '../parts'

export interface TypedDevice {
  text: string
  count: number
  /** The text without its count. */
  what: string
  /** Best match first; empty when nothing fits. */
  matches: Device[]
}

const numbers: Record<string, number> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
}
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean)
    .map((w) => (w.length > 3 && w.endsWith('s') && !w.endsWith('ss') ? w.slice(0, -1) : w))

/** How well a device answers some words: below −2 not at all; every word must be found somewhere. */
const score = (device: Device, words: string[]): number => {
  const name = wordsOf(device.name)
  const group = wordsOf(device.group)
  const other = (device.keywords ?? []).flatMap(wordsOf)
  let sum = 0
  for (const word of words) {
    const begins = (list: string[]) => list.some((w) => w.startsWith(word))
    if (name.includes(word)) sum += 4
    else if (group.includes(word)) sum += 3
    else if (begins(name)) sum += 2
    else if (other.includes(word) || begins(group) || begins(other)) sum += 1
    else return -9
  }
  // A whole board for a header is meant only when it is asked for.
  return sum - name.length * 0.1 - (device.expansion ? 2 : 0)
}

export const searchDevices = (text: string, devices: readonly Device[]): Device[] => {
  const words = wordsOf(text)
  return devices
    .map((device) => ({ device, score: words.length > 0 ? score(device, words) : -9 }))
    .filter((m) => m.score > -2)
    .sort((a, b) => b.score - a.score || a.device.name.localeCompare(b.device.name))
    .map((m) => m.device)
}

/** Splits at commas and “and”; a leading number or number word is the count. */
export const readTypedDevices = (line: string, devices: readonly Device[]): TypedDevice[] =>
  line
    .split(/,|;|\band\b|\+|\n/i)
    .map((t) => t.trim())
    .filter(Boolean)
    .map((text) => {
      const counted = /^(\d+)\s*(?:x|×|pcs)?\s+(.+)$/i.exec(text)
      const worded = /^([a-z]+)\s+(.+)$/i.exec(text)
      const wordCount = worded ? numbers[worded[1]!.toLowerCase()] : undefined
      const count = counted ? Number(counted[1]) : (wordCount ?? 1)
      const what = counted ? counted[2]! : wordCount ? worded![2]! : text
      return {
        text,
        count: Math.min(64, Math.max(1, count)),
        what,
        // What is described behind a colon is a thing of its own, and not one of the library.
        matches: what.includes(':') ? [] : searchDevices(what, devices),
      }
    })
