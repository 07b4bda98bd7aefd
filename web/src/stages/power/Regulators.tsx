import type { Design } from '@root-board/core/design'
import type { Regulator } from '@root-board/core/parts'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { Num } from '../../kit/Num'
import { NotPlanned } from './NotPlanned'
import { RankedTable } from './RankedTable'

const sortOf = ({ topology, converts }: Regulator) =>
  topology === 'linear' ? 'linear' : converts === 'up' ? 'steps up' : 'steps down'
const about = (r: Regulator) =>
  [
    `${sortOf(r)}, ${formatQuantity(fullRange(r.current).max, 'A')}, ${r.package.name}`,
    ...(r.ripple ? [`ripples by up to ${formatQuantity(fullRange(r.ripple).max, 'V')}`] : []),
  ].join('; ')

const ask = (design: Design) => questions.regulators(design)

/** Every regulator of the library at this input and this load. */
export const Regulators = () => {
  const { edit } = useStage()
  const { answer, current, failed, again } = useAsked(ask)
  const none = <span className="faint">—</span>
  return (
    <section aria-labelledby="regulators" aria-busy={!current}>
      <h2 id="regulators">Regulators for this load</h2>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Trying every regulator at this load …" />}
      {answer?.undecided && <NotPlanned so="A regulator that does here may be too small." />}
      {answer && (
        <p className="faint">
          With the loads as they are now; at another voltage of the rail some draw otherwise.
        </p>
      )}
      {answer && (
        <RankedTable
          label="regulators"
          what="Regulator"
          heads={['Junction', 'Room', 'Good up to', 'Price']}
          rows={answer.ranked.map((r) => ({
            id: r.regulator.id,
            name: r.regulator.name,
            about: about(r.regulator),
            no: r.no,
            chosen: r.chosen,
            cells: [
              <Num key="junction" worked={r.junction} show="max" />,
              <Num key="margin" worked={r.margin} show="min" digits={2} />,
              r.loadLimit ? <Num key="limit" worked={r.loadLimit} digits={2} /> : none,
              euro(r.regulator.price),
            ],
            choose: () => edit({ kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name }),
          }))}
        />
      )}
    </section>
  )
}
