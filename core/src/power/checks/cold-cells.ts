import { type Check, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { notCounted, wearOf } from '../../supply'

const id = (what: string) => `power.cold-cells:${what}`

export const coldCells: Check = {
  id: 'power.cold-cells',
  stage: 'power',
  looksFor:
    'cells in colder air, or charged more often, than their file knows of; a coldest air that is warmer than the warmest',
  rule: 'the ends of the file’s curves over air and over charges',
  run: ({ design: { needs }, power: { supplies } }) => {
    const { coldest, ambient } = needs.limits
    return [
      ...(coldest !== undefined && coldest > ambient
        ? [
            {
              id: id('turned round'),
              severity: 'notes' as const,
              ...say`The air is said to be ${formatQuantity(coldest, '°C')} at its coldest and ${formatQuantity(ambient, '°C')} at its warmest: everything is reckoned at ${formatQuantity(ambient, '°C')}.`,
              because: [say`Both are set on the Needs page`],
              fixes: [
                {
                  label: `Take ${formatQuantity(coldest, '°C')} as the warmest and ${formatQuantity(ambient, '°C')} as the coldest`,
                  edits: [
                    { kind: 'setLimit' as const, limit: 'ambient' as const, value: coldest },
                    { kind: 'setLimit' as const, limit: 'coldest' as const, value: ambient },
                  ],
                },
              ],
            },
          ]
        : []),
      ...supplies.sources.flatMap(({ id: of, part }) =>
        notCounted(part, wearOf(needs.limits))
          .filter((n) => !n.unsaid)
          .map((n) => ({
            id: id(`${of} ${n.of}`),
            severity: 'notes' as const,
            ...say`${n.text}`,
            because: [
              n.of === 'cold'
                ? say`The air around it gets down to ${formatQuantity(Math.min(coldest!, ambient), '°C')}`
                : say`They are to be charged ${needs.limits.charges ?? 0} times`,
            ],
            fixes: [],
          })),
      ),
    ]
  },
}
