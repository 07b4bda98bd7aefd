import { drawerKey, lineTotal, priceToGet, stillToGet, type ToGet } from '@root-board/core/build'
import { euro } from '@root-board/core/quantity'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type DrawerLine } from '../../api/client'
import { Columns, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

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
      <input
        className="plain mono in-drawer"
        aria-label={`${name} in my drawer`}
        inputMode="numeric"
        value={typed ?? (line ? String(line.count) : '')}
        aria-invalid={fault !== undefined}
        onChange={(e) => setTyped(e.target.value)}
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
    <table className="ruled">
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
      <tbody>
        {rows.map((r) => (
          <tr key={`${r.part} ${r.value}`}>
            <td className="right mono">{r.count}</td>
            <td>{r.name}</td>
            <td className="mono">{r.value}</td>
            <td className="mono">{r.refs.join(' ')}</td>
            <td className="right mono">{unknown(r.part) ? '€ ?' : euro(r.each)}</td>
            <td className="right">
              <Num worked={lineTotal(r)}>
                <span className="mono">{euro(r.total)}</span>
              </Num>
            </td>
            <td>
              <InDrawer row={r} line={lines.find((d) => d.part === drawerKey(r))} />
            </td>
            <td className="right mono">{r.get === 0 ? <span className="settled">none</span> : r.get}</td>
          </tr>
        ))}
        <tr className="total">
          <th scope="row" colSpan={5}>
            All parts
          </th>
          <td className="right">
            <Num worked={price}>
              <span className="mono">{euro(price.value.typ)}</span>
            </Num>
          </td>
          <td className="right">still to pay</td>
          <td className="right">
            <Num worked={toPay}>
              <span className="mono">{euro(toPay.value.typ)}</span>
            </Num>
          </td>
        </tr>
      </tbody>
    </table>
  )
}
