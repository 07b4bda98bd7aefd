// One field of a part, by its form: a text, a quantity with its unit, a rated value with its sources, a group, a list.
// Lists stay folded until they are wanted: a chip has hundreds of entries.

import {
  type Fault,
  type FieldPath,
  formAt,
  limitKinds,
  type PartKind,
  pathText,
  servesOf,
} from '@root-board/core/parts'
import { formatQuantity, listWords, parseQuantity, QuantityError, type Unit } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { useId, useState } from 'react'
import { factText, plainText } from '../fact-text'
import { fieldWords, wordsAt } from '../names'
import { blank, type Json, valueAt } from './data'
import { Fold } from '../../kit/Fold'
import { Choice, Tick, TextInput } from '../../kit/inputs'
import { Body, Cell, Columns, hidden, Row, Table } from '../../kit/Table'
import { Captioned } from '../../kit/layout'

export interface Editing {
  kind: PartKind
  data: unknown
  faults: Fault[]
  change: (steps: FieldPath, value: unknown) => void
}

/** Of what the program assumes until the sheet has been read for it; taken as it is once somebody says so. */
const Assumed = ({ editing, steps }: FieldProps) => {
  const { assumed } = editing.data as { assumed?: readonly string[] }
  if (!assumed?.includes(pathText(steps))) return null
  return (
    <span className="risks">
      {' '}
      ○ assumed until the sheet says{' '}
      <Button onClick={() => editing.change(steps, valueAt(editing.data, steps))}>It is so</Button>
    </span>
  )
}
/** What the fact is asked for. */
const Serves = ({ editing, steps }: FieldProps) => {
  const serves = servesOf(editing.kind, pathText(steps))
  return serves.length > 0 ? <span className="serves"> for {listWords(serves)}</span> : null
}
interface FieldProps {
  editing: Editing
  steps: FieldPath
  required?: boolean
  label?: string
}

const faultsAt = ({ faults }: Editing, steps: FieldPath): Fault[] => {
  const path = pathText(steps)
  return faults.filter((f) => f.path === path)
}
const faultsUnder = ({ faults }: Editing, steps: FieldPath): number => {
  const path = pathText(steps)
  return faults.filter(
    (f) => f.path === path || f.path.startsWith(`${path}.`) || f.path.startsWith(`${path}[`),
  ).length
}
const FaultText = ({ faults, id }: { faults: Fault[]; id?: string }) =>
  faults.length === 0 ? null : (
    <span className="stops field-fault" id={id}>
      {faults.map((f) => f.message.replace(f.path, '').trim()).join('; ')}
    </span>
  )

const quantityText = (value: unknown, unit: Unit): string =>
  typeof value === 'number'
    ? formatQuantity(value, unit).replace('−', '-')
    : value === undefined || value === null
      ? ''
      : plainText(value)
/** What was typed as a number in SI where it can be read as one; else as it was typed, so that the fault names it. */
const quantityFrom = (text: string, unit: Unit): unknown => {
  const typed = text.trim().replace('−', '-')
  if (typed === '') return undefined
  try {
    return parseQuantity(typed, unit)
  } catch (error) {
    if (error instanceof QuantityError) return typed
    throw error
  }
}

const Quantity = ({ editing, steps, unit, label, hidden }: FieldProps & { unit: Unit; hidden?: boolean }) => {
  const value = valueAt(editing.data, steps)
  const [typed, setTyped] = useState<string>()
  const id = useId()
  const faults = faultsAt(editing, steps)
  return (
    <Captioned>
      <label htmlFor={id} className={hidden ? 'visually-hidden' : undefined}>
        {label}
        {unit && ` (${unit})`}
      </label>
      <TextInput
        id={id}
        mono
        width={110}
        value={typed ?? quantityText(value, unit)}
        wrong={faults.length > 0}
        onChange={(text) => {
          setTyped(text)
          editing.change(steps, quantityFrom(text, unit))
        }}
        onBlur={() => setTyped(undefined)}
      />
      <FaultText faults={faults} />
    </Captioned>
  )
}

const Text = ({ editing, steps, label, number }: FieldProps & { number?: boolean }) => {
  const value = valueAt(editing.data, steps)
  const id = useId()
  const faults = faultsAt(editing, steps)
  const text = value === undefined || value === null ? '' : plainText(value)
  const long = text.length > 34 || ['description', 'reason', 'why', 'does'].includes(String(steps.at(-1)))
  return (
    <Captioned className={long ? 'wide' : 'field'}>
      <label htmlFor={id}>{label}</label>
      <TextInput
        id={id}
        mono={number}
        value={text}
        wrong={faults.length > 0}
        onChange={(typed) => {
          const asNumber =
            number && typed.trim() !== '' && Number.isFinite(Number(typed)) ? Number(typed) : typed
          editing.change(steps, typed === '' ? undefined : asNumber)
        }}
      />
      <FaultText faults={faults} />
    </Captioned>
  )
}

const OneOf = ({ editing, steps, label, options, required }: FieldProps & { options: string[] }) => {
  const id = useId()
  const value = valueAt(editing.data, steps)
  const faults = faultsAt(editing, steps)
  return (
    <Captioned>
      <label htmlFor={id}>{label}</label>
      <Choice
        id={id}
        value={typeof value === 'string' ? value : ''}
        disabled={options.length === 1 && value === options[0]}
        options={[
          ...(!required || value === undefined || value === '' ? [{ value: '', label: 'not stated' }] : []),
          ...options.map((o) => ({ value: o, label: o })),
        ]}
        onChange={(chosen) => editing.change(steps, chosen || undefined)}
      />
      <FaultText faults={faults} />
    </Captioned>
  )
}

/** What one source says, without the others. */
const alone = (rated: Json): Json => {
  const own = { ...rated }
  delete own.others
  delete own.why
  return own
}

/** A value with its corners, kind, condition and place; what other sources say stays beside it, and one is chosen. */
const RatedField = ({ editing, steps, unit, label }: FieldProps & { unit: Unit }) => {
  const value = valueAt(editing.data, steps)
  const given: Json =
    typeof value === 'object' && value !== null ? (value as Json) : value === undefined ? {} : { typ: value }
  const others = Array.isArray(given.others) ? (given.others as Json[]) : []
  const put = (key: string, v: unknown) => {
    const next = { ...given, [key]: v }
    if (v === undefined) Reflect.deleteProperty(next, key)
    const empty = Object.keys(next).every((k) => k === 'kind')
    editing.change(steps, empty ? undefined : next)
  }
  const rated = { ...editing, change: (inner: FieldPath, v: unknown) => put(String(inner.at(-1)), v) }
  return (
    <fieldset className="rated">
      <legend>
        {label}
        <Serves editing={editing} steps={steps} />
        <Assumed editing={editing} steps={steps} />
      </legend>
      {(['min', 'typ', 'max'] as const).map((c) => (
        <Quantity key={c} editing={rated} steps={[...steps, c]} unit={unit} label={c} />
      ))}
      <OneOf editing={rated} steps={[...steps, 'kind']} label="kind" options={[...limitKinds]} />
      <Text editing={rated} steps={[...steps, 'at']} label="at (condition)" />
      <Text editing={rated} steps={[...steps, 'source']} label="place in the sheet" />
      {value !== undefined && (
        <Button
          onClick={() => {
            put('others', [...others, alone(given)])
          }}
        >
          Another source says …
        </Button>
      )}
      {others.length > 0 && <Text editing={rated} steps={[...steps, 'why']} label="why this one is chosen" />}
      {others.map((o, i) => (
        <div key={i} className="other-source">
          <span className="faint">beside it</span>{' '}
          <span className="mono">{factText(editing.kind, pathText(steps), o, editing.data)}</span>{' '}
          <Text editing={editing} steps={[...steps, 'others', i, 'source']} label="its source" />
          <Button
            onClick={() => {
              const own = alone(given)
              editing.change(steps, {
                ...o,
                others: others.map((x, n) => (n === i ? own : x)),
                why: `chosen over ${plainText(own.source ?? 'the other')}`,
              })
            }}
          >
            Choose this one
          </Button>{' '}
          <Button
            onClick={() => put('others', others.length > 1 ? others.filter((_, n) => n !== i) : undefined)}
          >
            Drop it
          </Button>
        </div>
      ))}
      <FaultText faults={faultsAt(editing, steps)} />
    </fieldset>
  )
}

const functionText = (v: unknown): string => {
  if (typeof v === 'string') return v
  const f = v as Json
  return `${String(f.unit)}.${String(f.signal)}${f.select === undefined ? '' : `@${plainText(f.select)}`}`
}

/** Texts, numbers and functions side by side, at commas. */
const PlainList = ({ editing, steps, label, item }: FieldProps & { item: string; unit: Unit }) => {
  const value = valueAt(editing.data, steps)
  const list = Array.isArray(value) ? (value as unknown[]) : []
  const [typed, setTyped] = useState<string>()
  const id = useId()
  const shown = list.map((v) => (item === 'function' ? functionText(v) : String(v))).join(', ')
  return (
    <Captioned className="wide">
      <label htmlFor={id}>{label} (at commas)</label>
      <TextInput
        id={id}
        mono
        value={typed ?? shown}
        wrong={faultsUnder(editing, steps) > 0}
        onChange={(text) => {
          setTyped(text)
          const parts = text
            .split(',')
            .map((t) => t.trim())
            .filter((t) => t !== '')
          const read = parts.map((t) => (item === 'number' && Number.isFinite(Number(t)) ? Number(t) : t))
          editing.change(steps, read.length > 0 ? read : undefined)
        }}
        onBlur={() => setTyped(undefined)}
      />
      <FaultText faults={editing.faults.filter((f) => f.path.startsWith(pathText(steps)))} />
    </Captioned>
  )
}

/** What an entry is called, or else what it says. */
const titleOf = ({ kind, data }: Editing, steps: FieldPath, v: unknown, i: number): string => {
  const o = typeof v === 'object' && v !== null ? (v as Json) : {}
  const named = o.name ?? o.id ?? o.label ?? o.signal ?? o.kind
  const legs = Array.isArray(o.legs) && o.legs.length > 0 ? `, leg ${o.legs.join('/')}` : ''
  if (typeof named === 'string' && named !== '') return `${named}${legs}`
  const says = factText(kind, pathText([...steps, i]), v, data)
  return says === '' || says === '—' ? String(i + 1) : says
}

const Entry = ({ editing, steps, title }: { editing: Editing; steps: FieldPath; title: string }) => {
  const faulty = faultsUnder(editing, steps)
  const [open, setOpen] = useState(false)
  return (
    <Fold
      open={open}
      onOpen={setOpen}
      title={
        <>
          {title}
          {faulty > 0 && (
            <span className="stops">
              {' '}
              · {faulty} fault{faulty > 1 ? 's' : ''}
            </span>
          )}
        </>
      }
    >
      <Field editing={editing} steps={steps} label="" />
      <Button onClick={() => editing.change(steps, undefined)}>Take it out</Button>
    </Fold>
  )
}

/** Longer lists stay folded entries: each row is as many fields as it has columns. */
const mostRows = 40
const inOneCell = new Set(['text', 'number', 'quantity', 'choice', 'flag', 'function'])

/** The columns of a list whose entries fit into rows; undefined where they hold more than a row can. */
const tableOf = (editing: Editing, steps: FieldPath): { name: string; required: boolean }[] | undefined => {
  const entry = formAt(editing.kind, [...steps, 0], editing.data)
  if (entry?.is !== 'group' || entry.fields.length > 8) return undefined
  const fits = ({ name }: { name: string }) => {
    const form = formAt(editing.kind, [...steps, 0, name], editing.data)
    return form !== undefined && (inOneCell.has(form.is) || (form.is === 'list' && form.plain))
  }
  return entry.fields.every(fits) ? entry.fields : undefined
}

/** Entries as in the sheet’s own table: a row each, a column for each fact, with its unit in the head. */
const EntryTable = ({
  editing,
  steps,
  label,
  columns,
  count,
}: FieldProps & { columns: { name: string; required: boolean }[]; count: number }) => {
  const unitOf = (name: string) => {
    const form = formAt(editing.kind, [...steps, 0, name], editing.data)
    return form?.is === 'quantity' && form.unit ? `, ${form.unit}` : ''
  }
  return (
    <div className="scroll-x">
      <Table aria-label={label?.replace(' *', '')}>
        <Columns
          of={[
            ...columns.map((c) => `${fieldWords(c.name)}${unitOf(c.name)}${c.required ? ' *' : ''}`),
            hidden('Take it out'),
          ]}
        />
        <Body>
          {Array.from({ length: count }, (_, i) => (
            <Row key={i}>
              {columns.map((c) => (
                <Cell key={c.name} className="bare">
                  <Field
                    editing={editing}
                    steps={[...steps, i, c.name]}
                    required={c.required}
                    label={`${fieldWords(c.name)} ${i + 1}`}
                  />
                </Cell>
              ))}
              <Cell>
                <Button
                  aria-label={`Take out ${i + 1}`}
                  onClick={() => editing.change([...steps, i], undefined)}
                >
                  ×
                </Button>
              </Cell>
            </Row>
          ))}
        </Body>
      </Table>
    </div>
  )
}

const List = ({ editing, steps, label }: FieldProps) => {
  const value = valueAt(editing.data, steps)
  const list = Array.isArray(value) ? (value as unknown[]) : []
  const faulty = faultsUnder(editing, steps)
  const [open, setOpen] = useState(list.length > 0 && list.length <= 3)
  const columns = list.length <= mostRows ? tableOf(editing, steps) : undefined
  return (
    <Fold
      open={open}
      onOpen={setOpen}
      title={
        <>
          {label}: {list.length === 0 ? 'none' : list.length}
          <Serves editing={editing} steps={steps} />
          <Assumed editing={editing} steps={steps} />
          {faulty > 0 && (
            <span className="stops">
              {' '}
              · {faulty} fault{faulty > 1 ? 's' : ''}
            </span>
          )}
        </>
      }
    >
      {columns && list.length > 0 ? (
        <EntryTable editing={editing} steps={steps} label={label} columns={columns} count={list.length} />
      ) : (
        list.map((v, i) => (
          <Entry key={i} editing={editing} steps={[...steps, i]} title={titleOf(editing, steps, v, i)} />
        ))
      )}
      <Button
        onClick={() =>
          editing.change([...steps, list.length], blank(editing.kind, [...steps, list.length], editing.data))
        }
      >
        One more
      </Button>
      <FaultText faults={faultsAt(editing, steps)} />
    </Fold>
  )
}

const PairMap = ({ editing, steps, label }: FieldProps) => {
  const value = valueAt(editing.data, steps) as Json | undefined
  const text = Object.entries(value ?? {})
    .map(([k, v]) => `${k} ${String(v)}`)
    .join(', ')
  const [typed, setTyped] = useState<string>()
  const id = useId()
  return (
    <Captioned className="wide">
      <label htmlFor={id}>{label} (name, space, position; at commas)</label>
      <TextInput
        id={id}
        mono
        value={typed ?? text}
        onChange={(written) => {
          setTyped(written)
          const pairs = written.split(',').flatMap((p): [string, string][] => {
            const [k, v] = p.trim().split(/\s+/)
            return k && v ? [[k, v]] : []
          })
          editing.change(steps, pairs.length > 0 ? Object.fromEntries(pairs) : undefined)
        }}
        onBlur={() => setTyped(undefined)}
      />
      <FaultText faults={editing.faults.filter((f) => f.path.startsWith(pathText(steps)))} />
    </Captioned>
  )
}

export const Field = ({ editing, steps, required, label }: FieldProps) => {
  const form = formAt(editing.kind, steps, editing.data)
  const name = label ?? wordsAt(steps)
  if (!form) return null
  const props = { editing, steps, required, label: `${name}${required && name ? ' *' : ''}` }
  switch (form.is) {
    case 'text':
    case 'function':
      return <Text {...props} />
    case 'number':
      return <Text {...props} number />
    case 'quantity':
      return <Quantity {...props} unit={form.unit} />
    case 'choice':
      return <OneOf {...props} options={form.options} />
    case 'flag':
      return (
        <Tick
          checked={valueAt(editing.data, steps) === true}
          onChange={(on) => editing.change(steps, on || undefined)}
        >
          {name}
        </Tick>
      )
    case 'rated':
      return <RatedField {...props} unit={form.unit} />
    case 'map':
      return <PairMap {...props} />
    case 'list': {
      if (!form.plain) return <List {...props} />
      const item = formAt(editing.kind, [...steps, 0], editing.data)
      return (
        <PlainList {...props} item={item?.is ?? 'text'} unit={item?.is === 'quantity' ? item.unit : ''} />
      )
    }
    case 'group': {
      const value = valueAt(editing.data, steps)
      if (steps.length > 0 && name !== '' && value === undefined && !required)
        return (
          <div className="group absent">
            {name}: not stated{' '}
            <Button onClick={() => editing.change(steps, blank(editing.kind, steps, editing.data))}>
              State it
            </Button>
          </div>
        )
      return (
        <div
          className={name === '' ? 'fields' : 'fields group'}
          role={name === '' ? undefined : 'group'}
          aria-label={name || undefined}
        >
          {name !== '' && (
            <h3>
              {name}
              <Assumed editing={editing} steps={steps} />
            </h3>
          )}
          {form.fields.map((f) => (
            <Field key={f.name} editing={editing} steps={[...steps, f.name]} required={f.required} />
          ))}
          <FaultText faults={steps.length > 0 ? faultsAt(editing, steps) : []} />
        </div>
      )
    }
  }
}
