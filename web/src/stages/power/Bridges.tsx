// Motors and other loads with two terminals: which bridges of the library would turn each either way, in the place of its transistor.

import { Button } from '@mui/material'
import type { Design } from '@root-board/core/design'
import { euro, formatQuantity } from '@root-board/core/quantity'
import { canTurn, ownWiring } from '@root-board/core/needs'
import { useState } from 'react'
import { Choice } from '../../kit/inputs'
import { Captioned } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { useStage } from '../../shared/analysis'
import { questions } from '../../worker/client'
import { RankedTable, Ranking } from './RankedTable'

const ask = (design: Design) => questions.bridges(design)

export const Bridges = () => {
  const { analysis, edit } = useStage()
  const [of, setOf] = useState<string>()
  const any = analysis.needs.instances.some((i) => canTurn(i.part, ownWiring(i.part, i.need)))
  if (!any || !analysis.power.source) return null
  return (
    <Ranking
      id="bridges"
      title="Bridges for its motors"
      waiting="Trying every bridge at each motor …"
      unplanned="Which legs drive them isn’t known."
      note="Instead of a transistor, to turn a motor either way. Its lines say how; what the motor draws flows through two switches of it."
      ask={ask}
    >
      {(loads) => {
        const chosen = loads.find((l) => l.need === of) ?? loads.find((l) => l.hung) ?? loads[0]
        if (!chosen) return null
        return (
          <>
            {loads.length > 1 && (
              <Captioned>
                <label htmlFor="driven-load">What is to turn</label>
                <Choice
                  id="driven-load"
                  value={chosen.need}
                  options={loads.map((l) => ({ value: l.need, label: l.name }))}
                  onChange={setOf}
                />
              </Captioned>
            )}
            <p className="faint">
              {chosen.name} draws up to {formatQuantity(chosen.most, 'A', 3)}, stalled or at its start.{' '}
              {chosen.hung ? (
                <Button onClick={() => edit({ kind: 'hangOn', id: chosen.need, bridge: null })}>
                  Switch it by a transistor
                </Button>
              ) : (
                'It is switched by a transistor.'
              )}
            </p>
            <RankedTable
              label="bridges"
              what="Bridge"
              heads={['Leaves it', 'Heat', 'Junction', 'Lines', 'Price']}
              rows={chosen.ranked.map((r) => ({
                id: r.part.id,
                name: r.part.name,
                about: `${r.part.drives?.outputs.length === 1 ? 'one output' : `${r.part.drives?.outputs.length} outputs`}`,
                no: r.no,
                unsure: r.unsure,
                chosen: r.chosen,
                cells: [
                  r.arrives ? (
                    <Num key="arrives" worked={r.arrives} show="min" digits={3} />
                  ) : (
                    <span className="faint">—</span>
                  ),
                  r.heat ? (
                    <Num key="heat" worked={r.heat} show="max" digits={2} />
                  ) : (
                    <span className="faint">—</span>
                  ),
                  r.junction ? (
                    <Num key="junction" worked={r.junction} show="max" digits={3} />
                  ) : (
                    <span className="faint">—</span>
                  ),
                  r.lines,
                  euro(r.price),
                ],
                choose: () => edit(r.edit),
              }))}
            />
          </>
        )
      }}
    </Ranking>
  )
}
