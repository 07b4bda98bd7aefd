import type { Check } from '../../findings'
import { latchFits } from './fits'
import { latchStaysOff } from './stays-off'
import { latchTurnsOn } from './turns-on'

export const latchChecks: readonly Check[] = [latchFits, latchTurnsOn, latchStaysOff]
