// The open project: its design, what was done to it and can be undone, and how saving stands.

import { applyEdits, type Design, type Edit, editLabel, withFactsKept } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { create } from 'zustand'
import type { StoredProject } from '../api/client'

export interface Step {
  label: string
  before: Design
  after: Design
}

export type SaveState =
  | { kind: 'saved' }
  | { kind: 'waiting' }
  | { kind: 'saving' }
  /** Not stored yet, and tried again: why, where the server said so, and whether this browser keeps it meanwhile. */
  | { kind: 'away'; why?: string; kept: boolean }
  | { kind: 'conflict'; stored: StoredProject }
  | { kind: 'refused'; why: string }

interface ProjectState {
  id?: string
  version: number
  design?: Design
  done: Step[]
  undone: Step[]
  save: SaveState
  /** What the library says now: new parts of the project take their facts from it. */
  library?: Library
  setLibrary: (library: Library) => void
  open: (id: string, design: Design, version: number, save: SaveState) => void
  close: () => void
  /** One step of one or more edits. */
  edit: (edits: Edit | Edit[], label?: string) => void
  undo: () => void
  redo: () => void
  setSave: (save: SaveState, version?: number) => void
}

const longest = 500

export const useProject = create<ProjectState>((set, get) => ({
  version: 0,
  done: [],
  undone: [],
  save: { kind: 'saved' },
  setLibrary: (library) => set({ library }),
  open: (id, design, version, save) => set({ id, design, version, save, done: [], undone: [] }),
  close: () => set({ id: undefined, design: undefined, done: [], undone: [] }),
  edit: (given, label) => {
    const { design, done, save, library } = get()
    const edits = Array.isArray(given) ? given : [given]
    if (!design || edits.length === 0) return
    const changed = applyEdits(design, edits)
    if (changed === design || JSON.stringify(changed) === JSON.stringify(design)) return
    const after = library ? withFactsKept(changed, library) : changed
    const step = { label: label ?? editLabel(edits[0]!, design), before: design, after }
    set({ design: after, done: [...done.slice(-longest), step], undone: [], save: pending(save) })
  },
  undo: () => {
    const { done, undone, save } = get()
    const step = done.at(-1)
    if (step)
      set({ design: step.before, done: done.slice(0, -1), undone: [...undone, step], save: pending(save) })
  },
  redo: () => {
    const { done, undone, save } = get()
    const step = undone.at(-1)
    if (step)
      set({ design: step.after, done: [...done, step], undone: undone.slice(0, -1), save: pending(save) })
  },
  setSave: (save, version) => set(version === undefined ? { save } : { save, version }),
}))

/** A conflict stays until the builder has chosen. */
const pending = (save: SaveState): SaveState => (save.kind === 'conflict' ? save : { kind: 'waiting' })
