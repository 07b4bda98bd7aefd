// What a switching transistor gets from its leg, and how warm that makes it.

import { fromPart, type Worked } from '../findings'
import type { Wire } from '../legs'
import { chipDrives } from '../levels'
import type { Chip, Rated, Transistor } from '../parts'
import { junctionOf, readCurve, sum } from '../sums'

/** What a switching transistor gets and makes of it. */
export interface SwitchOnLeg {
  /** Between gate and source while the leg is high. */
  drive: Worked
  /** Its channel at that voltage; absent where the sheet states none. */
  channel?: Worked
  heat?: Worked
  /** At the ambient that the project sets; absent where the package’s way for the heat isn’t known. */
  junction?: Worked
}

export const switchOnLeg = (
  wire: Pick<Wire, 'pin' | 'signal'>,
  transistor: Transistor,
  current: Rated,
  { chip, rail, ambient }: { chip: Chip; rail: Worked; ambient: number },
): SwitchOnLeg => {
  const { name } = wire.signal
  const drive = sum(
    { label: `Gate of ${name} while it is on`, symbol: 'V_GS', unit: 'V' },
    { V_OH: chipDrives(chip, wire, rail, () => rail).high },
    (i) => i.V_OH,
  )
  return { drive, ...warmth(wire, transistor, current, drive, ambient) }
}

/** What its channel is at so much between gate and source, and how warm the load’s current makes it. */
export const warmth = (
  wire: Pick<Wire, 'signal'>,
  transistor: Transistor,
  current: Rated,
  drive: Worked,
  ambient: number,
): Omit<SwitchOnLeg, 'drive'> => {
  const end = wire.signal.ends[0]!
  const { name } = wire.signal
  if (!transistor.channel?.length) return {}
  const channel = readCurve(
    {
      label: `Channel of ${transistor.name}`,
      symbol: 'R_DS',
      unit: 'Ω',
      note: 'Beyond the sheet’s gate voltages as at the nearest.',
    },
    {
      part: transistor,
      field: 'channel',
      points: transistor.channel.map((p) => ({ x: p.gate, y: { source: p.source, ...p.resistance } })),
      held: true,
    },
    ['V_GS', drive],
  )
  const I_load = fromPart(
    'I_load',
    `what ${end.instance.name} draws`,
    end.instance.part,
    `${end.signal.id}.current`,
    current,
    'A',
  )
  const heat = sum(
    { label: `Heat in the transistor of ${name}`, symbol: 'P', unit: 'W', note: 'Switched on all the time.' },
    { I_load, R_DS: channel },
    (i) => i.I_load.times(i.I_load).times(i.R_DS),
  )
  return {
    channel,
    heat,
    junction: junctionOf(`Junction of the transistor of ${name}`, transistor, ambient, heat),
  }
}
