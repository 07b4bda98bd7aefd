import { onTheSource, railOf, voltageFor } from '../supply'
import { feederName, type FurtherId } from '../design'
import type { SupportBlock } from './block'
import { regulatorParts } from './regulator'
import { notShorted, volts } from './step'
import { burns } from './supply'

/** The rails beside the chip’s own: each a regulator with its capacitors. */
export const furtherRails: SupportBlock = {
  name: 'further rails',
  besideBoards: true,
  loadedParts: (context) => {
    const { supplies } = context.power
    return supplies.converters.filter((c) => c.to !== supplies.own).flatMap((c) => regulatorParts(c, context))
  },
  /** Each is tried before anything hangs on it; beside a board, which brings the supply, when that is joined. */
  step: (_, { chip, power: { supplies, regulations } }) => {
    const fed = chip.part.kind !== 'chip' || !chip.part.board
    const further = supplies.converters.filter((c) => c.to !== supplies.own)
    const names = further.map((c) => feederName(c.to as FurtherId))
    const rails = supplies.rails.filter((r) => further.some((c) => c.to === r.id))
    const hottest = Math.max(
      ...regulations.flatMap(({ converter, regulation }) =>
        further.includes(converter) ? [regulation.junction.value.max] : [],
      ),
    )
    return {
      title: names.length === 1 ? `The ${names[0]!}` : 'The further rails',
      then: rails.map(
        (r) => `${r.net} goes to what hangs on it alone, and is joined straight to no other rail.`,
      ),
      checks: [
        ...rails.map((r) => ({
          where: `between ${r.net} and GND, red lead on ${r.net}`,
          powered: false,
          ...notShorted,
          otherwise:
            'a reading near 0 Ω is a short: look for a bridge of solder at the regulator; do not plug in',
        })),
        // Through one that hangs on VCC itself something may be measured.
        ...further
          .filter((c) => c.from !== supplies.own)
          .map(({ to }) => ({
            where: `between ${railOf(supplies, to).net} and VCC`,
            powered: false,
            ...notShorted,
            otherwise: 'the two rails are joined: find the bridge before anything is plugged in',
          })),
        ...rails.flatMap((r) => {
          const voltage = voltageFor(supplies, { fedBy: r.id as FurtherId })
          return voltage && fed
            ? [
                volts(
                  `between ${r.net} and GND${onTheSource(supplies, r.id) ? '' : ', the second feed plugged in'}`,
                  voltage,
                  'too low: regulator turned round or its input sags; too high: ground leg of the regulator is open',
                ),
              ]
            : []
        }),
      ],
      cautions: ['iron', 'eyes', ...(hottest > burns ? (['heat'] as const) : [])],
    }
  },
}
