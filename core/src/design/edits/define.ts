// An edit is a named, pure change of the design. Undo, autosave, the search box and one-click fixes all speak in edits.

import type { Design } from '../types'

export interface EditDefinition<A> {
  /** What it does, in words, for the undo list: “Move Display SDA to PA4”. */
  label: (args: A, design: Design) => string
  apply: (design: Design, args: A) => Design
}

export const defineEdit = <A>(definition: EditDefinition<A>): EditDefinition<A> => definition

/** A copy of a record without some keys. */
export const without = <V>(record: Record<string, V>, ...keys: string[]): Record<string, V> =>
  Object.fromEntries(Object.entries(record).filter(([k]) => !keys.includes(k)))

export const deviceName = (design: Design, id: string): string =>
  design.needs.devices.find((d) => d.id === id)?.name ?? 'device'
