// A programmer that feeds the rail, and what hangs there and stands less.

import { type Check, partOrigin, say, type Found } from '../findings'
import { programmerGives } from '../levels'
import { formatQuantity, fullRange } from '../quantity'
import { railFor } from '../supply'

export const programmerVoltage: Check = {
  id: 'power.programmer-voltage',
  stage: 'power',
  looksFor: 'a device on the rail that the voltage of a programmer is too much for',
  rule: 'what the chip’s sheet allows while it is programmed, against the absolute maximum, or the range, of each device’s supply',
  run: ({ design, chip: { chip }, needs, plugs, power: { supplies, rail } }) => {
    const fed = plugs.standings.find((s) => s.id === 'programmer')?.fed
    if (!fed || !chip || !rail) return []
    const gives = programmerGives(chip, rail)
    const most = gives.value.max
    return design.needs.devices.flatMap((need): Found[] => {
      const part = needs.instances.find((i) => i.need.id === need.id)?.part
      if (!part?.supply || !fed.includes(railFor(supplies, need).id)) return []
      const runs = fullRange(part.supply).max
      const stands = part.supplyAbsolute && fullRange(part.supplyAbsolute).max
      // What the rail itself does to it is found where the rail is judged.
      if (most <= (stands ?? runs) || rail.value.max > runs) return []
      return [
        {
          id: `power.programmer-voltage:${need.id}`,
          severity: 'risks',
          grade: 'outside the sheet',
          ...(stands
            ? say`A programmer may feed the rail with up to ${formatQuantity(most, 'V', 2)}; ${need.name} breaks from ${formatQuantity(stands, 'V', 2)}. Set it to ${formatQuantity(runs, 'V', 2)} or less, or leave the header’s supply contact open and feed the board from its own source.`
            : say`A programmer may feed the rail with up to ${formatQuantity(most, 'V', 2)}; ${need.name} runs on ${formatQuantity(runs, 'V', 2)} at the most, and no sheet says what it stands. Set it to that or less, or leave the header’s supply contact open and feed the board from its own source.`),
          because: [
            { ...say`${gives.label}: up to ${formatQuantity(most, 'V', 2)}`, worked: gives },
            stands
              ? {
                  ...say`${part.name} stands ${formatQuantity(stands, 'V', 2)}`,
                  origin: partOrigin(part, 'supplyAbsolute', part.supplyAbsolute),
                }
              : {
                  ...say`${part.name} runs on ${formatQuantity(runs, 'V', 2)} at the most`,
                  origin: partOrigin(part, 'supply', part.supply),
                },
          ],
          fixes: [],
          about: { device: need.id },
        },
      ]
    })
  },
}
