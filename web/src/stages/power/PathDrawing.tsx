// The way from plug to load as a stream: its width is the current, heat leaves where volts are lost.

import { partsOfKind } from '@root-board/core/parts'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { SourceSelect } from '../../shared/SourceSelect'
import { Choice } from '../../kit/inputs'

const widest = 58

export const PathDrawing = () => {
  const { analysis, design, library, edit } = useStage()
  const { power } = analysis
  const most = Math.max(power.fromSource.value.max, 1e-9)
  const width = (amperes: number) => Math.max(1.5, (amperes / most) * widest)
  const consumers = power.consumers
    .filter((c) => c.from !== power.supplies.fed.feed)
    .sort((a, b) => b.work.value.max - a.work.value.max)
  const regulators = partsOfKind(library, 'regulator')
  return (
    <section className={power.polarity?.present ? 'path' : 'path no-diode'} aria-label="From plug to load">
      <div className="station">
        <label htmlFor="power-source">Source</label>
        <SourceSelect id="power-source" />
        <span className="stream" style={{ height: width(power.fromSource.value.max) }} />
        <span>
          <Num worked={power.fromSource} show="max" /> <span className="faint">at most</span>
        </span>
      </div>
      {power.polarity?.present && power.input && (
        <div className="station narrow">
          <span>Diode</span>
          <span className="stream" style={{ height: width(power.fromSource.value.max) }}>
            <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
              <path d="M4 4l15 9-15 9zM20 4v18" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.5" />
            </svg>
          </span>
          <span>
            <Num worked={power.input} show="range" />
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
        <span className="stream" style={{ height: width(power.work.value.max) }}>
          {' '}
        </span>
        {power.regulation ? (
          <span>
            <Heat watts={power.regulation.dissipation.value.max} />
            <Num worked={power.regulation.dissipation} show="max" />{' '}
            <span className="faint">of heat, junction</span>{' '}
            <Num worked={power.regulation.junction} show="max" />
          </span>
        ) : (
          <span className="faint">{power.rail ? 'no heat' : ''}</span>
        )}
      </div>
      <div className="station narrow">
        <span>Rail</span>
        <span className="stream" style={{ height: width(power.work.value.max) }} />
        <span>
          {power.railLoaded ? (
            <Num worked={power.railLoaded} show="range" />
          ) : (
            <span className="faint">no rail yet</span>
          )}
        </span>
      </div>
      <ul className="loads" aria-label="Loads">
        {consumers.slice(0, 8).map((c) => (
          <li key={c.id}>
            <span className="stream" style={{ height: Math.min(18, width(c.work.value.max)) }} />
            <span className="load-name">
              {c.name}
              {c.from !== power.supplies.own && <span className="faint"> from the source</span>}
            </span>
            <Num worked={c.work} show="max" digits={2} />
          </li>
        ))}
        {consumers.length > 8 && <li className="faint more">and {consumers.length - 8} more below</li>}
      </ul>
    </section>
  )
}

/** More strokes for more heat: one for each third of a watt. */
const Heat = ({ watts }: { watts: number }) => (
  <svg className="heat" width="44" height="16" viewBox="0 0 44 16" aria-hidden="true">
    {Array.from({ length: Math.max(1, Math.min(5, Math.round(watts * 3))) }, (_, i) => (
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
