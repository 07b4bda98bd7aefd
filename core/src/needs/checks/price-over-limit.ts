import { type Check, say } from '../../findings'
import { unpricedWords } from '../../parts'

export const priceOverLimit: Check = {
  id: 'needs.price-over-limit',
  stage: 'needs',
  looksFor: 'parts that cost more than the project’s limit',
  rule: 'the price limit on the Needs page',
  run: ({ design, build }) => {
    const limit = design.needs.limits.price
    const price = build.price.value.max
    if (limit === undefined || price <= limit) return []
    const dearest = [...build.parts].sort((a, b) => b.total - a.total).slice(0, 3)
    return [
      {
        id: 'needs.price-over-limit',
        severity: 'risks',
        ...say`The parts cost € ${price.toFixed(2)}${unpricedWords(build.parts)}, and € ${limit.toFixed(2)} was the limit.`,
        because: [
          { ...say`All parts together are € ${price.toFixed(2)}`, worked: build.price },
          ...dearest.map((r) => say`${r.name} takes € ${r.total.toFixed(2)}`),
        ],
        fixes: [
          {
            label: `Raise the limit to € ${Math.ceil(price)}`,
            edits: [{ kind: 'setLimit', limit: 'price', value: Math.ceil(price) }],
          },
        ],
      },
    ]
  },
}
