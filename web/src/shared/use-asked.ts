// A question about the open design that is answered in the worker, and asked again when the design changes.

import type { Design } from '@root-board/core/design'
import { useEffect, useState } from 'react'
import { useStage } from './analysis'

/** The last answer; undefined until the first. `ask` must be the same function from one rendering to the next. */
export const useAsked = <T>(ask: (design: Design) => Promise<T>, wanted = true): T | undefined => {
  const { design } = useStage()
  const [answer, setAnswer] = useState<T>()
  useEffect(() => {
    if (!wanted) return
    let current = true
    void ask(design).then((next) => {
      if (current) setAnswer(next)
    })
    return () => {
      current = false
    }
  }, [ask, wanted, design])
  return answer
}
