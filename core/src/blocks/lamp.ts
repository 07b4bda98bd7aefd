// The lamp that shows that the rail is up: an LED with its resistor, always lit; in and out together.

import { fittedResistor, preferred, type SupportPart, twoLegs } from '../circuit'
import { byTheBook, supportChoice } from '../design'
import { fromDecision, type Worked, say } from '../findings'
import { type Led, partsOfKind } from '../parts'
import { formatQuantity } from '../quantity'
import { currentInSeries, readCurve, type SheetCurve, sum } from '../sums'
import type { BlockContext, SupportBlock } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    'power lamp': true
    'power lamp resistor': true
  }
}

const key = 'power-lamp'
const wanted = 2e-3

const curveOf = (led: Led): SheetCurve => ({
  part: led,
  field: 'forward',
  points: led.forward.map((p) => ({ x: p.current, y: { source: p.source, ...p.voltage } })),
  specimen: key,
})

/** The resistor that it needs; none where the rail may be too low to light it. */
const resistanceFor = (led: Led, rail: Worked): Worked | undefined => {
  const I = fromDecision('I', 'enough to see indoors', wanted, 'A', 'rule of thumb')
  const V_F = readCurve({ label: `Forward voltage of ${led.name}`, symbol: 'V_F', unit: 'V' }, curveOf(led), [
    'I',
    I,
  ])
  if (rail.value.min <= V_F.value.max) return undefined
  return sum(
    {
      label: 'Series resistor of the power lamp',
      symbol: 'R',
      unit: 'Ω',
      note: 'Fitted is the next preferred value above the usual one.',
    },
    { V_DD: rail, V_F, I },
    (i) => i.V_DD.minus(i.V_F).over(i.I),
  )
}

const parts = ({ design, library, rail, stock }: BlockContext): SupportPart[] => {
  const led = partsOfKind(library, 'led').find((l) => l.colour === 'green')
  const needed = led && resistanceFor(led, rail)
  if (!led || !needed || !stock.resistors) return []
  const value = preferred(stock.resistors, needed.value.typ, 'up')
  const current = currentInSeries(
    { label: 'Power lamp', symbol: 'I_lamp' },
    ['V_DD', rail],
    ['R', fittedResistor('R', 'series resistor', stock.resistors, value, key)],
    [{ symbol: 'V_F', label: `Forward voltage of ${led.name}`, curve: curveOf(led) }],
  )
  const common: Pick<SupportPart, 'present' | 'asked' | 'forced' | 'risk'> = {
    ...supportChoice(design, key, byTheBook),
    risk: {
      severity: 'notes',
      grade: 'guaranteed',
      ...say`Nothing shows that the rail is up; ${formatQuantity(current.value.typ, 'A', 2)} is saved.`,
      facts: [{ ...say`A dead board and a board without power look the same`, worked: current }],
    },
  }
  return [
    {
      ...common,
      key,
      role: 'power lamp',
      name: 'power lamp',
      part: led,
      legs: [
        { name: 'anode', net: 'LAMP' },
        { name: 'cathode', net: 'GND' },
      ],
      why: 'shows that the rail is up',
      worked: [current],
      draws: current,
    },
    {
      ...common,
      key: `${key}-resistor`,
      role: 'power lamp resistor',
      name: 'series resistor of the power lamp',
      part: stock.resistors,
      value,
      legs: twoLegs('VCC', 'LAMP'),
      why: 'sets the lamp’s current',
      worked: [needed],
    },
  ]
}

export const lamp: SupportBlock = {
  name: 'power lamp',
  parts,
  step: (own) => ({
    title: 'Power lamp',
    checks: own.flatMap(({ support }) =>
      support?.draws
        ? [
            {
              where: 'lamp, powered',
              powered: true,
              expect: { min: support.draws.value.min, max: support.draws.value.max, unit: 'A' },
              worked: support.draws,
              otherwise: 'dark: the LED is the wrong way round',
            },
          ]
        : [],
    ),
    cautions: ['iron'],
  }),
}
