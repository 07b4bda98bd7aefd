// What is known of the plan: proven, the best found, not decided, or none.

import { Button } from '@mui/material'
import { LookLonger } from '../../shared/LookLonger'
import { useStage } from '../../shared/analysis'

export const PlanVerdict = () => {
  const { analysis, lookedLonger, edit } = useStage()
  const { plan } = analysis.pins
  const others = analysis.chip.chip?.alsoOn ?? []
  // An edit looks for two seconds only: what took longer is found again where its wires are kept.
  const keep = (
    <Button onClick={() => edit({ kind: 'keepPlan', kept: analysis.pins.assignment })}>Keep this plan</Button>
  )
  switch (plan?.status) {
    case 'proven':
      return (
        <>
          <span className="settled">Every signal has a leg</span>
          {others.length > 0 && ` on ${others.length > 1 ? 'all of them' : 'both'}`}; no plan costs less
          {plan.cost > 0 ? ` than this one’s ${plan.cost} points` : ''}. {lookedLonger && keep}
        </>
      )
    case 'found':
      return (
        <>
          <span className="risks">
            Every signal has a leg: the best found in the time given, {plan.cost} points. One up to {plan.gap}{' '}
            points cheaper may exist.
          </span>{' '}
          <LookLonger /> {keep}
        </>
      )
    case 'undecided':
      return (
        <>
          <span className="stops">
            Not decided: no plan was found in the time given, and none is ruled out.
          </span>{' '}
          <LookLonger />
        </>
      )
    case 'clash':
      return <span className="stops">No plan: {plan.clashText}.</span>
    case undefined:
      return null
  }
}
