import type { Check } from '../../findings'
import { clockTooFast } from './clock-too-fast'

export const clockChecks: Check[] = [clockTooFast]
