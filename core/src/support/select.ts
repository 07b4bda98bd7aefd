// A pull-up on a select that rests high: before the program has set the leg up, and while a program is loaded, the leg
// floats, and a device that thinks itself selected answers on lines that others use.

import { preferred, type SupportPart } from '../circuit'
import { byTheBook, supportChoice } from '../design'
import { fromPart, say } from '../findings'
import { formatQuantity } from '../quantity'
import { thresholdOf } from '../levels'
import { attributeOf, endsOf } from '../legs'
import { pullUp, type SignalSupport } from './context'
import { largestPullUp, legLeakage } from './pull'

/** Small against leakage, large against what a leg drives: the usual value of a resting pull. */
const usual = 10e3

export const selectPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const [found] = endsOf(wire, 'logic-input')
  if (!found || !stock.resistors) return []
  const { end, electrical: input } = found
  const isSelect =
    wire.signal.kind === 'digital-out' &&
    wire.signal.quiet &&
    end.instance.wiring.signals.some((s) => s.bus === 'spi')
  if (!isSelect || input.pull) return []
  const I_leak = legLeakage(
    chip,
    input.leakage &&
      fromPart(
        'I_in',
        `leakage of ${end.instance.name}`,
        end.instance.part,
        `${end.signal.id}.leakage`,
        input.leakage,
        'A',
      ),
  )
  const largest = largestPullUp(
    `Largest pull-up of ${wire.signal.name}`,
    rail,
    thresholdOf(
      'Least voltage that the device reads as high',
      'V_IH',
      rail,
      input.high,
      end.instance.part.sheet,
    ),
    I_leak,
  )
  const value = preferred(
    stock.resistors,
    Math.min(usual, largest.value.min / (1 + stock.resistors.tolerance)),
    'down',
  )
  const busy = attributeOf(wire.pin, 'startup') ?? attributeOf(wire.pin, 'programming')
  const support: SupportPart = {
    ...pullUp('select', wire, stock.resistors, value),
    why: 'keeps the device unselected while a program is loaded and until the program sets the leg up',
    worked: [largest],
    ...supportChoice(design, `select:${wire.signal.id}`, byTheBook),
    risk: {
      severity: 'notes',
      grade: busy ? 'outside the sheet' : 'typical',
      ...say`Until the program drives ${wire.signal.name}, ${formatQuantity(I_leak.value.max, 'A', 2)} of leakage decides whether ${end.instance.name} is selected.`,
      facts: [
        say`A leg that nothing has set up is an input, and floats`,
        { ...say`Up to ${formatQuantity(largest.value.min, 'Ω', 3)} would hold it high`, worked: largest },
      ],
    },
  }
  return [support]
}
