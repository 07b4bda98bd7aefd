// The cell charged on the board: by what, from what, with which current, and what becomes of that.

import type { Charging as ChargingChoice } from '@root-board/core/design'
import { partsOfKind } from '@root-board/core/parts'
import { durationWords, formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import type { ReactNode } from 'react'
import { Caution } from '../../kit/Caution'
import { Captioned } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { PartChoice } from '../../shared/PartChoice'
import { Assumed } from './Assumed'
import { Fields } from './Fields'

export const Charging = () => {
  const { analysis, design, library, edit } = useStage()
  const chosen = design.power.charging
  const { source } = analysis.power
  const chargers = partsOfKind(library, 'charger')
  const change = (changed: Partial<ChargingChoice>, what: string) =>
    edit({ kind: 'changeCharging', change: changed, what })
  if (!chosen) {
    const fits = chargers.find(
      (c) =>
        source?.charging &&
        fullRange(c.voltage).max <= fullRange(source.charging.voltage).max &&
        fullRange(c.voltage).max >= fullRange(source.charging.voltage).min,
    )
    if (!source?.rechargeable || !fits || analysis.chip.chip?.board) return null
    return (
      <section aria-labelledby="charging">
        <h2 id="charging">Charging</h2>
        <p>
          {source.name} is charged elsewhere. A charger on the board can do it.{' '}
          <Button
            onClick={() =>
              change(
                {
                  charger: fits.id,
                  from: partsOfKind(library, 'source').find((s) => s.sort === 'usb' && s.price === 0)?.id,
                },
                fits.name,
              )
            }
          >
            Add {fits.name}
          </Button>
        </p>
      </section>
    )
  }
  const { charging } = analysis.charging
  const feeds = partsOfKind(library, 'source')
    .filter((s) => s.sort !== 'cells')
    .sort((a, b) => fullRange(a.voltage).typ - fullRange(b.voltage).typ)
  return (
    <section aria-labelledby="charging">
      <h2 id="charging">Charging{source ? ` ${source.name}` : ''}</h2>
      <Fields role="group" aria-label="How the cell is charged">
        <Captioned>
          <label htmlFor="charger">Charger</label>
          <PartChoice
            id="charger"
            value={chosen.charger}
            parts={chargers}
            onChosen={(c) => c && change({ charger: c.id }, c.name)}
          />
        </Captioned>
        <Captioned>
          <label htmlFor="charged-from">Charged from</label>
          <PartChoice
            id="charged-from"
            value={chosen.from}
            parts={feeds}
            ask="choose …"
            onChosen={(s) => s && change({ from: s.id }, `from ${s.name}`)}
          />
        </Captioned>
        <QuantityField
          label="Charging current"
          unit="A"
          min={1e-3}
          max={10}
          optional
          width={84}
          placeholder={charging ? formatQuantity(charging.current.value.typ, 'A', 3) : ''}
          value={chosen.current}
          onChange={(v) =>
            change({ current: v ?? undefined }, v === null ? 'current as computed' : formatQuantity(v, 'A'))
          }
        />
        {feeds.find((s) => s.id === chosen.from)?.sort === 'panel' && (
          <QuantityField
            label="Full sun a day, in h"
            unit=""
            min={0}
            max={24}
            optional
            width={84}
            placeholder="not said"
            value={chosen.sun}
            onChange={(v) =>
              change(
                { sun: v ?? undefined },
                v === null ? 'sun not said' : `${formatQuantity(v, '')} h of full sun`,
              )
            }
          />
        )}
        <Button onClick={() => change({ charger: undefined }, 'not on the board')}>Do without</Button>
      </Fields>
      {charging ? (
        <Numbers />
      ) : (
        <p className="faint">It is left out of every sum: what speaks against it is told beside.</p>
      )}
    </section>
  )
}

const Numbers = () => {
  const { analysis, design } = useStage()
  const { charging } = analysis.charging
  const {
    charger,
    cell,
    from,
    set,
    current,
    voltage,
    ends,
    back,
    meanwhile,
    net,
    time,
    input,
    room,
    heat,
    junction,
    day,
    assumed,
  } = charging!
  const asked = design.power.charging?.current
  const rows: [string, ReactNode, ReactNode][] = [
    [
      'Current',
      <Num key="n" worked={current} show="max" />,
      asked === undefined || Math.abs(current.value.typ / asked - 1) < 0.005
        ? `at the most, set by ${set.marking}`
        : `at the most; no resistor sets ${formatQuantity(asked, 'A', 3)}, the nearest is ${set.marking}: ${formatQuantity(current.value.typ, 'A', 3)} usually`,
    ],
    [
      'Up to',
      <Num key="n" worked={voltage} show="max" />,
      cell.charging
        ? `the cell stands ${formatQuantity(fullRange(cell.charging.voltage).max, 'V', 3)}`
        : 'the cell’s sheet gives nothing',
    ],
    [
      'The project takes meanwhile',
      <Num key="n" worked={meanwhile} show="max" />,
      <>
        leaves <Num worked={net} show="min" /> for the cell at the least
      </>,
    ],
    [
      'Taken for full below',
      <Num key="n" worked={ends} show="min" digits={2} />,
      'cell and project together',
    ],
    [
      'From empty to full',
      time ? (
        <Num key="n" worked={time}>
          {durationWords(time.value.max)}
        </Num>
      ) : (
        'never for sure'
      ),
      time
        ? `${durationWords(time.value.typ)} usually, the project running`
        : 'the project may take more than comes',
    ],
    ...(from && input && room
      ? ([
          [
            `Taken from ${from.name}`,
            <Num key="n" worked={input} show="max" />,
            `gives ${formatQuantity(fullRange(from.current).max, 'A')}`,
          ],
          [
            'Left above what the charger needs',
            <Num key="n" worked={room} show="min" digits={2} />,
            'the cell full',
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    ...(heat
      ? ([
          [
            'Heat in the charger',
            <Num key="n" worked={heat} show="max" digits={2} />,
            junction ? (
              <>
                <Num worked={junction} show="max" digits={3} />, its sheet allows{' '}
                {formatQuantity(fullRange(charger.junctionMax).max, '°C')}
              </>
            ) : (
              'how warm that makes it, its sheet doesn’t tell'
            ),
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    ...(day
      ? ([
          [
            'In a day of the poorest month',
            <Num key="n" worked={day.gained} show="min" digits={2} />,
            <>
              come, and <Num worked={day.drawn} show="max" digits={2} /> go:{' '}
              <Num worked={day.left} show="min" digits={2} /> left
            </>,
          ],
          ...(day.dark
            ? [
                [
                  'Without any sun, from full',
                  <Num key="n" worked={day.dark} show="min">
                    {durationWords(day.dark.value.min)}
                  </Num>,
                  'as a row of dark days has it',
                ],
              ]
            : []),
        ] as [string, ReactNode, ReactNode][])
      : []),
    [
      'Out of the cell, nothing plugged in',
      <Num key="n" worked={back} show="max" digits={2} />,
      'all the time: counted with what the project draws',
    ],
  ]
  return (
    <>
      <Spaced className="scroll-x">
        <Table aria-label="What becomes of charging">
          <Columns of={['What', right('At the worst'), 'Beside']} />
          <Body>
            {rows.map(([what, number, beside]) => (
              <Row key={what}>
                <Cell>{what}</Cell>
                <Cell align="right" className="mono">
                  {number}
                </Cell>
                <Cell className="faint">{beside}</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </Spaced>
      <Assumed of={assumed} />
      <Caution name="charging" />
    </>
  )
}
const Spaced = styled('div')({ margin: '10px 0 14px' })
