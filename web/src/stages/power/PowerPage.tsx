// Power: the path from the plug to the loads, the currents, the limits, and the regulators ranked.

import { Link } from 'react-router'
import { useStage } from '../../shared/analysis'
import { Consumers } from './Consumers'
import { LimitTable } from './LimitTable'
import { PathDrawing } from './PathDrawing'
import { Regulators } from './Regulators'
import { SecondFeed } from './SecondFeed'
import './power.css'

const PowerPage = () => {
  const { analysis } = useStage()
  const { power } = analysis
  return (
    <div className="power-page">
      <h1>Power</h1>
      <PathDrawing />
      <SecondFeed />
      {!power.source && (
        <p className="empty">
          Choose a source above, and a regulator if the rail needs one: all limits and heats follow.
        </p>
      )}
      {power.consumers.length === 0 && (
        <p className="empty">
          Nothing draws current yet. <Link to="../needs">Add devices on the Needs page.</Link>
        </p>
      )}
      <div className="power-columns">
        {power.consumers.length > 0 && <Consumers />}
        {power.source && <LimitTable />}
      </div>
      {power.input && !analysis.chip.chip?.board && <Regulators />}
    </div>
  )
}

export default PowerPage
