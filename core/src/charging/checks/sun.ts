// A cell that a panel is to keep: whether a day’s sun brings what a day takes, and what is not known of it.

import { type Check, type Found, say } from '../../findings'
import { durationWords, formatQuantity } from '../../quantity'

const id = (what: string) => `power.charging-sun:${what}`

export const chargingSun: Check = {
  id: 'power.charging-sun',
  stage: 'power',
  looksFor: 'a panel that brings less in a day than the project takes',
  rule: 'hours of full sun times the smaller of charger’s and panel’s current, against a day’s charge',
  run: ({ charging: { charging } }): Found[] => {
    const { from, day, cell } = charging ?? {}
    if (from?.sort !== 'panel' || !cell) return []
    if (!day)
      return [
        {
          id: id('unsaid'),
          severity: 'notes',
          grade: 'typical',
          ...say`Nobody has said how many hours of full sun a day ${from.name} gets in the poorest month: whether it keeps ${cell.name} charged can’t be told.`,
          because: [say`“Full sun a day” on the Power page is empty`],
          fixes: [],
        },
      ]
    const { gained, drawn, left, dark } = day
    if (left.value.min >= 0) return []
    const never = left.value.max < 0
    const charge = (ah: number) => formatQuantity(ah, 'Ah', 2)
    return [
      {
        id: id('too-little'),
        severity: never ? 'stops' : 'risks',
        grade: never ? 'impossible' : 'outside the sheet',
        ...say`In a day of the poorest month ${from.name} brings ${never ? 'at most' : 'as little as'} ${charge(never ? gained.value.max : gained.value.min)}, and the project takes ${never ? 'at least' : 'up to'} ${charge(never ? drawn.value.min : drawn.value.max)}: ${cell.name} ${never ? 'runs' : 'may run'} down.`,
        because: [
          {
            ...say`${charge(gained.value.min)} to ${charge(gained.value.max)} come in a day`,
            worked: gained,
          },
          { ...say`${charge(drawn.value.min)} to ${charge(drawn.value.max)} go in a day`, worked: drawn },
          ...(dark
            ? [{ ...say`Without any sun it lasts ${durationWords(dark.value.min)}`, worked: dark }]
            : []),
        ],
        fixes: [],
      },
    ]
  },
}
