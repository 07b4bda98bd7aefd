import type { Results, Worked } from '../findings'

/** Of all parts whose junction is computed by themselves: regulator or chip, bridges, charger while it charges, transistor of a latch. */
export const hottestOf = ({
  power,
  charging,
  latch,
}: Pick<Results, 'power' | 'charging' | 'latch'>): Worked | undefined =>
  [power.hottest, ...power.bridges.map((b) => b.junction), charging.charging?.junction, latch.latch?.junction]
    .filter((t) => t !== undefined)
    .sort((a, b) => b.value.max - a.value.max)[0]
