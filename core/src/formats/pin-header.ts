// `pins.h`: the plan as the program needs it, in plain C.

import { placeName, type Wire } from '../legs'

const comment = (text: string) => text.replace(/\*\//g, '* /').replace(/[^\x20-\x7e]/g, '?')

const lines = (wire: Wire): string[] => {
  const name = wire.signal.net
  const port = /^P([A-Z])(\d+)$/.exec(wire.pin.id)
  const use = wire.unit ? `, ${wire.unit.name} ${wire.line}` : ''
  return [
    `/* ${comment(`${wire.signal.name}: ${placeName(wire.pin)}${use}`)} */`,
    ...(wire.pin.number === undefined ? [] : [`#define ${name}_PIN ${wire.pin.number}`]),
    ...(port ? [`#define ${name}_PORT ${port[1]}`, `#define ${name}_BIT ${port[2]}`] : []),
    ...(wire.select === undefined ? [] : [`#define ${name}_FUNCTION ${wire.select}`]),
    ...(wire.pin.number === undefined && !port ? [`#define ${name}_LEG ${wire.pin.legs[0]}`] : []),
  ]
}

export const pinHeader = (project: string, chip: string, wires: Wire[]): string =>
  [
    `/* Pins of "${comment(project)}" on ${comment(chip)}. Written by Root Board; plan again rather than edit. */`,
    '#ifndef PINS_H',
    '#define PINS_H',
    '',
    ...wires.flatMap((w) => [...lines(w), '']),
    '#endif',
    '',
  ].join('\n')
