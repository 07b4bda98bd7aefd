import type { Check } from '../../findings'
import { addressClash } from './address-clash'
import { busSpeed } from './bus-speed'
import { busTooStrong } from './bus-too-strong'
import { busHasWindow } from './bus-window'
import { byteScattered } from './byte-scattered'
import { cannotServe } from './cannot-serve'
import { clash } from './clash'
import { givesUp } from './gives-up'
import { level } from './level'
import { ledOverLimit } from './led-over-limit'
import { ledRating } from './led-rating'
import { legTotal } from './leg-total'
import { loadedDesign } from './loaded-design'
import { lostMark } from './lost-mark'
import { notProven } from './not-proven'
import { programmingFight } from './programming-fight'
import { radioConverter } from './radio-converter'
import { readingUnknown } from './reading-unknown'
import { referenceJoined } from './reference-joined'
import { resetPort } from './reset-port'
import { shiftTooSlow } from './shift-too-slow'
import { stackOverlap } from './stack-overlap'
import { stackTop } from './stack-top'
import { startupTwitch } from './startup-twitch'
import { strapHeld } from './strap-held'
import { switchRating } from './switch-rating'
import { timerTooCoarse } from './timer-fit'

export const pinsChecks: Check[] = [
  clash,
  notProven,
  lostMark,
  cannotServe,
  ledOverLimit,
  ledRating,
  legTotal,
  programmingFight,
  givesUp,
  resetPort,
  referenceJoined,
  timerTooCoarse,
  byteScattered,
  level,
  shiftTooSlow,
  readingUnknown,
  radioConverter,
  loadedDesign,
  addressClash,
  busSpeed,
  busTooStrong,
  busHasWindow,
  switchRating,
  startupTwitch,
  strapHeld,
  stackOverlap,
  stackTop,
]
