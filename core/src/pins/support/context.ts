import type { Design } from '../../design'
import { type Driver, resistanceDriver, tableDriver } from '../../electrical'
import { fromPart, type Worked, type WorkedInput } from '../../findings'
import type { Chip, ChipPin, Library, Resistors } from '../../parts'
import type { Stock, Supplies, SupportPart } from '../../circuit'
import { fullRange, type Range } from '../../quantity'
import type { Wire } from '../plan'

export interface SignalSupportContext {
  design: Design
  library: Library
  chip: Chip
  rail: Worked
  supplies: Supplies
  stock: Stock
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
}

/** The support parts that one wire needs. */
export type SignalSupport = (wire: Wire, context: SignalSupportContext) => SupportPart[]

/** The name of the net at the chip's leg: `DISPLAY_SDA`. */
export const netOf = (name: string): string =>
  name
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')

export interface LegOutput {
  driver: Driver
  /** Where its strength is stated, for the working. */
  input: (current: number) => WorkedInput
  /** From the maker's table, and not from one point of the sheet. */
  table: boolean
}

/** How a leg drives: along its table where the part has one, else as the resistance of the sheet's point. */
export const outputOf = (chip: Chip, pin: ChipPin | undefined, side: 'high' | 'low'): LegOutput => {
  const model = chip.io.drivers?.find((d) => d.id === pin?.driver)
  const table = side === 'high' ? model?.pullUp : model?.pullDown
  const field = `io.output${side === 'high' ? 'High' : 'Low'}`
  if (model && table) {
    const driver = tableDriver(table)
    return {
      driver,
      table: true,
      input: (current) =>
        fromPart(
          'V_drop',
          `drop in the driver of ${pin!.id}`,
          chip,
          `io.drivers.${model.id}`,
          {
            min: driver(current, 'min'),
            typ: driver(current, 'typ'),
            max: driver(current, 'max'),
            kind: 'typical',
            source: model.source,
          },
          'V',
        ),
    }
  }
  const r = outputResistance(chip, side)
  const point = (side === 'high' ? chip.io.outputHigh : chip.io.outputLow)[0]!
  return {
    driver: resistanceDriver(r),
    table: false,
    input: () =>
      fromPart(
        'R_out',
        'resistance of the leg’s driver',
        chip,
        field,
        { ...r, source: point.source, kind: point.drop.kind === 'assumed' ? 'assumed' : 'typical' },
        'Ω',
      ),
  }
}

/** Resistance of the chip's own output, from the first sheet point: drop / current, ohms. */
export const outputResistance = (chip: Chip, side: 'high' | 'low'): Range => {
  const point = (side === 'high' ? chip.io.outputHigh : chip.io.outputLow)[0]!
  const drop = fullRange(point.drop)
  return { min: drop.min / point.current, typ: drop.typ / point.current, max: drop.max / point.current }
}

/** A resistor from the supply to a line: what all pull-ups have in common. */
export const pullUp = (
  kind: 'pull' | 'select',
  { signal }: Wire,
  part: Resistors,
  value: NonNullable<SupportPart['value']>,
): Pick<SupportPart, 'key' | 'name' | 'part' | 'value' | 'legs' | 'signal'> => ({
  key: `${kind}:${signal.id}`,
  name: `pull-up of ${signal.name}`,
  part,
  value,
  legs: [
    { name: '1', net: 'VCC' },
    { name: '2', net: netOf(signal.name) },
  ],
  signal: signal.id,
})
