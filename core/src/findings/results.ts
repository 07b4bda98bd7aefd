// What there is for stages and checks to see. Each room adds its own result, so that no room imports the results of all.

import type { Design } from '../design'
import type { Library } from '../parts'
import type { Patience } from '../patience'

/** What every stage can see. */
export interface Given {
  design: Design
  library: Library
  /** What is left of it for questions to the planner. */
  patience: Patience
}

/** What the stages make, by name. A room adds its own: `declare module '../findings/results' { interface Results { … } }`. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface Results {}

/** What a stage makes only for other stages: no check and no page sees it. Added to in the same way. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface Between {}

/** What is found only when a check asks, since it takes long: added to by rooms in the same way. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface OnDemand {}
