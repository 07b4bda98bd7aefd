import { polarityKey } from '../../supply'
import { type Check, fromDecision, fromPart, partOrigin, say } from '../../findings'
import { siliconJunction } from '../../parts'
import { celsiusWords, formatQuantity, fullRange } from '../../quantity'
import { sum } from '../../sums'

/** What no small part gets hot by, watts. */
const felt = 0.25

export const diodeRating: Check = {
  id: 'power.diode-rating',
  stage: 'power',
  looksFor: 'a polarity diode with more current or heat than it stands',
  rule: 'recommended current of the diode; its heat at the project’s ambient',
  run: ({ design, power: { polarity, through, source, input } }) => {
    if (!polarity?.present || !source || !input) return []
    const { diode } = polarity
    const rated = fullRange(diode.current).max
    const most = through.value.max
    const gives = fullRange(source.current).max
    const why =
      rated >= gives
        ? `it was chosen for the ${formatQuantity(gives, 'A')} that ${source.name} gives`
        : 'no other of the library carries more'
    const leave = [
      {
        label: 'Leave the diode out and guard the plug by care',
        edits: [{ kind: 'leaveOut' as const, support: polarityKey, name: 'polarity diode' }],
      },
    ]
    if (most > rated)
      return [
        {
          id: 'power.diode-rating',
          severity: 'risks',
          grade: 'outside the sheet',
          ...say`Up to ${formatQuantity(most, 'A', 3)} flow through ${diode.name}, which is made for ${formatQuantity(rated, 'A')}; ${why}.`,
          because: [
            { ...say`Through the plug flow up to ${formatQuantity(most, 'A', 3)}`, worked: through },
            {
              ...say`${diode.sheet}: ${formatQuantity(rated, 'A')}`,
              origin: partOrigin(diode, 'current', diode.current),
            },
          ],
          fixes: leave,
        },
      ]
    const θ_JA = diode.package.thermalResistance
    const V_F = input.inputs.find((i) => i.symbol === 'V_F')
    if (!V_F) return []
    const heat = V_F.value.max * most
    if (!θ_JA)
      return heat <= felt
        ? []
        : [
            {
              id: 'power.diode-rating',
              severity: 'notes',
              grade: 'typical',
              ...say`${diode.name} turns up to ${formatQuantity(heat, 'W', 2)} into heat; how hot it gets is not known, since its sheet says nothing of its way for the heat.`,
              because: [{ ...say`Through it flow up to ${formatQuantity(most, 'A', 3)}`, worked: through }],
              fixes: [],
            },
          ]
    const junction = sum(
      { label: `Junction of ${diode.name}`, symbol: 'T_J', unit: '°C' },
      {
        T_A: fromDecision('T_A', 'ambient', design.needs.limits.ambient, '°C', 'set on the Needs page'),
        V_F,
        I: through,
        θ_JA: fromPart('θ_JA', 'junction to ambient', diode, 'package.thermalResistance', θ_JA, 'K/W'),
      },
      (i) => i.T_A.plus(i.V_F.times(i.I).times(i.θ_JA)),
    )
    if (junction.value.max <= siliconJunction) return []
    return [
      {
        id: 'power.diode-rating',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`${diode.name} reaches ${celsiusWords(junction.value.max)}; its sheet states no limit, and ${siliconJunction} °C is what silicon is made for.`,
        because: [{ ...say`Its junction reaches ${celsiusWords(junction.value.max)}`, worked: junction }],
        fixes: leave,
      },
    ]
  },
}
