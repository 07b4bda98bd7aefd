// The parts by id, and looking one up by id and kind.

import type { Board } from './kinds/board'
import type { Chip } from './kinds/chip'
import type { Device } from './kinds/device'
import type {
  Buffer,
  Capacitors,
  Connector,
  Crystal,
  Diode,
  Led,
  Resistors,
  Resonator,
  Switch,
  Transistor,
} from './kinds/discrete'
import type { Charger, Protection } from './kinds/charging'
import type { Fuse, Wire } from './kinds/lead'
import type { Regulator, Source } from './kinds/supply'

export type Part =
  | Chip
  | Device
  | Board
  | Source
  | Regulator
  | Led
  | Diode
  | Transistor
  | Crystal
  | Resonator
  | Resistors
  | Capacitors
  | Connector
  | Switch
  | Buffer
  | Wire
  | Fuse
  | Charger
  | Protection
export type PartKind = Part['kind']
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>

/** Every part there is, by id. A plain object, so that it can be sent to a worker. */
export interface Library {
  parts: Record<string, Part>
}

export const makeLibrary = (parts: Part[]): Library => ({
  parts: Object.fromEntries(parts.map((p) => [p.id, p])),
})

export const findPart = <K extends PartKind>(
  library: Library,
  kind: K,
  id: string | null | undefined,
): PartOf<K> | undefined => {
  const part =
    id !== undefined && id !== null && Object.hasOwn(library.parts, id) ? library.parts[id] : undefined
  return part?.kind === kind ? (part as PartOf<K>) : undefined
}

export const partsOfKind = <K extends PartKind>(library: Library, kind: K): readonly PartOf<K>[] => {
  const known = byKind.get(library.parts) ?? new Map<PartKind, readonly Part[]>()
  byKind.set(library.parts, known)
  const parts = known.get(kind) ?? Object.values(library.parts).filter((p) => p.kind === kind)
  known.set(kind, parts)
  return parts as readonly PartOf<K>[]
}
/** Sorted out once for each library: none of them changes. */
const byKind = new WeakMap<Library['parts'], Map<PartKind, readonly Part[]>>()
