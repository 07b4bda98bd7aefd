// The rail that feeds chip and devices: what the regulator holds, or what the source gives when there is none.

import type { Design } from '../design'
import { fromPart, type Worked } from '../findings'
import { findPart, type Library } from '../parts'
import { fullRange } from '../quantity'

export const railVoltage = (design: Design, library: Library): Worked | undefined => {
  const regulator = findPart(library, 'regulator', design.power.regulator)
  const source = findPart(library, 'source', design.power.source)
  const [part, rated, field] = regulator
    ? [regulator, regulator.output, 'output']
    : [source, source?.voltage, 'voltage']
  if (!part || !rated) return undefined
  return {
    label: 'Rail voltage',
    symbol: 'V_DD',
    value: fullRange(rated),
    unit: 'V',
    formula: regulator ? 'V_out' : 'V_source',
    inputs: [
      fromPart(
        regulator ? 'V_out' : 'V_source',
        regulator ? 'regulator’s output' : 'source',
        part,
        field,
        rated,
        'V',
      ),
    ],
  }
}
