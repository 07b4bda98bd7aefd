// Rails beside the chip’s own: what each hangs on, its regulator, what flows and what hangs on it; one more can be added.

import { Button } from '@mui/material'
import { canFeed, type FedBy, feederName, type FurtherRail, nextRail } from '@root-board/core/design'
import type { Shown } from '@root-board/core/findings'
import { partsOfKind } from '@root-board/core/parts'
import type { FurtherStream, Streams } from '@root-board/core/power'
import { capital, formatQuantity } from '@root-board/core/quantity'
import { voltageFor } from '@root-board/core/supply'
import { Link } from 'react-router'
import { Choice } from '../../kit/inputs'
import { Num } from '../../kit/Num'
import { useStage } from '../../shared/analysis'
import { PartChoice } from '../../shared/PartChoice'
import { Carries, HeatOf, Loads } from './Stations'

export const FurtherPath = ({
  rail: { id, regulator, from: of },
  stream,
  loads,
  width,
  known,
}: {
  rail: FurtherRail
  stream: FurtherStream | undefined
  /** What flows is worked out. */
  known: boolean
  loads: Streams['loads']
  width: (worked: Shown | undefined) => number
}) => {
  const { analysis, design, library, edit } = useStage()
  const { supplies } = analysis.power
  const name = feederName(id)
  const from: FedBy = of ?? 'source'
  const volts = (by: FedBy) => {
    const typ = voltageFor(supplies, { fedBy: by })?.value.typ
    return typ === undefined ? '' : `, ${formatQuantity(typ, 'V', 2)}`
  }
  return (
    <section className="path further" aria-label={capital(name)}>
      <div className="station">
        <label htmlFor={`${id}-from`}>{capital(name)}, from</label>
        <Choice
          id={`${id}-from`}
          value={from}
          options={canFeed(design, id).map((by) => ({ value: by, label: `${feederName(by)}${volts(by)}` }))}
          onChange={(by) =>
            edit({ kind: 'changeRail', id, change: { from: by }, what: `from the ${feederName(by)}` })
          }
        />
        <span className="stream" style={{ height: width(stream?.taken) }} />
        <span>
          <Button onClick={() => edit({ kind: 'removeRail', id })}>Do without it</Button>
        </span>
      </div>
      <div className="station">
        <label htmlFor={`${id}-regulator`}>Regulator</label>
        <PartChoice
          id={`${id}-regulator`}
          value={regulator}
          parts={partsOfKind(library, 'regulator')}
          onChosen={(r) => r && edit({ kind: 'changeRail', id, change: { regulator: r.id }, what: r.name })}
        />
        <span className="stream" style={{ height: width(stream?.current) }} />
        {stream ? (
          <span>
            <Carries of={stream} />
            <HeatOf of={stream}>
              <span className="faint">, junction</span> <Num worked={stream.junction} show="max" />
            </HeatOf>
          </span>
        ) : (
          <span className="faint">{known ? 'nothing feeds it' : '…'}</span>
        )}
      </div>
      <div className="station narrow">
        <span>{capital(name)}</span>
        <span className="stream" style={{ height: width(stream?.current) }} />
        <span>
          {stream?.voltage ? (
            <Num worked={stream.voltage} show="range" />
          ) : (
            <span className="faint">{known ? 'no volts' : '…'}</span>
          )}
        </span>
      </div>
      {loads.length > 0 ? (
        <Loads of={loads} own={id} width={width} label={`Loads of the ${name}`} />
      ) : (
        <p className="empty-rail faint">
          Nothing hangs on it yet: <Link to="../needs">choose what it feeds</Link> on the Needs page.
        </p>
      )}
    </section>
  )
}

/** One more rail, as long as there can be one. */
export const AddRail = () => {
  const { design, library, edit } = useStage()
  const id = nextRail(design)
  if (!design.power.source || !id) return null
  return (
    <p>
      <label htmlFor="add-rail">Another rail, behind a regulator of its own</label>{' '}
      <PartChoice
        id="add-rail"
        value={undefined}
        parts={partsOfKind(library, 'regulator')}
        none="none"
        onChosen={(r) => r && edit({ kind: 'addRail', rail: { id, regulator: r.id }, name: r.name })}
      />
    </p>
  )
}
