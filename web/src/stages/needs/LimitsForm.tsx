// The limits: what feeds it, how warm it gets, what it may draw and cost.

import { Button, styled } from '@mui/material'
import { Link } from 'react-router'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { SourceSelect } from '../../shared/SourceSelect'
import { Tick } from '../../kit/inputs'

export const LimitsForm = () => {
  const { analysis, design, edit } = useStage()
  const { limits } = design.needs
  return (
    <Limits className="limits" aria-labelledby="limits">
      <h2 id="limits">Limits</h2>
      <div className="field">
        <label htmlFor="source">Fed from</label>
        <SourceSelect id="source" />
        {analysis.power.source?.joined && (
          <span className="faint">
            {analysis.power.source.name}: <Link to="../power">how many</Link>
          </span>
        )}
      </div>
      <div className="field">
        <QuantityField
          label="Air around it, at its warmest"
          unit="°C"
          min={-60}
          max={150}
          value={limits.ambient}
          onChange={(value) => value !== null && edit({ kind: 'setLimit', limit: 'ambient', value })}
        />
      </div>
      <div className="field">
        <QuantityField
          label="Air around it, at its coldest"
          unit="°C"
          optional
          placeholder="not said"
          min={-60}
          max={150}
          value={limits.coldest}
          onChange={(value) => edit({ kind: 'setLimit', limit: 'coldest', value })}
        />
      </div>
      <div className="field">
        <QuantityField
          label="Current budget from the source"
          unit="A"
          optional
          placeholder="none"
          min={1e-6}
          max={100}
          value={limits.current}
          onChange={(value) => edit({ kind: 'setLimit', limit: 'current', value })}
        />
      </div>
      <div className="field">
        <QuantityField
          label="Parts may cost, in €"
          unit=""
          optional
          placeholder="no limit"
          min={0}
          max={1e6}
          value={limits.price}
          onChange={(value) => edit({ kind: 'setLimit', limit: 'price', value })}
        />
      </div>
      {design.needs.states ? (
        <NamedStates />
      ) : (
        <div className="field">
          <QuantityField
            label="Time the chip is awake"
            unit="%"
            optional
            placeholder="100 %"
            min={0}
            max={100}
            value={limits.awake === undefined ? undefined : Number((limits.awake * 100).toPrecision(12))}
            onChange={(value) =>
              edit({ kind: 'setLimit', limit: 'awake', value: value === null ? null : value / 100 })
            }
          />
          <Link to="../power#states">or name its states</Link>
        </div>
      )}
      <Tick
        className="field"
        checked={design.needs.radio ?? false}
        onChange={(radio) => edit({ kind: 'setRadio', radio })}
      >
        The program uses a radio
      </Tick>
      <p className="faint">
        Stance, at the top, says how many support parts are asked for: by the book takes all the sheets ask
        for, lean the ones that matter most, bare bones only what it can’t start without.
      </p>
    </Limits>
  )
}

/** The states that a project names say how much of the time the chip is awake. */
const NamedStates = () => {
  const { analysis, edit } = useStage()
  return (
    <div className="field">
      <p id="states">Its states, as the project names them</p>
      <ul aria-labelledby="states" style={{ listStyle: 'none', padding: 0 }}>
        {analysis.power.states.map(({ id, name, share, mode }) => (
          <li key={id}>
            {name}: <Num worked={share}>{Number((share.value.typ * 100).toPrecision(3))} %</Num> of the time
            {mode && <span className="faint">, chip {mode.name}</span>}
          </li>
        ))}
      </ul>
      <Link to="../power#states">Change them on the Power page</Link>{' '}
      <Button onClick={() => edit({ kind: 'setStates', states: [] })}>Do without them</Button>
    </div>
  )
}

const Limits = styled('section')({
  borderLeft: '1px solid var(--line)',
  paddingLeft: 16,
  fontSize: 13.5,
  '& h2': { margin: '3px 0 8px' },
  '& .field': { marginBottom: 9 },
  '& .field > label, & .quantity-field label': { display: 'block', width: '100%' },
  '& .faint': { fontSize: 12.5 },
  '@media (max-width: 999px)': {
    borderLeft: 0,
    padding: '12px 0 0',
  },
  '@media (max-width: 599px)': {
    borderLeft: 0,
    paddingLeft: 0,
  },
})
