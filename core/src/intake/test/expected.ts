// What must be understood of a table.

import type { Answers, TableOptions } from '..'

export interface ExpectedLeg {
  id: string
  legs: number[]
  type: string
  /** `TMR1.CH2`, or `TMR1.CH2@3` where function 3 selects it. */
  functions: string[]
}
export interface TableCase {
  name: string
  text: string
  options: TableOptions
  expected: ExpectedLeg[]
  /** What a builder with the sheet in hand answers. */
  answers: Answers
  marked: [id: string, mark: string][]
  units: [id: string, kind: string][]
  faults?: string[]
}
