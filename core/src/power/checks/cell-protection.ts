// What guards a lithium cell that is charged again and again against being emptied too far, and whether that stays out of the way.

import { type Check, partOrigin, say, type Found } from '../../findings'
import { findPart, partsOfKind, type Source } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { unprotected } from '../../supply'

export const cellProtection: Check = {
  id: 'power.cell-protection',
  stage: 'power',
  looksFor:
    'a lithium cell that nothing keeps from being emptied too far, or whose protection opens while all is well',
  rule: 'what sits on the cell, by its sheet, against the most that the project takes and the lowest that the cell stands',
  run: ({ design, library, power: { loads } }) =>
    (['source', 'feed'] as const).flatMap((of): Found[] => {
      const cell = findPart(library, 'source', design.power[of])
      if (!cell || (!unprotected(cell) && !cell.protection)) return []
      const id = (what: string) => `power.cell-protection:${what}:${of}`
      const empty = fullRange(cell.voltage).min
      const sheet = { ...say`${cell.sheet}`, origin: partOrigin(cell, 'voltage', cell.voltage) }
      const { protection } = cell
      if (!protection)
        return [
          {
            id: id('none'),
            severity: 'risks',
            grade: 'typical',
            ...say`Nothing stops ${cell.name} from being emptied below ${formatQuantity(empty, 'V')}: after all has gone dark the board goes on drawing a little. A lithium cell that has been that low may catch fire when it is charged again; nor does anything on it open in a short.`,
            because: [
              say`${cell.sheet} names no protection on the cell`,
              { ...say`It is empty at ${formatQuantity(empty, 'V')}`, origin: sheet.origin },
            ],
            fixes: protectedLike(cell, library).map((c) => ({
              label: `Take ${c.name}`,
              edits: [
                of === 'source'
                  ? { kind: 'chooseSource', part: c.id, name: c.name }
                  : { kind: 'chooseFeed', part: c.id, name: c.name },
              ],
            })),
          },
        ]
      const most = loads.sources.find((s) => s.source.id === of)?.work
      const opens = fullRange(protection.current)
      if (!most || most.value.max <= opens.min) return []
      return [
        {
          id: id('opens'),
          severity: most.value.typ > opens.typ ? 'stops' : 'risks',
          grade: most.value.typ > opens.typ ? 'typical' : 'outside the sheet',
          ...say`The protection of ${cell.name} may open at ${formatQuantity(opens.min, 'A')}, and up to ${formatQuantity(most.value.max, 'A', 3)} are drawn: all goes dark as if the cell were gone.`,
          because: [
            { ...say`Drawn with all at work: up to ${formatQuantity(most.value.max, 'A', 3)}`, worked: most },
            {
              ...say`It opens between ${formatQuantity(opens.min, 'A')} and ${formatQuantity(opens.max, 'A')}`,
              origin: partOrigin(cell, 'protection.current', protection.current),
            },
          ],
          fixes: [],
        },
      ]
    }),
}

/** Cells of the same voltages with something on them that guards them. */
const protectedLike = (cell: Source, library: Parameters<typeof partsOfKind>[0]) =>
  partsOfKind(library, 'source').filter(
    (c) =>
      c.protection !== undefined &&
      c.sort === 'cells' &&
      Math.abs(fullRange(c.voltage).typ - fullRange(cell.voltage).typ) < 0.1,
  )
