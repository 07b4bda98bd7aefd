// A question about the open design that is answered in the worker, and asked again when the design changes.

import type { Design } from '@root-board/core/design'
import { useEffect, useState } from 'react'
import { useStage } from './analysis'

export interface Asked<T> {
  /** The last answer; undefined until the first. */
  answer?: T
  /** The answer is for the design as it is now. */
  current: boolean
  /** What went wrong, where the last question failed. */
  failed?: string
}

/** `ask` must be the same function from one rendering to the next; undefined: nothing is asked. */
export const useAsked = <T,>(ask: ((design: Design) => Promise<T>) | undefined): Asked<T> => {
  const { design } = useStage()
  const [known, setKnown] = useState<{ of: Design; ask: unknown; answer?: T; failed?: string }>()
  useEffect(() => {
    if (!ask) return
    let wanted = true
    ask(design).then(
      (answer) => {
        if (wanted) setKnown({ of: design, ask, answer })
      },
      (error: unknown) => {
        if (wanted) setKnown({ of: design, ask, failed: (error as Error).message })
      },
    )
    return () => {
      wanted = false
    }
  }, [ask, design])
  const own = known?.ask === ask ? known : undefined
  return {
    answer: own?.answer,
    current: own?.of === design,
    failed: own?.of === design ? own.failed : undefined,
  }
}

/** Said in place of an answer. */
export const QuestionFailed = ({ why }: { why: string }) => (
  <p className="stops" role="alert">
    This could not be worked out ({why}). Change something or open it again to ask anew.
  </p>
)
