// What is asked of the builder about a pasted table: answers are plain data, and the same text with the same answers is
// always understood in the same way.

import type { Place } from './layout'

export interface Choice {
  id: string
  label: string
}
export interface Question {
  /** What an answer is kept under: `kind:TB`, `package`, `leg:7`. */
  id: string
  text: string
  /** What is taken meanwhile, and what it rests on. */
  guess?: string
  why?: string
  choices: Choice[]
  /** A name may be typed instead. */
  free?: string
  /** How many legs and functions it settles. */
  value: number
  places: Place[]
}
export type Answers = Record<string, string>

/** What is not answered yet, most valuable first. */
export const inOrderOfValue = (questions: Question[], answers: Answers): Question[] =>
  questions
    .filter((q) => !Object.hasOwn(answers, q.id))
    .sort((a, b) => b.value - a.value || a.id.localeCompare(b.id))
