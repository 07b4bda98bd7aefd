// All kinds of support that a single wire can ask for.

import type { FittingContext } from '../levels'
import type { SupportPart } from '../circuit'
import type { Wire } from '../legs'
import type { SignalSupport } from './context'
import { sensorDivider } from './divider'
import { switchedLoad } from './gate'
import { ledResistor } from './led'
import { samplingCapacitor } from './sampling'
import { selectPullUp } from './select'
import { levelShift } from './shift'
import { busPullUp, contactPullUp } from './pull'

const kinds: SignalSupport[] = [
  ledResistor,
  contactPullUp,
  busPullUp,
  selectPullUp,
  switchedLoad,
  sensorDivider,
  samplingCapacitor,
  levelShift,
]

export const supportOf = (wires: Wire[], context: FittingContext): SupportPart[] =>
  wires.flatMap((wire) => kinds.flatMap((kind) => kind(wire, context)))
