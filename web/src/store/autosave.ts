// Saving without being asked: soon after an edit, one save at a time, kept in the page while the server is away.

import type { Design } from '@root-board/core/design'
import { api, Problem, type StoredProject } from '../api/client'
import { type Draft, dropDraft, isSame, keepDraft, readDraft, settleDraft } from './drafts'
import { type SaveState, useProject } from './project'

const pause = 300
const retry = 2500
/** A draft that a tab still has is renewed in time, so that no other tab takes it for one that was left behind. */
const renewal = 2000

/** What of the open project went and was not answered yet, or never: any of it may have been stored. */
let sent: readonly Design[] = []
const mostSent = 4

/** Opens a project: the kept draft if there is one, else what is stored. */
export const openProject = async (id: string): Promise<void> => {
  let stored: StoredProject | undefined
  let missing: Error | undefined
  try {
    stored = await api.project(id)
  } catch (error) {
    if (error instanceof Problem) throw error
    missing = error as Error
  }
  const draft = await readDraft(id, stored?.design)
  if (missing && !draft) throw missing
  const { open } = useProject.getState()
  sent = draft?.sent ?? []
  if (draft) open(id, draft.design, draft.version, { kind: 'waiting' })
  else if (stored) open(id, stored.design, stored.version, { kind: 'saved' })
}
/** Why it is tried again: in the server’s words, where it had some. */
const away = (error: unknown, kept: boolean): SaveState => ({
  kind: 'away',
  why: error instanceof Problem ? error.message : undefined,
  kept,
})

/** Saves while mounted; returns the function that stops it. */
export const startAutosave = (): (() => void) => {
  let timer: ReturnType<typeof setTimeout> | undefined
  let busy = false
  let kept = true
  const keep = async (id: string, draft: Draft): Promise<void> => {
    kept = await keepDraft(id, draft)
  }

  const later = (ms: number) => {
    clearTimeout(timer)
    timer = setTimeout(() => void saveNow(), ms)
  }
  const saveNow = async (): Promise<void> => {
    const { id, design, version, save, setSave } = useProject.getState()
    if (!id || !design || busy || (save.kind !== 'waiting' && save.kind !== 'away')) return
    busy = true
    setSave({ kind: 'saving' })
    try {
      sent = [...sent.filter((d) => d !== design), design].slice(-mostSent)
      void keep(id, { design, version, sent })
      const stored = await api.save(id, version, design)
      if (useProject.getState().id === id) sent = []
      const now = useProject.getState()
      if (now.id !== id) return await settleDraft(id, design, stored.version)
      const settled = now.design === design
      setSave({ kind: settled ? 'saved' : 'waiting' }, stored.version)
      if (settled) await dropDraft(id)
      else await keep(id, { design: now.design!, version: stored.version })
    } catch (error) {
      if (useProject.getState().id !== id) return
      if (error instanceof Problem && error.status === 412 && error.stored) {
        const { stored } = error
        // The very same was saved already, by a page that was left while it waited for the answer.
        if (isSame(stored.design, design)) {
          sent = []
          setSave({ kind: useProject.getState().design === design ? 'saved' : 'waiting' }, stored.version)
          await settleDraft(id, design, stored.version)
        } else if (sent.some((d) => isSame(d, stored.design))) {
          // An earlier state of this page, whose answer was lost: it is saved over.
          sent = []
          setSave({ kind: 'waiting' }, stored.version)
        } else setSave({ kind: 'conflict', stored })
      } else if (error instanceof Problem && error.status < 500)
        setSave({
          kind: 'refused',
          why: [error.message, ...error.faults.map((f) => `${f.path}: ${f.message}`)].join(' '),
        })
      else setSave(away(error, kept))
    } finally {
      busy = false
      const after = useProject.getState().save.kind
      if (after === 'waiting') later(pause)
      if (after === 'away') later(retry)
    }
  }
  const stop = useProject.subscribe((now, before) => {
    if (now.design !== before.design && now.id === before.id && now.id && now.design)
      void keep(now.id, { design: now.design, version: now.version, sent })
    if (now.save.kind === 'waiting' && now.save !== before.save) later(pause)
  })
  const back = () => later(0)
  // A page that is left sends what it has: the request outlives it.
  const leaving = () => void saveNow()
  const warn = (event: BeforeUnloadEvent) => {
    if (useProject.getState().save.kind !== 'saved' && !kept) event.preventDefault()
  }
  const renewing = setInterval(() => {
    const { id, design, version, save } = useProject.getState()
    if (id && design && save.kind !== 'saved') void keep(id, { design, version, sent })
  }, renewal)
  window.addEventListener('online', back)
  window.addEventListener('pagehide', leaving)
  window.addEventListener('beforeunload', warn)
  if (useProject.getState().save.kind === 'waiting') later(0)
  return () => {
    stop()
    clearTimeout(timer)
    clearInterval(renewing)
    window.removeEventListener('online', back)
    window.removeEventListener('pagehide', leaving)
    window.removeEventListener('beforeunload', warn)
    void saveNow()
  }
}

/** Ends a conflict. Whichever side is not kept here is kept as a project of its own. */
export const resolveConflict = async (keep: 'mine' | 'theirs'): Promise<void> => {
  const { id, design, save, open, setSave } = useProject.getState()
  if (!id || !design || save.kind !== 'conflict') return
  const { stored } = save
  if (keep === 'mine') {
    await api.create({ ...stored.design, name: `${stored.design.name} (the other version)` })
    await keepDraft(id, { design, version: stored.version })
    setSave({ kind: 'waiting' }, stored.version)
  } else {
    await api.create({ ...design, name: `${design.name} (my version)` })
    await dropDraft(id)
    open(id, stored.design, stored.version, { kind: 'saved' })
  }
}
