// Each line by itself: its levels in both directions, its pull-ups, what its converter or timer makes of it, its byte.

import { useStage } from '../../shared/analysis'
import { Bytes } from './lines/Bytes'
import { Drive } from './lines/Drive'
import { Levels } from './lines/Levels'
import { Pulls } from './lines/Pulls'
import { Converters, Pulses } from './lines/Sums'
import { Variants } from './lines/Variants'
import './lines/lines.css'

export const LinesView = () => {
  const { analysis } = useStage()
  const { plan, levels } = analysis.pins
  if ((plan?.wires ?? []).length === 0)
    return <p className="empty">No lines yet: they come with a plan in which every signal has a leg.</p>
  return (
    <div className="lines-view">
      {levels.length === 0 ? (
        <p className="empty">Levels are known once a source is chosen on the Needs or Power page.</p>
      ) : (
        <Levels />
      )}
      <Pulls />
      <Drive />
      <Converters />
      <Pulses />
      <Bytes />
      <Variants />
    </div>
  )
}
