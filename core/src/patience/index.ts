// How long a question may take. Whoever asks decides: core has no clock of its own.

export interface Progress {
  /** Points of the best plan found so far; absent: none yet. */
  best?: number
  /** No plan costs less. */
  bound: number
}

export interface Patience {
  /** Asked at every step of a search; true: give up now, with what there is. */
  spent: () => boolean
  /** Told when the best plan or the bound changes. */
  progress?: (at: Progress) => void
}

export const endless: Patience = { spent: () => false }

/** So many steps of search, however long each takes: the same answer on every machine. */
export const steps = (count: number): Patience => {
  let left = count
  return { spent: () => left-- <= 0 }
}

/** Where nobody says more: what an ordinary question never needs. */
export const usualPatience = (): Patience => steps(20_000)

/** At most so many steps of what the other still has, for a question beside the main one. */
export const share = (of: Patience, count: number): Patience => {
  const own = steps(count)
  return { spent: () => own.spent() || of.spent() }
}
