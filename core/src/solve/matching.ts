// Whether everyone can have a place: bipartite matching with room for several, by augmenting paths.

/** `wishes`: for each member the places it can have. True when all find one at the same time. */
export const allFit = (wishes: readonly (readonly number[])[], room: (place: number) => number): boolean => {
  const held = new Map<number, number[]>()
  const find = (member: number, seen: Set<number>): boolean => {
    for (const place of wishes[member]!) {
      if (seen.has(place)) continue
      seen.add(place)
      const holders = held.get(place)
      if (!holders) {
        if (room(place) < 1) continue
        held.set(place, [member])
        return true
      }
      if (holders.length < room(place)) {
        holders.push(member)
        return true
      }
      for (let i = 0; i < holders.length; i++)
        if (find(holders[i]!, seen)) {
          holders[i] = member
          return true
        }
    }
    return false
  }
  return wishes.every((_, m) => find(m, new Set()))
}
