// The pull resistors of each line that needs one: the smallest and largest that serve, what sits on the devices' own
// boards, what the leg has inside, and what is fitted.

import { busModes } from '../levels'
import { type SupportPart, fittedFor } from '../circuit'
import type { Worked } from '../findings'
import type { Chip } from '../parts'
import { fullRange, type Range } from '../quantity'
import { type Wire, attributeOf } from '../legs'
import { busWindow, contactWindow } from '../support'

export interface PullWindow {
  wire: Wire
  /** `contact` and, for a bus line, its speed. */
  what: string
  smallest: Worked
  largest: Worked
  /** The leg’s own pull-up. */
  inside?: Range
  /** On the devices’ own boards, together. */
  onBoards?: Worked
  /** Ours, ohms. */
  fitted?: number
  /** Whether the speed is the one in use. */
  used: boolean
}

export const pullWindows = (wires: Wire[], chip: Chip, rail: Worked, support: SupportPart[]): PullWindow[] =>
  wires.flatMap((wire): PullWindow[] => {
    const fitted = fittedFor(support, 'line pull-up', wire.signal.id)?.value?.value
    const own = attributeOf(wire.pin, 'no-pull-up') ? undefined : chip.io.pullUp
    const contact = contactWindow(wire, chip, rail)
    if (contact)
      return [{ wire, what: 'contact', ...contact, inside: own && fullRange(own), fitted, used: true }]
    return busModes.flatMap(({ speed, name }) => {
      const window = busWindow(wire, chip, rail, speed)
      return window
        ? [
            {
              wire,
              what: name,
              smallest: window.smallest,
              largest: window.largest,
              onBoards: window.fitted,
              fitted,
              used: speed === (wire.signal.frequency ?? 100e3),
            },
          ]
        : []
    })
  })
