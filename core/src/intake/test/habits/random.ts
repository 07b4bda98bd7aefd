// Choices of a generator: all from one seed, so that a table can be made again.

import { seeded } from '../../../../test/seeded'

export interface Dice {
  /** A whole number from 0 to n − 1. */
  upTo: (n: number) => number
  chance: (p: number) => boolean
  one: <T>(list: readonly T[]) => T
  some: <T>(list: readonly T[], n: number) => T[]
}

export const dice = (seed: number): Dice => {
  const random = seeded(seed)
  const upTo = (n: number) => Math.floor(random() * n)
  return {
    upTo,
    chance: (p) => random() < p,
    one: (list) => list[upTo(list.length)]!,
    some: (list, n) => {
      const left = [...list]
      return Array.from({ length: Math.min(n, list.length) }, () => left.splice(upTo(left.length), 1)[0]!)
    },
  }
}
