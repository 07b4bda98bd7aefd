import { type Check, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { hungriest } from './hungriest'

export const budgetExceeded: Check = {
  id: 'power.budget-exceeded',
  stage: 'power',
  looksFor: 'a project that draws more than its current budget',
  rule: 'the current budget on the Needs page',
  run: ({ design, power }) => {
    const budget = design.needs.limits.current
    const most = power.fromSource.value.max
    if (budget === undefined || most <= budget) return []
    const eaters = hungriest(power).slice(0, 3)
    const raised = Math.ceil(most * 100) / 100
    return [
      {
        id: 'power.budget-exceeded',
        severity: 'risks',
        ...say`Everything at once draws up to ${formatQuantity(most, 'A', 3)}; the budget is ${formatQuantity(budget, 'A')}.`,
        because: [
          ...eaters.map((c) => ({
            ...say`${c.name} takes up to ${formatQuantity(c.work.value.max, 'A', 2)}`,
            worked: c.work,
          })),
          { ...say`All together: ${formatQuantity(most, 'A', 3)}`, worked: power.fromSource },
        ],
        fixes: [
          ...power.consumers.flatMap(({ support, name }) => {
            const what = name.toLowerCase()
            return support
              ? [
                  {
                    label: `Leave out the ${what}`,
                    edits: [{ kind: 'leaveOut' as const, support, name: what }],
                  },
                ]
              : []
          }),
          {
            label: `Raise the budget to ${formatQuantity(raised, 'A')}`,
            edits: [{ kind: 'setLimit' as const, limit: 'current' as const, value: raised }],
          },
        ],
      },
    ]
  },
}
