// What has been pasted and answered so far. Kept in the browser until the part is in the library, so that a reload or a
// closed lid loses nothing.

import type { Answers, Exchange } from '@root-board/core/intake'
import { create } from 'zustand'
import { createJSONStorage, persist } from 'zustand/middleware'

export interface PasteDraft {
  kind: 'chip' | 'board' | 'regulator' | 'device'
  name: string
  sheet: string
  maker: string
  price: string
  style: string
  legs: string
  chip: string
  /** What sort of thing a device is, and how far apart a regulator’s legs are. */
  group: string
  pitch: string
  logic: string
  inputMin: string
  inputMax: string
  tableText: string
  limitsText: string
  answers: Answers
  limitAnswers: Answers
  /** Rules of earlier sheets that are asked anew for this one. */
  askedAgain: string[]
  /** Exchange files brought in, each with the package or component that was chosen. */
  exchange: (Exchange & { chosen: number })[]
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
  group: '',
  pitch: '',
  logic: '3.3 V',
  inputMin: '4.5 V',
  inputMax: '5.5 V',
  tableText: '',
  limitsText: '',
  answers: {},
  limitAnswers: {},
  askedAgain: [],
  exchange: [],
}

interface PasteState extends PasteDraft {
  set: (change: Partial<PasteDraft>) => void
  clear: () => void
}

/** A draft too large for the browser's store is kept in the page alone. */
const forgiving = {
  getItem: (name: string) => localStorage.getItem(name),
  setItem: (name: string, value: string) => {
    try {
      localStorage.setItem(name, value)
    } catch {
      localStorage.removeItem(name)
    }
  },
  removeItem: (name: string) => localStorage.removeItem(name),
}

export const usePaste = create<PasteState>()(
  persist(
    (set) => ({
      ...empty,
      set: (change) => set(change),
      clear: () => set(empty),
    }),
    { name: 'root-board-paste', storage: createJSONStorage(() => forgiving) },
  ),
)
