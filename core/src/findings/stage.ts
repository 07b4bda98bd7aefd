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

/** `needs.limits`: a part of the design, by the field and the field in it. */
type Path = string
/** What a run leaves behind for the next one: what each stage read of the design, and what it made of that. */
export interface Remembered {
  library: Library
  stages: Map<ResultName, { read: [Path, unknown][]; stood: unknown[]; made: unknown; lasts: boolean }>
}

const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)
const partAt = (design: Design, path: Path): unknown =>
  path
    .split('.')
    .reduce<unknown>(
      (at, key) => (isRecord(at) ? at[key] : undefined),
      design as unknown as Record<string, unknown>,
    )

/**
 * The design, noting which of its parts are looked at, those that are not there among them: field by field, and in a field of several
 * (but the facts of parts) one by one. Whoever takes a copy of one looks at the whole of it.
 */
const watched = (
  design: Design,
  note: (path: Path) => void,
): { seen: Design; fetched: () => Iterable<string> } => {
  const fields = new Map<string, unknown>()
  const fieldOf = (key: string, value: unknown): unknown => {
    if (!isRecord(value) || key === 'parts') {
      note(key)
      return value
    }
    if (!fields.has(key))
      fields.set(
        key,
        new Proxy(value, {
          get: (of, inner) => {
            if (typeof inner === 'string') note(`${key}.${inner}`)
            return of[inner as string]
          },
          has: (of, inner) => {
            if (typeof inner === 'string') note(`${key}.${inner}`)
            return inner in of
          },
          ownKeys: (of) => {
            note(key)
            return Reflect.ownKeys(of)
          },
        }),
      )
    return fields.get(key)
  }
  const seen = new Proxy(design, {
    get: (of, key) => (typeof key === 'string' ? fieldOf(key, of[key as keyof Design]) : undefined),
    has: (of, key) => {
      note(String(key))
      return key in of
    },
    ownKeys: (of) => {
      designKeys.forEach(note)
      return Reflect.ownKeys(of)
    },
  })
  return { seen, fetched: () => fields.keys() }
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
      known.read.every(([path, value]) => partAt(design, path) === value)
    )
      stages.set(name, known)
    else {
      const read = new Map<Path, unknown>()
      const note = (path: Path) => void read.set(path, partAt(design, path))
      const { seen, fetched } = watched(design, note)
      const result = (run as (given: object) => unknown)({ ...given, design: seen, ...shown(after) })
      // A field that was fetched and not looked into may have been handed on.
      for (const key of fetched()) if (![...read.keys()].some((path) => path.startsWith(`${key}.`))) note(key)
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
