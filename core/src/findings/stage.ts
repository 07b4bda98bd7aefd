// A stage computes one result from what is given and from the results of the stages before it. Each lies in its own room, which adds its
// result to `Results`; so no room imports the results of all.

import type { Check } from './check'
import type { Between, Given, Results } from './results'

type All = Between & Results
export type ResultName = keyof All

export interface Stage<K extends ResultName = ResultName, A extends ResultName = ResultName> {
  name: K
  /** The results it stands on: it sees these and no others. */
  after: readonly A[]
  run: (given: Given & Pick<All, A>) => All[K]
  /** The rules over everything that belong to this stage, in the order in which they are told. */
  checks: readonly Check[]
}

export const defineStage = <K extends ResultName, A extends ResultName = never>(
  stage: Omit<Stage<K, A>, 'checks'> & { checks?: readonly Check[] },
): Stage<K, A> => ({ checks: [], ...stage })

/** Any stage, whatever it stands on. */
export interface AnyStage {
  name: ResultName
  after: readonly ResultName[]
  run: (given: never) => unknown
  checks: readonly Check[]
}

/** Each behind all that it stands on, else in the order given. Throws where that is impossible. */
export const inTurn = (stages: readonly AnyStage[]): AnyStage[] => {
  const done = new Set<string>()
  const left = [...stages]
  const sorted: AnyStage[] = []
  while (left.length > 0) {
    const next = left.findIndex(({ after }) => after.every((name) => done.has(name)))
    if (next < 0)
      throw new Error(
        `These stages wait for one another or for one that is not there: ${left.map(({ name, after }) => `${name} after ${after.filter((a) => !done.has(a)).join(' and ')}`).join('; ')}.`,
      )
    const [stage] = left.splice(next, 1)
    done.add(stage!.name)
    sorted.push(stage!)
  }
  return sorted
}

/** All results, each made once. A stage is shown those that it stands on and no others; `between` are kept to the stages. */
export const runStages = (
  sorted: readonly AnyStage[],
  given: Given,
  between: readonly (keyof Between)[],
): Results => {
  const made = new Map<ResultName, unknown>()
  const shown = (names: readonly ResultName[]) =>
    Object.fromEntries(names.map((name) => [name, made.get(name)]))
  for (const { name, after, run } of sorted)
    made.set(name, (run as (given: object) => unknown)({ ...given, ...shown(after) }))
  const hidden = new Set<ResultName>(between)
  return shown([...made.keys()].filter((name) => !hidden.has(name))) as unknown as Results
}
