import { cellsField, joinedOf, leadOwners } from '../../design'
import { type Check, type Found, say } from '../../findings'
import { findPart } from '../../parts'
import { capital } from '../../quantity'

const id = (what: string) => `power.cells-joined:${what}`

export const cellsJoined: Check = {
  id: 'power.cells-joined',
  stage: 'power',
  looksFor: 'more cells joined than their sheet lets be joined, or several of what can’t be',
  rule: 'the most in a row and beside one another, by the sheet of the cell',
  run: ({ design, library }) =>
    leadOwners.flatMap((of): Found[] => {
      const cell = findPart(library, 'source', design.power[of])
      if (!cell || !design.power[cellsField[of]]) return []
      const { series, parallel } = joinedOf(design, of)
      const { joins } = cell
      if (!joins)
        return series * parallel === 1
          ? []
          : [
              {
                id: id(of),
                severity: 'notes',
                ...say`Several of ${cell.name} are asked for, which its file lets nobody join: everything is reckoned with one.`,
                because: [say`${cell.sheet} says nothing of joining them`],
                fixes: [
                  {
                    label: 'One of it',
                    edits: [{ kind: 'changeCells', of, change: { series: 1, parallel: 1 }, name: cell.name }],
                  },
                ],
              },
            ]
      const over = (['series', 'parallel'] as const).filter((k) => joinedOf(design, of)[k] > joins[k])
      const words = { series: 'in a row', parallel: 'beside one another' }
      return over.map((k) => ({
        id: id(`${of} ${k}`),
        severity: 'risks' as const,
        grade: 'outside the sheet' as const,
        ...say`${capital(cell.name)}, ${joinedOf(design, of)[k]} ${words[k]}: its sheet lets ${joins[k]} be joined so.`,
        because: [say`${cell.sheet}: no more than ${joins[k]} ${words[k]}`],
        fixes: [
          {
            label: `${joins[k]} ${words[k]}`,
            edits: [{ kind: 'changeCells' as const, of, change: { [k]: joins[k] }, name: cell.name }],
          },
        ],
      }))
    }),
}
