import type { Design } from '@root-board/core/design'
import type { ReachEntry } from '@root-board/core/planner'
import { useEffect, useState } from 'react'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'
import { latestWins } from '../../worker/latest-wins'

export type Reach = Map<string, ReachEntry>

/** The reach of the chosen signal, by pin id; undefined while none is chosen or it is being computed. */
export const useReach = (signal: string | undefined): { reach?: Reach; failed?: string } => {
  const { design } = useStage()
  const [known, setKnown] = useState<{ design: Design; signal: string; reach: Reach }>()
  const [failed, setFailed] = useState<string>()
  const [{ ask }] = useState(() =>
    latestWins(
      (q: { design: Design; signal: string }) => questions.reach(q.design, q.signal),
      (entries, q) => {
        setFailed(undefined)
        setKnown({ ...q, reach: new Map(entries.map((e) => [e.pin, e])) })
      },
      (error) => setFailed(error.message),
    ),
  )
  useEffect(() => {
    if (signal) ask({ design, signal })
  }, [design, signal, ask])
  if (!signal) return {}
  return { reach: known?.signal === signal && !failed ? known.reach : undefined, failed }
}
