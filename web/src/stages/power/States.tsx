// What the machine does and when: its states, what each takes, how they follow one another, and where the charge goes.

import type { StateChoice } from '@root-board/core/design'
import type { Charge } from '@root-board/core/power'
import { modesOf, proposedStates } from '@root-board/core/states'
import { Button, styled } from '@mui/material'
import { Fragment, lazy, Suspense, useState } from 'react'
import { Choice, Tick, TextInput } from '../../kit/inputs'
import { Line, Spacer } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { SleepSteps } from './SleepSteps'

const CycleChart = lazy(() => import('./CycleChart'))

export const percent = (share: number): string => {
  const of = share * 100
  return of === 0 ? '0 %' : of < 0.01 ? 'below 0.01 %' : `${Number(of.toPrecision(of > 99 ? 4 : 3))} %`
}

export const States = ({ charge }: { charge: Charge | undefined }) => {
  const { analysis, design, library, edit } = useStage()
  const { states } = design.needs
  const chip = analysis.chip.chip
  if (!states)
    return (
      <section aria-labelledby="states">
        <h2 id="states">What it does, and when</h2>
        <p>
          {design.needs.limits.awake === undefined
            ? 'Everything counts as at work all the time. '
            : `The chip counts as at work for ${percent(design.needs.limits.awake)} of the time, and asleep for the rest. `}
          Name what it does and how often, and each part counts in each state as it is then: what is taken
          over a day, and how long cells last, follow from that.
        </p>
        <Button
          onClick={() => edit({ kind: 'setStates', states: proposedStates(design, library, chip) })}
          disabled={analysis.needs.instances.length === 0 && !chip}
        >
          Name its states
        </Button>
      </section>
    )
  const free = (n: number): string => (states.some((s) => s.id === `s${n}`) ? free(n + 1) : `s${n}`)
  return (
    <section aria-labelledby="states">
      <Line>
        <h2 id="states">What it does, and when</h2>
        <Spacer />
        <Button
          onClick={() =>
            edit({
              kind: 'addState',
              state: { id: free(1), name: `state ${states.length + 1}`, lasts: 10, perDay: 1 },
            })
          }
        >
          Add a state
        </Button>
        <Button onClick={() => edit({ kind: 'setStates', states: [] })}>Do without states</Button>
      </Line>
      <StateTable states={states} charge={charge} />
      <SleepSteps />
      <Suspense fallback={<p className="faint">Drawing …</p>}>
        <CycleChart states={states} />
      </Suspense>
    </section>
  )
}

const StateTable = ({ states, charge }: { states: StateChoice[]; charge: Charge | undefined }) => {
  const { analysis, design } = useStage()
  const [opened, setOpened] = useState<string>()
  const radio = analysis.chip.chip?.radio !== undefined || states.some((s) => s.radio)
  const names = [
    'State, and the chip in it',
    'Each time, and how often',
    ...(radio ? ['Radio'] : []),
    'Devices',
    right('Of the time'),
    right('Takes'),
    right('In a day'),
    hidden('Take away'),
  ]
  return (
    <div className="scroll-x">
      <StateLines aria-labelledby="states">
        <Columns of={names} />
        <Body>
          {states.map((choice) => {
            const state = analysis.power.states.find((s) => s.id === choice.id)
            const spent = charge?.states.find((s) => s.id === choice.id)
            const settable = analysis.needs.instances.filter(
              ({ need, part }, i, all) =>
                modesOf(part).length > 1 && all.findIndex((x) => x.need.id === need.id) === i,
            )
            const set = settable.filter(({ need }) => choice.modes?.[need.id] !== undefined).length
            return (
              <Fragment key={choice.id}>
                <Row>
                  <StateFields choice={choice} radio={radio} />
                  <Cell>
                    {settable.length > 0 || choice.lasts !== undefined ? (
                      <Button
                        aria-expanded={opened === choice.id}
                        aria-label={`What begins it and what the devices do, ${choice.name}`}
                        onClick={() => setOpened(opened === choice.id ? undefined : choice.id)}
                      >
                        {settable.length > 0 ? `${set} of ${settable.length} said` : 'what begins it'}
                      </Button>
                    ) : (
                      <span className="faint">as they are</span>
                    )}
                  </Cell>
                  <Cell align="right">
                    {state && <Num worked={state.share}>{percent(state.share.value.typ)}</Num>}
                  </Cell>
                  <Cell align="right">{spent && <Num worked={spent.current} />}</Cell>
                  <Cell align="right">
                    {spent && (
                      <>
                        <Num worked={spent.day} />
                        <br />
                        <Num worked={spent.part}>{percent(spent.part.value.typ)}</Num>
                      </>
                    )}
                  </Cell>
                  <Cell align="right">
                    <TakeAway choice={choice} />
                  </Cell>
                </Row>
                {opened === choice.id && (
                  <Row>
                    <Cell colSpan={names.length}>
                      <Begins choice={choice} />
                      <DeviceModes choice={choice} of={settable.map((i) => i.need.id)} />
                    </Cell>
                  </Row>
                )}
              </Fragment>
            )
          })}
        </Body>
      </StateLines>
      {design.power.source === undefined && (
        <p className="faint">Choose a source to see what each takes from it.</p>
      )}
    </div>
  )
}

const TakeAway = ({ choice }: { choice: StateChoice }) => {
  const { edit } = useStage()
  return choice.lasts === undefined ? null : (
    <Button
      aria-label={`Take ${choice.name} away`}
      onClick={() => edit({ kind: 'removeState', id: choice.id })}
    >
      ×
    </Button>
  )
}

const StateFields = ({ choice, radio }: { choice: StateChoice; radio: boolean }) => {
  const { analysis, edit } = useStage()
  const { id, name, lasts, every, perDay } = choice
  const change = (by: Partial<Omit<StateChoice, 'id'>>) => edit({ kind: 'changeState', id, change: by })
  const chip = analysis.chip.chip
  const [typed, setTyped] = useState<string>()
  const commit = () => {
    const next = typed?.trim()
    setTyped(undefined)
    if (next && next !== name) change({ name: next })
  }
  return (
    <>
      <Cell>
        <Stacked>
          <TextInput
            label={`Name of ${name}`}
            width={148}
            maxLength={40}
            value={typed ?? name}
            onChange={setTyped}
            onBlur={commit}
            onKeyDown={(e) => {
              if (e.key === 'Enter') commit()
              if (e.key === 'Escape') setTyped(undefined)
            }}
          />
          <Choice
            label={`The chip, ${name}`}
            width={148}
            value={choice.chip ?? ''}
            options={[
              { value: '', label: 'chip works' },
              ...(chip?.modes ?? [])
                .filter((m) => m.kind !== 'active')
                .map((m) => ({ value: m.id, label: m.name })),
              // One of another chip stays to be seen: a finding says that this one hasn’t got it.
              ...(choice.chip !== undefined && !chip?.modes.some((m) => m.id === choice.chip)
                ? [{ value: choice.chip, label: `${choice.chip} (not there)` }]
                : []),
            ]}
            onChange={(mode) => change({ chip: mode === '' ? undefined : mode })}
          />
        </Stacked>
      </Cell>
      <Cell>
        {lasts === undefined ? (
          <span className="faint">the rest of the time</span>
        ) : (
          <Stacked>
            <Often>
              <span className="faint">for</span>
              <QuantityField
                label={`${name} lasts`}
                hideLabel
                unit="time"
                width={96}
                min={1e-6}
                max={1e8}
                value={lasts}
                onChange={(value) => value !== null && change({ lasts: value })}
              />
            </Often>
            <Often>
              <Choice
                label={`How often ${name} comes`}
                width={124}
                value={perDay === undefined ? 'every' : 'perDay'}
                options={[
                  { value: 'every', label: 'every' },
                  { value: 'perDay', label: 'times a day:' },
                ]}
                onChange={(how) =>
                  change(
                    how === 'every'
                      ? { every: perDay ? Number((86400 / perDay).toPrecision(6)) : 3600, perDay: undefined }
                      : { perDay: every ? Number((86400 / every).toPrecision(6)) : 1, every: undefined },
                  )
                }
              />
              {perDay === undefined ? (
                <QuantityField
                  label={`${name} every`}
                  hideLabel
                  unit="time"
                  width={96}
                  min={1e-6}
                  max={1e8}
                  value={every}
                  onChange={(value) => value !== null && change({ every: value })}
                />
              ) : (
                <QuantityField
                  label={`${name}, times a day`}
                  hideLabel
                  unit=""
                  width={96}
                  min={0}
                  max={1e8}
                  value={perDay}
                  onChange={(value) => value !== null && change({ perDay: value })}
                />
              )}
            </Often>
          </Stacked>
        )}
      </Cell>
      {radio && (
        <Cell>
          <Tick
            label={`Radio on, ${name}`}
            checked={analysis.power.states.find((s) => s.id === id)?.radio ?? false}
            onChange={(on) => change({ radio: on })}
          />
        </Cell>
      )}
    </>
  )
}

/** What can interrupt: by these a device tells the chip that something is to be done. */
const tells = new Set(['wake', 'interrupt', 'touch', 'digital-in', 'capture', 'quadrature'])

const Begins = ({ choice }: { choice: StateChoice }) => {
  const { analysis, edit } = useStage()
  if (choice.lasts === undefined) return null
  const devices = analysis.needs.instances.filter(
    ({ need, wiring }, i, all) =>
      wiring.signals.some((s) => tells.has(s.kind)) && all.findIndex((x) => x.need.id === need.id) === i,
  )
  return (
    <p>
      <label>
        Begun by{' '}
        <Choice
          value={choice.begins ?? (choice.every === undefined ? '' : 'clock')}
          options={[
            ...(choice.every === undefined ? [{ value: '', label: 'not said' }] : []),
            { value: 'clock', label: 'its time, by the chip’s clock' },
            ...devices.map(({ need }) => ({ value: need.id, label: need.name })),
          ]}
          onChange={(begins) =>
            edit({
              kind: 'changeState',
              id: choice.id,
              change: { begins: begins === '' ? undefined : begins },
            })
          }
        />
      </label>
    </p>
  )
}

const DeviceModes = ({ choice, of }: { choice: StateChoice; of: string[] }) => {
  const { analysis, edit } = useStage()
  const set = (device: string, mode: string) => {
    const others = Object.fromEntries(Object.entries(choice.modes ?? {}).filter(([id]) => id !== device))
    edit({
      kind: 'changeState',
      id: choice.id,
      change: { modes: mode === '' ? others : { ...others, [device]: mode } },
    })
  }
  return (
    <Line role="group" aria-label={`Devices, ${choice.name}`}>
      {of.map((id) => {
        const { need, part } = analysis.needs.instances.find((i) => i.need.id === id)!
        return (
          <label key={id}>
            {need.name}{' '}
            <Choice
              value={choice.modes?.[id] ?? ''}
              options={[
                { value: '', label: part.modes.length > 0 ? 'its own cycle' : 'on' },
                ...modesOf(part)
                  .filter((m) => part.modes.length > 0 || m.id !== 'on')
                  .map((m) => ({ value: m.id, label: m.name })),
              ]}
              onChange={(mode) => set(id, mode)}
            />
          </label>
        )
      })}
    </Line>
  )
}

const Stacked = styled('span')({ display: 'inline-flex', flexDirection: 'column', gap: 3 })
const Often = styled('span')({ display: 'inline-flex', gap: 4, alignItems: 'center' })
const StateLines = styled(Table)({
  '& td': { verticalAlign: 'middle', whiteSpace: 'nowrap' },
  '& td[colspan]': { whiteSpace: 'normal', paddingLeft: 16, background: 'var(--shade)' },
  '& td:last-of-type .MuiButton-root': { minWidth: 0, padding: '2px 8px' },
})
