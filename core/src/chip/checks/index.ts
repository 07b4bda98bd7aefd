import type { Check } from '../../findings'
import { memoryShort } from './memory-short'
import { noRadio } from './no-radio'
import { restsOnAssumptions } from './rests-on-assumptions'
import { supplyOutOfRange } from './supply-out-of-range'
import { tooWarm } from './too-warm'
import { unknownChip } from './unknown-chip'

export const chipChecks: Check[] = [
  unknownChip,
  supplyOutOfRange,
  memoryShort,
  noRadio,
  tooWarm,
  restsOnAssumptions,
]
