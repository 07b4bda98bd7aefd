// Whether a support part is on the board: the builder's own word first, else what the stance asks for.

import type { Design, Stance } from './types'

export interface SupportChoice {
  present: boolean
  asked: boolean
  /** Set when the builder decided against the stance. */
  forced?: 'in' | 'out'
}

export const supportChoice = (
  design: Pick<Design, 'stance' | 'build'>,
  key: string,
  askedBy: readonly Stance[],
): SupportChoice => {
  const asked = askedBy.includes(design.stance)
  const said = design.build.support[key]
  const forced = said && (said === 'in') !== asked ? said : undefined
  return { present: said ? said === 'in' : asked, asked, forced }
}

export const everyStance: readonly Stance[] = ['by-the-book', 'lean', 'bare-bones']
export const careful: readonly Stance[] = ['by-the-book', 'lean']
export const byTheBook: readonly Stance[] = ['by-the-book']
