// Whether what the charger is fed with is enough for it and not too much, and whether it stands its own heat.

import { type Check, type Fix, partOrigin, say, type Found } from '../../findings'
import { givenUnasked } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { resistorFor } from '../plan'
import type { ChargingResult } from '../resolve'
import { computed } from './safe'

const id = (what: string) => `power.charging-fed:${what}`

/** With a resistor that keeps the strongest charger below this, A. */
const below = ({ charger, resistors }: ChargingResult, most: number): Fix[] => {
  if (most <= 0) return []
  const usual = fullRange(charger.setting).typ / resistorFor(charger, resistors, most).value
  const what = formatQuantity(usual, 'A', 3)
  return [
    { label: `Charge with ${what}`, edits: [{ kind: 'changeCharging', change: { current: usual }, what }] },
  ]
}

export const chargingFed: Check = {
  id: 'power.charging-fed',
  stage: 'power',
  looksFor: 'a charger fed with too little or too much, set beyond its range, or too hot',
  rule: 'its input, current and junction against its own sheet and that of what feeds it, each at its worst',
  run: ({ design, charging: { charging } }) => {
    if (!charging) return []
    const { charger, from, current, input, room, heat, junction } = charging
    const found: Found[] = []
    const sets = fullRange(charger.current)
    if (current.value.typ > sets.max || current.value.typ < (charger.current.min ?? 0))
      found.push({
        id: id('range'),
        severity: 'stops',
        grade: 'outside the sheet',
        ...say`${charger.name} is set to ${formatQuantity(current.value.typ, 'A', 3)}, and its sheet knows ${formatQuantity(charger.current.min ?? 0, 'A')} to ${formatQuantity(sets.max, 'A')}.`,
        because: [
          { ...say`The resistor sets ${formatQuantity(current.value.typ, 'A', 3)}`, worked: current },
          { ...say`${charger.sheet}`, origin: partOrigin(charger, 'current', charger.current) },
        ],
        fixes: [computed],
      })
    if (!from || !input || !room) {
      found.push({
        id: id('nowhere'),
        severity: 'notes',
        ...(design.power.charging?.from
          ? say`${charger.name} is fed from “${design.power.charging.from}”, which is not in the library: whether that is enough, and how hot it gets, can’t be told.`
          : say`Nobody has said what ${charger.name} is fed from: whether that is enough, and how hot it gets, can’t be told.`),
        because: [
          design.power.charging?.from
            ? say`No part of that name is in the library`
            : say`“Charged from” on the Power page is empty`,
        ],
        fixes: [],
      })
      return found
    }
    const volts = fullRange(from.voltage)
    const stands = fullRange(charger.inputAbsolute).max
    const takes = fullRange(charger.inputRecommended)
    if (volts.max > takes.max)
      found.push({
        id: id('too-much'),
        severity: volts.max > stands ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`${from.name} gives up to ${formatQuantity(volts.max, 'V', 3)}; ${charger.name} is made for ${formatQuantity(takes.max, 'V')}, and breaks from ${formatQuantity(stands, 'V')}.`,
        because: [
          {
            ...say`${charger.sheet}`,
            origin: partOrigin(charger, 'inputRecommended', charger.inputRecommended),
          },
        ],
        fixes: [],
      })
    if (volts.min < takes.min || room.value.min < 0)
      found.push({
        id: id('too-little'),
        severity: volts.max < takes.min || room.value.max < 0 ? 'stops' : 'risks',
        grade: room.value.typ < 0 ? 'typical' : 'outside the sheet',
        ...say`${from.name} may give as little as ${formatQuantity(volts.min, 'V', 3)}: ${charger.name} doesn’t get the cell full with it.`,
        because: [
          { ...say`Left above what the charger needs, at the least`, worked: room },
          {
            ...say`${charger.sheet}`,
            origin: partOrigin(charger, 'inputRecommended', charger.inputRecommended),
          },
        ],
        fixes: [],
      })
    const gives = fullRange(from.current).max
    if (input.value.max > gives)
      found.push({
        id: id('source'),
        severity: input.value.typ > gives ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`${charger.name} takes up to ${formatQuantity(input.value.max, 'A', 3)} from ${from.name}, which gives ${formatQuantity(gives, 'A')}.`,
        because: [
          { ...say`With what it takes itself`, worked: input },
          { ...say`${from.sheet}`, origin: partOrigin(from, 'current', from.current) },
        ],
        fixes: [computed],
      })
    const unasked = givenUnasked(from)
    if (unasked && input.value.max > unasked.amperes)
      found.push({
        id: id('unasked'),
        severity: 'notes',
        grade: 'typical',
        ...say`${charger.name} takes up to ${formatQuantity(input.value.max, 'A', 3)}; ${unasked.stated ? from.name : 'a computer’s USB port'} gives ${formatQuantity(unasked.amperes, 'A')} until it is asked for more, and nothing on this board asks. A plug-in USB charger gives it unasked.`,
        because: [
          { ...say`Taken while it charges`, worked: input },
          unasked.stated
            ? {
                ...say`${from.sheet}: ${formatQuantity(unasked.amperes, 'A')} before it is asked`,
                origin: partOrigin(from, 'unasked', from.unasked),
              }
            : say`USB 2.0, section 7.2.1: one unit load of 100 mA`,
        ],
        fixes: below(charging, unasked.amperes - fullRange(charger.quiescent).max),
      })
    const limit = fullRange(charger.junctionMax).max
    if (heat && junction && junction.value.max > limit)
      found.push({
        id: id('hot'),
        severity: junction.value.typ > limit ? 'stops' : 'risks',
        grade: junction.value.typ > limit ? 'typical' : 'outside the sheet',
        ...say`Charging an empty cell from ${from.name} at ${formatQuantity(design.needs.limits.ambient, '°C')}, ${charger.name} reaches ${formatQuantity(junction.value.max, '°C', 3)}; its sheet allows ${formatQuantity(limit, '°C')}.`,
        because: [
          { ...say`Up to ${formatQuantity(heat.value.max, 'W', 2)} of heat`, worked: heat },
          { ...say`Its junction reaches ${formatQuantity(junction.value.max, '°C', 3)}`, worked: junction },
        ],
        fixes: [computed],
      })
    return found
  },
}
