// What a USB plug gives before anything has asked it for more.

import type { Source } from './kinds/supply'
import { fullRange } from '../quantity'

/** USB 2.0, section 7.2.1: what has not been enumerated draws one unit load at most, A. */
const unitLoad = 0.1

export interface Unasked {
  amperes: number
  /** Whether its own file says so, and not the standard of any port. */
  stated: boolean
}

/** Undefined where nothing needs asking. */
export const givenUnasked = ({ sort, unasked }: Source): Unasked | undefined =>
  sort === 'usb'
    ? { amperes: unasked ? fullRange(unasked).max : unitLoad, stated: unasked !== undefined }
    : undefined

/** What it gives where nothing asks it for more, A. */
export const givesAtOnce = (source: Source): number =>
  Math.min(fullRange(source.current).max, givenUnasked(source)?.amperes ?? Infinity)
