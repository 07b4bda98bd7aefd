// Rails beside the chip’s own: what hangs on what.

import { type Design, type FedBy, type FurtherId, type FurtherRail, mostRails } from './types'

/** Rails that feed one another in a ring; undefined where none do. */
export const loopIn = (rails: readonly Pick<FurtherRail, 'id' | 'from'>[]): FurtherId[] | undefined => {
  for (const { id } of rails) {
    const seen: FedBy[] = []
    for (let at: FedBy | undefined = id; at !== undefined; at = rails.find((r) => r.id === at)?.from) {
      if (at === id && seen.length > 0) return seen as FurtherId[]
      if (seen.includes(at)) break
      seen.push(at)
    }
  }
  return undefined
}

/** The id of the next one; undefined where there are as many as there can be. */
export const nextRail = ({ power }: Pick<Design, 'power'>): FurtherId | undefined => {
  const rails = power.rails ?? []
  if (rails.length >= mostRails) return undefined
  for (let n = 2; ; n++) if (!rails.some((r) => r.id === `rail${n}`)) return `rail${n}`
}

/** What a further rail can hang on without being fed by itself. */
export const canFeed = ({ power }: Pick<Design, 'power'>, id: FurtherId): FedBy[] => {
  const rails = power.rails ?? []
  const free = rails.filter(
    (r) => r.id !== id && !loopIn(rails.map((o) => (o.id === id ? { ...o, from: r.id } : o))),
  )
  return ['source', 'rail', ...(power.feed ? (['feed'] as const) : []), ...free.map((r) => r.id)]
}

/** Without a rail: what hung on it hangs on what it hung on; without the second feed on the source, or the rail. */
export const withoutFeeder = (design: Design, gone: FurtherId | 'feed'): Design => {
  const rails = design.power.rails ?? []
  const instead = rails.find((r) => r.id === gone)?.from
  const left = rails.filter((r) => r.id !== gone).map((r) => (r.from === gone ? { ...r, from: instead } : r))
  return {
    ...design,
    power: { ...design.power, rails: left.length > 0 ? left : undefined },
    needs: {
      ...design.needs,
      // Its devices go back to the chip’s rail: what stood behind a regulator stands nothing in front of one.
      devices: design.needs.devices.map((d) => (d.fedBy === gone ? { ...d, fedBy: undefined } : d)),
    },
  }
}
