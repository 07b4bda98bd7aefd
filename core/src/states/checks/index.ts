import type { Check } from '../../findings'
import { overfull } from './overfull'
import { wake } from './wake'
import { unknownMode } from './unknown-mode'

export const statesChecks: Check[] = [overfull, unknownMode, wake]
