// The way from plug to load as a stream, in the state that is looked at: its width is the current, heat leaves where volts are lost,
// and each part says what it could carry.

import type { Design } from '@root-board/core/design'
import { partsOfKind } from '@root-board/core/parts'
import { furtherOf, type PowerResult, type Streams } from '@root-board/core/power'
import type { Shown } from '@root-board/core/findings'
import { leadWords } from '@root-board/core/supply'
import { capital } from '@root-board/core/quantity'
import { useCallback, useState } from 'react'
import { questions } from '../../worker/client'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Num } from '../../kit/Num'
import { CellCount } from '../../shared/CellCount'
import { PartChoice } from '../../shared/PartChoice'
import { SourceSelect } from '../../shared/SourceSelect'
import { Choice } from '../../kit/inputs'
import { Line } from '../../kit/layout'
import { AddRail, FurtherPath } from './FurtherRails'
import { Carries, HeatOf, Loads } from './Stations'

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
    further: furtherOf(power),
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
  const elsewhere: string[] = [power.supplies.fed.feed, ...(design.power.rails ?? []).map((r) => r.id)]
  const loads = (answer?.loads ?? []).filter((c) => !elsewhere.includes(c.from))
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
          <CellCount of="source" />
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
              <PartChoice
                id="power-regulator"
                value={design.power.regulator}
                parts={partsOfKind(library, 'regulator')}
                none="none: the source is the rail"
                onChosen={(r) => edit({ kind: 'chooseRegulator', part: r?.id ?? null, name: r?.name ?? '' })}
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
        <Loads of={loads} own={power.supplies.own} width={width} label="Loads" />
      </div>
      {(design.power.rails ?? []).map((rail) => (
        <FurtherPath
          key={rail.id}
          rail={rail}
          stream={answer?.further.find((f) => f.id === rail.id)}
          loads={(answer?.loads ?? []).filter((c) => c.from === rail.id)}
          width={width}
          known={answer !== undefined}
        />
      ))}
      <AddRail />
    </section>
  )
}
