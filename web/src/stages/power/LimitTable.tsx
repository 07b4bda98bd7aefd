// Every limit on the way: what is used, what is allowed, what is left.

import { type Origin, partOrigin, type SheetPart, type Worked } from '@root-board/core/findings'
import type { Rated } from '@root-board/core/parts'
import { capital, durationWords, fullRange, type Unit } from '@root-board/core/quantity'
import { Body, Cell, Columns, Row, Table, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num, Quantity } from '../../kit/Num'
import { leftOf, type Line } from './left-of'

export const LimitTable = () => {
  const { analysis, design } = useStage()
  const { power } = analysis
  const chip = analysis.chip.chip
  const lines: Line[] = []
  const { source, regulator, regulation, rail, railLoaded } = power
  const line = (
    what: string,
    keep: Line['keep'],
    used: Worked | undefined,
    unit: Unit,
    limit: { value: number; origin: Origin } | undefined,
  ) => {
    if (used && limit)
      lines.push({
        what,
        keep,
        used,
        show: keep === 'below' ? 'max' : 'min',
        limit: limit.value,
        unit,
        origin: limit.origin,
      })
  }
  const most = (part: SheetPart | undefined, field: string, rated: Rated | undefined) =>
    part && rated ? { value: fullRange(rated).max, origin: partOrigin(part, field, rated) } : undefined
  const budget = design.needs.limits.current
  line('Source', 'below', power.fromSource, 'A', most(source, 'current', source?.current))
  line(
    'Current budget',
    'below',
    power.fromSource,
    'A',
    budget === undefined
      ? undefined
      : { value: budget, origin: { kind: 'decision', what: 'set on the Needs page' } },
  )
  line('Regulator current', 'below', power.work, 'A', most(regulator, 'current', regulator?.current))
  line(
    'Regulator input, absolute',
    'below',
    power.input,
    'V',
    most(regulator, 'inputAbsolute', regulator?.inputAbsolute),
  )
  line(
    'Regulator junction',
    'below',
    regulation?.junction,
    '°C',
    most(regulator, 'junctionMax', regulator?.junctionMax),
  )
  line(
    'Regulator current, at its input',
    'below',
    regulation?.taken,
    'A',
    most(regulator, 'inputCurrent', regulator?.inputCurrent),
  )
  line(regulation?.margin.label ?? '', 'above', regulation?.margin, 'V', {
    value: 0,
    origin: { kind: 'rule', source: 'below zero the output sags' },
  })
  for (const { converter, regulation: of } of power.regulations) {
    const { rail: to, work } = power.loads.rails[converter.to]!
    if (to.id === power.supplies.own) continue
    const { part } = converter
    const what = (limit: string) => `${capital(to.name)}: ${limit}`
    line(what('regulator current'), 'below', work, 'A', most(part, 'current', part.current))
    line(
      what('regulator input, absolute'),
      'below',
      of.input,
      'V',
      most(part, 'inputAbsolute', part.inputAbsolute),
    )
    line(what('regulator junction'), 'below', of.junction, '°C', most(part, 'junctionMax', part.junctionMax))
    line(
      what('regulator current, at its input'),
      'below',
      of.taken,
      'A',
      most(part, 'inputCurrent', part.inputCurrent),
    )
    line(what(of.margin.label), 'above', of.margin, 'V', {
      value: 0,
      origin: { kind: 'rule', source: 'below zero the output sags' },
    })
  }
  line('Chip supply, highest', 'below', rail, 'V', most(chip, 'supply.recommended', chip?.supply.recommended))
  line(
    'Chip supply, lowest',
    'above',
    railLoaded,
    'V',
    chip && {
      value: fullRange(chip.supply.recommended).min,
      origin: partOrigin(chip, 'supply.recommended', chip.supply.recommended),
    },
  )
  return (
    <section aria-labelledby="power-limits">
      <h2 id="power-limits">Limits at the worst corner</h2>
      <Table>
        <Columns of={['Limit', right('Used'), right('Allowed'), right('Left')]} />
        <Body>
          {lines.map((l) => {
            const left = leftOf(l)
            return (
              <Row key={l.what}>
                <Cell>{l.what}</Cell>
                <Cell align="right">
                  <Num worked={l.used} show={l.show} />
                </Cell>
                <Cell align="right">
                  {l.keep === 'above' && <span className="faint">at least </span>}
                  <Quantity value={l.limit} unit={l.unit} />
                </Cell>
                <Cell align="right" className={left.value.min < 0 ? 'stops' : 'settled'}>
                  <Num worked={left} />
                </Cell>
              </Row>
            )
          })}
          {power.runtime && (
            <Row>
              <Cell>Runtime on one set of cells</Cell>
              <Cell align="right" colSpan={3}>
                <Num worked={power.runtime} show="min">
                  <span className="mono">
                    {durationWords(power.runtime.value.min)} … {durationWords(power.runtime.value.max)}
                  </span>
                </Num>
              </Cell>
            </Row>
          )}
        </Body>
      </Table>
    </section>
  )
}
