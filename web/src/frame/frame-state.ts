// What of the frame is open. Nothing of this is the project's.

import { create } from 'zustand'

interface FrameState {
  /** Whether the evidence is open, as the builder last said; absent: it is while it has something to say. */
  evidence?: boolean
  search: boolean
  help: boolean
  /** The finding that is open, by id. */
  finding?: string
  /** The finding whose first fix is to be shown as soon as it has been tried. */
  fixOf?: string
  set: (change: Partial<Omit<FrameState, 'set'>>) => void
}

export const useFrame = create<FrameState>((set) => ({
  search: false,
  help: false,
  set: (change) => set(change),
}))
