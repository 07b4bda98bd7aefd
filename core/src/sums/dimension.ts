// Units of sums: what a product or quotient of quantities is in. Base: volt, ampere, second, kelvin, metre.

import type { Unit } from '../quantity'

/** Exponents of V, A, s, K, m. */
export type Dimension = readonly [number, number, number, number, number]

export const plain: Dimension = [0, 0, 0, 0, 0]
export const ampere: Dimension = [0, 1, 0, 0, 0]

const dimensions: Record<Unit, Dimension> = {
  V: [1, 0, 0, 0, 0],
  A: [0, 1, 0, 0, 0],
  'A/Hz': [0, 1, 1, 0, 0],
  Ω: [1, -1, 0, 0, 0],
  'Ω/m': [1, -1, 0, 0, -1],
  F: [-1, 1, 1, 0, 0],
  H: [1, -1, 1, 0, 0],
  Hz: [0, 0, -1, 0, 0],
  s: [0, 0, 1, 0, 0],
  W: [1, 1, 0, 0, 0],
  '°C': [0, 0, 0, 1, 0],
  'K/W': [-1, -1, 0, 1, 0],
  m: [0, 0, 0, 0, 1],
  'cm²': [0, 0, 0, 0, 2],
  Ah: [0, 1, 1, 0, 0],
  Wh: [1, 1, 1, 0, 0],
  '%': plain,
  ppm: plain,
  '': plain,
}

const scales: Partial<Record<Unit, number>> = { Ah: 3600, Wh: 3600, 'cm²': 1e-4, '%': 0.01, ppm: 1e-6 }

/** What one of the unit is in SI: an ampere-hour is 3600 coulombs. */
export const scaleOf = (unit: Unit): number => scales[unit] ?? 1

export const dimensionOf = (unit: Unit): Dimension => dimensions[unit]

export const sameDimension = (a: Dimension, b: Dimension): boolean => a.every((x, i) => x === b[i])
export const product = (a: Dimension, b: Dimension): Dimension =>
  a.map((x, i) => x + b[i]!) as unknown as Dimension
export const quotient = (a: Dimension, b: Dimension): Dimension =>
  a.map((x, i) => x - b[i]!) as unknown as Dimension
export const root = (a: Dimension): Dimension => a.map((x) => x / 2) as unknown as Dimension

const names = ['V', 'A', 's', 'K', 'm']
export const dimensionText = (d: Dimension): string =>
  d.flatMap((x, i) => (x === 0 ? [] : [x === 1 ? names[i]! : `${names[i]!}^${x}`])).join('·') ||
  'a plain number'
