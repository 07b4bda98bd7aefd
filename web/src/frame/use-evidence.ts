// Whether the evidence is open: while it has something to say and there is room for it, or as the builder says; what is
// new opens it by itself, and where nothing is left it folds.

import type { Finding } from '@root-board/core/findings'
import { useMediaQuery } from '@mui/material'
import { useEffect, useRef } from 'react'
import { useFrame } from './frame-state'

/** Where the evidence lies beside the page and not over it. */
const useBeside = () => useMediaQuery('(min-width: 1000px)', { noSsr: true })

export const useEvidence = (findings: readonly Finding[]): boolean => {
  const said = useFrame((s) => s.evidence)
  const beside = useBeside()
  return said ?? (beside && findings.length > 0)
}

/** Once for the frame: what the builder last said counts until something new turns up, or nothing is left. */
export const useEvidenceByItself = (findings: readonly Finding[]): void => {
  const set = useFrame((s) => s.set)
  const beside = useBeside()
  const known = useRef<ReadonlySet<string>>(undefined)
  useEffect(() => {
    const now = new Set(findings.map((f) => f.id))
    const before = known.current
    known.current = now
    if (!before || !beside) return
    if (now.size === 0 ? before.size > 0 : [...now].some((id) => !before.has(id)))
      set({ evidence: undefined })
  }, [findings, beside, set])
}
