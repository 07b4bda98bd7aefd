// A group of lines used as one byte: where each bit is, and what a pattern is in binary, hexadecimal and decimal.

import type { OpenNeeds } from '../needs'
import type { Plan, Wire } from './wires'

export interface BytePlan {
  id: string
  name: string
  /** Lowest bit first. */
  wires: Wire[]
  /** All on one port in order: then one write sets them all. */
  port?: { name: string; shift: number }
}

const portOf = (pin: string) => {
  const match = /^(.*?)(\d+)$/.exec(pin)
  return match ? { name: match[1]!, bit: Number(match[2]) } : undefined
}

/** The bytes of the wirings that the plan has; one that misses a wire is left out. */
export const bytePlans = (
  needs: Pick<OpenNeeds, 'bytes'>,
  { wires, wirings }: Pick<Plan, 'wires' | 'wirings'>,
): BytePlan[] => {
  const chosen = new Set(wirings.map((w) => `${w.need}=${w.wiring.id}`))
  return needs.bytes
    .filter((b) => b.when === undefined || chosen.has(b.when))
    .flatMap(({ id, name, signals }) => {
      const found = signals.flatMap((s) => wires.find((w) => w.signal.id === s) ?? [])
      if (found.length < signals.length) return []
      const places = found.map((w) => portOf(w.pin.id))
      const first = places[0]
      const inOrder = first && places.every((p, i) => p?.name === first.name && p.bit === first.bit + i)
      return [{ id, name, wires: found, port: inOrder ? { name: first.name, shift: first.bit } : undefined }]
    })
}

export const patternBases = ['binary', 'hexadecimal', 'decimal'] as const
export type PatternBase = (typeof patternBases)[number]

/** A pattern of some bits as it is written in a base, without a prefix, binary at its full width. */
export const writePattern = (value: number, bits: number, base: PatternBase): string =>
  base === 'binary'
    ? value.toString(2).padStart(bits, '0')
    : base === 'hexadecimal'
      ? value
          .toString(16)
          .toUpperCase()
          .padStart(Math.ceil(bits / 4), '0')
      : String(value)

/** Reads it back; blanks, underscores and the usual prefixes are allowed. Undefined for what is no such number or too large. */
export const readPattern = (text: string, bits: number, base: PatternBase): number | undefined => {
  const plain = text.replace(/[\s_]/g, '').toLowerCase()
  const digits = { binary: plain.replace(/^0b/, ''), hexadecimal: plain.replace(/^0x/, ''), decimal: plain }[
    base
  ]
  const allowed = { binary: /^[01]+$/, hexadecimal: /^[0-9a-f]+$/, decimal: /^\d+$/ }[base]
  if (!allowed.test(digits)) return undefined
  const value = Number.parseInt(digits, { binary: 2, hexadecimal: 16, decimal: 10 }[base])
  return value < 2 ** bits ? value : undefined
}

/** What is written to the port for a pattern, and which of its bits that concerns. */
export const portValue = (
  { port, wires }: BytePlan,
  value: number,
): { mask: number; value: number } | undefined =>
  port && { mask: (2 ** wires.length - 1) * 2 ** port.shift, value: value * 2 ** port.shift }
