// What the nets of a builder’s things are called. Two nets of one name are one net, so that no name that a builder gives may make one of two:
// not of another thing of his, and not of what the board has by itself.

import { carrierOf } from '../carrier'
import { netOf } from '../circuit'
import type { Design, NeedDevice } from '../design'
import { type Device, findPart, type Library } from '../parts'

/** Nets that a board has whatever is on it. */
export const ownNets: readonly string[] = [
  'GND',
  'VCC',
  ...Array.from({ length: 9 }, (_, k) => `VCC${k + 1}`),
  'VIN',
  'VPLUG',
  'VCELL',
  'VFEED',
  'VCHARGE',
  'CHARGE_SET',
  'RESET',
  'LAMP',
  'LATCH_GATE',
  // What a plug that waits for resistors finds them by.
  ...['VIN', 'VCC', 'VPLUG', 'VCELL', 'VFEED', 'VCHARGE'].flatMap((plus) => [`${plus}_ASK1`, `${plus}_ASK2`]),
]

/** What the net behind a part in a line is called after the line’s. */
const tails = ['', '_LED', '_LOW', '_GATE', '_BASE', '_FAR', '_BUTTON', '_HIGH', '_PASS', '_PULL']
const withTails = (net: string): string[] => tails.map((tail) => `${net}${tail}`)

export const busWords = { i2c: 'I2C', spi: 'SPI', uart: 'UART', can: 'CAN' }
/** Buses whose lines several devices share. */
export const sharedBuses: ReadonlySet<string> = new Set(['i2c', 'spi', 'can'])
type SharedBus = keyof typeof busWords

/** What a signal of the `at`th of so many devices is called. */
export const signalName = (
  wiring: Device['wirings'][number],
  signal: string,
  of: { need: string; count: number; at: number },
): string => {
  const one = of.count > 1 && !wiring.chain ? `${of.need} ${of.at}` : of.need
  return `${one}${wiring.signals.length === 1 ? '' : ` ${signal}`}`
}

/** The net at an output of a bridge, that goes by this name. */
export const outputNet = (
  name: string,
  terminal: string,
  { count, at }: { count: number; at: number },
): string => netOf(`${count > 1 ? `${name} ${at}` : name} ${terminal}`)

/** All that the nets of a device would be called by this name, however it is wired. */
const claimedBy = ({ count }: NeedDevice, part: Device, name: string): string[] =>
  part.wirings.flatMap((wiring) => [
    ...Array.from({ length: wiring.chain ? 1 : count }, (_, i) => i + 1).flatMap((at) =>
      wiring.signals.flatMap(({ id, bus }) =>
        isShared(bus) ? [] : withTails(netOf(signalName(wiring, id, { need: name, count, at }))),
      ),
    ),
    // What hangs on its outputs.
    ...(part.drives?.outputs ?? []).flatMap(({ one, other }) =>
      Array.from({ length: count }, (_, i) => i + 1).flatMap((at) =>
        [one, other].map((terminal) => outputNet(name, terminal, { count, at })),
      ),
    ),
    ...(wiring.chain ? Array.from({ length: count }, (_, k) => `${netOf(name)}_LINK_${k}`) : []),
  ])

/** What a line that several devices share is called; of the first bus of its kind without a number. */
export const sharedName = (bus: SharedBus, number: number | undefined, line: string): string =>
  `${busWords[bus]}${number ? ` ${number}` : ''} ${line}`

const isShared = (bus: string | undefined): bus is SharedBus => bus !== undefined && sharedBuses.has(bus)

const sharedBy = ({ bus }: NeedDevice, { wirings }: Device): string[] =>
  wirings.flatMap((w) =>
    w.signals.flatMap((s) => (isShared(s.bus) ? withTails(netOf(sharedName(s.bus, bus, s.line!))) : [])),
  )

/** By what name each device’s nets go: its own, or where that would join them with others, its own and its number in the project. */
export const netNames = (
  { needs, chip }: Pick<Design, 'needs' | 'chip'>,
  library: Library,
): ReadonlyMap<string, string> => {
  const parts = needs.devices.map((need) => ({ need, part: findPart(library, 'device', need.part) }))
  const taken = new Set([
    ...ownNets,
    ...parts.flatMap(({ need, part }) => (part ? sharedBy(need, part) : [])),
    ...(carrierOf(library, chip.part)?.pins.map((p) => netOf(p.id)) ?? []),
  ])
  return new Map(
    parts.map(({ need, part }) => {
      for (let n = 0; ; n++) {
        const name = n === 0 ? need.name : `${need.name} ${need.id}${n > 1 ? ` ${n}` : ''}`
        const claimed = part ? claimedBy(need, part, name) : []
        if (claimed.some((net) => taken.has(net))) continue
        for (const net of claimed) taken.add(net)
        return [need.id, name]
      }
    }),
  )
}
