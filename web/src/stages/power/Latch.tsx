// The button that switches the project on until its program lets go: what it is made of, how surely it is on and off, and what it does
// when it is pressed.

import type { Design, Latch as LatchChoice } from '@root-board/core/design'
import { latchEvents, type LatchTry } from '@root-board/core/latch'
import { partsOfKind } from '@root-board/core/parts'
import { durationWords, formatQuantity } from '@root-board/core/quantity'
import { latchButtons } from '@root-board/core/supply'
import { Button, styled } from '@mui/material'
import { lazy, type ReactNode, Suspense, useCallback, useState } from 'react'
import { Choice } from '../../kit/inputs'
import { Captioned } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { PartChoice } from '../../shared/PartChoice'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { Assumed } from './Assumed'
import { Fields } from './Fields'

const LatchChart = lazy(() => import('./LatchChart'))

export const Latch = () => {
  const { analysis, design, library, edit } = useStage()
  const [first] = latchButtons(design, library)
  if (first)
    return (
      <section aria-labelledby="latch">
        <h2 id="latch">Latch: {first.need.name} switches it on, the program off</h2>
        {analysis.latch.latch ? (
          <>
            <Made />
            <Numbers />
            <Tried />
          </>
        ) : (
          <p className="faint">
            {design.power.source === undefined
              ? 'It lies in the plus of a source: choose one above.'
              : analysis.chip.chip === undefined
                ? 'Its numbers need a chip: its program holds the latch, and its start says how long to press.'
                : 'It is left out of every sum: what speaks against it is told beside.'}
          </p>
        )}
      </section>
    )
  const button = partsOfKind(library, 'device').find((d) => d.latch)
  if (!button || analysis.chip.chip?.board) return null
  return (
    <section aria-labelledby="latch">
      <h2 id="latch">Latch</h2>
      <p>
        A button can switch the project on, and the program switch it off again: next to nothing is drawn
        then.{' '}
        <Button
          onClick={() =>
            edit({ kind: 'addDevices', devices: [{ part: button.id, name: 'Power button', count: 1 }] })
          }
        >
          Add a {button.name}
        </Button>
      </p>
    </section>
  )
}

/** Its parts, as the button’s file proposes them or as they are chosen here. */
const Made = () => {
  const { analysis, design, library, edit } = useStage()
  const { readable, pass, diode, pullUp, resistors, setUp, button } = analysis.latch.latch!
  const chosen = design.power.latch ?? {}
  const change = (changed: LatchChoice, what: string) => edit({ kind: 'changeLatch', change: changed, what })
  const choice = (
    field: 'pass' | 'diode',
    label: string,
    now: string | undefined,
    parts: readonly { id: string; name: string }[],
  ) => (
    <Captioned>
      <label htmlFor={`latch-${field}`}>{label}</label>
      <PartChoice
        id={`latch-${field}`}
        value={now ?? chosen[field] ?? button.latch![field]}
        parts={parts}
        onChosen={(part) => part && change({ [field]: part.id }, part.name)}
      />
    </Captioned>
  )
  const typed = chosen.pullUp !== undefined && chosen.pullUp !== pullUp.value
  return (
    <>
      <Fields role="group" aria-label="What the latch is made of">
        {choice(
          'pass',
          'Transistor in the plus',
          pass.id,
          partsOfKind(library, 'transistor').filter((t) => t.sort === 'p-mosfet'),
        )}
        {readable &&
          choice(
            'diode',
            'Diodes to the button',
            diode?.id,
            partsOfKind(library, 'diode').filter((d) => d.sort !== 'zener'),
          )}
        <QuantityField
          label="Resistor from gate to source"
          unit="Ω"
          min={1}
          max={1e9}
          optional
          width={84}
          placeholder={pullUp.marking}
          value={chosen.pullUp}
          onChange={(v) =>
            change({ pullUp: v ?? undefined }, v === null ? 'resistor as computed' : formatQuantity(v, 'Ω'))
          }
        />
        <QuantityField
          label="Program sets up for"
          unit="s"
          min={0}
          max={60}
          optional
          width={84}
          placeholder={formatQuantity(setUp.value.max, 's')}
          value={chosen.setUp}
          onChange={(v) =>
            change(
              { setUp: v ?? undefined },
              v === null ? 'set-up as assumed' : `the program holds after ${formatQuantity(v, 's')}`,
            )
          }
        />
      </Fields>
      {typed && (
        <p>
          There is no {resistors.name} of {formatQuantity(chosen.pullUp!, 'Ω')}: fitted and reckoned with is{' '}
          {pullUp.marking}, the nearest.
        </p>
      )}
    </>
  )
}

const Numbers = () => {
  const { latch } = useStage().analysis.latch
  const {
    pressed,
    held,
    off,
    drop,
    heat,
    margin,
    low,
    press,
    startUp,
    release,
    fall,
    blink,
    touch,
    standby,
    shelf,
    holding,
    pullUp,
    assumed,
  } = latch!
  const th = latch!.threshold.value
  const volts = (v: number) => formatQuantity(v, 'V')
  const rows: [string, ReactNode, ReactNode][] = [
    [
      'Gate below the source, program holding',
      <Num key="n" worked={held} show="min" />,
      `on for sure from ${volts(th.max)}`,
    ],
    ['… button pressed', <Num key="n" worked={pressed} show="min" />, `on for sure from ${volts(th.max)}`],
    [
      '… all off',
      <Num key="n" worked={off} show="max" digits={2} />,
      `off for sure below ${volts(th.min)}, with ${pullUp.marking}`,
    ],
    ...(drop && heat
      ? ([
          [
            'Lost in the latch',
            <Num key="n" worked={drop} show="max" digits={2} />,
            <>
              <Num worked={heat} show="max" digits={2} /> of heat
            </>,
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    ...(margin && low
      ? ([
          [
            'Its leg while pressed',
            <Num key="n" worked={low} show="max" digits={2} />,
            <>
              <Num worked={margin} show="min" digits={2} /> left below what is read as low
            </>,
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    [
      'Press for',
      <Num key="n" worked={press} show="max" digits={2} />,
      'or longer: rail, start of the chip, set-up',
    ],
    [
      'Off after the program lets go',
      <Num key="n" worked={release} show="max" digits={2} />,
      fall ? (
        <>
          and up to <Num worked={fall} show="max" digits={2} /> more until the rail is too low for the chip
        </>
      ) : (
        'and then as soon as the rail’s capacitors are empty'
      ),
    ],
    [
      'On by itself as the source is put in',
      <Num key="n" worked={blink} show="max" digits={2} />,
      <>
        the chip takes <Num worked={startUp} show="min" digits={2} /> at least to start
      </>,
    ],
    [
      'A finger at the gate of less than',
      <Num key="n" worked={touch} show="max" digits={2} />,
      'switches it on',
    ],
    [
      'Drawn while it is off',
      <Num key="n" worked={standby} show="max" digits={2} />,
      'leaks through its transistors and diodes',
    ],
    ...(shelf
      ? ([
          [
            'Cells last, switched off',
            <Num key="n" worked={shelf}>
              {durationWords(shelf.value.min)}
            </Num>,
            'at the worst',
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    [
      'Drawn by the latch while it is on',
      <Num key="n" worked={holding} show="max" digits={2} />,
      'through its resistor',
    ],
  ]
  return (
    <Spaced className="scroll-x">
      <Table aria-label="How surely the latch is on and off">
        <Columns of={['What', right('At the worst'), 'Against']} />
        <Body>
          {rows.map(([what, number, against]) => (
            <Row key={what}>
              <Cell>{what}</Cell>
              <Cell align="right" className="mono">
                {number}
              </Cell>
              <Cell className="faint">{against}</Cell>
            </Row>
          ))}
        </Body>
      </Table>
      <Assumed of={assumed} />
    </Spaced>
  )
}
const Spaced = styled('div')({ margin: '10px 0 14px' })

/** What happens when somebody presses for so long, or puts the source in: simulated. */
const Tried = () => {
  const [of, setOf] = useState<LatchTry>({ does: 'press', press: 0.2, letGo: 0.4 })
  const ask = useCallback((design: Design) => questions.latch(design, of), [of])
  const { answer, current, failed, again } = useAsked(ask)
  const at = (what: keyof typeof latchEvents) => answer?.events.find((e) => e.what === what)?.at
  const since = (what: keyof typeof latchEvents) =>
    formatQuantity((at(what) ?? 0) - (at('pressed') ?? at('plugged') ?? 0), 's', 3)
  return (
    <>
      <h3 id="latch-tried">What happens</h3>
      <Fields role="group" aria-label="What is done to the latch">
        <Captioned>
          <label htmlFor="latch-does">When</label>
          <Choice
            id="latch-does"
            value={of.does}
            options={[
              { value: 'press', label: 'somebody presses the button' },
              { value: 'plug', label: 'the source is put in, and nobody presses' },
            ]}
            onChange={(does) => setOf({ ...of, does: does === 'plug' ? 'plug' : 'press' })}
          />
        </Captioned>
        {of.does === 'press' && (
          <QuantityField
            label="Pressed for"
            unit="s"
            min={1e-3}
            max={10}
            width={84}
            value={of.press}
            onChange={(v) => v !== null && setOf({ ...of, press: v })}
          />
        )}
        <QuantityField
          label={of.does === 'press' ? 'The program lets go after' : 'Watched for'}
          unit="s"
          min={1e-3}
          max={10}
          width={84}
          value={of.letGo}
          onChange={(v) => v !== null && setOf({ ...of, letGo: v })}
        />
      </Fields>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Simulating it …" />}
      {answer && (
        <div aria-busy={!current}>
          <p role="status">
            {answer.stopped
              ? 'Stopped before its end: what comes after is not known.'
              : of.does === 'plug'
                ? answer.held
                  ? 'It switches itself on.'
                  : 'It stays off.'
                : answer.tooShort
                  ? at('rail up') === undefined
                    ? 'Nothing starts: the rail never is enough for the chip.'
                    : 'Too short: it goes off with the button, before the program holds.'
                  : answer.held
                    ? `The program holds ${since('holds')} after the press began${at('off') === undefined ? '.' : `, and it is off ${formatQuantity(at('off')! - at('lets go')!, 's', 2)} after the program lets go.`}`
                    : 'The program lets go before it holds: it goes off with the button.'}
          </p>
          <Suspense fallback={<p className="faint">Drawing …</p>}>
            <LatchChart run={answer} />
          </Suspense>
          <Table aria-label="What happens, in turn">
            <Columns of={[right('After'), 'What']} />
            <Body>
              {answer.events.map(({ at: when, what }) => (
                <Row key={what}>
                  <Cell align="right" className="mono">
                    {formatQuantity(when - (at('pressed') ?? at('plugged') ?? 0), 's', 4)}
                  </Cell>
                  <Cell>{latchEvents[what]}</Cell>
                </Row>
              ))}
            </Body>
          </Table>
        </div>
      )}
    </>
  )
}
