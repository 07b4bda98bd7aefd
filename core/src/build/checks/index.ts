import type { Check } from '../../findings'
import { leftOut } from './left-out'

export const buildChecks: Check[] = [leftOut]
