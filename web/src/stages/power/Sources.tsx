import type { Design } from '@root-board/core/design'
import { durationWords, euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'
import { Num } from '../../kit/Num'
import { RankedTable, Ranking } from './RankedTable'

const ask = (design: Design) => questions.sources(design)

/** Every source of the library in the place of the present one: does it do, and how long does it last? */
export const Sources = () => {
  const { edit } = useStage()
  return (
    <Ranking
      id="sources"
      title="Sources for this project"
      waiting="Trying every source with these loads …"
      unplanned="A source that does here may be too weak."
      ask={ask}
    >
      {(ranked) => (
        <RankedTable
          label="sources"
          what="Source"
          heads={['Gives', 'Asked of it', 'Lasts at least', 'Price']}
          rows={ranked.map(({ source, no, unsure, edits, chosen, fromSource, cells }) => ({
            id: source.id,
            name: source.name,
            about: `${formatQuantity(fullRange(source.voltage).min, 'V')} to ${formatQuantity(fullRange(source.voltage).max, 'V')}`,
            no,
            unsure,
            chosen,
            cells: [
              formatQuantity(fullRange(source.current).max, 'A'),
              <Num key="asked" worked={fromSource} show="max" />,
              cells ? (
                <Num key="lasts" worked={cells.runtime} show="min">
                  {durationWords(cells.runtime.value.min)}
                </Num>
              ) : (
                <span className="faint">—</span>
              ),
              euro(source.price),
            ],
            choose: () => edit(edits),
          }))}
        />
      )}
    </Ranking>
  )
}
