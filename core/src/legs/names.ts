// Every name of a pin, through every board: the package, the port, the boards of the library that carry the chip, the
// boards it is planned for, the expansion boards on top, the device's terminal, the program.

import type { Instance } from '../needs'
import { type Chip, type ChipPin, findPart, type Library, partsOfKind } from '../parts'
import type { Wire } from './wires'

export interface PinName {
  name: string
  /** Who calls it so. */
  by: string
}

/** Names by pin id, from the inside out. */
export const pinNames = (
  chip: Chip,
  library: Library,
  instances: Instance[],
  wires: Wire[],
): Map<string, PinName[]> => {
  const bare = chip.board ? findPart(library, 'chip', chip.board.chip) : chip
  const carriers = partsOfKind(library, 'board').filter((b) => b.chip === bare?.id)
  return new Map(
    chip.pins.map((pin) => [
      pin.id,
      [...ofChip(bare, pin), ...ofBoards(chip, carriers, pin), ...outside(pin, instances, wires)],
    ]),
  )
}

const ofChip = (bare: Chip | undefined, pin: ChipPin): PinName[] => {
  const own = bare?.pins.find((p) => p.id === pin.id)
  return [
    ...(own ? own.legs.map((leg) => ({ name: `leg ${leg}`, by: bare!.name })) : []),
    ...(own ? [{ name: pin.id, by: 'port' }] : []),
    ...(pin.number === undefined ? [] : [{ name: `number ${pin.number}`, by: 'program' }]),
    ...(own?.names ?? []).map((name) => ({ name, by: 'charts' })),
    ...(pin.functions ?? []).map((f) => ({ name: `${f.unit} ${f.signal}`, by: 'functions' })),
  ]
}

const ofBoards = (
  chip: Chip,
  boards: { id: string; name: string; headers: NonNullable<Chip['board']>['headers'] }[],
  pin: ChipPin,
): PinName[] => [
  ...(pin.labels ?? []).map((name) => ({ name, by: chip.name })),
  ...boards
    .filter((b) => b.id !== chip.board?.id)
    .flatMap((b) =>
      b.headers
        .flatMap((h) => h.positions)
        .filter((p) => p.pin === pin.id)
        .map((p) => ({ name: p.label, by: b.name })),
    ),
]

const outside = (pin: ChipPin, instances: Instance[], wires: Wire[]): PinName[] => [
  ...wires
    .filter((w) => w.pin.id === pin.id)
    .flatMap((w) =>
      (w.others ?? []).flatMap((o) => [
        { name: o.pin.labels![o.pin.places!.indexOf(o.place)]!, by: o.chip.name },
        { name: o.pin.id, by: `port on ${o.chip.name}` },
      ]),
    ),
  ...instances.flatMap((i) =>
    (i.part.expansion?.positions ?? [])
      .filter((p) => pin.places?.includes(`${i.part.expansion!.fits} ${p.at}`))
      .map((p) => ({ name: p.label, by: i.name })),
  ),
  ...wires
    .filter((w) => w.pin.id === pin.id)
    .flatMap((w) => [
      ...w.signal.ends.map((e) => ({ name: e.signal.terminal, by: `${e.instance.name}, terminal` })),
      { name: w.signal.name, by: 'this project' },
    ]),
]
