// Pins: the plan, each line's levels and sums, every name of a leg, the stack of boards, and other boards of the header.

import { alike } from '@root-board/core/carrier'
import { Button, Tab, Tabs, styled } from '@mui/material'
import { Link, useSearchParams } from 'react-router'
import { useStage } from '../../shared/analysis'
import { BoardsView } from './BoardsView'
import { LinesView } from './LinesView'
import { PassportView } from './PassportView'
import { PlanVerdict } from './PlanVerdict'
import { PlanView } from './PlanView'
import { StackView } from './StackView'
import './pins.css'

const PinsPage = () => {
  const { analysis, design, library, edit } = useStage()
  const [query, setQuery] = useSearchParams()
  const chip = analysis.chip.chip
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
    <div>
      <Head>
        <h1>Pins of {[chip.name, ...others].join(', ')}</h1>
        <p>
          <PlanVerdict />{' '}
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
      </Head>
      <div role="tabpanel" id={`view-${view.id}`} aria-labelledby={`tab-${view.id}`}>
        <view.View />
      </div>
    </div>
  )
}

export default PinsPage

const Head = styled('header')({
  gridColumn: '1 / -1',
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'baseline',
  gap: '4px 16px',
  marginBottom: 8,
  '& p': { margin: 0 },
  '& .MuiTabs-root': { flexBasis: '100%', minHeight: 34 },
})
