// Everything a part's file states, fact by fact: value, kind, place in the sheet, and what other sources say.

import { styled } from '@mui/material'
import { type Part, stepsOf } from '@root-board/core/parts'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'
import { factText, inOrder, isObject, isRated, type Json } from './fact-text'
import { isPlace, wordsAt } from './names'

interface Fact {
  path: string
  words: string
  value: unknown
}
/** Head fields stand above the table, pins in one of their own. */
const apart = new Set([
  'format',
  'kind',
  'id',
  'name',
  'maker',
  'description',
  'sheet',
  'price',
  'keywords',
  'assumed',
  'pins',
  'package',
  'copiedFrom',
])

const isLeaf = (v: unknown) => !isObject(v) || isRated(v) || 'factor' in v || 'drop' in v

const factsOf = (kind: Part['kind'], value: Json, path: string, words: string[]): Fact[] =>
  inOrder(kind, path, value).flatMap(([key, v]): Fact[] => {
    const here = path ? `${path}.${key}` : key
    if (v === undefined || isPlace(here) || (path === '' && apart.has(key))) return []
    const names = [...words, wordsAt(stepsOf(here))]
    if (isObject(v) && !isLeaf(v)) return factsOf(kind, v, here, names)
    if (Array.isArray(v) && v.some(isObject))
      return v.map((item: unknown, i) => ({
        path: `${here}[${i}]`,
        words: [...names, isObject(item) && typeof item.name === 'string' ? item.name : String(i + 1)].join(
          ' · ',
        ),
        value: item,
      }))
    return [{ path: here, words: names.join(' · '), value: v }]
  })

const kindWords: Record<string, string> = {
  absolute: 'absolute maximum',
  assumed: 'assumed',
  condition: 'test condition',
}
const kindsOf = (v: unknown): string => {
  if (!isObject(v)) return 'stated'
  const inner = isRated(v) ? v : (Object.values(v).find(isRated) ?? v)
  const kind = isRated(inner) ? String(inner.kind) : ''
  return kind === '' ? 'stated' : (kindWords[kind] ?? kind)
}
const sourceOf = (v: unknown): string => {
  if (!isObject(v)) return ''
  const own = typeof v.source === 'string' ? v.source : ''
  const at = typeof v.at === 'string' ? v.at : ''
  return [own, at].filter(Boolean).join(', ')
}

export const Facts = ({ part }: { part: Part }) => {
  const facts = factsOf(part.kind, part, '', [])
  const assumed = new Set(part.assumed)
  if (facts.length === 0) return <p className="faint">Its file states no more than what is above.</p>
  return (
    <FactTable className="facts">
      <Columns of={['Fact', 'Value', 'Kind', 'Place in the sheet', 'Other sources']} />
      <Body>
        {facts.map(({ path, words, value }) => {
          const guess = [...assumed].some(
            (a) => path === a || path.startsWith(`${a}[`) || path.startsWith(`${a}.`),
          )
          const rated = isRated(value) ? value : undefined
          const others = (rated?.others as Json[] | undefined) ?? []
          return (
            <Row key={path}>
              <Cell>{words}</Cell>
              <Cell className="mono">{factText(part.kind, path, value, part)}</Cell>
              <Cell className={guess ? 'risks one-line' : ''}>{guess ? '○ assumed' : kindsOf(value)}</Cell>
              <Cell>{guess ? '' : sourceOf(value)}</Cell>
              <Cell>
                {others.map((o, i) => (
                  <div key={i}>
                    <span className="mono">{factText(part.kind, path, o, part)}</span>{' '}
                    {typeof o.source === 'string' && <span className="faint">{o.source}</span>}
                  </div>
                ))}
                {typeof rated?.why === 'string' && others.length > 0 && (
                  <div className="faint">chosen: {rated.why}</div>
                )}
              </Cell>
            </Row>
          )
        })}
      </Body>
    </FactTable>
  )
}

const FactTable = styled(Table)({
  '& td:first-of-type': { width: '28%' },
  '& td.mono': { overflowWrap: 'anywhere', minWidth: 110 },
  '& td.one-line': { paddingRight: 20 },
})
