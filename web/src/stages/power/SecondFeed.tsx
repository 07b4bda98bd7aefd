// A source of its own for heavy loads, beside the rail.

import { fullRange } from '@root-board/core/quantity'
import { railOf, voltageFor } from '@root-board/core/supply'
import { useStage } from '../../shared/analysis'
import { Num, Quantity } from '../../kit/Num'
import { CellCount } from '../../shared/CellCount'
import { SourceSelect } from '../../shared/SourceSelect'

export const SecondFeed = () => {
  const { analysis } = useStage()
  const { feed, consumers, supplies } = analysis.power
  const voltage = voltageFor(supplies, { fedBy: 'feed' })
  const names = [
    ...consumers.filter((c) => c.from === supplies.fed.feed).map((c) => c.name),
    ...supplies.converters
      .filter((c) => c.from === supplies.fed.feed)
      .map((c) => `the ${railOf(supplies, c.to).name}`),
  ]
  return (
    <p>
      <label htmlFor="second-feed">Second feed, for heavy loads</label> <SourceSelect id="second-feed" feed />{' '}
      <CellCount of="feed" />{' '}
      {feed && voltage && (
        <>
          <Num worked={voltage} show="range" /> for{' '}
          {names.join(', ') || 'nothing yet: choose on the Needs page'}
          {names.length > 0 && (
            <>
              : <Num worked={feed.current} show="max" /> of{' '}
              <Quantity value={fullRange(feed.source.current).max} unit="A" />
            </>
          )}
          <span className="faint">. Only its ground is joined to the board’s.</span>
        </>
      )}
    </p>
  )
}
