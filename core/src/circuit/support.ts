// A part that the board needs around the chip and its devices, with its reason, its sums and what its absence risks.

import type { SupportChoice } from '../design'
import type { Fact, Grade, Severity, Worked } from '../findings'
import { type Capacitors, type Library, type Part, partsOfKind, type Resistors } from '../parts'
import { formatMarking, nearest, nextDown, nextUp } from '../quantity'

export interface Leg {
  /** As marked or counted on the part: `1`, `+`, `gate`. */
  name: string
  net: string
}

export interface SupportPart extends SupportChoice {
  /** `decoupling:VCC`, `led:d4.1.LED`: what the builder's in and out choices refer to. */
  key: string
  name: string
  part: Part
  /** Of a resistor or capacitor, with its marking. */
  value?: { value: number; unit: 'Ω' | 'F'; marking: string }
  legs: Leg[]
  /** Left out, its two legs are joined by wire. */
  series?: boolean
  why: string
  worked: Worked[]
  /** What leaving it out does, with a number in it. */
  risk: { severity: Severity; grade: Grade; text: string; facts: Fact[] }
  /** The signal it serves, when it serves one. */
  signal?: string
}

/** What is in the drawer for plain resistors and capacitors: the library's general series. */
export interface Stock {
  resistors?: Resistors
  ceramics?: Capacitors
  electrolytics?: Capacitors
}
export const stockOf = (library: Library): Stock => {
  const cheapest = <P extends { price: number }>(parts: readonly P[]) =>
    [...parts].sort((a, b) => a.price - b.price)[0]
  const capacitors = partsOfKind(library, 'capacitors')
  return {
    resistors: cheapest(partsOfKind(library, 'resistors')),
    ceramics: cheapest(capacitors.filter((c) => c.sort === 'ceramic')),
    electrolytics: cheapest(capacitors.filter((c) => c.sort === 'electrolytic')),
  }
}

const pickers = { up: nextUp, down: nextDown, nearest }

/** A preferred value of a series with its marking. */
export const preferred = (of: Resistors | Capacitors, value: number, which: keyof typeof pickers) => {
  const chosen = pickers[which](Math.min(of.to, Math.max(of.from, value)), of.series)
  const unit = of.kind === 'resistors' ? ('Ω' as const) : ('F' as const)
  return { value: chosen, unit, marking: formatMarking(chosen, unit) }
}
