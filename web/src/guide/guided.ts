// Which project is being built step by step. Kept in the browser; nothing of it is the project's.

import { create } from 'zustand'

interface Guided {
  /** Its id. */
  project?: string
  /** The last step is one of looking: whether its page has been open. */
  looked: boolean
  look: () => void
  begin: (project: string) => void
  leave: () => void
}

const place = 'guided'

export const useGuided = create<Guided>((set) => ({
  project: localStorage.getItem(place) ?? undefined,
  looked: false,
  look: () => set({ looked: true }),
  begin: (project) => {
    localStorage.setItem(place, project)
    set({ project, looked: false })
  },
  leave: () => {
    localStorage.removeItem(place)
    set({ project: undefined })
  },
}))
