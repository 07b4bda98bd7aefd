// A question about the open design that is answered in the worker, and asked again when the design changes.

import type { Design } from '@root-board/core/design'
import { Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useStage } from './analysis'

export interface Asked<T> {
  /** The last answer; undefined until the first. */
  answer?: T
  /** The answer is for the design as it is now. */
  current: boolean
  /** What went wrong, where the last question failed. */
  failed?: string
  again: () => void
}

const numbers = new WeakMap<object, number>()
let given = 0
/** A design and a question are told from others by being them. */
const numberOf = (thing: object): number => {
  const known = numbers.get(thing)
  if (known !== undefined) return known
  numbers.set(thing, ++given)
  return given
}

/** `ask` must be the same function from one rendering to the next; undefined: nothing is asked. */
export const useAsked = <T,>(ask: ((design: Design) => Promise<T>) | undefined): Asked<T> => {
  const { design } = useStage()
  const question = ask ? numberOf(ask) : 0
  const { data, isSuccess, isError, isPlaceholderData, error, refetch } = useQuery({
    queryKey: ['asked', question, numberOf(design)],
    queryFn: async () => ({ answer: await ask!(design) }),
    enabled: ask !== undefined,
    // The last answer stands until the question is answered anew, and only to the same question.
    placeholderData: (last, query) => (query?.queryKey[1] === question ? last : undefined),
    // What was stopped before its end is asked anew when it is opened again.
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
    networkMode: 'always',
  })
  return {
    answer: data?.answer,
    current: isError || (isSuccess && !isPlaceholderData),
    failed: isError ? error.message : undefined,
    again: () => void refetch(),
  }
}

/** Said in place of an answer. */
export const QuestionFailed = ({ why, again }: { why: string; again?: () => void }) => (
  <p className="stops" role="alert">
    This could not be worked out ({why}).{' '}
    {again ? <Button onClick={again}>Ask again</Button> : 'Change something or open it again to ask anew.'}
  </p>
)
