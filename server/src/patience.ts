import type { Patience } from '@root-board/core/patience'

/** So many seconds from now, by the clock that core has not. */
export const seconds = (count: number): Patience => {
  const end = performance.now() + 1000 * count
  return { spent: () => performance.now() > end }
}
