// A small project for a test: a carrier, devices, what feeds them.

import { type Design, emptyDesign, type FurtherRail, type NeedDevice } from '../src/design'

export interface Project {
  chip: string
  devices: [part: string, name: string, wiring?: string, more?: Partial<NeedDevice>][]
  feed?: string
  rails?: FurtherRail[]
  locks?: Record<string, string>
  radio?: boolean
  source?: string
  regulator?: string
}

export const project = ({
  chip,
  devices,
  locks = {},
  radio,
  source,
  regulator,
  feed,
  rails,
}: Project): Design => {
  const empty = emptyDesign('Trap')
  return {
    ...empty,
    needs: {
      ...empty.needs,
      radio,
      devices: devices.map(([part, name, wiring, more], i) => ({
        id: `d${i + 1}`,
        part,
        name,
        count: 1,
        wiring,
        ...more,
      })),
    },
    chip: { part: chip },
    pins: { ...empty.pins, locks },
    power: { source: source ?? 'usb-port', regulator, feed, ...(rails && { rails }) },
  }
}
