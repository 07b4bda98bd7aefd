// The lamp that shows that the rail is up: an LED with its resistor, always lit.

import { fittedResistor, preferred, type Stock } from '../circuit'
import { byTheBook, type Design, supportChoice, type SupportChoice } from '../design'
import { fromDecision, type Worked } from '../findings'
import { type Led, type Library, partsOfKind } from '../parts'
import { currentInSeries, readCurve, type SheetCurve, sum } from '../sums'

export const lampKey = 'power-lamp'
const wanted = 2e-3

export interface PowerLamp extends SupportChoice {
  led: Led
  resistor: { value: number; unit: 'Ω' | 'F'; marking: string }
  resistance: Worked
  current: Worked
}

export const powerLamp = (
  design: Design,
  library: Library,
  rail: Worked | undefined,
  stock: Stock,
): PowerLamp | undefined => {
  const led = partsOfKind(library, 'led').find((l) => l.colour === 'green')
  if (!rail || !led || !stock.resistors) return undefined
  const forward: SheetCurve = {
    part: led,
    field: 'forward',
    points: led.forward.map((p) => ({ x: p.current, y: { source: p.source, ...p.voltage } })),
    specimen: lampKey,
  }
  const I = fromDecision('I', 'enough to see indoors', wanted, 'A', 'rule of thumb')
  const V_F = readCurve({ label: `Forward voltage of ${led.name}`, symbol: 'V_F', unit: 'V' }, forward, [
    'I',
    I,
  ])
  if (rail.value.min <= V_F.value.max) return undefined
  const needed = sum(
    {
      label: 'Series resistor of the power lamp',
      symbol: 'R',
      unit: 'Ω',
      note: 'Fitted is the next preferred value above the usual one.',
    },
    { V_DD: rail, V_F, I },
    (i) => i.V_DD.minus(i.V_F).over(i.I),
  )
  const resistor = preferred(stock.resistors, needed.value.typ, 'up')
  const R = fittedResistor('R', 'series resistor', stock.resistors, resistor, lampKey)
  return {
    ...supportChoice(design, lampKey, byTheBook),
    led,
    resistor,
    resistance: needed,
    current: currentInSeries(
      { label: 'Power lamp', symbol: 'I_lamp' },
      ['V_DD', rail],
      ['R', R],
      [{ symbol: 'V_F', label: `Forward voltage of ${led.name}`, curve: forward }],
    ),
  }
}
