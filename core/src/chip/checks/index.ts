import type { Check } from '../../findings'
import { memoryShort } from './memory-short'
import { noRadio } from './no-radio'
import { supplyOutOfRange } from './supply-out-of-range'
import { unknownChip } from './unknown-chip'

export const chipChecks: Check[] = [unknownChip, supplyOutOfRange, memoryShort, noRadio]
