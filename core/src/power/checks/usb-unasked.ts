import { type Check, type Found, partOrigin, say, type Stages } from '../../findings'
import { givenUnasked, givesAtOnce, partsOfKind, type Source } from '../../parts'
import { formatQuantity } from '../../quantity'
import { choosing } from '../../supply'

export const usbUnasked: Check = {
  id: 'power.usb-unasked',
  stage: 'power',
  looksFor: 'more from a USB port than it gives before it is asked for more',
  rule: 'what its file says; else USB 2.0, section 7.2.1: one unit load before enumeration',
  run: ({ design, chip: { chip }, library, power: { loads } }) =>
    loads.sources.flatMap(({ source: { id, part }, work }): Found[] => {
      const of = id === 'feed' ? 'feed' : 'source'
      const given = givenUnasked(part)
      const most = work.value.max
      // A board with a plug of its own asks by itself.
      if (!given || (of === 'source' && chip?.board) || most <= given.amperes) return []
      return [
        {
          id: of === 'feed' ? 'power.usb-unasked:feed' : 'power.usb-unasked',
          severity: 'notes',
          grade: 'typical',
          ...say`Up to ${formatQuantity(most, 'A', 3)} are drawn; ${given.stated ? part.name : 'a computer’s USB port'} gives ${formatQuantity(given.amperes, 'A')} until it is asked for more, and nothing on this board asks. A charger gives it unasked.`,
          because: [
            { ...say`Through the plug flow up to ${formatQuantity(most, 'A', 3)}`, worked: work },
            given.stated
              ? {
                  ...say`${part.sheet}: ${formatQuantity(given.amperes, 'A')} before it is asked`,
                  origin: partOrigin(part, 'unasked', part.unasked),
                }
              : {
                  ...say`USB 2.0, section 7.2.1: one unit load of 100 mA`,
                  origin: partOrigin(part, 'current', part.current),
                },
          ],
          fixes: unaskedFrom(library, most).map((s) => ({
            label: `Feed it from ${s.name}`,
            edits: choosing(of, s, design, library),
          })),
        },
      ]
    }),
}

/** USB that gives so much unasked, the cheapest first. */
const unaskedFrom = (library: Stages['library'], amperes: number): Source[] =>
  partsOfKind(library, 'source')
    .filter((s) => s.sort === 'usb' && givesAtOnce(s) >= amperes)
    .sort((a, b) => a.price - b.price)
