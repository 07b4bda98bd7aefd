// Which project is being built step by step. Kept in the browser; nothing of it is the project's.

import { create } from 'zustand'
import { persist } from 'zustand/middleware'

interface Guided {
  /** Its id. */
  project?: string
  /** The last step is one of looking: whether its page has been open. */
  looked: boolean
  look: () => void
  begin: (project: string) => void
  leave: () => void
}

export const useGuided = create<Guided>()(
  persist(
    (set) => ({
      looked: false,
      look: () => set({ looked: true }),
      begin: (project) => set({ project, looked: false }),
      leave: () => set({ project: undefined, looked: false }),
    }),
    { name: 'guided-board' },
  ),
)
