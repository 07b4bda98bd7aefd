// Saving without being asked: soon after an edit, one save at a time, kept in the page while the server is away.

import { api, Problem, type StoredProject } from '../api/client'
import { dropDraft, isSame, keepDraft, readDraft, settleDraft } from './drafts'
import { useProject } from './project'

const pause = 300
const retry = 2500

/** Opens a project: the kept draft if there is one, else what is stored. */
export const openProject = async (id: string): Promise<void> => {
  const draft = await readDraft(id)
  let stored: StoredProject | undefined
  try {
    stored = await api.project(id)
  } catch (error) {
    if (error instanceof Problem || !draft) throw error
  }
  const { open } = useProject.getState()
  if (draft) open(id, draft.design, draft.version, { kind: 'waiting' })
  else if (stored) open(id, stored.design, stored.version, { kind: 'saved' })
}

/** Saves while mounted; returns the function that stops it. */
export const startAutosave = (): (() => void) => {
  let timer: ReturnType<typeof setTimeout> | undefined
  let busy = false

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
      const stored = await api.save(id, version, design)
      const now = useProject.getState()
      if (now.id !== id) return await settleDraft(id, design, stored.version)
      const settled = now.design === design
      setSave({ kind: settled ? 'saved' : 'waiting' }, stored.version)
      if (settled) await dropDraft(id)
      else await keepDraft(id, { design: now.design!, version: stored.version })
    } catch (error) {
      if (useProject.getState().id !== id) return
      if (error instanceof Problem && error.status === 412 && error.stored) {
        const { stored } = error
        // The very same was saved already, by a page that was left while it waited for the answer.
        if (isSame(stored.design, design)) {
          setSave({ kind: useProject.getState().design === design ? 'saved' : 'waiting' }, stored.version)
          await settleDraft(id, design, stored.version)
        } else setSave({ kind: 'conflict', stored })
      } else if (error instanceof Problem && error.status < 500)
        setSave({
          kind: 'refused',
          why: [error.message, ...error.faults.map((f) => `${f.path}: ${f.message}`)].join(' '),
        })
      else setSave({ kind: 'away' })
    } finally {
      busy = false
      const after = useProject.getState().save.kind
      if (after === 'waiting') later(pause)
      if (after === 'away') later(retry)
    }
  }
  const stop = useProject.subscribe((now, before) => {
    if (now.design !== before.design && now.id === before.id && now.id && now.design)
      void keepDraft(now.id, { design: now.design, version: now.version })
    if (now.save.kind === 'waiting' && now.save !== before.save) later(pause)
  })
  const back = () => later(0)
  window.addEventListener('online', back)
  if (useProject.getState().save.kind === 'waiting') later(0)
  return () => {
    stop()
    clearTimeout(timer)
    window.removeEventListener('online', back)
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
