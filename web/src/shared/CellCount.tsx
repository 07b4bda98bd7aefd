// How many cells are joined, where the source is one that can be.

import { joinedOf, type LeadOwner, mostCells } from '@root-board/core/design'
import { findPart } from '@root-board/core/parts'
import { styled } from '@mui/material'
import { useStage } from './analysis'
import { QuantityField } from '../kit/QuantityField'

const words = { series: 'cells in a row', parallel: 'rows beside one another' } as const

/** Nothing for what can’t be joined. */
export const CellCount = ({ of }: { of: LeadOwner }) => {
  const { design, library, edit } = useStage()
  const cell = findPart(library, 'source', design.power[of])
  if (!cell?.joins) return null
  const joined = joinedOf(design, of)
  return (
    <Counts>
      {(['series', 'parallel'] as const).map((k) => (
        <QuantityField
          key={k}
          label={words[k]}
          unit=""
          width={52}
          min={1}
          max={mostCells[k]}
          value={joined[k]}
          onChange={(value) =>
            value !== null &&
            edit({ kind: 'changeCells', of, change: { [k]: Math.round(value) }, name: cell.name })
          }
        />
      ))}
    </Counts>
  )
}

const Counts = styled('span')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: '2px 10px',
  fontSize: 12.5,
  margin: '4px 0',
})
