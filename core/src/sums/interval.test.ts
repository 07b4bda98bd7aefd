import { hull, minus, over, plus, rising, times, zero } from './interval'

const all = { lo: -Infinity, hi: Infinity }
// By hand from interval arithmetic: ends of the four products; a divisor that reaches zero leaves no bound.
test.each([
  ['[1, 2] + [−3, 4]', plus({ lo: 1, hi: 2 }, { lo: -3, hi: 4 }), { lo: -2, hi: 6 }],
  ['[1, 2] − [−3, 4]', minus({ lo: 1, hi: 2 }, { lo: -3, hi: 4 }), { lo: -3, hi: 5 }],
  ['[1, 2] · [−3, 4]', times({ lo: 1, hi: 2 }, { lo: -3, hi: 4 }), { lo: -6, hi: 8 }],
  ['[−2, −1] · [−3, 4]', times({ lo: -2, hi: -1 }, { lo: -3, hi: 4 }), { lo: -8, hi: 6 }],
  ['0 · [1, ∞]', times(zero, { lo: 1, hi: Infinity }), { lo: 0, hi: 0 }],
  ['[0, 1] · [−∞, ∞]', times({ lo: 0, hi: 1 }, all), all],
  ['[1, 2] / [2, 4]', over({ lo: 1, hi: 2 }, { lo: 2, hi: 4 }), { lo: 0.25, hi: 1 }],
  ['[1, 2] / [−4, −2]', over({ lo: 1, hi: 2 }, { lo: -4, hi: -2 }), { lo: -1, hi: -0.25 }],
  ['[1, 2] / [0, 4]', over({ lo: 1, hi: 2 }, { lo: 0, hi: 4 }), { lo: 0.25, hi: Infinity }],
  ['[1, 2] / [−1, 4]', over({ lo: 1, hi: 2 }, { lo: -1, hi: 4 }), all],
  ['[1, 2] / 0', over({ lo: 1, hi: 2 }, zero), all],
  ['hull of [1, 2] and [−3, 1.5]', hull({ lo: 1, hi: 2 }, { lo: -3, hi: 1.5 }), { lo: -3, hi: 2 }],
  ['√ of [4, 9]', rising(Math.sqrt, { lo: 4, hi: 9 }), { lo: 2, hi: 3 }],
])('%s', (_, made, expected) => expect(made).toEqual(expected))
