// What stops a plug, or cells, the wrong way round: a diode, a transistor in the plus, or nothing.

import { partsOfKind } from '@root-board/core/parts'
import { capital, formatQuantity } from '@root-board/core/quantity'
import { leadResistances } from '@root-board/core/supply'
import { useStage } from '../../shared/analysis'
import { PartChoice } from '../../shared/PartChoice'
import { Num } from '../../kit/Num'

/** Nothing before a board, which has its own plug. */
export const Guard = () => {
  const { analysis, design, library, edit } = useStage()
  const { source, polarity, supplies } = analysis.power
  if (!source || analysis.chip.chip?.board) return null
  const lead = supplies.sources.find((s) => s.id === 'source')?.lead
  const channel = lead?.guard && leadResistances(lead).guard
  return (
    <p>
      <label htmlFor="guard">
        Against {source.sort === 'cells' ? 'cells' : 'a plug'} the wrong way round, a transistor in the plus
      </label>{' '}
      <PartChoice
        id="guard"
        value={design.power.guard}
        parts={partsOfKind(library, 'transistor').filter((t) => t.sort === 'p-mosfet')}
        none="none"
        onChosen={(part) => edit({ kind: 'chooseGuard', part: part?.id ?? null, name: part?.name ?? '' })}
      />{' '}
      {lead?.guard && !channel ? (
        <span className="faint">
          Its sheet states no resistance of its channel: what falls in it is not counted.
        </span>
      ) : channel ? (
        <>
          <Num worked={channel} show="max" /> in the way at the most
        </>
      ) : (
        <span className="faint">
          {polarity?.present
            ? `${capital(polarity.diode.name)} stops it; a transistor loses less.`
            : source.sort === 'usb'
              ? 'A USB plug goes in one way only.'
              : `Nothing stops it: that would be −${formatQuantity(source.voltage.typ ?? source.voltage.max ?? 0, 'V')} on the board.`}
        </span>
      )}
    </p>
  )
}
