import { demo, shippedLibrary } from '../../test/files'
import { alone, signalsOf } from '../../test/signals'
import { analyse } from '../analysis'
import { type Chip, findPart } from '../parts'
import { planPins } from '../planner'
import { busWindow } from '.'

const library = shippedLibrary()
const timer = demo('darkroom-timer')
const chipOf = (id: string): Chip => findPart(library, 'chip', id)!

describe('the window for an I2C line’s pull-ups, by hand from the I2C-bus specification', () => {
  // Rail 5 V ± 2 % (BL5): R_min = (5.1 − 0.4) V / 3 mA = 1566.7 Ω whatever the speed. The TD8's leg and one sensor:
  // C_b = 10 pF + 10 pF or as the files say; R_max = t_r / (0.8473 · C_b) with t_r = 1000, 300 and 120 ns.
  const rail = analyse(timer, library).power.rail!
  const chip = chipOf('td8-28-dip')
  const plan = planPins({
    chip,
    needs: alone(signalsOf(['temperature-two-wire', 1])),
    choices: { locks: {}, excluded: [], kept: {} },
    taken: {},
  })
  const line = plan.wires.find((w) => w.signal.id === 'i2c.SDA')!
  const load = 10e-12 + chip.io.capacitance.max!
  test.each([
    [100e3, 1000e-9],
    [400e3, 300e-9],
    [1e6, 120e-9],
  ])('%d Hz', (frequency, rise) => {
    const window = busWindow({ ...line, signal: { ...line.signal, frequency } }, chip, rail)!
    expect(window.smallest.value.max).toBeCloseTo((5.1 - 0.4) / 3e-3, 6)
    expect(window.largest.value.min).toBeCloseTo(rise / (0.8473 * load), 6)
  })
})
