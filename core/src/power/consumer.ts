// Something that draws current.

import type { FedBy } from '../design'
import type { Worked } from '../findings'

export interface Consumer {
  id: string
  name: string
  count: number
  /** What feeds it. */
  from: FedBy
  /** All of them together. */
  rest: Worked
  work: Worked
  /** Over the device's own cycle. */
  average: Worked
}
