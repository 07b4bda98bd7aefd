// The lamp that shows that the rail is up: an LED with its resistor, always lit.

import { preferred, type Stock } from '../circuit'
import { byTheBook, type Design, supportChoice, type SupportChoice } from '../design'
import { ledCurrentRange, seriesResistor, voltageAt } from '../electrical'
import { fromDecision, fromPart, fromWorked, type Worked } from '../findings'
import { type Led, type Library, partsOfKind } from '../parts'
import { exactly, formatQuantity, within } from '../quantity'

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
  const forward = voltageAt(led.forward, wanted)
  if (rail.value.min <= forward.max) return undefined
  const forwardInput = fromPart(
    'V_F',
    `forward voltage of ${led.name}`,
    led,
    'forward',
    { ...forward, kind: 'typical', source: led.forward[0]!.source },
    'V',
  )
  const ohms = seriesResistor(rail.value.typ, 0, forward.typ, wanted)
  const resistor = preferred(stock.resistors, ohms, 'up')
  const actual = within(resistor.value, stock.resistors.tolerance)
  return {
    ...supportChoice(design, lampKey, byTheBook),
    led,
    resistor,
    resistance: {
      label: 'Series resistor of the power lamp',
      symbol: 'R',
      value: exactly(ohms),
      unit: 'Ω',
      formula: '(V_DD − V_F) / I',
      inputs: [
        fromWorked(rail),
        forwardInput,
        fromDecision('I', 'enough to see indoors', wanted, 'A', 'rule of thumb'),
      ],
      note: `Fitted is the next preferred value up, ${formatQuantity(resistor.value, 'Ω')}.`,
    },
    current: {
      label: 'Power lamp',
      symbol: 'I_lamp',
      value: ledCurrentRange(rail.value, actual, led.forward),
      unit: 'A',
      formula: '(V_DD − V_F(I)) / R',
      inputs: [
        fromWorked(rail),
        forwardInput,
        {
          symbol: 'R',
          label: 'series resistor',
          value: actual,
          unit: 'Ω',
          origin: {
            kind: 'part',
            part: stock.resistors.id,
            name: stock.resistors.name,
            field: 'tolerance',
            sheet: stock.resistors.sheet,
          },
        },
      ],
    },
  }
}
