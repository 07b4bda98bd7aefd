// Something that draws current.

import type { Worked } from '../findings'
import type { RailId } from '../supply'

export interface Consumer {
  id: string
  name: string
  count: number
  /** What feeds it. */
  from: RailId
  /** All of them together. */
  rest: Worked
  work: Worked
  /** Over the device's own cycle. */
  average: Worked
}
