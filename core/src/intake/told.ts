// What a sheet’s tables don’t say and a part’s file must: asked one by one, and typed with a unit.

import { parseQuantity, QuantityError, type Unit } from '../quantity'
import type { Answers, Question } from './questions'

/** A fact that a part can’t do without. */
export interface Needed {
  path: string
  /** “its drop-out voltage at full current”. */
  words: string
  unit: Unit
  /** Which corner one number is; `range`: from … to …; `plain`: the file has a number. */
  is: 'typ' | 'max' | 'range' | 'plain'
  example: string
}
export interface PartFrom {
  file: Record<string, unknown>
  questions: Question[]
  /** What its sheet must still tell before it can be put in the library. */
  missing: string[]
  /** What was taken without having been read, and what is left to the builder. */
  notes: string[]
  /** What each leg was taken for, in words, by its name. */
  says: Record<string, string>
}

const number = (text: string, unit: Unit): number | undefined => {
  try {
    return parseQuantity(text.trim(), unit)
  } catch (error) {
    if (error instanceof QuantityError) return undefined
    throw error
  }
}
/** What was typed for a fact, as its file has it; undefined where it can’t be read. */
export const typedFact = (text: string, { is, unit }: Needed): unknown => {
  const [from, to, more] = text.split(/\s+(?:to|…|\.\.\.?|–)\s+|\s*…\s*/)
  const [min, max] = [number(from ?? '', unit), to === undefined ? undefined : number(to, unit)]
  if (more !== undefined || min === undefined || (to !== undefined && max === undefined)) return undefined
  const source = 'typed by hand'
  if (is === 'range') return max === undefined || max < min ? undefined : { min, max, source }
  if (is === 'plain') return max === undefined ? min : undefined
  return max === undefined ? { [is]: min, source } : max < min ? undefined : { min, max, source }
}

/** The question for what is missing, and what was answered to it. */
export const askedFor = (needed: Needed, answers: Answers): { value?: unknown; question?: Question } => {
  const answer = answers[`fact:${needed.path}`]
  const value = answer === undefined || answer === 'later' ? undefined : typedFact(answer, needed)
  if (value !== undefined) return { value }
  if (answer === 'later') return {}
  return {
    question: {
      id: `fact:${needed.path}`,
      text: `What is ${needed.words}?`,
      why:
        answer === undefined
          ? 'No row of its tables says it.'
          : `“${answer}” can’t be read for it; ${needed.example} can.`,
      choices: [{ id: 'later', label: 'not known yet' }],
      free: needed.example,
      value: 1,
      places: [],
    },
  }
}
