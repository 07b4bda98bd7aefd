// core/src/circuit/models/power-load.ts: what takes the same power at any voltage, as a switching converter's input does.
import { across, type Form } from '../../src/circuit/models/form'

export interface PowerLoad {
  /** W, at `full` volts and above; below as a resistor would. */
  power: number
  full: number
}

export const powerLoad: Form<PowerLoad> = {
  terminals: ['+', '−'],
  respond: ({ power, full }, { v }) => {
    const u = v[0]! - v[1]!
    return u < full ? across((power * u) / full ** 2, power / full ** 2) : across(power / u, -power / u ** 2)
  },
  joins: () => [[0, 1]],
}
