// The facts a project was planned with. They stay in it, so that a part that changes or vanishes in the library changes
// nothing in a project until its builder says so.

import { type Difference, differencesOf, type Library, type Part, withReferences } from '../parts'
import type { Design } from './types'

/** The parts that a design names itself. */
export const partsNamed = (design: Design): string[] => {
  const { needs, chip, power } = design
  const ids = [
    ...needs.devices.flatMap((d) => [
      d.part,
      ...Object.values(d.transistors ?? {}),
      d.lead?.wire,
      d.lead?.joint,
    ]),
    chip.part,
    ...(chip.also ?? []),
    chip.clock?.part,
    power.source,
    power.regulator,
    power.feed,
    power.guard,
    ...(power.rails ?? []).map((r) => r.regulator),
    power.latch?.pass,
    power.latch?.diode,
    power.charging?.charger,
    power.charging?.from,
    ...[power.lead, power.feedLead].flatMap((l) => [l?.wire, l?.joint, l?.fuse, l?.protection]),
  ]
  return [...new Set(ids.filter((id) => id !== undefined))]
}

const same = new WeakMap<Part, WeakMap<Part, boolean>>()
/** Whether two versions of a part say the same. Remembered, since it is asked on every edit. */
const isSame = (a: Part, b: Part): boolean => {
  if (a === b) return true
  const known = same.get(a)?.get(b)
  if (known !== undefined) return known
  const answer = differencesOf(a, b).length === 0
  if (!same.has(a)) same.set(a, new WeakMap())
  same.get(a)!.set(b, answer)
  return answer
}

/** The library as this project knows it: what it was planned with goes before what the library says now. */
export const libraryFor = ({ parts }: Pick<Design, 'parts'>, library: Library): Library => {
  if (!parts) return library
  const known = joined.get(parts)
  if (known?.library === library) return known.with
  const of = withKept(parts, library)
  joined.set(parts, { library, with: of })
  return of
}
/** The same facts before the same library are the same library. */
const joined = new WeakMap<NonNullable<Design['parts']>, { library: Library; with: Library }>()
const withKept = (parts: NonNullable<Design['parts']>, library: Library): Library => {
  const kept = Object.entries(parts).filter(([id, part]) => {
    const now = Object.hasOwn(library.parts, id) ? library.parts[id] : undefined
    return !now || !isSame(part, now)
  })
  return kept.length === 0 ? library : { parts: { ...library.parts, ...Object.fromEntries(kept) } }
}

/** The design with the facts of every part it uses, and of no other. Facts it has already stay as they are. */
export const withFactsKept = (design: Design, library: Library): Design => {
  const used = withReferences(libraryFor(design, library), partsNamed(design))
  const kept = design.parts ?? {}
  const unchanged = used.length === Object.keys(kept).length && used.every((p) => Object.hasOwn(kept, p.id))
  return unchanged
    ? design
    : {
        ...design,
        parts: Object.fromEntries(used.map((p) => [p.id, Object.hasOwn(kept, p.id) ? kept[p.id]! : p])),
      }
}

/** The design with only those facts that the library doesn’t have in the same words: what another thread must be told. */
export const withOwnFactsOnly = (design: Design, library: Library): Design => {
  const own = Object.entries(design.parts ?? {}).filter(([id, part]) => {
    const now = Object.hasOwn(library.parts, id) ? library.parts[id] : undefined
    return !now || !isSame(part, now)
  })
  return { ...design, parts: own.length > 0 ? Object.fromEntries(own) : undefined }
}

export interface ChangedPart {
  kept: Part
  /** Absent: the library has it no more. */
  now?: Part
  differences: Difference[]
}

/** Parts of the project that the library knows differently now, or no more. */
export const changedParts = (design: Design, library: Library): ChangedPart[] =>
  Object.values(design.parts ?? {}).flatMap((kept): ChangedPart[] => {
    const now = Object.hasOwn(library.parts, kept.id) ? library.parts[kept.id] : undefined
    if (!now) return [{ kept, differences: [] }]
    return isSame(kept, now) ? [] : [{ kept, now, differences: differencesOf(kept, now) }]
  })
