// Everything about one leg: every name through every board, what it can be, what is on it, what it does at start-up, its
// currents, and its level with each partner.

import { styled } from '@mui/material'
import { fittedFor } from '@root-board/core/circuit'
import { askedWord } from '@root-board/core/needs'
import type { Chip, ChipPin, PinAttribute } from '@root-board/core/parts'
import { findPins, passport, type PinName, pinNames, placeName, wireOn } from '@root-board/core/legs'
import { fullRange } from '@root-board/core/quantity'
import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useStage } from '../../shared/analysis'
import { onArrowKeys } from '../../kit/arrow-list'
import { Num, Quantity } from '../../kit/Num'
import { Body, Cell, Row, Table } from '../../kit/Table'
import { ListLine } from './ListLine'
import { TextInput } from '../../kit/inputs'

export const PassportView = () => {
  const { analysis, library } = useStage()
  const [query, setQuery] = useSearchParams()
  const [text, setText] = useState('')
  const chip = analysis.chip.chip!
  const wires = analysis.pins.plan?.wires
  const names = useMemo(
    () => pinNames(chip, library, analysis.needs.instances, wires ?? []),
    [chip, library, analysis.needs.instances, wires],
  )
  const found = text.trim() ? findPins(chip, text, names) : chip.pins
  const first = text.trim() ? found[0] : (wires?.[0]?.pin ?? found[0])
  const pin = chip.pins.find((p) => p.id === query.get('leg')) ?? first
  const choose = (id: string) =>
    setQuery(
      (q) => {
        q.set('leg', id)
        return q
      },
      { replace: true },
    )
  return (
    <Book className="passport">
      <div className="passport-find">
        <label>
          Any name of a leg
          <TextInput
            type="search"
            value={text}
            placeholder={chip.board ? 'T7, PA3, number 5 …' : '17, PB3, SDA …'}
            onChange={(typed) => {
              setText(typed)
              const first = findPins(chip, typed, names)[0]
              if (first) choose(first.id)
            }}
          />
        </label>
        {found.length === 0 && <p className="faint">No leg is called that, on any board.</p>}
        <div role="group" aria-label="Legs of that name" className="passport-list" onKeyDown={onArrowKeys}>
          {found.map((p) => (
            <ListLine
              key={p.id}
              data-item
              tabIndex={p.id === pin?.id ? 0 : -1}
              aria-pressed={p.id === pin?.id}
              className="signal"
              onClick={() => choose(p.id)}
            >
              <span className="mono">{placeName(p)}</span>
              <span className="mono faint">{placeName(p) === p.id ? '' : p.id}</span>
            </ListLine>
          ))}
        </div>
      </div>
      {pin && <Passport chip={chip} pin={pin} names={names.get(pin.id) ?? []} />}
    </Book>
  )
}

const Passport = ({ chip, pin, names }: { chip: Chip; pin: ChipPin; names: PinName[] }) => {
  const { analysis } = useStage()
  const { pins } = analysis
  const pass = passport(chip, pin)
  const wire = wireOn(pins.plan?.wires ?? [], pin)
  const taken = pins.taken[pin.id]
  return (
    <article className="passport-page" aria-label={`Passport of ${pass.place}`}>
      <h2>
        {pass.place.replace(/^leg/, 'Leg')}{' '}
        <span className="mono">{pass.place === pin.id ? '' : pin.id}</span>
      </h2>
      <section aria-labelledby="passport-names">
        <h3 id="passport-names">Its names</h3>
        <Table>
          <Body>
            {byWhom(names).map(([by, all]) => (
              <Row key={by}>
                <Cell component="th" scope="row">
                  {by}
                </Cell>
                <Cell className="mono">{all.join(', ')}</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </section>
      <section aria-labelledby="passport-on">
        <h3 id="passport-on">On it</h3>
        {wire ? (
          <>
            <p>
              <b>{wire.signal.name}</b>, {askedWord(wire.signal)}
              {wire.unit && `, by ${wire.unit.name} ${wire.line}`}
              {wire.select !== undefined && `, function ${wire.select}`}
              {wire.soldered ? ', soldered' : wire.locked && ', locked'}.
            </p>
            <ul>
              {wire.signal.ends.map((e) => (
                <li key={e.instance.id}>
                  {e.instance.name}, terminal <span className="mono">{e.signal.terminal}</span>
                  <span className="faint"> ({e.instance.part.sheet})</span>
                </li>
              ))}
              {wire.items.map((i) => (
                <li key={i.reason} className="faint">
                  {i.name}, {i.points}: {i.reason}
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p>
            {taken
              ? `Spoken for: ${taken}.`
              : pin.type === 'io'
                ? 'Nothing: it is free.'
                : `Nothing: ${typeWords[pin.type]}.`}
          </p>
        )}
        <h3>What it can be</h3>
        <p>
          {pass.abilities.length > 0
            ? `Plain, ${pass.abilities.join(', ')}.`
            : pin.type === 'io'
              ? 'Plain input or output.'
              : `It is ${typeWords[pin.type]}.`}
        </p>
      </section>
      <section aria-labelledby="passport-start">
        <h3 id="passport-start">At start-up, and what sets it apart</h3>
        <ul>
          {(pin.attributes ?? []).map((a, i) => (
            <li key={i}>
              {attributeWords(a)}{' '}
              <span className="faint">({[chip.sheet, a.source].filter(Boolean).join(', ')})</span>
            </li>
          ))}
          {pin.type === 'io' && !(pin.attributes ?? []).some((a) => a.kind === 'startup') && (
            <li>It floats as an input until the program sets it.</li>
          )}
        </ul>
      </section>
      {['io', 'input', 'output'].includes(pin.type) && <Currents chip={chip} pin={pin} />}
      <Levels pin={pin} />
    </article>
  )
}

const typeWords: Record<ChipPin['type'], string> = {
  io: 'an input or output',
  input: 'an input',
  output: 'an output',
  supply: 'a supply leg',
  ground: 'a ground leg',
  reference: 'the converter’s reference',
  radio: 'the antenna’s',
  none: 'no signal reaches it',
}

/** Names by who uses them, in the order in which they come. */
const byWhom = (names: PinName[]): [string, string[]][] => {
  const groups = new Map<string, string[]>()
  for (const { by, name } of names) groups.set(by, [...new Set([...(groups.get(by) ?? []), name])])
  return [...groups]
}

const states = {
  floating: 'floats',
  'pulled-up': 'is pulled high',
  'pulled-down': 'is pulled low',
  'driven-high': 'is driven high',
  'driven-low': 'is driven low',
  chatter: 'carries pulses',
}
const attributeWords = (a: PinAttribute): string => {
  const reason = a.reason ? `: ${a.reason}` : ''
  switch (a.kind) {
    case 'strap':
      return `Sampled at reset, must be ${a.needs}: low means ${a.low}, high ${a.high}${a.pull === 'none' ? '' : `; it pulls itself ${a.pull}`}`
    case 'startup':
      return `Before the program runs it ${states[a.state]}${reason}`
    case 'tolerant':
      return `Stands ${a.voltage} V as a digital leg`
    case 'programming':
      return `The programmer’s ${a.signal}, driven by the ${a.drivenBy}`
    case 'debug':
      return `The debugger’s ${a.signal}`
    default:
      return `${a.kind.replaceAll('-', ' ')}${reason}`.replace(/^./, (c) => c.toUpperCase())
  }
}

const Currents = ({ chip, pin }: { chip: Chip; pin: ChipPin }) => {
  const { analysis } = useStage()
  const { limits } = chip
  const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
  const led = wire && (analysis.pins.leds[wire.signal.id] ?? analysis.pins.bases[wire.signal.id])
  const fitted =
    wire &&
    (['lamp resistor', 'base resistor'] as const).some(
      (role) => fittedFor(analysis.pins.support, role, wire.signal.id) !== undefined,
    )
  const groups = (limits.groups ?? []).filter((g) => g.pins.includes(pin.id))
  return (
    <section aria-labelledby="passport-currents">
      <h3 id="passport-currents">Its currents</h3>
      <Table>
        <Body>
          {led && (
            <Row>
              <Cell component="th" scope="row">
                Drawn by {wire.signal.name}
              </Cell>
              <Cell align="right">
                <Num worked={fitted ? led.current : led.bare} show="range" />
              </Cell>
            </Row>
          )}
          <Row>
            <Cell component="th" scope="row">
              Recommended{chip.board?.pinCurrent ? ', by the board' : ''}
            </Cell>
            <Cell align="right">
              <Quantity value={fullRange(limits.pinRecommended).max} unit="A" />
            </Cell>
          </Row>
          <Row>
            <Cell component="th" scope="row">
              Absolute maximum, never an operating point
            </Cell>
            <Cell align="right">
              <Quantity value={fullRange(limits.pinAbsolute).max} unit="A" />
            </Cell>
          </Row>
          {groups.map((g) => (
            <Row key={g.id}>
              <Cell component="th" scope="row">
                {g.name}: {g.pins.length} legs together
              </Cell>
              <Cell align="right">
                <Quantity value={fullRange(g.recommended ?? g.absolute!).max} unit="A" />
              </Cell>
            </Row>
          ))}
          <Row>
            <Cell component="th" scope="row">
              All legs of the chip together
            </Cell>
            <Cell align="right">
              <Quantity value={fullRange(limits.total).max} unit="A" />
            </Cell>
          </Row>
        </Body>
      </Table>
    </section>
  )
}

const Levels = ({ pin }: { pin: ChipPin }) => {
  const { analysis } = useStage()
  const levels = analysis.pins.levels.filter((l) => l.wire.pin.id === pin.id)
  if (levels.length === 0) return null
  return (
    <section aria-labelledby="passport-levels">
      <h3 id="passport-levels">Its level with each partner</h3>
      <ul>
        {levels.map((l) => (
          <li key={l.end.instance.id}>
            <b>{l.end.instance.name}</b>, {l.direction}: {l.text || l.grade}
            <ol>
              {l.facts.map((f) => (
                <li key={f.text + (f.worked?.label ?? '')}>
                  {f.text}
                  {f.worked && (
                    <>
                      {' '}
                      <span className="one-line">
                        (<Num worked={f.worked} show="range" />)
                      </span>
                    </>
                  )}
                </li>
              ))}
              {l.margins.map((m) => (
                <li key={m.label}>
                  {m.label}: <Num worked={m} show="min" /> at the worst
                </li>
              ))}
            </ol>
          </li>
        ))}
      </ul>
    </section>
  )
}

const Book = styled('div')({
  display: 'grid',
  gridTemplateColumns: '190px minmax(0, 1fr)',
  gap: '0 20px',
  alignItems: 'start',
  '& .passport-find .MuiInputBase-root': { width: '100%', margin: '4px 0 8px' },
  '& .passport-list': { maxHeight: '60vh', overflowY: 'auto' },
  '& .passport-page': {
    display: 'grid',
    gridTemplateColumns: '1fr 1fr',
    gap: '4px 24px',
    alignItems: 'start',
  },
  '& .passport-page h2': { gridColumn: '1 / -1' },
  '& .passport-page h3': { fontSize: 13.5, margin: '6px 0 2px' },
  '& .passport-page ul, & .passport-page ol': { margin: '2px 0', paddingLeft: 18 },
  '& .passport-page p': { margin: '2px 0' },
  "& .passport-page th[scope='row']": { textAlign: 'left', fontWeight: 450 },
  '@media (max-width: 999px)': {
    '&, & .passport-page': { gridTemplateColumns: '1fr' },
    '& .passport-list': { maxHeight: 132, marginBottom: 10 },
  },
})
