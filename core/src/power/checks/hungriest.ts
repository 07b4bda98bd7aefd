import { onTheSource } from '../../supply'
import type { Consumer } from '../consumers'
import type { PowerResult } from '../resolve'

/** What draws from the project’s source, and not from a feed of its own: most at work first. */
export const hungriest = ({ consumers, supplies }: PowerResult): Consumer[] =>
  consumers.filter((c) => onTheSource(supplies, c.from)).sort((a, b) => b.work.value.max - a.work.value.max)
