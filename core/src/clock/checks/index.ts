import type { Check } from '../../findings'
import { clockTooFast } from './clock-too-fast'
import { clockTooLoose } from './clock-too-loose'

export const clockChecks: Check[] = [clockTooFast, clockTooLoose]
