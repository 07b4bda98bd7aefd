import { styled } from '@mui/material'
import { askedOf, compareChips } from '@root-board/core/chip'
import type { Chip } from '@root-board/core/parts'
import { listWords } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'

/** Two to four carriers, what differs first. */
export const Comparison = ({ chips }: { chips: Chip[] }) => {
  const { analysis, design, library } = useStage()
  const rows = compareChips(chips, askedOf(design, library, analysis.needs))
  const same = rows.filter((r) => !r.differs)
  const names = chips.map((c) => c.name)
  return (
    <section aria-labelledby="compare">
      <h2 id="compare">{listWords(names)}</h2>
      <div className="scroll-x">
        <Compared>
          <Columns of={['What differs', ...chips.map((c) => c.name)]} />
          <Body>
            {rows
              .filter((r) => r.differs)
              .map((r) => (
                <Row key={r.fact}>
                  <Cell component="th" scope="row">
                    {r.fact}
                  </Cell>
                  {r.values.map((value, i) => (
                    <Cell key={chips[i]!.id}>
                      {r.worked?.[i] ? <Num worked={r.worked[i]} /> : value}
                      {r.marks[i] === 'best' && <span className="settled mark"> ▲ best here</span>}
                      {r.marks[i] === 'short' && <span className="stops mark"> ▼ too little here</span>}
                    </Cell>
                  ))}
                </Row>
              ))}
          </Body>
        </Compared>
      </div>
      {same.length > 0 && (
        <p className="faint">
          The same on all: {same.map((r) => `${r.fact.toLowerCase()} (${r.values[0]})`).join(', ')}.
        </p>
      )}
    </section>
  )
}

const Compared = styled(Table)({
  "& th[scope='row']": { borderBottom: '1px solid var(--line)', color: 'var(--ink)', fontWeight: 400 },
  '& .mark': { fontSize: 12, whiteSpace: 'nowrap' },
})
