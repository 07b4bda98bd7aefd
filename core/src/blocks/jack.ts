import { type Connector, type Library, partsOfKind, type Source } from '../parts'

const sorts = { adapter: 'barrel jack', usb: 'usb jack', cells: 'cell holder' } as const

/** What a source’s plug goes into. */
export const jackOf = (library: Library, source: Source): Connector | undefined =>
  partsOfKind(library, 'connector').find((c) => c.sort === sorts[source.sort])
