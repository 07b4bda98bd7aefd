// Every stage there is: a new one is its room and its line here. The order follows from what each stands on; checks are told in this one.

import { aroundStage } from '../blocks'
import { buildStage } from '../build'
import { carrierStage } from '../carrier'
import { chargingStage } from '../charging'
import { chipStage } from '../chip'
import { clockStage } from '../clock'
import { type AnyStage, type Check, inTurn } from '../findings'
import { latchStage } from '../latch'
import { askedStage, needsStage } from '../needs'
import { pinsStage } from '../pins'
import { planStage } from '../planner'
import { plugsStage } from '../plugs'
import { powerStage } from '../power'
import { statesStage } from '../states'
import { suppliesStage } from '../supply'

const stages: readonly AnyStage[] = [
  askedStage,
  needsStage,
  suppliesStage,
  carrierStage,
  chipStage,
  statesStage,
  clockStage,
  planStage,
  pinsStage,
  aroundStage,
  powerStage,
  chargingStage,
  buildStage,
  latchStage,
  plugsStage,
]

export const stagesInTurn = inTurn(stages)

/** Every rule there is. */
export const allChecks: readonly Check[] = stages.flatMap(({ checks }) => checks)
