// Hollow plugs and the jacks that they go into: two diameters and which way round.

import { say, type Said } from '../findings'
import { type Board, byHollowPlug, type Connector, type Library, partsOfKind, type Source } from '../parts'
import { formatQuantity } from '../quantity'

type Plug = NonNullable<Source['barrel']>
type Jack = NonNullable<Connector['barrel']>

/** Sizes that are sold as different lie 0.35 mm and more apart (IEC 60130-10 has holes of 2.1 mm and 2.5 mm, 1.3 mm and 1.65 mm), m. */
const apart = 0.2e-3

export const goesInto = (plug: Plug, jack: Jack): boolean => misfit(plug, jack) === undefined

export interface Misfit {
  /** It doesn’t go in at all, or it goes in and touches badly. */
  how: 'shut' | 'loose'
  says: Said
}

const mm = (m: number) => formatQuantity(m, 'm', 2)

/** What keeps a plug from making contact, in a clause about the plug. */
export const misfit = (plug: Plug, jack: Jack): Misfit | undefined => {
  if (plug.outer > jack.outer + apart)
    return {
      how: 'shut',
      says: say`its plug is ${mm(plug.outer)} thick, and the jack takes ${mm(jack.outer)}: it doesn’t go in`,
    }
  if (plug.bore < jack.pin - apart)
    return {
      how: 'shut',
      says: say`its plug has a hole of ${mm(plug.bore)}, and the jack a pin of ${mm(jack.pin)}: it doesn’t go on`,
    }
  if (plug.bore > jack.pin + apart)
    return {
      how: 'loose',
      says: say`its plug has a hole of ${mm(plug.bore)}, and the jack a pin of ${mm(jack.pin)}: it goes in, and touches only now and then`,
    }
  if (plug.outer < jack.outer - apart)
    return {
      how: 'loose',
      says: say`its plug is ${mm(plug.outer)} thick, and the jack takes ${mm(jack.outer)}: it goes in, and touches only now and then`,
    }
  return undefined
}

/** The plug’s centre is the other way round than the jack of a board wants it, in a clause about the source. */
export const reversed = ({ polarity }: Source, jack: Board['jack']): Said | undefined =>
  jack && polarity.startsWith('centre') && polarity !== jack.polarity
    ? say`it is ${polarity}, and the board’s jack ${jack.polarity}`
    : undefined

const sorts = { adapter: 'barrel jack', panel: 'barrel jack', usb: 'usb jack', cells: 'cell holder' } as const

/** Whether a source’s plug goes into it; where no sizes are known it does. One that waits has a plug of its own. */
export const takesPlug = (jack: Connector, { sort, waits, plug, barrel }: Source): boolean =>
  jack.sort === sorts[sort] &&
  jack.takes === (waits ? plug : undefined) &&
  (!barrel || !jack.barrel || goesInto(barrel, jack.barrel))

/** What it goes into; undefined where the library has nothing for it. */
export const jackOf = (library: Library, source: Source): Connector | undefined =>
  partsOfKind(library, 'connector').find((c) => takesPlug(c, source))

/** What speaks against a source’s plug, on a board or on one’s own; nothing where no sheet says more. */
export const againstPlug = (source: Source, board: Board | undefined, library: Library): Said[] => {
  if (source.sort !== 'cells' && !board)
    return jackOf(library, source) ? [] : [say`no jack of the library takes its plug`]
  if (!byHollowPlug(source) || !board) return []
  const { jack } = board
  const wrong = jack && source.barrel && misfit(source.barrel, jack)?.says
  return [reversed(source, jack), wrong].filter((s) => s !== undefined)
}
