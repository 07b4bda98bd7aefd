import type { Check } from '../../findings'
import { capacitorEsr } from './capacitor-esr'
import { fittedRating } from './fitted-rating'
import { leftOut } from './left-out'

export const buildChecks: Check[] = [leftOut, capacitorEsr, fittedRating]
