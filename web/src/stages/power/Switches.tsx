// Loads behind a transistor: what the library has for each, by what the leg really gives its gate.

import type { Design } from '@root-board/core/design'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { useState } from 'react'
import { Choice } from '../../kit/inputs'
import { Captioned } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'
import { RankedTable, Ranking } from './RankedTable'

const ask = (design: Design) => questions.switches(design)
const sorts = { 'n-mosfet': 'MOSFET', npn: 'bipolar' } as Record<string, string>

export const Switches = () => {
  const { analysis, design, edit } = useStage()
  const [of, setOf] = useState<string>()
  const any = analysis.pins.plan?.wires.some((w) =>
    w.signal.ends.some((e) => e.signal.electrical.kind === 'switched'),
  )
  if (!any) return null
  return (
    <Ranking
      id="switches"
      title="Transistors for its loads"
      waiting="Trying every transistor at each load …"
      unplanned="Which legs drive them isn’t known."
      note="Below the load, its gate or base on the leg; switched on all the time."
      ask={ask}
    >
      {(loads) => {
        const chosen = loads.find((l) => l.load.name === of) ?? loads[0]
        if (!chosen) return null
        const { load, ranked } = chosen
        const proposed =
          design.needs.devices.find((d) => d.id === load.need)?.transistors?.[load.signal] === undefined
        return (
          <>
            {loads.length > 1 && (
              <Captioned>
                <label htmlFor="switched-load">Load</label>
                <Choice
                  id="switched-load"
                  value={load.name}
                  options={loads.map((l) => ({ value: l.load.name, label: l.load.name }))}
                  onChange={setOf}
                />
              </Captioned>
            )}
            <p className="faint">
              {load.device} draws up to {formatQuantity(load.most, 'A', 3)}
              {proposed ? '; its file proposes the chosen one.' : '.'}
            </p>
            <RankedTable
              label="switches"
              what="Transistor"
              heads={['Gets', 'Heat', 'Junction', 'Price']}
              rows={ranked.map(({ part, no, unsure, chosen: now, drive, heat, junction }) => ({
                id: part.id,
                name: part.name,
                about: `${sorts[part.sort] ?? part.sort}, ${formatQuantity(fullRange(part.current).max, 'A')}`,
                no,
                unsure,
                chosen: now,
                cells: [
                  <Num key="drive" worked={drive} show={drive.unit === 'V' ? 'min' : 'max'} digits={3} />,
                  heat ? (
                    <Num key="heat" worked={heat} show="max" digits={2} />
                  ) : (
                    <span className="faint">—</span>
                  ),
                  junction ? (
                    <Num key="junction" worked={junction} show="max" digits={3} />
                  ) : (
                    <span className="faint">—</span>
                  ),
                  euro(part.price),
                ],
                choose: () =>
                  edit({
                    kind: 'setTransistor',
                    id: load.need,
                    signal: load.signal,
                    part: part.id,
                    name: part.name,
                  }),
              }))}
            />
          </>
        )
      }}
    </Ranking>
  )
}
