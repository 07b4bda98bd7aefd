// The way from plug to load as a stream, in the state that is looked at: its width is the current, heat leaves where volts are lost,
// and each part says what it could carry.

import { partsOfKind } from '@root-board/core/parts'
import type { Design } from '@root-board/core/design'
import type { PowerResult, Station as StationOf, Streams } from '@root-board/core/power'
import type { Shown } from '@root-board/core/findings'
import { leadWords } from '@root-board/core/supply'
import { capital, formatQuantity } from '@root-board/core/quantity'
import { type ReactNode, useCallback, useState } from 'react'
import { questions } from '../../worker/client'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Num } from '../../kit/Num'
import { SourceSelect } from '../../shared/SourceSelect'
import { Choice } from '../../kit/inputs'
import { Line } from '../../kit/layout'

const widest = 58

/** What the analysis says of everything at once: shown until the rest is worked out. */
const atOnce = (power: PowerResult): Streams => {
  const { source, polarity, regulator, regulation, input, fromSource, work, railLoaded, consumers } = power
  const lead = power.leads.find((l) => l.of === 'source')
  return {
    ...(source && { source: { name: source.name, current: fromSource } }),
    ...(lead && { lead: { name: leadWords(lead.parts), current: fromSource, heat: lead.heat } }),
    ...(polarity?.present &&
      input && { guard: { name: polarity.diode.name, current: power.through, voltage: input } }),
    ...(regulator && {
      regulator: {
        name: regulator.name,
        current: work,
        ...(regulation && { heat: regulation.dissipation, junction: regulation.junction }),
      },
    }),
    rail: { name: 'rail', current: work, ...(railLoaded && { voltage: railLoaded }) },
    loads: consumers
      .map((c) => ({ id: c.id, name: c.name, count: c.count, from: c.from, current: c.work }))
      .sort((a, b) => b.current.value.max - a.current.value.max),
  }
}

export const PathDrawing = () => {
  const { analysis, design, library, edit } = useStage()
  const { power } = analysis
  const [chosen, setChosen] = useState('')
  const state = power.states.find((s) => s.id === chosen)?.id
  const ask = useCallback((of: Design) => questions.streams(of, state), [state])
  const { answer: asked, current, failed, again } = useAsked(ask)
  const answer = asked ?? (state === undefined ? atOnce(power) : undefined)
  const most = Math.max((answer?.source ?? answer?.rail)?.current.value.max ?? 0, 1e-12)
  const width = (worked: Shown | undefined) =>
    Math.max(1.5, Math.min(1, (worked?.value.max ?? 0) / most) * widest)
  const loads = (answer?.loads ?? []).filter((c) => c.from !== power.supplies.fed.feed)
  // What takes nothing in this state is no stream.
  const flowing = loads.filter((c) => c.current.value.max > 0)
  const still = loads.filter((c) => !flowing.includes(c))
  const regulators = partsOfKind(library, 'regulator')
  const { source, lead, guard, regulator, rail, lost } = answer ?? {}
  const between = [lead, guard].filter((s) => s !== undefined).length
  return (
    <section aria-label="From plug to load" aria-busy={!current}>
      <Line>
        <label htmlFor="path-state">While it is</label>
        <Choice
          id="path-state"
          value={state ?? ''}
          options={[
            { value: '', label: 'doing everything at once' },
            ...power.states.map((s) => ({ value: s.id, label: s.name })),
          ]}
          onChange={setChosen}
        />
        {lost && (
          <span className="faint">
            on the way up to <Num worked={lost} show="max" /> turn to heat
          </span>
        )}
      </Line>
      {failed && <QuestionFailed why={failed} again={again} />}
      <div className={['path no-diode', 'path', 'path led'][between]}>
        <div className="station">
          <label htmlFor="power-source">Source</label>
          <SourceSelect id="power-source" />
          <span className="stream" style={{ height: width(source?.current) }} />
          <span>
            <Carries of={source} />
            {source && <HeatOf of={source} />}
          </span>
        </div>
        {lead && (
          <div className="station narrow">
            <span>{capital(lead.name)}</span>
            <span className="stream" style={{ height: width(lead.current) }} />
            <span>
              {lead.voltage && <Num worked={lead.voltage} show="range" />}
              <HeatOf of={lead} />
            </span>
          </div>
        )}
        {guard && (
          <div className="station narrow">
            <span>Diode</span>
            <span className="stream" style={{ height: width(guard.current) }}>
              <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
                <path d="M4 4l15 9-15 9zM20 4v18" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.5" />
              </svg>
            </span>
            <span>
              {guard.voltage && <Num worked={guard.voltage} show="range" />}
              <HeatOf of={guard} />
            </span>
          </div>
        )}
        <div className="station">
          {analysis.chip.chip?.board ? (
            <>
              <span>Regulator</span>
              <span className="own">
                {power.regulator ? `${power.regulator.name}, on the board` : 'none: the input is the rail'}
              </span>
            </>
          ) : (
            <>
              <label htmlFor="power-regulator">Regulator</label>
              <Choice
                id="power-regulator"
                value={design.power.regulator ?? ''}
                options={[
                  { value: '', label: 'none: the source is the rail' },
                  ...regulators.map((r) => ({ value: r.id, label: r.name })),
                ]}
                onChange={(id) => {
                  const r = regulators.find((x) => x.id === id)
                  edit({ kind: 'chooseRegulator', part: r?.id ?? null, name: r?.name ?? '' })
                }}
              />
            </>
          )}
          <span className="stream" style={{ height: width(rail?.current) }}>
            {' '}
          </span>
          {regulator ? (
            <span>
              <Carries of={regulator} />
              <HeatOf of={regulator}>
                {regulator.junction && (
                  <>
                    <span className="faint">, junction</span> <Num worked={regulator.junction} show="max" />
                  </>
                )}
              </HeatOf>
            </span>
          ) : (
            <span className="faint">{power.rail ? 'no heat' : ''}</span>
          )}
        </div>
        <div className="station narrow">
          <span>Rail</span>
          <span className="stream" style={{ height: width(rail?.current) }} />
          <span>
            {rail?.voltage ? (
              <Num worked={rail.voltage} show="range" />
            ) : (
              <span className="faint">{answer ? 'no rail yet' : '…'}</span>
            )}
          </span>
        </div>
        <ul className="loads" aria-label="Loads">
          {flowing.slice(0, 8).map((c) => (
            <li key={c.id}>
              <span className="stream" style={{ height: Math.min(18, width(c.current)) }} />
              <span className="load-name">
                {c.name}
                {c.from !== power.supplies.own && <span className="faint"> from the source</span>}
              </span>
              <Num worked={c.current} show="max" digits={2} />
            </li>
          ))}
          {flowing.length > 8 && <li className="faint more">and {flowing.length - 8} more below</li>}
          {still.length > 0 && (
            <li className="faint more">
              {still.length === 1 ? `${still[0]!.name} takes` : `${still.length} take`} nothing then
            </li>
          )}
        </ul>
      </div>
    </section>
  )
}

/** What flows at most, and what it could carry. */
const Carries = ({ of }: { of: StationOf | undefined }) =>
  of ? (
    <span className="line">
      <Num worked={of.current} show="max" />{' '}
      {of.allowed === undefined || !of.left ? (
        <span className="faint">at most</span>
      ) : (
        <>
          <span className="faint">of {formatQuantity(of.allowed, 'A')},</span>{' '}
          <span className={of.left.value.min < 0 ? 'stops' : 'faint'}>
            {of.left.value.min < 0 ? 'too much' : <Num worked={of.left} digits={2} />}
            {of.left.value.min < 0 ? '' : ' left'}
          </span>
        </>
      )}
    </span>
  ) : (
    <span className="faint">…</span>
  )

const HeatOf = ({ of: { heat }, children }: { of: StationOf; children?: ReactNode }) =>
  heat ? (
    <span className="line">
      <Heat watts={heat.value.max} /> <Num worked={heat} show="max" digits={2} />{' '}
      <span className="faint">of heat</span>
      {children}
    </span>
  ) : null

/** More strokes for more heat: one for each third of a watt. */
const Heat = ({ watts }: { watts: number }) => {
  const strokes = Math.max(1, Math.min(5, Math.round(watts * 3)))
  return (
    <svg className="heat" width={strokes * 8 + 4} height="16" aria-hidden="true">
      {Array.from({ length: strokes }, (_, i) => (
        <path
          key={i}
          d={`M${4 + i * 8} 0 q4 4 0 8 q-4 4 0 8`}
          fill="none"
          stroke="var(--clay)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  )
}
