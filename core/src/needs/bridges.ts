// Loads that hang on a bridge in the place of a transistor of their own: they ask for no leg, its lines say what they do.

import type { Design, NeedDevice } from '../design'
import { type Device, type DeviceSignal, type DeviceWiring, findPart, type Library } from '../parts'

export type Drives = NonNullable<Device['drives']>
/** Where a load hangs; no output: all are taken by what comes before it. */
export interface Hung {
  /** Of the bridge’s need, and of the one of several that it is. */
  bridge: string
  instance: string
  output?: Drives['outputs'][number]
}

/** The one thing that a transistor would switch, where nothing else of the device is joined to the chip. */
export const switchedAlone = ({ signals }: Pick<DeviceWiring, 'signals'>): DeviceSignal | undefined =>
  signals.length === 1 && signals[0]!.electrical.kind === 'switched' ? signals[0] : undefined

/** Why a bridge can’t turn this; undefined: it can. */
export const cantHang = (part: Device, wiring: Pick<DeviceWiring, 'signals'>): string | undefined => {
  const signal = switchedAlone(wiring)
  if (!signal || part.latch) return 'more of it is joined to the chip than one switched terminal'
  if (signal.electrical.kind === 'switched' && signal.electrical.grounded)
    return 'its minus lies on its housing, and a bridge puts the supply on either side'
  return part.terminals.length === 2 &&
    part.terminals.some((t) => t.role === 'supply') &&
    part.terminals.some((t) => t.id === signal.terminal)
    ? undefined
    : 'it has not just two terminals'
}

/** A motor that a bridge can turn either way: what else has two terminals gains nothing by it. */
export const canTurn = (part: Device, wiring: Pick<DeviceWiring, 'signals'>): boolean =>
  part.cautions?.includes('motor') === true && cantHang(part, wiring) === undefined

/** The wiring that a builder chose, or the first, whatever it hangs on. */
export const ownWiring = (part: Device, { wiring }: Pick<NeedDevice, 'wiring'>): DeviceWiring =>
  part.wirings.find((w) => w.id === wiring) ?? part.wirings[0]!

/** The device that a load of the design hangs on; or why it doesn’t, though the design says so. */
export const bridgeFor = (
  { needs }: Pick<Design, 'needs'>,
  { drivenBy }: Pick<NeedDevice, 'drivenBy'>,
  part: Device,
  wiring: Pick<DeviceWiring, 'signals'>,
  library: Library,
): { need: NeedDevice; part: Device; drives: Drives } | { why: string } | undefined => {
  if (drivenBy === undefined) return undefined
  const need = needs.devices.find((d) => d.id === drivenBy)
  const bridge = need && findPart(library, 'device', need.part)
  if (!need || !bridge) return { why: 'what it should hang on is not there' }
  if (!bridge.drives || need.drivenBy !== undefined) return { why: `${need.name} is no bridge` }
  const why = cantHang(part, wiring)
  return why === undefined ? { need, part: bridge, drives: bridge.drives } : { why }
}
