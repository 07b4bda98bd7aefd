import type { Check } from '../../findings'
import { priceOverLimit } from './price-over-limit'
import { unknownDevice } from './unknown-device'

export const needsChecks: Check[] = [unknownDevice, priceOverLimit]
