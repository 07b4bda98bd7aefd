import { loadCapacitor, loadOf, loadPull, lowestSupplyFor, maximumFrequency } from '.'

describe('crystal', () => {
  test.each([
    // C = 2·(C_L − C_stray): 18 pF with 5 pF stray, 12.5 pF with 3.5 pF, 8 pF with more stray than load
    [18e-12, 5e-12, 26e-12],
    [12.5e-12, 3.5e-12, 18e-12],
    [8e-12, 9e-12, 0],
  ])('load capacitors for %d F with %d F stray', (load, stray, each) =>
    expect(loadCapacitor(load, stray)).toBeCloseTo(each, 15),
  )
  test('27 pF each make 13.5 pF in series, 18.5 pF with 5 pF stray', () =>
    expect(loadOf(27e-12, 5e-12)).toBeCloseTo(18.5e-12, 15))
  test('pull by hand: C_1 12 fF, C_0 4 pF, 18.5 pF for 18 pF', () => {
    // 6e-15 · (1/22.5e-12 − 1/22e-12) = 6e-15 · (−1.0101e9) = −6.06 ppm
    expect(1e6 * loadPull(12e-15, 4e-12, 18e-12, 18.5e-12)).toBeCloseTo(-6.06, 2)
    expect(loadPull(12e-15, 4e-12, 18e-12, 18e-12)).toBe(0)
  })
})

describe('clock over supply', () => {
  const limits = [
    { supply: 1.8, frequency: 3e6 },
    { supply: 2.6, frequency: 8e6 },
    { supply: 4.2, frequency: 18e6 },
  ]
  test.each([
    [1.7, 0],
    [1.8, 3e6],
    [2.2, 5.5e6],
    [3.4, 13e6],
    [5, 18e6],
  ])('at %d V', (supply, frequency) => expect(maximumFrequency(limits, supply)).toBeCloseTo(frequency, 3))
  test.each([
    [1e6, 1.8],
    [13e6, 3.4],
    [18e6, 4.2],
  ])('%d Hz needs', (frequency, supply) => expect(lowestSupplyFor(limits, frequency)).toBeCloseTo(supply, 9))
  test('above the last point nothing permits it', () => expect(lowestSupplyFor(limits, 20e6)).toBeUndefined())
})
