import { type Check, say } from '../../findings'
import { celsiusWords, formatQuantity, fullRange } from '../../quantity'
import { convertersOf } from './converters'

export const regulatorTooHot: Check = {
  id: 'power.regulator-too-hot',
  stage: 'power',
  looksFor: 'a regulator whose junction passes its limit at the worst corner',
  rule: 'T_J = T_A + P·θ_JA against the sheet’s limit',
  run: (stages) => {
    const { design } = stages
    return convertersOf(stages).flatMap((reg) => {
      const { work } = reg.out
      const limit = fullRange(reg.regulator.junctionMax).max
      if (reg.junction.value.max <= limit) return []
      return [
        {
          id: `power.regulator-too-hot${reg.tail}`,
          severity: 'stops' as const,
          grade: reg.junction.value.typ > limit ? ('impossible' as const) : ('outside the sheet' as const),
          ...say`${reg.regulator.name} reaches ${celsiusWords(reg.junction.value.max)} inside; its limit is ${formatQuantity(limit, '°C')}.`,
          because: [
            {
              ...say`Its input is up to ${formatQuantity(reg.input.value.max, 'V', 3)}`,
              worked: reg.input,
            },
            {
              ...say`Up to ${formatQuantity(work.value.max, 'A', 3)} flows through it`,
              worked: work,
            },
            {
              ...say`The volts it takes away turn into ${formatQuantity(reg.dissipation.value.max, 'W', 3)} of heat`,
              worked: reg.dissipation,
            },
            {
              ...say`In air of ${formatQuantity(design.needs.limits.ambient, '°C')} its junction reaches ${celsiusWords(reg.junction.value.max)}`,
              worked: reg.junction,
            },
            ...(reg.loadLimit
              ? [
                  {
                    ...say`At this input it stays cool enough up to ${formatQuantity(reg.loadLimit.value.max, 'A', 2)}`,
                    worked: reg.loadLimit,
                  },
                ]
              : []),
          ],
          fixes: [...reg.others(2), ...reg.sources(2), ...reg.apart()],
        },
      ]
    })
  },
}
