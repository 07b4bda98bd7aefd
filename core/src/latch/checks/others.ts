// What could be in the place of a part of the latch: each is tried as a whole before it is offered.

import type { Fix } from '../../findings'
import { type Library, partsOfKind } from '../../parts'
import { fullRange } from '../../quantity'
import type { LatchResult } from '../resolve'

const offered = (field: 'pass' | 'diode', id: string, name: string): Fix => ({
  label: `${name} in the latch`,
  edits: [{ kind: 'changeLatch', change: { [field]: id }, what: name }],
})
const most = 3

export const otherPasses = ({ pass, source }: LatchResult, library: Library): Fix[] =>
  partsOfKind(library, 'transistor')
    .filter(
      (t) =>
        t.sort === 'p-mosfet' &&
        t.id !== pass.id &&
        [t.voltage, t.gateVoltage].every((v) => !v || fullRange(v).max >= fullRange(source.voltage).max),
    )
    .sort((a, b) => a.price - b.price)
    .slice(0, most)
    .map((t) => offered('pass', t.id, t.name))

export const otherDiodes = ({ diode }: LatchResult, library: Library): Fix[] =>
  partsOfKind(library, 'diode')
    .filter((d) => d.sort !== 'zener' && d.id !== diode?.id)
    .sort((a, b) => a.price - b.price)
    .slice(0, most)
    .map((d) => offered('diode', d.id, d.name))
