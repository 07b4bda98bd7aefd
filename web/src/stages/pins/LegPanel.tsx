// One leg: all its names, what it can do, what is on it and why, and what can be done with it.

import type { SupportPart } from '@root-board/core/circuit'
import { askedWord, type SignalNeed } from '@root-board/core/needs'
import type { Chip, ChipPin } from '@root-board/core/parts'
import { attributeOf, passport, type Wire, wireOn } from '@root-board/core/legs'
import { Button, styled } from '@mui/material'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import type { Reach } from './use-reach'

interface Props {
  chip: Chip
  pin: ChipPin | undefined
  signal: SignalNeed | undefined
  /** Of the signal. */
  wire: Wire | undefined
  reach: Reach | undefined
  moveHere: () => void
  toggleLock: () => void
}

export const LegPanel = ({ chip, pin, signal, wire, reach, moveHere, toggleLock }: Props) => {
  const { analysis, design, edit } = useStage()
  if (!pin)
    return (
      <Panel className="leg-panel">
        <p className="faint">
          Choose a signal to see every leg it could have and what each would cost; choose a leg to see all its
          names. Up and down move through either list.
        </p>
        <SupportTable parts={analysis.pins.support.filter((s) => s.present || s.forced)} full />
      </Panel>
    )
  const pass = passport(chip, pin)
  const wires = analysis.pins.plan?.wires ?? []
  const on = wireOn(wires, pin)
  const taken = analysis.pins.taken[pin.id]
  const entry = signal && reach?.get(pin.id)
  const kept = analysis.pins.assignment
  const excluded = design.pins.excluded.includes(pin.id)
  const shown = on ?? (wire?.pin.id === pin.id ? wire : undefined)
  const support = shown
    ? analysis.pins.support.filter((s) => s.signal === shown.signal.id && (s.present || s.forced))
    : []
  const led = shown && analysis.pins.leds[shown.signal.id]
  const elsewhere = signal && wire?.pin.id !== pin.id
  return (
    <Panel className="leg-panel" aria-live="polite" aria-label={pass.place}>
      <div>
        <h2>
          {pass.place.replace(/^leg/, 'Leg')} <span className="mono">{pass.names.join(' · ')}</span>
        </h2>
        <p>
          {pass.abilities.length > 0
            ? `Can be plain, ${pass.abilities.join(', ')}.`
            : pin.type === 'io'
              ? 'Can be plain input or output.'
              : `It is ${pin.type}.`}
        </p>
        <ul>
          {(pin.attributes ?? []).map((a, i) => (
            <li key={i}>
              {a.kind.replaceAll('-', ' ')}
              {a.reason && `: ${a.reason}`}{' '}
              <span className="faint">({[chip.sheet, a.source].filter(Boolean).join(', ')})</span>
            </li>
          ))}
          {taken && <li>Spoken for: {taken}.</li>}
          {shown && (
            <li>
              <b>{shown.signal.name}</b> is on it ({askedWord(shown.signal)}
              {shown.unit ? `, ${shown.unit.name} ${shown.line}` : ''}
              {shown.select === undefined ? '' : `, function ${shown.select}`})
              {shown.soldered ? ', soldered' : shown.locked ? ', locked' : ''}
              {shown.impossible && <span className="stops">: it can’t work, {shown.impossible}</span>}.
            </li>
          )}
          {shown?.items.map((item) => (
            <li key={item.name}>
              {item.name}, {item.points}: {item.reason}
            </li>
          ))}
        </ul>
      </div>
      <div>
        {(support.length > 0 || led) && <SupportTable parts={support} />}
        {signal && entry && (
          <p>
            {entry.reason ? (
              <span className="stops">
                {signal.name} can’t be here: {entry.reason}.
              </span>
            ) : entry.unsure === 'not decided' ? (
              <span className="risks">
                Whether {signal.name} can be here was not decided in the time given.
              </span>
            ) : elsewhere ? (
              <>
                {signal.name} here makes the plan{' '}
                {entry.extra === 0
                  ? 'no dearer'
                  : `${entry.unsure ? 'up to ' : ''}${entry.extra} points dearer`}
                {entry.items.length > 0 && `: ${entry.items.map((i) => i.reason).join('; ')}`}
                {entry.moves.length > 0 &&
                  `. Moves ${entry.moves.map((m) => `${m.name} to ${m.to}`).join(', ')}`}
                .
              </>
            ) : null}
          </p>
        )}
        <div className="leg-actions">
          {signal && elsewhere && ['io', 'input', 'output'].includes(pin.type) && (
            <Button
              variant={entry?.reason ? 'outlined' : 'contained'}
              color={entry?.reason ? 'inherit' : 'primary'}
              onClick={moveHere}
            >
              {wire?.soldered ? `Unsolder ${signal.name} and move it here` : `Move ${signal.name} here`}{' '}
              {entry?.reason && !wire?.soldered ? 'all the same' : ''} <kbd>m</kbd>
            </Button>
          )}
          {signal && elsewhere && on && wire && (
            <Button
              onClick={() =>
                edit({
                  kind: 'swapSignals',
                  a: signal.id,
                  b: on.signal.id,
                  nameA: signal.name,
                  nameB: on.signal.name,
                  kept,
                })
              }
            >
              {wire.soldered || on.soldered ? 'Unsolder and swap' : 'Swap'} with {on.signal.name}
            </Button>
          )}
          {signal && wire && !elsewhere && !wire.soldered && (
            <Button onClick={toggleLock}>
              {design.pins.locks[signal.id] ? `Unlock ${signal.name}` : `Lock ${signal.name} here`}{' '}
              <kbd>l</kbd>
            </Button>
          )}
          {signal && wire && !elsewhere && !wire.impossible && (
            <Button
              onClick={() =>
                edit(
                  wire.soldered
                    ? { kind: 'unsolder', signal: signal.id, name: signal.name }
                    : { kind: 'solder', signal: signal.id, name: signal.name, pin: pin.id },
                )
              }
            >
              {wire.soldered ? 'No longer soldered' : `Mark ${signal.name} as soldered`}
            </Button>
          )}
          {attributeOf(pin, 'reset')?.asPort !== undefined && (
            <Button onClick={() => edit({ kind: 'useReset', port: !design.pins.resetAsPort })}>
              {design.pins.resetAsPort ? 'Keep this leg for reset' : 'Use this leg as a port'}
            </Button>
          )}
          {['io', 'input', 'output'].includes(pin.type) && !taken && (
            <Button
              onClick={() =>
                edit(
                  excluded ? { kind: 'includePin', pin: pin.id } : { kind: 'excludePin', pin: pin.id, kept },
                )
              }
            >
              {excluded ? 'Allow this leg again' : 'Keep this leg free'}
            </Button>
          )}
        </div>
      </div>
    </Panel>
  )
}

/** The parts that signals need around them, with their sums; `full` names the signal of each. */
const SupportTable = ({ parts, full }: { parts: SupportPart[]; full?: boolean }) =>
  parts.length === 0 ? null : (
    <Table className={full ? 'ruled full' : 'ruled'}>
      <Columns of={[full ? 'Support the signals need' : 'Support it needs', 'Value', 'Working']} />
      <Body>
        {parts.map((s) => (
          <Row key={s.key}>
            <Cell>
              {full ? s.name : s.name.replace(/ of .*$/, '')}
              {!s.present && <span className="risks"> left out</span>}
            </Cell>
            <Cell className="mono">{s.value?.marking ?? s.part.name}</Cell>
            <Cell>
              {s.worked.slice(0, 2).map((w, i) => (
                <span key={i}>
                  {i > 0 && ', '}
                  <span className="mono faint">{w.symbol} </span>
                  <Num worked={w} />
                </span>
              ))}
            </Cell>
          </Row>
        ))}
      </Body>
    </Table>
  )

const Panel = styled('section')({
  gridColumn: '1 / -1',
  marginTop: 12,
  borderTop: '1.5px solid var(--ink)',
  paddingTop: 8,
  display: 'grid',
  gridTemplateColumns: '1fr 1fr',
  gap: 20,
  minHeight: 120,
  '& > p, & .full': { gridColumn: '1 / -1' },
  '& ul': { margin: '2px 0', paddingLeft: 18 },
  '& p': { margin: '4px 0' },
  '& h2 .mono': { fontWeight: 450, fontSize: 14 },
  '& .leg-actions': { display: 'flex', flexWrap: 'wrap', gap: 6, marginTop: 8 },
  '@media (max-width: 999px)': {
    gridTemplateColumns: '1fr',
  },
})
