import { drawerKey, lineTotal, priceToGet, stillToGet, type ToGet } from '@root-board/core/build'
import { euro } from '@root-board/core/quantity'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type DrawerLine } from '../../api/client'
import { Body, Cell, Columns, Row, Table, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { TextInput } from '../../kit/inputs'

/** How many of a line lie in the drawer; noted as soon as the field is left. */
const InDrawer = ({ row, line }: { row: ToGet; line: DrawerLine | undefined }) => {
  const [typed, setTyped] = useState<string>()
  const [fault, setFault] = useState<string>()
  const queries = useQueryClient()
  const name = `${row.name}${row.value ? ` ${row.value}` : ''}`
  const save = async () => {
    if (typed === undefined) return
    if (!/^\d{0,6}$/.test(typed.trim())) return setFault('a whole number')
    setFault(undefined)
    try {
      const lines = await api.setDrawer(drawerKey(row), Number(typed.trim() || 0), line?.place ?? '')
      queries.setQueryData(['drawer'], lines)
      setTyped(undefined)
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  return (
    <>
      <TextInput
        mono
        width={64}
        label={`${name} in my drawer`}
        inputMode="numeric"
        value={typed ?? (line ? String(line.count) : '')}
        wrong={fault !== undefined}
        onChange={setTyped}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          if (e.key === 'Enter') void save()
        }}
      />
      {line?.place && <span className="faint"> {line.place}</span>}
      {fault && <span className="stops"> {fault}</span>}
    </>
  )
}

/** Equal parts merged, with their references and prices, against what lies in one's drawer. */
export const PartsList = () => {
  const { analysis, library } = useStage()
  const { parts, price } = analysis.build
  const drawer = useQuery({ queryKey: ['drawer'], queryFn: api.drawer })
  const lines = drawer.data ?? []
  const rows = stillToGet(parts, Object.fromEntries(lines.map((d) => [d.part, d.count])))
  const toPay = priceToGet(rows)
  const unknown = (id: string) => library.parts[id]?.assumed?.includes('price')
  return (
    <Table>
      <Columns
        of={[
          right('Count'),
          'Part',
          'Value',
          'References',
          right('Each'),
          right('Together'),
          'In my drawer',
          right('To get'),
        ]}
      />
      <Body>
        {rows.map((r) => (
          <Row key={`${r.part} ${r.value}`}>
            <Cell align="right" className="mono">
              {r.count}
            </Cell>
            <Cell>{r.name}</Cell>
            <Cell className="mono">{r.value}</Cell>
            <Cell className="mono">{r.refs.join(' ')}</Cell>
            <Cell align="right" className="mono">
              {unknown(r.part) ? '€ ?' : euro(r.each)}
            </Cell>
            <Cell align="right">
              <Num worked={lineTotal(r)}>
                <span className="mono">{euro(r.total)}</span>
              </Num>
            </Cell>
            <Cell>
              <InDrawer row={r} line={lines.find((d) => d.part === drawerKey(r))} />
            </Cell>
            <Cell align="right" className="mono">
              {r.get === 0 ? <span className="settled">none</span> : r.get}
            </Cell>
          </Row>
        ))}
        <Row className="total">
          <Cell component="th" scope="row" colSpan={5}>
            All parts
          </Cell>
          <Cell align="right">
            <Num worked={price}>
              <span className="mono">{euro(price.value.typ)}</span>
            </Num>
          </Cell>
          <Cell align="right">still to pay</Cell>
          <Cell align="right">
            <Num worked={toPay}>
              <span className="mono">{euro(toPay.value.typ)}</span>
            </Num>
          </Cell>
        </Row>
      </Body>
    </Table>
  )
}
