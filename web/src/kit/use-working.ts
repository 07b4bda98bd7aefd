// How a number was worked out, and all that it stands on. One that the page or a question brought has it with it; one of the
// analysis is asked for, also where a sum that the page made stands on it.

import type { Shown, Worked, WorkedInput } from '@root-board/core/findings'
import { useContext, useEffect, useState } from 'react'
import { StageContext } from '../shared/analysis'

const hasIt = (shown: Shown): shown is Worked => 'formula' in shown
const below = ({ origin }: WorkedInput): Shown | undefined =>
  origin.kind === 'worked' ? origin.of : undefined
/** With everything that it stands on. */
const isWhole = (shown: Shown): boolean =>
  hasIt(shown) &&
  shown.inputs.every((i) => {
    const of = below(i)
    return !of || isWhole(of)
  })

type Ask = (shown: Shown) => Promise<Worked | undefined>
/** Throws, in words, where the worker no longer knows. */
const wholeOf = async (shown: Shown, ask: Ask): Promise<Worked> => {
  const worked = hasIt(shown) ? shown : await ask(shown)
  if (!worked) throw new Error('the project has changed meanwhile')
  if (isWhole(worked)) return worked
  const inputs = await Promise.all(
    worked.inputs.map(async (input): Promise<WorkedInput> => {
      const of = below(input)
      return of ? { ...input, origin: { kind: 'worked', of: await wholeOf(of, ask) } } : input
    }),
  )
  return { ...worked, formula: worked.formula, corners: worked.corners, inputs }
}

export interface Known {
  worked?: Worked
  failed?: string
}

export const useWorking = (shown: Shown): Known => {
  const { analysis, workingOf } = useContext(StageContext) ?? {}
  const [asked, setAsked] = useState<{ of: Shown } & Known>()
  const here = isWhole(shown)
  useEffect(() => {
    if (here || !analysis || !workingOf) return
    let wanted = true
    const tell = (known: Known) => {
      if (wanted) setAsked({ of: shown, ...known })
    }
    wholeOf(shown, (of) => workingOf(analysis, of)).then(
      (worked) => tell({ worked }),
      (error: unknown) => tell({ failed: (error as Error).message }),
    )
    return () => {
      wanted = false
    }
  }, [here, analysis, workingOf, shown])
  if (here) return { worked: shown as Worked }
  if (!workingOf) return { failed: 'no project is open' }
  return asked?.of === shown ? asked : {}
}
