import type { Check } from '../../findings'
import { cannotServe } from './cannot-serve'
import { clash } from './clash'
import { inputLevel } from './input-level'
import { ledOverLimit } from './led-over-limit'
import { legTotal } from './leg-total'
import { programmingFight } from './programming-fight'

export const pinsChecks: Check[] = [clash, cannotServe, ledOverLimit, legTotal, programmingFight, inputLevel]
