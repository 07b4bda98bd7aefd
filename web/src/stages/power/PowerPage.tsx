// Power: the path from the plug to the loads, the currents, the limits, and the regulators ranked.

import { styled } from '@mui/material'
import { Link } from 'react-router'
import type { Design } from '@root-board/core/design'
import { questions } from '../../worker/client'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { useStage } from '../../shared/analysis'
import { Budget } from './Budget'
import { Bursts } from './Bursts'
import { Cells, ChargeTable, Rhythms } from './ChargeTable'
import { Charging } from './Charging'
import { Consumers } from './Consumers'
import { Latch } from './Latch'
import { Leads } from './Leads'
import { Measured } from './Measured'
import { NotPlanned } from './NotPlanned'
import { LimitTable } from './LimitTable'
import { PathDrawing } from './PathDrawing'
import { Plugged } from './Plugged'
import { Regulators } from './Regulators'
import { Guard } from './Guard'
import { SecondFeed } from './SecondFeed'
import { Sources } from './Sources'
import { Bridges } from './Bridges'
import { Switches } from './Switches'
import { States } from './States'
import './power.css'

const ask = (design: Design) => questions.charge(design)

const PowerPage = () => {
  const { analysis } = useStage()
  const { answer: charge, failed, again } = useAsked(ask)
  const { power } = analysis
  return (
    <Page>
      <h1>Power</h1>
      <PathDrawing />
      <SecondFeed />
      <Guard />
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
      {power.consumers.length > 0 && <Budget />}
      {power.source && <Leads />}
      {power.source && <Latch />}
      {power.source && <Charging />}
      {power.source && <Plugged />}
      {(power.consumers.length > 0 || analysis.chip.chip) && <States charge={charge} />}
      {power.source && analysis.design.needs.states && <Bursts />}
      {failed && <QuestionFailed why={failed} again={again} />}
      {charge && analysis.pins.plan?.status === 'undecided' && (
        <NotPlanned so="Cells may not last as long." />
      )}
      {charge && <Cells charge={charge} />}
      {charge && (
        <>
          <ChargeTable charge={charge} />
          {power.runtime && <Rhythms />}
        </>
      )}
      {power.source && power.consumers.length > 0 && <Measured />}
      {((power.input && !analysis.chip.chip?.board) || analysis.design.power.rails) && <Regulators />}
      <Switches />
      <Bridges />
      {(power.consumers.length > 0 || analysis.chip.chip) && <Sources />}
    </Page>
  )
}

export default PowerPage

const Page = styled('div')({
  '& > section': { marginTop: 18 },
  '& .power-columns': {
    display: 'grid',
    gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
    gap: 24,
    marginBottom: 18,
  },
  '& .power-columns table, & table': { fontSize: 13.5 },
  '& tr.total th, & tr.total td': { borderTop: '1.5px solid var(--ink)', color: 'var(--ink)', paddingTop: 5 },
  '& tr.chosen td': { background: 'var(--shade)' },
  '& .verdict': { maxWidth: 240 },
  '@media (max-width: 999px)': {
    '& .power-columns': { gridTemplateColumns: '1fr' },
  },
})
