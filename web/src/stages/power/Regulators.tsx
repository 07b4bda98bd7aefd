import type { Design } from '@root-board/core/design'
import type { Regulator } from '@root-board/core/parts'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'
import { Num } from '../../kit/Num'
import { RankedTable, Ranking } from './RankedTable'

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
  const none = <span className="faint">—</span>
  return (
    <Ranking
      id="regulators"
      title="Regulators for this load"
      waiting="Trying every regulator at this load …"
      unplanned="A regulator that does here may be too small."
      note="With the loads as they are now; at another voltage of the rail some draw otherwise."
      ask={ask}
    >
      {(ranked) => (
        <RankedTable
          label="regulators"
          what="Regulator"
          heads={['Junction', 'Room', 'Good up to', 'Price']}
          rows={ranked.map((r) => ({
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
    </Ranking>
  )
}
