// Pins: the plan, each line's levels and sums, every name of a leg, the stack of boards, and other boards of the header.

import { alike } from '@root-board/core/chip'
import { Button, Tab, Tabs } from '@mui/material'
import { Link, useSearchParams } from 'react-router'
import { LookLonger } from '../../shared/LookLonger'
import { useStage } from '../../shared/analysis'
import { BoardsView } from './BoardsView'
import { LinesView } from './LinesView'
import { PassportView } from './PassportView'
import { PlanView } from './PlanView'
import { StackView } from './StackView'
import './pins.css'

const PinsPage = () => {
  const { analysis, design, library, edit } = useStage()
  const [query, setQuery] = useSearchParams()
  const chip = analysis.chip.chip
  const { plan } = analysis.pins
  if (!chip)
    return (
      <>
        <h1>Pins</h1>
        <p className="empty">
          No chip is chosen yet. <Link to="../chip">Choose one on the Chip page</Link>; the plan follows at
          once.
        </p>
      </>
    )
  const stacked = analysis.needs.instances.some((i) => i.part.expansion)
  const views = [
    { id: 'plan', title: 'Plan', View: PlanView },
    { id: 'lines', title: 'Lines', View: LinesView },
    { id: 'passport', title: 'Passport', View: PassportView },
    ...(stacked ? [{ id: 'stack', title: 'Stack', View: StackView }] : []),
    ...(alike(chip, library).length > 0 ? [{ id: 'boards', title: 'Other boards', View: BoardsView }] : []),
  ]
  const view = views.find((v) => v.id === query.get('view')) ?? views[0]!
  const locks = Object.keys(design.pins.locks).length
  const settledElsewhere = Object.keys(design.pins.kept).length
  const others = chip.alsoOn?.map((c) => c.name) ?? []
  return (
    <div className="pins-page">
      <header className="pins-head">
        <h1>Pins of {[chip.name, ...others].join(', ')}</h1>
        <p>
          {plan?.status === 'proven' && (
            <>
              <span className="settled">Every signal has a leg</span>
              {others.length > 0 && ` on ${others.length > 1 ? 'all of them' : 'both'}`}; no plan costs less
              {plan.cost > 0 ? ` than this one’s ${plan.cost} points` : ''}.
            </>
          )}
          {plan?.status === 'found' && (
            <>
              <span className="risks">
                Every signal has a leg: the best found in the time given, {plan.cost} points. One up to{' '}
                {plan.gap} points cheaper may exist.
              </span>{' '}
              <LookLonger />
            </>
          )}
          {plan?.status === 'undecided' && (
            <>
              <span className="stops">
                Not decided: no plan was found in the time given, and none is ruled out.
              </span>{' '}
              <LookLonger />
            </>
          )}
          {plan?.status === 'clash' && <span className="stops">No plan: {plan.clashText}.</span>}{' '}
          {(locks > 0 || settledElsewhere > 0) && (
            <Button
              onClick={() => edit({ kind: 'replan' })}
              disabled={settledElsewhere === 0}
              title="Let every signal without a lock find its best leg again"
            >
              Plan afresh
            </Button>
          )}
        </p>
        <Tabs
          value={view.id}
          onChange={(_, id: string) =>
            setQuery(
              (q) => {
                q.set('view', id)
                return q
              },
              { replace: true },
            )
          }
          aria-label="Views of the pins"
        >
          {views.map((v) => (
            <Tab key={v.id} value={v.id} label={v.title} id={`tab-${v.id}`} aria-controls={`view-${v.id}`} />
          ))}
        </Tabs>
      </header>
      <div role="tabpanel" id={`view-${view.id}`} aria-labelledby={`tab-${view.id}`}>
        <view.View />
      </div>
    </div>
  )
}

export default PinsPage
