import type { Check } from '../../findings'
import { boardInput } from './board-input'
import { bridgeCheck } from './bridge'
import { budgetExceeded } from './budget-exceeded'
import { cellProtection } from './cell-protection'
import { cellsJoined } from './cells-joined'
import { coldCells } from './cold-cells'
import { collapses } from './collapses'
import { deviceLeadCheck } from './device-lead'
import { deviceSupply } from './device-supply'
import { diodeRating } from './diode-rating'
import { dropout } from './dropout'
import { eatsCharge } from './eats-charge'
import { feedTooWeak } from './feed-too-weak'
import { fuseGuards, fuseTrips, noFuse, wireTooThin } from './lead'
import { guardTransistor } from './guard-transistor'
import { inTheDark } from './in-the-dark'
import { lostOnTheWay } from './lost-on-the-way'
import { measuredDiffers } from './measured-differs'
import { notReckoned } from './not-reckoned'
import { overLimit } from './over-limit'
import { regulatorInput } from './regulator-input'
import { regulatorOverloaded } from './regulator-overloaded'
import { regulatorTooHot } from './regulator-too-hot'
import { sags } from './sags'
import { sourceTooWeak } from './source-too-weak'
import { unfed } from './unfed'
import { untapped } from './untapped'
import { usbUnasked } from './usb-unasked'

export const powerChecks: Check[] = [
  regulatorInput,
  regulatorTooHot,
  dropout,
  collapses,
  diodeRating,
  sourceTooWeak,
  sags,
  usbUnasked,
  guardTransistor,
  coldCells,
  cellsJoined,
  regulatorOverloaded,
  deviceSupply,
  budgetExceeded,
  overLimit,
  boardInput,
  unfed,
  untapped,
  feedTooWeak,
  wireTooThin,
  fuseTrips,
  fuseGuards,
  noFuse,
  deviceLeadCheck,
  bridgeCheck,
  inTheDark,
  lostOnTheWay,
  notReckoned,
  eatsCharge,
  cellProtection,
  measuredDiffers,
]
