// What the lines of the budget are called, and how their values are said.

import type { BudgetName } from '@root-board/core/analysis'
import { celsiusWords, durationWords, euro, formatQuantity, type Unit } from '@root-board/core/quantity'

export interface Words {
  title: string
  /** At the head of a narrow column. */
  short: string
  field: string
  unit: Unit | 'time'
  min: number
  max: number
  placeholder: string
  /** Where there is nothing to compute. */
  none: string
  say: (value: number) => string
  /** A difference of two of them, which is never below zero. */
  change: (value: number) => string
}

export const words: Record<BudgetName, Words> = {
  current: {
    title: 'Current from the source, everything at once',
    short: 'Current',
    field: 'Current, at most',
    unit: 'A',
    min: 1e-6,
    max: 100,
    placeholder: '500 mA',
    none: 'nothing draws yet',
    say: (v) => formatQuantity(v, 'A', 3),
    change: (v) => formatQuantity(v, 'A', 2),
  },
  energy: {
    title: 'Energy a day',
    short: 'Energy a day',
    field: 'Energy a day, at most',
    unit: 'Wh',
    min: 1e-6,
    max: 1e5,
    placeholder: '2 Wh',
    none: 'no source yet',
    say: (v) => formatQuantity(v, 'Wh', 3),
    change: (v) => formatQuantity(v, 'Wh', 2),
  },
  runtime: {
    title: 'One set of cells lasts',
    short: 'Cells last',
    field: 'Lasts at least',
    unit: 'time',
    min: 1,
    max: 1e10,
    placeholder: '90 d',
    none: 'no end: not on cells',
    say: durationWords,
    change: durationWords,
  },
  heat: {
    title: 'Junction of regulator or chip',
    short: 'Hottest',
    field: 'No hotter than',
    unit: '°C',
    min: -60,
    max: 300,
    placeholder: '80 °C',
    none: 'no heat to speak of',
    say: celsiusWords,
    change: (v) => celsiusWords(Number(v.toPrecision(3))),
  },
  price: {
    title: 'Price of all parts',
    short: 'Price',
    field: 'Price, at most, in €',
    unit: '',
    min: 0,
    max: 1e6,
    placeholder: '25',
    none: 'no board yet',
    say: euro,
    change: euro,
  },
  parts: {
    title: 'Pieces to fit and to join',
    short: 'Pieces',
    field: 'Pieces, at most',
    unit: '',
    min: 1,
    max: 10_000,
    placeholder: '30',
    none: 'no board yet',
    say: (v) => String(v),
    change: (v) => String(v),
  },
  area: {
    title: 'Board, with room between the parts',
    short: 'Board',
    field: 'Board, at most',
    unit: 'cm²',
    min: 0.1,
    max: 1e5,
    placeholder: '60 cm²',
    none: 'no board yet',
    say: (v) => formatQuantity(v, 'cm²', 2),
    change: (v) => formatQuantity(v, 'cm²', 2),
  },
}
