// Whether charging comes to an end while the project takes its share.

import { type Check, say } from '../../findings'
import { formatQuantity } from '../../quantity'

export const chargingEnds: Check = {
  id: 'power.charging-ends',
  stage: 'power',
  looksFor: 'a cell that never gets full, since the project takes what the charger gives',
  rule: 'what the project takes on average against the charger’s current, and against the current at which it takes the cell for full',
  run: ({ charging: { charging } }) => {
    if (!charging) return []
    const { charger, current, ends, meanwhile, net } = charging
    const takes = formatQuantity(meanwhile.value.max, 'A', 3)
    if (net.value.min <= 0)
      return [
        {
          id: 'power.charging-ends:empties',
          severity: net.value.typ <= 0 ? 'stops' : 'risks',
          grade: 'typical',
          ...say`The project takes up to ${takes} on average and ${charger.name} gives as little as ${formatQuantity(current.value.min, 'A', 3)}: plugged in, the cell is emptied all the same.`,
          because: [
            { ...say`What the project takes`, worked: meanwhile },
            { ...say`What the charger gives`, worked: current },
            { ...say`Left for the cell`, worked: net },
          ],
          fixes: [],
        },
      ]
    if (meanwhile.value.max < ends.value.min) return []
    return [
      {
        id: 'power.charging-ends:never',
        severity: 'risks',
        grade: meanwhile.value.typ >= ends.value.typ ? 'typical' : 'outside the sheet',
        ...say`${charger.name} takes the cell for full when less than ${formatQuantity(ends.value.min, 'A', 2)} flow, and the project alone takes up to ${takes}: it may never stop, and a cell held at its highest voltage ages.`,
        because: [
          { ...say`What the project takes on average`, worked: meanwhile },
          { ...say`What the charger takes for full`, worked: ends },
        ],
        fixes: [],
      },
    ]
  },
}
