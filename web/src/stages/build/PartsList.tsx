import { drawerKey, lineTotal, priceToGet, stillToGet, type ToGet } from '@root-board/core/build'
import { noPrice, unpricedWords } from '@root-board/core/parts'
import { euro } from '@root-board/core/quantity'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type DrawerLine } from '../../api/client'
import { type GrowingColumn, GrowingTable } from '../../kit/GrowingTable'
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
  const { analysis } = useStage()
  const { parts, price } = analysis.build
  const drawer = useQuery({ queryKey: ['drawer'], queryFn: api.drawer })
  const lines = drawer.data ?? []
  const rows = stillToGet(parts, Object.fromEntries(lines.map((d) => [d.part, d.count])))
  const toPay = priceToGet(rows)
  const columns: GrowingColumn<ToGet>[] = [
    { id: 'count', name: 'Count', of: (r) => r.count, right: true, mono: true },
    { id: 'part', name: 'Part', of: (r) => r.name, foot: `All parts${unpricedWords(parts)}` },
    { id: 'value', name: 'Value', of: (r) => r.value, mono: true },
    { id: 'refs', name: 'References', of: (r) => r.refs.join(' '), mono: true },
    {
      id: 'each',
      name: 'Each',
      of: (r) => (r.unpriced ? undefined : r.each),
      cell: (r) => (r.unpriced ? noPrice : euro(r.each)),
      right: true,
      mono: true,
    },
    {
      id: 'total',
      name: 'Together',
      of: (r) => (r.unpriced ? undefined : r.total),
      cell: (r) =>
        r.unpriced ? (
          <span className="mono">{noPrice}</span>
        ) : (
          <Num worked={lineTotal(r)}>
            <span className="mono">{euro(r.total)}</span>
          </Num>
        ),
      right: true,
      foot: (
        <Num worked={price}>
          <span className="mono">{euro(price.value.typ)}</span>
        </Num>
      ),
    },
    {
      id: 'drawer',
      name: 'In my drawer',
      of: (r) => lines.find((d) => d.part === drawerKey(r))?.count,
      cell: (r) => <InDrawer row={r} line={lines.find((d) => d.part === drawerKey(r))} />,
      foot: 'still to pay',
    },
    {
      id: 'get',
      name: 'To get',
      of: (r) => r.get,
      cell: (r) => (r.get === 0 ? <span className="settled">none</span> : r.get),
      right: true,
      mono: true,
      foot: (
        <Num worked={toPay}>
          <span className="mono">{euro(toPay.value.typ)}</span>
        </Num>
      ),
    },
  ]
  return (
    <GrowingTable label="Parts list" rows={rows} columns={columns} keyOf={(r) => `${r.part} ${r.value}`} />
  )
}
