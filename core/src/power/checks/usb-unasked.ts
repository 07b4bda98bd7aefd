import { type Check, partOrigin, say } from '../../findings'
import { formatQuantity } from '../../quantity'

/** USB 2.0, section 7.2.1: a device that has not been enumerated draws one unit load at most. */
const unitLoad = 0.1

export const usbUnasked: Check = {
  id: 'power.usb-unasked',
  stage: 'power',
  looksFor: 'more than 100 mA from a USB port that nobody has asked for more',
  rule: 'USB 2.0, section 7.2.1: one unit load before enumeration',
  run: ({ chip: { chip }, power: { source, through } }) => {
    const most = through.value.max
    // A board with a plug of its own asks by itself.
    if (source?.sort !== 'usb' || chip?.board || most <= unitLoad) return []
    return [
      {
        id: 'power.usb-unasked',
        severity: 'notes',
        grade: 'typical',
        ...say`Up to ${formatQuantity(most, 'A', 3)} are drawn; a computer’s USB port gives 100 mA until it is asked for more, and nothing on this board asks. A charger gives it unasked.`,
        because: [
          { ...say`Through the plug flow up to ${formatQuantity(most, 'A', 3)}`, worked: through },
          {
            ...say`USB 2.0, section 7.2.1: one unit load of 100 mA`,
            origin: partOrigin(source, 'current', source.current),
          },
        ],
        fixes: [],
      },
    ]
  },
}
