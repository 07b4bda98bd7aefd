// What every element model is: how its currents answer to the voltages at its terminals, with the slopes of the answer.

export type NetId = string

/** Where an element is looked at. */
export interface At {
  /** Voltages of its terminals against ground, V, in the order of the form's `terminals`. */
  v: readonly number[]
  /** Currents of its branches, A. */
  i: readonly number[]
  /** Time since the beginning, s. */
  t: number
  /** By what share sources are turned up, 0 to 1: a solver that finds nothing at once comes from 0. */
  share: number
}

/** An answer: numbers and their slopes in each voltage and branch current. */
export interface Answer {
  /** Out of each terminal's net into the element, A (of what is stored: C). */
  into: number[]
  /** What each branch equation lacks, V (of what is stored: V·s). Nothing where it holds. */
  rest: number[]
  /** d(into, rest) / d(v, i): a row for each of both, a column for each voltage, then each branch current. */
  slopes: number[][]
}

export interface Form<P> {
  terminals: readonly string[]
  /** Currents that are unknowns of their own: of what holds a voltage. */
  branches?: number
  respond: (p: P, at: At) => Answer
  /** What is stored in it: its rate of change adds to the answer. */
  store?: (p: P, at: At) => Answer
  /** Terminals between which a direct current can pass, by place. What no such way joins to ground floats. */
  joins: (p: P, t: number) => [number, number][]
  /** Terminal voltages to look at instead of `v`, so that a steep curve is not overshot; `last` is where it was looked at before. */
  limit?: (p: P, v: readonly number[], last: readonly number[]) => number[]
  /** Times at which it jumps, s. */
  jumps?: (p: P) => number[]
}

/** A current from the first terminal to the second, with its slope in the voltage across. */
export const across = (current: number, slope: number): Answer => ({
  into: [current, -current],
  rest: [],
  slopes: [
    [slope, -slope],
    [-slope, slope],
  ],
})

/** A value that is held, or goes along points (time in s, rising) and stays at the ends. */
export type Course = number | readonly (readonly [time: number, value: number])[]

export const valueAt = (course: Course, t: number): number => {
  if (typeof course === 'number') return course
  const after = course.findIndex(([time]) => time > t)
  if (after === 0) return course[0]![1]
  if (after < 0) return course.at(-1)![1]
  const [[t0, y0], [t1, y1]] = [course[after - 1]!, course[after]!]
  return y0 + ((y1 - y0) * (t - t0)) / (t1 - t0)
}

export const timesOf = (course: Course): number[] =>
  typeof course === 'number' ? [] : course.map(([t]) => t)
