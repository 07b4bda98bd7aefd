import type { SupportPart } from '../circuit'
import { type Connector, type Library, partsOfKind, type Source } from '../parts'
import { goesInto } from '../supply'

const sorts = { adapter: 'barrel jack', usb: 'usb jack', cells: 'cell holder' } as const

/** What a source’s plug goes into; undefined where the library has nothing for it. */
export const jackOf = (library: Library, source: Source): Connector | undefined =>
  partsOfKind(library, 'connector').find(
    (c) =>
      c.sort === sorts[source.sort] && (!source.barrel || !c.barrel || goesInto(source.barrel, c.barrel)),
  )

/** Its contacts: of a jack for hollow plugs leg 1 is the pin, which is the plug’s centre, and leg 2 the sleeve. */
export const jackLegs = (jack: Connector, { polarity }: Source, plus: string): SupportPart['legs'] => {
  const [p, m] = [
    { sign: '+', net: plus },
    { sign: '−', net: 'GND' },
  ]
  if (jack.sort !== 'barrel jack') return [p, m].map(({ sign, net }) => ({ name: sign, net }))
  const [centre, outside] = polarity === 'centre negative' ? [m, p] : [p, m]
  return [
    { name: `pin ${centre.sign}`, net: centre.net },
    { name: `sleeve ${outside.sign}`, net: outside.net },
  ]
}
