import type { Check } from '../../findings'
import { chargingEnds } from './ends'
import { chargingFed } from './fed'
import { chargingSun } from './sun'
import { chargingSafe } from './safe'

export const chargingChecks: readonly Check[] = [chargingSafe, chargingFed, chargingEnds, chargingSun]
