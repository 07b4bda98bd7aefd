// A panel that feeds something by itself: in the dark there is nothing.

import { type Check, type Found, partOrigin, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherSources } from './ways-out'

export const inTheDark: Check = {
  id: 'power.in-the-dark',
  stage: 'power',
  looksFor: 'a panel that feeds the project or a second feed, with no cell to carry it through the dark',
  rule: 'a panel gives its current in full sun, and the less the less light there is',
  run: (stages) =>
    stages.power.loads.sources.flatMap(({ source: { id, part } }): Found[] =>
      part.sort === 'panel'
        ? [
            {
              id: `power.in-the-dark:${id}`,
              severity: 'risks',
              grade: 'impossible',
              ...say`${part.name} gives ${formatQuantity(fullRange(part.current).max, 'A')} in full sun alone: under a cloud its voltage falls to whatever its load leaves, and in the dark what it feeds is off. Let it charge a cell that feeds the project.`,
              because: [
                { ...say`${part.sheet}, in full sun`, origin: partOrigin(part, 'current', part.current) },
              ],
              fixes: id === 'source' ? otherSources(stages, 2) : [],
              about: {},
            },
          ]
        : [],
    ),
}
