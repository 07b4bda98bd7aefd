import { type Check, say } from '../../findings'
import { durationWords } from '../../quantity'

const day = 86400
const percent = (share: number) => `${Number((share * 100).toPrecision(5))} %`

export const overfull: Check = {
  id: 'states.overfull',
  stage: 'needs',
  looksFor: 'states that take more time than there is',
  rule: 'a day has 24 hours',
  run: ({ design, states }) => {
    const timed = states.filter((s) =>
      design.needs.states?.some((c) => c.id === s.id && c.lasts !== undefined),
    )
    const taken = timed.reduce((t, s) => t + s.share.value.typ, 0)
    if (taken <= 1 + 1e-9) return []
    return [
      {
        id: 'states.overfull',
        severity: 'stops',
        grade: 'impossible',
        ...say`${timed.map((s) => s.name).join(', ')}: together they take ${percent(taken)} of the time.`,
        because: timed.map((s) => ({
          ...say`${s.name} takes ${percent(s.share.value.typ)}, ${durationWords(s.share.value.typ * day)} a day`,
          worked: s.share,
        })),
        fixes: [],
      },
    ]
  },
}
