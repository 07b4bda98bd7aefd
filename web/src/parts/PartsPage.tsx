// The library: every part there is in one table, one's own beside the samples, with what lies in one's drawer.

import { knownPrice, type Part } from '@root-board/core/parts'
import { euro, formatQuantity } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api } from '../api/client'
import { download } from '../shared/words'
import { BringLibrary } from './BringLibrary'
import { kindWords, legsOf, offersOf } from './names'
import { PartsBar } from './PartsBar'
import { type GrowingColumn, GrowingTable } from '../kit/GrowingTable'
import { Choice, TextInput } from '../kit/inputs'
import { FileButton } from '../kit/FileButton'
import { LibraryFrame, LibraryPage, Line, Notice, Spacer } from '../kit/layout'

interface Line {
  id: string
  name: string
  kind: string
  family: string
  legs: number | null
  package: string
  supplyMin: number | null
  supplyMax: number | null
  price: number | null
  offers: string
  whose: string
  have: number
  place: string
}

const supplyOf = (part: Part) => {
  if (part.kind === 'chip') return part.supply.recommended
  if (part.kind === 'device' || part.kind === 'buffer') return part.supply
  if (part.kind === 'board' || part.kind === 'source')
    return part.kind === 'board' ? part.input : part.voltage
  return undefined
}

const lineOf = (
  part: Part,
  nameOf: (id: string) => string,
  own: Set<string>,
  have: Map<string, { count: number; place: string }>,
): Line => {
  const supply = supplyOf(part)
  return {
    id: part.id,
    name: part.name,
    kind: kindWords[part.kind],
    family: part.kind === 'chip' ? part.family : (part.maker ?? ''),
    legs: legsOf(part) ?? null,
    package: 'package' in part ? part.package.name : '',
    supplyMin: supply ? (supply.min ?? supply.typ ?? null) : null,
    supplyMax: supply ? (supply.max ?? supply.typ ?? null) : null,
    price: knownPrice(part) ?? null,
    offers: offersOf(part, nameOf),
    whose: own.has(part.id) ? 'yours' : 'sample',
    have: have.get(part.id)?.count ?? 0,
    place: have.get(part.id)?.place ?? '',
  }
}
const volts = (v: number | null) => (v === null ? '' : formatQuantity(v, 'V', 3))
const columns: GrowingColumn<Line>[] = [
  {
    id: 'name',
    name: 'Name',
    of: (l) => l.name,
    cell: (l) => <Link to={`/parts/${encodeURIComponent(l.id)}`}>{l.name}</Link>,
  },
  { id: 'kind', name: 'Kind', of: (l) => l.kind },
  { id: 'family', name: 'Family, maker', of: (l) => l.family },
  { id: 'legs', name: 'Legs', of: (l) => l.legs ?? undefined, right: true },
  { id: 'package', name: 'Package', of: (l) => l.package },
  {
    id: 'supplyMin',
    name: 'Supply from',
    of: (l) => l.supplyMin ?? undefined,
    cell: (l) => volts(l.supplyMin),
    right: true,
  },
  {
    id: 'supplyMax',
    name: 'to',
    of: (l) => l.supplyMax ?? undefined,
    cell: (l) => volts(l.supplyMax),
    right: true,
  },
  {
    id: 'price',
    name: 'Price',
    of: (l) => l.price ?? undefined,
    cell: (l) => (l.price === null ? '' : euro(l.price)),
    right: true,
  },
  { id: 'offers', name: 'What it offers', of: (l) => l.offers },
  { id: 'whose', name: 'Whose', of: (l) => l.whose },
  { id: 'have', name: 'I have', of: (l) => l.have || undefined, right: true },
  { id: 'place', name: 'Where', of: (l) => l.place, away: true },
]

const PartsPage = () => {
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const own = useQuery({ queryKey: ['own'], queryFn: api.ownParts })
  const drawer = useQuery({ queryKey: ['drawer'], queryFn: api.drawer })
  const [sought, setSought] = useState('')
  const [kind, setKind] = useState('')
  const [brought, setBrought] = useState<File>()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const lines = useMemo(() => {
    const mine = new Set(own.data?.parts.map((p) => p.id))
    const have = new Map(drawer.data?.map((d) => [d.part, d]))
    const names = new Map(parts.data?.map((p) => [p.id, p.name]))
    return (parts.data ?? []).map((p) => lineOf(p, (id) => names.get(id) ?? id, mine, have))
  }, [parts.data, own.data, drawer.data])
  const mine = own.data?.parts ?? []
  const words = sought.toLowerCase().split(/\s+/)
  const shown = lines.filter((l) => {
    const text = [l.name, l.id, l.family, l.package, l.offers, l.kind, l.whose, l.place]
      .join(' ')
      .toLowerCase()
    return (kind === '' || l.kind === kind) && words.every((w) => text.includes(w))
  })
  return (
    <LibraryFrame>
      <PartsBar title="Parts" />
      <LibraryPage>
        <Line sx={{ mb: 1.25 }}>
          <Button component={Link} to="/parts/from-sheet" variant="contained" color="primary">
            Put in a part from its sheet
          </Button>
          <FileButton accept=".json,application/json" label="Part file or library file" onFile={setBrought}>
            Bring a file
          </FileButton>
          <Button
            disabled={mine.length === 0}
            onClick={() =>
              download(
                'my-parts.json',
                `${JSON.stringify({ format: 1, parts: mine.map((p) => p.file) }, null, 2)}\n`,
                'application/json',
              )
            }
          >
            Your {mine.length} part{mine.length === 1 ? '' : 's'} as one file
          </Button>
          <Spacer />
          <label>
            Find{' '}
            <TextInput
              type="search"
              width={180}
              value={sought}
              onChange={setSought}
              placeholder="name, family, unit …"
            />
          </label>
          <Choice
            label="Kind"
            value={kind}
            options={[
              { value: '', label: 'every kind' },
              ...Object.values(kindWords).map((k) => ({ value: k, label: k })),
            ]}
            onChange={setKind}
          />
          <span className="faint">
            {shown.length} of {lines.length} parts, {mine.length} yours
          </span>
        </Line>
        {brought && (
          <BringLibrary
            file={brought}
            done={(words, id) => {
              setBrought(undefined)
              if (words) {
                enqueueSnackbar(words)
                void queries.invalidateQueries()
              }
              if (id) void navigate(`/parts/${encodeURIComponent(id)}`)
            }}
          />
        )}
        {(own.data?.unreadable ?? []).map((u) => (
          <Notice key={u.id} role="alert">
            <b className="mono">{u.id}</b> can’t be read by this version: {u.faults[0]?.message}. It is kept
            as it is.{' '}
            <Button
              onClick={() => download(`${u.id}.json`, JSON.stringify(u.file, null, 2), 'application/json')}
            >
              Its file
            </Button>
          </Notice>
        ))}
        {parts.error ? (
          <p className="stops" role="alert">
            {parts.error.message}. <Button onClick={() => void parts.refetch()}>Ask again</Button>
          </p>
        ) : (
          <GrowingTable
            label="Library"
            rows={shown}
            columns={columns}
            keyOf={(l) => l.id}
            file="parts.csv"
            // Found by more than its columns, in the field above.
            findFrom={Infinity}
            empty={parts.isPending ? 'Loading …' : 'No part is like that.'}
          />
        )}
      </LibraryPage>
    </LibraryFrame>
  )
}

export default PartsPage
