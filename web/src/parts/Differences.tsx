// Two versions of a part beside one another: only what differs.

import { styled } from '@mui/material'
import { type Difference, differencesOf, formAt, type Part, stepsOf } from '@root-board/core/parts'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'
import { factText } from './fact-text'
import { isPlace, wordsAt } from './names'

const words = (path: string) =>
  path
    .split('.')
    .map((step, i, all) => {
      const [, name, index] = /^([^[]*)(?:\[(.*)\])?$/.exec(step) ?? []
      return `${wordsAt([...stepsOf(all.slice(0, i).join('.')), name ?? step])}${index === undefined ? '' : ` ${/^\d+$/.test(index) ? Number(index) + 1 : index}`}`
    })
    .join(' · ')

const unimportant = (d: Difference) => /^(?:id|format|copiedFrom)$/.test(d.path) || isPlace(d.path)

export const Differences = ({
  before,
  after,
  beforeName,
  afterName,
}: {
  before: Part
  after: Part
  beforeName: string
  afterName: string
}) => {
  const form = formAt(after.kind, [], after)
  const order = form?.is === 'group' ? form.fields.map((f) => f.name) : []
  const place = (d: Difference) => order.indexOf(/^\w+/.exec(d.path)?.[0] ?? '')
  const found = differencesOf(before, after)
    .filter((d) => !unimportant(d))
    .sort((a, b) => place(a) - place(b))
  const text = (path: string, value: unknown) =>
    value === undefined ? <span className="faint">not stated</span> : factText(after.kind, path, value, after)
  if (found.length === 0) return <p className="settled">They say the same.</p>
  return (
    <DifferenceTable>
      <Columns of={['Fact', beforeName, afterName]} />
      <Body>
        {found.map((d) => (
          <Row key={d.path}>
            <Cell>{words(d.path)}</Cell>
            <Cell className="mono">{text(d.path, d.before)}</Cell>
            <Cell className="mono">{text(d.path, d.after)}</Cell>
          </Row>
        ))}
      </Body>
    </DifferenceTable>
  )
}

const DifferenceTable = styled(Table)({
  '& td:first-of-type': { width: '28%' },
  '& td.mono': { overflowWrap: 'anywhere' },
})
