// A programmer that feeds the rail, and what hangs there and stands less.

import { type Check, type Finding, type Found, partOrigin, say, type SheetPart } from '../findings'
import { programmerGives } from '../levels'
import { formatQuantity, fullRange } from '../quantity'
import type { Rated } from '../parts'
import { convertsUp, railFor, type RailId } from '../supply'

/** What hangs on the rail, by the fields of its file that say what it runs on and what it stands. */
interface OnRail extends Pick<Finding, 'about'> {
  id: string
  name: string
  part: SheetPart
  runs: [field: string, rated: Rated]
  stands?: [field: string, rated: Rated]
}

export const programmerVoltage: Check = {
  id: 'power.programmer-voltage',
  stage: 'power',
  looksFor: 'a device or a regulator on the rail that the voltage of a programmer is too much for',
  rule: 'what the chip’s sheet allows while it is programmed, against the absolute maximum, or the range, of each device’s supply and of each regulator’s input',
  run: ({ design, chip: { chip }, needs, plugs, power: { supplies, rail } }) => {
    if (!plugs.standings.some((s) => s.id === 'programmer') || !chip || !rail) return []
    const gives = programmerGives(chip, rail)
    const most = gives.value.max
    // Behind a regulator nobody gets more than that gives; but one that steps up lets more than its output through.
    const reached = (from: RailId): RailId[] => [
      from,
      ...supplies.converters.flatMap((c) =>
        c.from === from && convertsUp(c.part) && most > fullRange(c.part.output).max ? reached(c.to) : [],
      ),
    ]
    const there = reached(supplies.own)
    const devices = design.needs.devices.flatMap((need): OnRail[] => {
      const part = needs.instances.find((i) => i.need.id === need.id)?.part
      return part?.supply && there.includes(railFor(supplies, need).id)
        ? [
            {
              id: need.id,
              name: need.name,
              part,
              runs: ['supply', part.supply],
              ...(part.supplyAbsolute && { stands: ['supplyAbsolute', part.supplyAbsolute] }),
              about: { device: need.id },
            },
          ]
        : []
    })
    const regulators = supplies.converters.flatMap(({ from, to, part }): OnRail[] =>
      there.includes(from)
        ? [
            {
              id: to,
              name: part.name,
              part,
              runs: ['inputRecommended', part.inputRecommended],
              stands: ['inputAbsolute', part.inputAbsolute],
            },
          ]
        : [],
    )
    return [...devices, ...regulators].flatMap(({ id, name, part, ...rated }): Found[] => {
      const runs = fullRange(rated.runs[1]).max
      const stands = rated.stands && fullRange(rated.stands[1]).max
      // What the rail itself does to it is found where the rail is judged.
      if (most <= (stands ?? runs) || rail.value.max > runs) return []
      return [
        {
          id: `power.programmer-voltage:${id}`,
          severity: 'risks',
          grade: 'outside the sheet',
          ...(stands
            ? say`A programmer may feed the rail with up to ${formatQuantity(most, 'V', 2)}; ${name} breaks from ${formatQuantity(stands, 'V', 2)}. Set it to ${formatQuantity(runs, 'V', 2)} or less, or leave the header’s supply contact open and feed the board from its own source.`
            : say`A programmer may feed the rail with up to ${formatQuantity(most, 'V', 2)}; ${name} runs on ${formatQuantity(runs, 'V', 2)} at the most, and no sheet says what it stands. Set it to that or less, or leave the header’s supply contact open and feed the board from its own source.`),
          because: [
            { ...say`${gives.label}: up to ${formatQuantity(most, 'V', 2)}`, worked: gives },
            stands
              ? {
                  ...say`${part.name} stands ${formatQuantity(stands, 'V', 2)}`,
                  origin: partOrigin(part, ...rated.stands!),
                }
              : {
                  ...say`${part.name} runs on ${formatQuantity(runs, 'V', 2)} at the most`,
                  origin: partOrigin(part, ...rated.runs),
                },
          ],
          fixes: [],
          ...(rated.about && { about: rated.about }),
        },
      ]
    })
  },
}
