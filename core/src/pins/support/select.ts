// A pull-up on a select that rests high: before the program has set the leg up, and while a program is loaded, the leg
// floats, and a device that thinks itself selected answers on lines that others use.

import { preferred, type SupportPart } from '../../circuit'
import { byTheBook, supportChoice } from '../../design'
import { largestPullUp } from '../../electrical'
import { fromPart, fromRule, fromWorked, type Worked } from '../../findings'
import { exactly, formatQuantity, fullRange } from '../../quantity'
import { attributeOf } from '../ways'
import { pullUp, type SignalSupport } from './context'

/** Small against leakage, large against what a leg drives: the usual value of a resting pull. */
const usual = 10e3

export const selectPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'logic-input')
  const input = end?.signal.electrical
  const isSelect =
    wire.signal.kind === 'digital-out' &&
    wire.signal.quiet &&
    end?.instance.wiring.signals.some((s) => s.bus === 'spi')
  if (!end || input?.kind !== 'logic-input' || !isSelect || input.pull || !stock.resistors) return []
  const leak = fullRange(chip.io.leakage).max + (input.leakage ? fullRange(input.leakage).max : 0)
  const threshold = input.high.factor * rail.value.min + (input.high.offset ?? 0)
  const largest: Worked = {
    label: `Largest pull-up of ${wire.signal.name}`,
    symbol: 'R_max',
    value: exactly(largestPullUp(rail.value.min, threshold, leak)),
    unit: 'Ω',
    formula: '(V_DD − V_IH) / I_leak',
    inputs: [
      fromWorked(rail),
      fromRule(
        'V_IH',
        'least voltage that the device reads as high',
        threshold,
        'V',
        end.instance.part.sheet,
      ),
      fromPart(
        'I_leak',
        'leakage of the leg and the input',
        chip,
        'io.leakage',
        { ...chip.io.leakage, max: leak },
        'A',
      ),
    ],
    note: 'At the lowest supply and the highest leakage.',
  }
  const value = preferred(stock.resistors, Math.min(usual, largest.value.typ), 'nearest')
  const busy = attributeOf(wire.pin, 'startup') ?? attributeOf(wire.pin, 'programming')
  const support: SupportPart = {
    ...pullUp('select', wire, stock.resistors, value),
    why: 'keeps the device unselected while a program is loaded and until the program sets the leg up',
    worked: [largest],
    ...supportChoice(design, `select:${wire.signal.id}`, byTheBook),
    risk: {
      severity: 'notes',
      grade: busy ? 'outside the sheet' : 'typical',
      text: `Until the program drives ${wire.signal.name}, ${formatQuantity(leak, 'A', 2)} of leakage decides whether ${end.instance.name} is selected.`,
      facts: [
        { text: 'A leg that nothing has set up is an input, and floats' },
        { text: `Up to ${formatQuantity(largest.value.typ, 'Ω', 3)} would hold it high`, worked: largest },
      ],
    },
  }
  return [support]
}
