// The parts of a level shift that the builder fitted into a line.

import { say } from '../findings'
import type { FittingContext } from '../levels'
import { type SupportPart, type ShiftPart } from '../circuit'
import { everyStance, supportChoice } from '../design'
import { formatQuantity } from '../quantity'
import { farNet, fittedShift, isFar, nearNet, safeInDiode, shiftNames, type Shift, type End } from '../levels'
import { railFor, voltageFor } from '../supply'
import type { Wire } from '../legs'
import type { SignalSupport } from './context'

const names: Record<Shift['resistors'][number]['role'], string> = {
  upper: 'upper resistor of the divider',
  lower: 'lower resistor of the divider',
  series: 'series resistor',
  near: 'pull-up at the chip’s side',
  far: 'pull-up at the far side',
}

export const levelShift: SignalSupport = (wire, context) => {
  const end = wire.signal.ends.find((e) => isFar(wire, e) && fittedShift(wire, e, context))
  const shift = end && fittedShift(wire, end, context)
  if (!end || !shift) return []
  return partsOf(wire, shift, end, context)
}

const partsOf = (wire: Wire, shift: Shift, end: End, { design, stock, rail, supplies }: FittingContext) => {
  const { need } = end.instance
  const supply = railFor(supplies, need).net
  const [near, far] = [nearNet(wire), farNet(wire.signal.net)]
  const name = wire.signal.name
  const chipIsLower = (voltageFor(supplies, need)?.value.min ?? Infinity) >= rail.value.min
  const [low, high] = chipIsLower ? [near, far] : [far, near]
  const nets: Record<Shift['resistors'][number]['role'], [string, string]> = {
    upper: [far, near],
    lower: [near, 'GND'],
    series: [far, near],
    near: ['VCC', near],
    far: [supply, far],
  }
  const rate = formatQuantity(shift.rate.value.typ, 'Hz', 2)
  const limits = shift.kind === 'resistor'
  const why = limits
    ? `with one side off, no more than ${formatQuantity(safeInDiode, 'A')} flow into it through ${name}; up to ${rate}`
    : `${name} has another voltage at its far end; up to ${rate}`
  const make = (
    what: ShiftPart,
    rest: Pick<SupportPart, 'name' | 'part' | 'legs' | 'worked'> & Partial<SupportPart>,
  ): SupportPart => {
    const key = `shift-${what}:${wire.signal.id}`
    return {
      key,
      role: `shift ${what}`,
      why,
      signal: wire.signal.id,
      ...supportChoice(design, key, everyStance),
      risk: limits
        ? {
            severity: 'risks',
            grade: 'typical',
            ...say`Without it the side that is off is fed through ${name}.`,
            facts: [{ ...say`It passes up to ${rate}`, worked: shift.rate }],
          }
        : {
            severity: 'stops',
            grade: 'outside the sheet',
            ...say`Without it the ${shiftNames[shift.kind]} in ${name} is not whole, and the wrong voltage reaches one end.`,
            facts: [
              { ...say`The ${shiftNames[shift.kind]} was fitted because of the levels`, worked: shift.rate },
            ],
          },
      ...rest,
    }
  }
  // The near pull-up of a bus line is the bus’s own.
  const resistors = shift.resistors.filter((r) => r.role !== 'near' || wire.signal.bus?.kind !== 'i2c')
  const resistor = stock.resistors!
  const { part } = shift
  return [
    ...resistors.map(({ role, value, worked }) =>
      make(role, {
        name: `${names[role]}, ${name}`,
        part: resistor,
        value: { ...value },
        legs: nets[role].map((net, i) => ({ name: String(i + 1), net })),
        worked: [worked, shift.rate],
      }),
    ),
    ...(part?.kind === 'transistor'
      ? [
          make('transistor', {
            name: `level transistor, ${name}`,
            part,
            legs: part.legs.map((l) => ({
              name: `${l.leg} ${l.role}`,
              net: l.role === 'gate' ? (chipIsLower ? 'VCC' : supply) : l.role === 'source' ? low : high,
            })),
            worked: [shift.rate],
          }),
        ]
      : part?.kind === 'diode'
        ? [
            make('diode', {
              name: `clamp diode, ${name}`,
              part,
              legs: [
                { name: 'cathode', net: 'VCC' },
                { name: 'anode', net: near },
              ],
              worked: [shift.rate],
            }),
          ]
        : part?.kind === 'buffer'
          ? [
              make('buffer', {
                name: `buffer, ${name}`,
                part,
                legs: [
                  { name: 'in', net: near },
                  { name: 'out', net: far },
                  { name: 'supply', net: supply },
                  { name: 'ground', net: 'GND' },
                ],
                worked: [shift.rate],
              }),
            ]
          : []),
  ]
}
