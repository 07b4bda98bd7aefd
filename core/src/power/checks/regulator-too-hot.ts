import type { Check } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherRegulators, otherSources } from './ways-out'

export const regulatorTooHot: Check = {
  id: 'power.regulator-too-hot',
  stage: 'power',
  looksFor: 'a regulator whose junction passes its limit at the worst corner',
  rule: 'T_J = T_A + P·θ_JA against the sheet’s limit',
  run: (stages) => {
    const { power, design } = stages
    const reg = power.regulation
    if (!reg) return []
    const limit = fullRange(reg.regulator.junctionMax).max
    if (reg.junction.value.max <= limit) return []
    return [
      {
        id: 'power.regulator-too-hot',
        severity: 'stops',
        grade: reg.junction.value.typ > limit ? 'impossible' : 'outside the sheet',
        text: `${reg.regulator.name} reaches ${formatQuantity(reg.junction.value.max, '°C', 3)} inside; its limit is ${formatQuantity(limit, '°C')}.`,
        because: [
          {
            text: `Its input is up to ${formatQuantity(power.input!.value.max, 'V', 3)}`,
            worked: power.input!,
          },
          {
            text: `Up to ${formatQuantity(power.work.value.max, 'A', 3)} flows through it`,
            worked: power.work,
          },
          {
            text: `The volts it takes away turn into ${formatQuantity(reg.dissipation.value.max, 'W', 3)} of heat`,
            worked: reg.dissipation,
          },
          {
            text: `In air of ${formatQuantity(design.needs.limits.ambient, '°C')} its junction reaches ${formatQuantity(reg.junction.value.max, '°C', 3)}`,
            worked: reg.junction,
          },
          ...(reg.loadLimit
            ? [
                {
                  text: `At this input it stays cool enough up to ${formatQuantity(reg.loadLimit.value.max, 'A', 2)}`,
                  worked: reg.loadLimit,
                },
              ]
            : []),
        ],
        fixes: [...otherRegulators(stages, 2), ...otherSources(stages, 2)],
      },
    ]
  },
}
