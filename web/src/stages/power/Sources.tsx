import type { Design } from '@root-board/core/design'
import { durationWords, euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { Num } from '../../kit/Num'
import { NotPlanned } from './NotPlanned'
import { RankedTable } from './RankedTable'

const ask = (design: Design) => questions.sources(design)

/** Every source of the library in the place of the present one: does it do, and how long does it last? */
export const Sources = () => {
  const { edit } = useStage()
  const { answer, current, failed, again } = useAsked(ask)
  return (
    <section aria-labelledby="sources" aria-busy={!current}>
      <h2 id="sources">Sources for this project</h2>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Trying every source with these loads …" />}
      {answer?.undecided && <NotPlanned so="A source that does here may be too weak." />}
      {answer && (
        <RankedTable
          label="sources"
          what="Source"
          heads={['Gives', 'Asked of it', 'Lasts at least', 'Price']}
          rows={answer.ranked.map(({ source, no, chosen, fromSource, cells }) => ({
            id: source.id,
            name: source.name,
            about: `${formatQuantity(fullRange(source.voltage).min, 'V')} to ${formatQuantity(fullRange(source.voltage).max, 'V')}`,
            no,
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
            choose: () => edit({ kind: 'chooseSource', part: source.id, name: source.name }),
          }))}
        />
      )}
    </section>
  )
}
