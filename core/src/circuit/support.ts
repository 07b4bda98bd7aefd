// A part that the board needs around the chip and its devices, with its reason, its sums and what its absence risks.

import type { SupportChoice } from '../design'
import type { Fact, Grade, Sentence, Severity, Worked } from '../findings'
import { type Capacitors, type Library, type Part, partsOfKind, type Resistors } from '../parts'
import { formatMarking, nearest, nextDown, nextUp } from '../quantity'

export interface Leg {
  /** As marked or counted on the part: `1`, `+`, `gate`. */
  name: string
  net: string
}

/** The legs of a part with two that are alike. */
export const twoLegs = (first: string, second: string): Leg[] => [
  { name: '1', net: first },
  { name: '2', net: second },
]

/** The parts of a level shift: a divider's two, a series resistor, a pull-up on each side, and what stands between them. */
export type ShiftPart = 'upper' | 'lower' | 'series' | 'near' | 'far' | 'transistor' | 'diode' | 'buffer'

/** What a support part is there for, as keys. A room adds its own: `declare module '../circuit/support' { interface SupportRoles { … } }`. */
export interface SupportRoles {
  'line pull-up': true
  'select pull-up': true
  transistor: true
  'gate resistor': true
  'base resistor': true
  'gate pull-down': true
  /** Of a transistor in the plus of its load: what holds its gate off, what pulls it low, and what spares it the whole supply. */
  'gate pull-up': true
  'pulling transistor': true
  'gate divider': true
  'flyback diode': true
  'lamp resistor': true
  'sensor divider': true
  'sampling capacitor': true
}
/** Whoever looks for a part goes by this and by the signal it serves, never by its key or name. */
export type SupportRole = keyof SupportRoles | `shift ${ShiftPart}`

export interface SupportPart extends SupportChoice {
  /** `decoupling:VCC`, `led:d4.1.LED`: what the builder's in and out choices refer to. */
  key: string
  role: SupportRole
  name: string
  part: Part
  /** Of a resistor or capacitor, with its marking. */
  value?: { value: number; unit: 'Ω' | 'F'; marking: string }
  legs: Leg[]
  /** Left out, its two legs are joined by wire. */
  series?: boolean
  why: string
  worked: Worked[]
  /** What it takes from the chip’s rail all the time. */
  draws?: Worked
  /** That comes from in front of the regulator, not from the rail. */
  drawsFrom?: 'source'
  /** What leaving it out does, with a number in it. */
  risk: { severity: Severity; grade: Grade; text: string; says: Sentence; facts: Fact[] }
  /** The signal it serves, when it serves one. */
  signal?: string
}

/** The part for this, in or out; of a signal where it serves one. */
export const supportFor = (
  support: readonly SupportPart[],
  role: SupportRole,
  signal?: string,
): SupportPart | undefined => support.find((s) => s.role === role && s.signal === signal)

/** The same, where it is fitted. */
export const fittedFor = (...asked: Parameters<typeof supportFor>): SupportPart | undefined => {
  const found = supportFor(...asked)
  return found?.present ? found : undefined
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
