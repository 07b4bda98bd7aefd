// Loads behind a transistor: what the library has for each, below it or in its plus, by what its gate or base really gets.

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
const sorts: Record<string, string> = {
  'n-mosfet': 'MOSFET below it',
  npn: 'bipolar below it',
  'p-mosfet': 'MOSFET in its plus',
}

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
      note="Below the load, its gate or base on the leg; or in its plus, with a second one that pulls its gate. Switched on all the time."
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
              rows={ranked.map(
                ({ part, with: pull, price, no, unsure, chosen: now, drive, heat, junction }) => ({
                  id: part.id,
                  name: part.name,
                  about: `${sorts[part.sort] ?? part.sort}, ${formatQuantity(fullRange(part.current).max, 'A')}${pull ? `, with ${pull.name}` : ''}`,
                  no,
                  unsure,
                  chosen: now,
                  cells: [
                    drive ? (
                      <Num key="drive" worked={drive} show={drive.unit === 'V' ? 'min' : 'max'} digits={3} />
                    ) : (
                      <span className="faint">—</span>
                    ),
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
                    euro(price),
                  ],
                  choose: () =>
                    edit({
                      kind: 'setTransistor',
                      id: load.need,
                      signal: load.signal,
                      part: part.id,
                      name: part.name,
                    }),
                }),
              )}
            />
          </>
        )
      }}
    </Ranking>
  )
}
