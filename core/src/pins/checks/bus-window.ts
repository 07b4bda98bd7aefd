import { type Edit, busSpeedOf, busSpeeds } from '../../design'
import { stockOf } from '../../circuit'
import { type Check, type Fix, type Stages, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { busWindow, ourPullUp } from '../../support'
import type { Wire } from '../../legs'
import { commonSpeeds } from './bus-speed'

const busOf = (wire: Wire): number => wire.signal.ends[0]?.instance.need.bus ?? 1

/** Slower speeds that every device of the bus works at and at which a line has a window, the fastest first. */
const slower = ({ design, needs, chip: { chip }, power, library }: Stages, wire: Wire): Fix[] => {
  const bus = busOf(wire)
  const now = busSpeedOf(design, bus)
  const devices = needs.instances.filter(
    (i) => (i.need.bus ?? 1) === bus && i.wiring.signals.some((s) => s.bus === 'i2c'),
  )
  const { resistors } = stockOf(library)
  const all = commonSpeeds(devices)
  return busSpeeds
    .filter((speed) => speed < now && all.includes(speed))
    .filter((speed) => {
      const window = busWindow(wire, chip!, power.rail!, speed)
      return (
        window &&
        resistors &&
        !ourPullUp(window, resistors)?.empty &&
        window.load.value.max <= window.loadLimit
      )
    })
    .slice(-1)
    .map((speed): Fix => {
      const edit: Edit = { kind: 'setBusSpeed', speed, ...(bus > 1 ? { bus } : {}) }
      return {
        label: `Run ${bus > 1 ? `I2C bus ${bus}` : 'the I2C bus'} at ${formatQuantity(speed, 'Hz')}`,
        edits: [edit],
      }
    })
}

export const busHasWindow: Check = {
  id: 'pins.bus-window',
  stage: 'pins',
  looksFor:
    'an I2C line for which no pull-up is both strong enough and weak enough, or that carries too much capacitance',
  rule: 'I2C-bus specification, section 7.1 and table 10',
  run: (stages) => {
    const {
      chip: { chip },
      pins,
      power,
      library,
    } = stages
    const { resistors } = stockOf(library)
    return (chip && power.rail && resistors ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const window = busWindow(wire, chip!, power.rail!)
      if (!window) return []
      const { smallest, largest, load, loadLimit } = window
      const empty = ourPullUp(window, resistors!)?.empty ?? false
      const heavy = load.value.max > loadLimit
      if (!empty && !heavy) return []
      return [
        {
          id: `pins.bus-window:${wire.signal.id}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          ...(heavy
            ? say`${wire.signal.name} carries up to ${formatQuantity(load.value.max, 'F', 3)}; an I2C line may carry ${formatQuantity(loadLimit, 'F')}.`
            : say`No pull-up serves ${wire.signal.name}: below ${formatQuantity(smallest.value.max, 'Ω', 3)} not every device can pull it low, and above ${formatQuantity(largest.value.min, 'Ω', 3)} it rises too slowly. What is proposed can be pulled low; it rises too slowly.`),
          because: [
            { ...say`At least ${formatQuantity(smallest.value.max, 'Ω', 3)}`, worked: smallest },
            { ...say`At most ${formatQuantity(largest.value.min, 'Ω', 3)}`, worked: largest },
            { ...say`${formatQuantity(load.value.max, 'F', 3)} hang on it`, worked: load },
            ...(window.fitted
              ? [{ ...say`Pull-ups on the boards count among them`, worked: window.fitted }]
              : []),
          ],
          fixes: slower(stages, wire),
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    })
  },
}
