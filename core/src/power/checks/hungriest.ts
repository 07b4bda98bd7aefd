import { wayTo } from '../../supply'
import type { Consumer } from '../consumers'
import type { PowerResult } from '../resolve'

/** What draws from the project’s source, and not from a feed of its own: most at work first. */
export const hungriest = ({ consumers, supplies }: PowerResult): Consumer[] => {
  const { head } = wayTo(supplies, supplies.own)
  return consumers
    .filter((c) => wayTo(supplies, c.from).head === head)
    .sort((a, b) => b.work.value.max - a.work.value.max)
}
