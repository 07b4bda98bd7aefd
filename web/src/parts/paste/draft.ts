// What has been pasted and answered so far. Kept in the browser until the part is in the library, so that a reload or a
// closed lid loses nothing.

import type { Answers } from '@root-board/core/intake'
import { create } from 'zustand'
import { createJSONStorage, persist } from 'zustand/middleware'

export interface PasteDraft {
  kind: 'chip' | 'board'
  name: string
  sheet: string
  maker: string
  price: string
  style: string
  legs: string
  chip: string
  logic: string
  inputMin: string
  inputMax: string
  tableText: string
  limitsText: string
  answers: Answers
  limitAnswers: Answers
}
const empty: PasteDraft = {
  kind: 'chip',
  name: '',
  sheet: '',
  maker: '',
  price: '',
  style: '',
  legs: '',
  chip: '',
  logic: '3.3 V',
  inputMin: '4.5 V',
  inputMax: '5.5 V',
  tableText: '',
  limitsText: '',
  answers: {},
  limitAnswers: {},
}

interface PasteState extends PasteDraft {
  set: (change: Partial<PasteDraft>) => void
  clear: () => void
}

export const usePaste = create<PasteState>()(
  persist(
    (set) => ({
      ...empty,
      set: (change) => set(change),
      clear: () => set(empty),
    }),
    { name: 'root-board-paste', storage: createJSONStorage(() => localStorage) },
  ),
)
