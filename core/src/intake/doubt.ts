// What should be looked at of each leg that was read: what stands in its rows and was not understood, a name like no
// other, a port among what it can be.

import type { Account } from './account'
import { bareName, readToken } from './functions'
import { isPort, isReset, typeByName } from './names'
import type { FoundLeg } from './understood'

const isUsual = (leg: FoundLeg): boolean => {
  if (isPort(leg.id) || typeByName(leg.id) !== undefined || isReset(leg.id) || leg.id === 'NC') return true
  const own = readToken(leg.id)
  return own !== undefined && 'function' in own && own.function.kind !== undefined
}

/** What is known of the whole table when its legs are looked at. */
export interface Around {
  /** Whether most legs are called by their port. */
  mostlyPorts: boolean
  /** Words not understood, by line as pasted. */
  openIn: ReadonlyMap<number, string[]>
}
export const aroundOf = (legs: readonly FoundLeg[], open: Account['open']): Around => {
  const openIn = new Map<number, string[]>()
  for (const o of open) {
    const list = openIn.get(o.line)
    if (list) list.push(o.text)
    else openIn.set(o.line, [o.text])
  }
  return { mostlyPorts: legs.filter((l) => isPort(l.id)).length >= legs.length * 0.5, openIn }
}

/** Reasons to look at a leg, in words; none for one that is clear. `lines` are those of its rows, as pasted. */
export const doubtsOf = (leg: FoundLeg, around: Around, lines: ReadonlySet<number>): string[] => {
  const unknown = [...new Set([...lines].flatMap((l) => around.openIn.get(l) ?? []))]
  const others = leg.functions.filter((f) => {
    const name = bareName(f.text).toUpperCase()
    return name !== leg.id && isPort(name) && f.kind !== 'converter'
  })
  return [
    ...(unknown.length > 0
      ? [`${unknown.slice(0, 3).join(', ')}${unknown.length > 3 ? ' …' : ''} in its row is not understood`]
      : []),
    ...(leg.legs.length === 0 && leg.position === undefined ? ['its row has no leg number'] : []),
    ...(others.length > 0 ? [`${others[0]!.text} among its functions is the name of a leg`] : []),
    ...(!isUsual(leg) && around.mostlyPorts ? ['its name is like no other here'] : []),
  ]
}
