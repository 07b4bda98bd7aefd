// What a builder has said of families and words of one maker’s sheets, kept for the next sheet. It is kept when a part is
// put in the library; each rule can be taken back, and all can be taken to another computer.

import type { Answers } from '@root-board/core/intake'
import { create } from 'zustand'
import { persist } from 'zustand/middleware'

interface RulesState {
  rules: Answers
  keep: (answers: Answers) => void
  takeBack: (id: string) => void
}

/** Answers that hold beyond their own table: what a family is, what a word is. */
export const rulesIn = (answers: Answers): Answers =>
  Object.fromEntries(Object.entries(answers).filter(([id]) => /^(?:kind|word):./.test(id)))

export const without = (answers: Answers, ids: string[]): Answers =>
  Object.fromEntries(Object.entries(answers).filter(([id]) => !ids.includes(id)))

export const useRules = create<RulesState>()(
  persist(
    (set) => ({
      rules: {},
      keep: (answers) => set((s) => ({ rules: { ...s.rules, ...rulesIn(answers) } })),
      takeBack: (id) => set((s) => ({ rules: without(s.rules, [id]) })),
    }),
    { name: 'root-board-intake-rules' },
  ),
)

const format = 'root-board-intake-rules/1'
export const rulesFile = (rules: Answers): string => JSON.stringify({ format, rules }, null, 2)

/** Rules of a file; what is wrong with it in words. */
export const readRules = (text: string): { rules: Answers } | { fault: string } => {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return { fault: 'is not JSON' }
  }
  const { format: of, rules } = (data ?? {}) as { format?: unknown; rules?: unknown }
  if (of !== format) return { fault: `has no format “${format}”` }
  if (typeof rules !== 'object' || rules === null || Array.isArray(rules))
    return { fault: 'rules: is no list' }
  const wrong = Object.entries(rules).find(
    ([id, value]) => !/^(?:kind|word):./.test(id) || typeof value !== 'string',
  )
  return wrong ? { fault: `rules.${wrong[0]}: is no rule` } : { rules: rules as Answers }
}
