import { type CandidateChip, candidateOrder } from '@root-board/core/chip'
import type { Design } from '@root-board/core/design'
import { startTransition, useEffect, useState } from 'react'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'

export interface Candidates {
  /** Those solved so far, best first. */
  list: CandidateChip[]
  done: number
  total: number
  /** Asked, and without an answer: the question failed. */
  failed: number
  stopped: boolean
  stop: () => void
  goOn: () => void
}

/** Every carrier of the library against the design, solved one after the other in the worker. */
export const useCandidates = (): Candidates => {
  const { design, library } = useStage()
  const [known, setKnown] = useState<Map<string, { design: Design; judged: CandidateChip }>>(new Map())
  const [stopped, setStopped] = useState(false)
  const [failures, setFailures] = useState<{ of: Design; ids: string[] }>()
  const ids = Object.values(library.parts)
    .filter((p) => p.kind === 'chip' || p.kind === 'board')
    .map((p) => p.id)
  const own = design.chip.part
  const all = [...ids.filter((id) => id === own), ...ids.filter((id) => id !== own)].join()
  useEffect(() => {
    if (stopped) return
    let wanted = true
    let come: [string, { design: Design; judged: CandidateChip }][] = []
    // Several at once, and after whatever the builder asks for: a table drawn anew for each would hold up the way to
    // another page.
    const show = () => {
      if (come.length === 0) return
      const next = come
      come = []
      startTransition(() => setKnown((before) => new Map([...before, ...next])))
    }
    const shown = setInterval(show, 150)
    const run = async () => {
      for (const id of all.split(',').filter(Boolean)) {
        const judged = await questions.candidate(design, id).catch(() => undefined)
        if (!wanted) return
        if (!judged) setFailures((f) => ({ of: design, ids: [...(f?.of === design ? f.ids : []), id] }))
        else come.push([id, { design, judged }])
      }
      clearInterval(shown)
      show()
    }
    void run()
    return () => {
      wanted = false
      clearInterval(shown)
      show()
    }
  }, [design, all, stopped])
  const there = ids.flatMap((id) => known.get(id) ?? [])
  const list = there.map((k) => k.judged).sort(candidateOrder)
  const failed = failures?.of === design ? failures.ids.length : 0
  const done = there.filter((k) => k.design === design).length + failed
  return {
    list,
    done,
    total: ids.length,
    failed,
    stopped,
    stop: () => setStopped(true),
    goOn: () => setStopped(false),
  }
}
