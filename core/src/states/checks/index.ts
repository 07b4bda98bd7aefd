import type { Check } from '../../findings'
import { overfull } from './overfull'
import { unknownMode } from './unknown-mode'

export const statesChecks: Check[] = [overfull, unknownMode]
