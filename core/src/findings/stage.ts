// A stage computes one result from what is given and from the results of the stages before it. Each lies in its own room, which adds its
// result to `Results`; so no room imports the results of all.

import { type Design, designKeys } from '../design'
import type { Library } from '../parts'
import type { Check } from './check'
import type { Between, Given, Results } from './results'

type All = Between & Results
export type ResultName = keyof All

export interface Stage<K extends ResultName = ResultName, A extends ResultName = ResultName> {
  name: K
  /** The results it stands on: it sees these and no others. */
  after: readonly A[]
  run: (given: Given & Pick<All, A>) => All[K]
  /** Whether its result may be kept for a design in which nothing that it read has changed: not one that was given up on the way. */
  lasts?: (result: All[K]) => boolean
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
  lasts?: (result: never) => boolean
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

/** What a run leaves behind for the next one: what each stage read of the design, and what it made of that. */
export interface Remembered {
  library: Library
  stages: Map<
    ResultName,
    { read: [keyof Design, unknown][]; stood: unknown[]; made: unknown; lasts: boolean }
  >
}

/** The design, noting which of its parts are looked at, those that are not there among them. */
const watched = (design: Design, read: Map<keyof Design, unknown>): Design => {
  const note = (key: string | symbol) => {
    if (typeof key === 'string') read.set(key as keyof Design, design[key as keyof Design])
  }
  return new Proxy(design, {
    get: (_, key) => {
      note(key)
      return design[key as keyof Design]
    },
    has: (_, key) => {
      note(key)
      return key in design
    },
    // Whoever takes a copy looks at everything, and at what there may be besides.
    ownKeys: () => {
      for (const key of designKeys) note(key)
      return Reflect.ownKeys(design)
    },
  })
}

/**
 * All results, each made once. A stage is shown those that it stands on and no others; `between` are kept to the stages. What stands on the
 * same objects as in the run `before` is taken from there.
 */
export const runStages = (
  sorted: readonly AnyStage[],
  given: Given,
  between: readonly (keyof Between)[],
  before?: Remembered,
): { results: Results; remembered: Remembered } => {
  const { design, library } = given
  const made = new Map<ResultName, unknown>()
  const stages: Remembered['stages'] = new Map()
  const shown = (names: readonly ResultName[]) =>
    Object.fromEntries(names.map((name) => [name, made.get(name)]))
  for (const { name, after, run, lasts } of sorted) {
    const stood = after.map((other) => made.get(other))
    const known = before && before.library === library ? before.stages.get(name) : undefined
    if (
      known?.lasts &&
      known.stood.every((result, k) => result === stood[k]) &&
      known.read.every(([key, value]) => design[key] === value)
    )
      stages.set(name, known)
    else {
      const read = new Map<keyof Design, unknown>()
      const result = (run as (given: object) => unknown)({
        ...given,
        design: watched(design, read),
        ...shown(after),
      })
      stages.set(name, {
        read: [...read],
        stood,
        made: result,
        lasts: (lasts as ((result: unknown) => boolean) | undefined)?.(result) ?? true,
      })
    }
    made.set(name, stages.get(name)!.made)
  }
  const hidden = new Set<ResultName>(between)
  const results = shown([...made.keys()].filter((name) => !hidden.has(name))) as unknown as Results
  return { results, remembered: { library, stages } }
}
