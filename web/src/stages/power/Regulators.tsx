import { useCallback, useState } from 'react'
import { type Design, feederName, type FurtherId } from '@root-board/core/design'
import type { Regulator } from '@root-board/core/parts'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { Choice } from '../../kit/inputs'
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

/** Every regulator of the library at the input and the load of a rail. */
export const Regulators = () => {
  const { analysis, design } = useStage()
  const further = (design.power.rails ?? []).map((r) => r.id)
  const own = analysis.power.input && !analysis.chip.chip?.board
  const [chosen, setChosen] = useState<FurtherId>()
  const rail = chosen && further.includes(chosen) ? chosen : own ? undefined : further[0]
  return <OfRail rail={rail} setChosen={setChosen} further={further} own={Boolean(own)} />
}

interface OfRailProps {
  /** Absent: the chip’s own. */
  rail: FurtherId | undefined
  setChosen: (rail: FurtherId | undefined) => void
  further: readonly FurtherId[]
  /** The chip’s own can be chosen. */
  own: boolean
}

const OfRail = ({ rail, setChosen, further, own }: OfRailProps) => {
  const { edit } = useStage()
  const ask = useCallback((of: Design) => questions.regulators(of, rail), [rail])
  const none = <span className="faint">—</span>
  return (
    <Ranking
      id="regulators"
      title="Regulators for this load"
      waiting="Trying every regulator at this load …"
      unplanned="A regulator that does here may be too small."
      note="With the loads as they are now; at another voltage of the rail some draw otherwise."
      ask={ask}
      which={
        further.length > 0 && (
          <label>
            Of{' '}
            <Choice
              value={rail ?? ''}
              options={[
                ...(own ? [{ value: '' as const, label: 'the rail' }] : []),
                ...further.map((id) => ({ value: id, label: `the ${feederName(id)}` })),
              ]}
              onChange={(id) => setChosen(id === '' ? undefined : id)}
            />
          </label>
        )
      }
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
            choose: () =>
              edit(
                rail
                  ? {
                      kind: 'changeRail',
                      id: rail,
                      change: { regulator: r.regulator.id },
                      what: r.regulator.name,
                    }
                  : { kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name },
              ),
          }))}
        />
      )}
    </Ranking>
  )
}
