// What was understood of a table.

import type { ChipPin, Fault, UnitKind } from '../parts'
import type { Account } from './account'
import type { Column } from './columns'
import type { Separator } from './grid'
import type { Place, RowKind } from './layout'
import type { NamedFunction } from './functions'
import type { Question } from './questions'

export interface FoundFunction extends NamedFunction {
  /** Why its kind is what it is: its form, its column’s heading, its family’s signals, or an answer. */
  by: 'form' | 'signals' | 'answer' | 'nothing'
  select?: number
  text: string
  place: Place
}
export interface FoundLeg {
  id: string
  legs: number[]
  type: ChipPin['type']
  functions: FoundFunction[]
  reset: boolean
  oscillator: boolean
  debug?: string
  /** From footnotes: what they say about this leg. */
  notes: string[]
  /** Number in the program, label and header position, where columns give them. */
  number?: number
  label?: string
  position?: string
  places: Place[]
  /** What its corrections are kept under. */
  key?: string
  /** Why it should be looked at. */
  unsure?: string[]
  /** Families of functions that the builder took out of it by hand. */
  takenOut?: string[]
  /** Where functions stand that the builder says are none. */
  leftOut?: Place[]
}
export interface PackageColumn {
  column: number
  heading: string
  legs: number
}
export interface FoundUnit {
  id: string
  family: string
  kind: UnitKind
  signals: string[]
  functions: number
}
export interface ReadingScore {
  id: string
  words: string
  score: number
  /** How many names it finds; of a long text its beginning alone was read in every way, and they are not known. */
  legs: number | undefined
}
export interface Understood {
  separator: Separator
  kinds: Record<number, RowKind>
  columns: Column[]
  packages: PackageColumn[]
  legs: FoundLeg[]
  units: FoundUnit[]
  /** How many legs the package has. */
  total: number
  faults: Fault[]
  questions: Question[]
  /** Answers about families and words that this text has: what they were used for. */
  used: string[]
  /** What became of every character. */
  account: Account
  /** The ways in which the text was read, best first; the first is the one that was taken. */
  readings: ReadingScore[]
}
