// Every line checked in both directions: what is driven against what is read, and against what each side stands.

import type { LineContext } from './context'
import { tableCurrent } from './driver'
import { onOwnRail, voltageFor } from '../supply'
import type { ShiftKind } from '../design'
import {
  type Fact,
  fromPart,
  type Grade,
  partOrigin,
  type Severity,
  type Worked,
  type WorkedInput,
  say,
  unsaid,
  type Sentence,
} from '../findings'
import type { Chip } from '../parts'
import { exactly, formatQuantity, fullRange, type Range } from '../quantity'
import { asStated, least, number, sum, type Term } from '../sums'
import { legName, legSaid, type Wire } from '../legs'
import {
  busLow,
  chipDrives,
  chipReads,
  chipStands,
  deviceDrives,
  deviceReads,
  deviceStands,
  statedVoltage,
  type End,
  type Levels,
} from './sides'

export type Direction = 'to the device' | 'to the chip' | 'both ways'

/** One end of one line: how it stands with its levels. */
export interface LineLevel {
  wire: Wire
  end: End
  direction: Direction
  grade: Grade
  /** Absent when nothing is wrong. */
  severity?: Severity
  /** What is wrong, in words; empty when nothing is. */
  text: string
  says: Sentence
  /** What is left above and below the thresholds, and below what each side stands. */
  margins: Worked[]
  facts: Fact[]
  /** The highest voltage that reaches the leg, and what it must not exceed. */
  reaches: Worked
  stands: Worked
  shift?: ShiftKind
  /** The resistors of a divider in the line. */
  divider?: Divider
}

/** What a divider is made of, as it is fitted. */
export interface Divider {
  top: WorkedInput
  bottom: WorkedInput
}

interface Side {
  name: string
  drives: Levels
  reads: Levels
  stands: Worked
}

/** What one is above another: they move together in whatever they share. */
const margin = (label: string, symbol: string, over: Worked, under: Worked): Worked => {
  const other = under.symbol === over.symbol ? `${under.symbol}′` : under.symbol
  return sum(
    { label, symbol, unit: 'V' },
    { [over.symbol]: over, [other]: under },
    (i: Record<string, Term>) => i[over.symbol]!.minus(i[other]!),
  )
}
/** No number is exact to the last digit. */
const slack = 1e-9
const isOver = (left: Worked): boolean => left.value.min < -slack

const worst = (all: Worked[], corner: keyof Range): number => Math.min(...all.map((m) => m.value[corner]))

const gradeOf = (margins: Worked[]): Grade =>
  worst(margins, 'min') >= -slack
    ? 'guaranteed'
    : worst(margins, 'typ') >= 0
      ? 'typical'
      : worst(margins, 'max') >= 0
        ? 'outside the sheet'
        : 'impossible'

const volts = (v: number) => formatQuantity(v, 'V', 3)

/** One side driving, the other reading. */
const oneWay = ({
  drives,
  reads,
  stands,
  name,
}: Side): Pick<LineLevel, 'grade' | 'severity' | 'text' | 'says' | 'margins' | 'facts'> => {
  const margins = [
    margin(`Margin of a high at ${name}`, 'NM_H', drives.high, reads.high),
    margin(`Margin of a low at ${name}`, 'NM_L', reads.low, drives.low),
  ]
  const top = margin(`What ${name} stands beyond the high`, 'M_top', stands, drives.high)
  const facts = [
    {
      ...say`High is ${volts(drives.high.value.min)} to ${volts(drives.high.value.max)}`,
      worked: drives.high,
    },
    { ...say`${name} reads high from ${volts(reads.high.value.max)}`, worked: reads.high },
    { ...say`${name} stands ${volts(stands.value.min)}`, worked: stands },
  ]
  if (isOver(top))
    return {
      grade: 'outside the sheet',
      severity: 'stops',
      margins: [...margins, top],
      facts,
      ...say`up to ${volts(drives.high.value.max)} reaches ${name}, which stands ${volts(stands.value.min)}`,
    }
  const grade = gradeOf(margins)
  const low = margins[1]!.value.min < margins[0]!.value.min
  return {
    grade,
    severity: grade === 'guaranteed' ? undefined : grade === 'impossible' ? 'stops' : 'risks',
    margins,
    facts,
    ...(grade === 'guaranteed'
      ? unsaid
      : low
        ? say`a low of up to ${volts(drives.low.value.max)} reaches ${name}, which reads low below ${volts(reads.low.value.min)}`
        : say`as little as ${volts(drives.high.value.min)} reaches ${name}, which reads high from ${volts(reads.high.value.max)}`),
  }
}

const scaled = (levels: Levels, by: (w: Worked) => Worked): Levels => ({
  high: by(levels.high),
  low: by(levels.low),
})

export interface LevelContext extends LineContext {
  /** What is fitted in the line, with the levels it lets through. */
  shiftOf: (wire: Wire, end: End) => { kind: ShiftKind; divider?: Divider; forward?: Worked } | undefined
}

const throughDivider =
  ({ top, bottom }: Divider) =>
  (from: Worked): Worked =>
    sum(
      { label: `${from.label}, divided`, symbol: from.symbol, unit: 'V' },
      { V: from, R_1: top, R_2: bottom },
      (i) => i.V.over(number(1).plus(i.R_1.over(i.R_2))),
    )

const clean = (grade: Grade = 'guaranteed'): Pick<LineLevel, 'grade' | 'severity' | 'text' | 'says'> => ({
  grade,
  severity: undefined,
  ...unsaid,
})

/** The highest that a device gives to be measured, before any divider. */
export const highestOf = (end: End, rail: Worked, supply: Worked): Worked | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'analog') return undefined
  const label = `Highest level of ${end.instance.name}`
  if (electrical.max === undefined)
    // A resistance divides what feeds it: open, or shorted, it gives all of that. With its partner at the supply that is our rail.
    return asStated(label, 'V_sig', 'V', electrical.dividerTo === 'supply' ? rail : supply)
  return statedVoltage(label, 'V_sig', end, 'max', { typ: electrical.max, kind: 'guaranteed' })
}

/** A voltage to be measured, against the converter’s range and the leg. */
const analogLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { chip, rail } = context
  const { name } = end.instance
  const source = highestOf(end, rail, supply)
  if (!source) return undefined
  const shift = context.shiftOf(wire, end)
  const reaches = shift?.divider ? throughDivider(shift.divider)(source) : source
  const stands = chipStands(chip, wire, rail)
  const range = converterRange(chip, wire, rail, context.reference)
  const inRange = margin('Below the top of the range', 'M_range', range, reaches)
  const onLeg = margin('Below what the leg stands', 'M_leg', stands, reaches)
  const bottom = fullRange(wire.unit?.range ?? { typ: 0 }).min
  const tops = `${volts(range.value.min)} reads as the top code`
  return {
    wire,
    end,
    direction: 'to the chip',
    margins: [inRange, onLeg],
    reaches,
    stands: range.value.min < stands.value.min ? range : stands,
    shift: shift?.kind,
    divider: shift?.divider,
    facts: [
      { ...say`${name} gives up to ${volts(source.value.max)}`, worked: source },
      ...(shift ? [{ ...say`Divided, ${volts(reaches.value.max)} reaches the leg`, worked: reaches }] : []),
      {
        ...say`The converter’s range ${bottom > 0 ? say`is ${volts(bottom)} to ${volts(range.value.min)}: what is below reads as nothing` : say`ends at ${volts(range.value.min)}`}`,
        worked: range,
      },
      { ...say`${legSaid(wire.pin)} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(isOver(onLeg)
      ? {
          grade: 'outside the sheet' as const,
          severity: 'stops' as const,
          ...say`up to ${volts(reaches.value.max)} reaches ${legSaid(wire.pin)}, which stands ${volts(stands.value.min)}`,
        }
      : isOver(inRange)
        ? {
            grade: inRange.value.typ >= -slack ? ('typical' as const) : ('outside the sheet' as const),
            severity: 'risks' as const,
            ...say`it goes up to ${volts(reaches.value.max)}, and all above ${tops}`,
          }
        : bottom > 0
          ? {
              grade: 'guaranteed' as const,
              severity: 'notes' as const,
              ...say`all below ${volts(bottom)} reads as nothing: the converter’s range begins there`,
            }
          : clean()),
  }
}

/** A reference of one’s own must not be above the supply of the converter. */
const referenceLevel = (wire: Wire, end: End, context: LevelContext): LineLevel | undefined => {
  const gives = end.signal.electrical.kind === 'reference' ? context.reference : undefined
  if (!gives) return undefined
  const { chip, rail } = context
  const stands = chipStands(chip, wire, rail)
  const left = margin('Below the supply', 'M_ref', rail, gives)
  const over = isOver(margin('Below what the leg stands', 'M_leg', stands, gives))
  return {
    wire,
    end,
    direction: 'to the chip',
    margins: [left],
    reaches: gives,
    stands,
    facts: [
      { ...say`${end.instance.name} gives up to ${volts(gives.value.max)}`, worked: gives },
      { ...say`The supply is ${volts(rail.value.min)} to ${volts(rail.value.max)}`, worked: rail },
      { ...say`${legSaid(wire.pin)} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(over
      ? {
          grade: 'outside the sheet' as const,
          severity: 'stops' as const,
          ...say`up to ${volts(gives.value.max)} reaches ${legSaid(wire.pin)}, which stands ${volts(stands.value.min)}`,
        }
      : isOver(left)
        ? {
            grade: 'outside the sheet' as const,
            severity: 'risks' as const,
            ...say`a reference of up to ${volts(gives.value.max)} is above the supply, which is down to ${volts(rail.value.min)}`,
          }
        : clean()),
  }
}

/** A voltage that the chip gives: up to its rail, into the resistance of the device. */
const givenLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'analog-load') return undefined
  const { chip, rail } = context
  const { name } = end.instance
  const reaches = asStated(`Highest voltage to ${name}`, 'V_out', 'V', rail)
  const stands: Worked =
    electrical.max === undefined
      ? deviceStands(end, supply)
      : statedVoltage(`What ${name} stands`, 'V_max', end, 'max', {
          typ: electrical.max,
          kind: 'guaranteed',
        })
  const left = margin('Below what it stands', 'M_out', stands, reaches)
  const fine = !isOver(left)
  return {
    wire,
    end,
    direction: 'to the device',
    margins: [left],
    reaches,
    stands: chipStands(chip, wire, rail),
    facts: [
      { ...say`The leg gives up to its supply, ${volts(reaches.value.max)}`, worked: reaches },
      { ...say`${name} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(fine
      ? clean()
      : {
          grade: 'outside the sheet' as const,
          severity: 'risks' as const,
          ...say`up to ${volts(reaches.value.max)} reaches ${name}, which stands ${volts(stands.value.min)}: the program must keep below it`,
        }),
  }
}

/** What a full converter code stands for: the reference that is wired in, else its own range, else the rail. */
export const converterRange = (chip: Chip, wire: Wire, rail: Worked, reference?: Worked): Worked => {
  const label = 'Range of the converter'
  if (reference) return asStated(label, 'V_ref', 'V', reference)
  const own = wire.unit?.range
  if (!own) return asStated(label, 'V_ref', 'V', rail)
  const V_range = fromPart('V_range', wire.unit!.name, chip, `units.${wire.unit!.id}.range`, own, 'V')
  return asStated(label, 'V_ref', 'V', { ...V_range, value: exactly(V_range.value.max) })
}

/** Where between two rails a line is that is pulled to both. */
const between = (label: string, rail: Worked, supply: Worked, note: string): Worked =>
  sum(
    { label, symbol: 'V_OH', unit: 'V', note },
    {
      V_DD: rail,
      V_far: supply,
      s: {
        symbol: 's',
        label: 'how much more its own pull-ups pull than ours',
        value: { min: 0, typ: 0.5, max: 1 },
        unit: '',
        origin: { kind: 'rule', source: 'anything from one rail to the other' },
      },
    },
    (i) => i.V_DD.plus(i.s.times(i.V_far.minus(i.V_DD))),
  )

/** An I2C line: pulled to the chip’s rail, and to the device’s supply where pull-ups sit on its own board. */
const busLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'open-drain') return undefined
  const { chip, rail } = context
  const shift = context.shiftOf(wire, end)
  const label = `High level of ${wire.signal.name}`
  const pulled =
    !onOwnRail(context.supplies, end.instance.need) && electrical.fitted !== undefined && !shift
      ? between(
          label,
          rail,
          supply,
          `Pulled to both: the pull-ups on ${end.instance.name} go to its own supply.`,
        )
      : asStated(label, 'V_OH', 'V', rail)
  const low = busLow(supply.value.min < rail.value.min ? supply : rail)
  const chipEnd = oneWay({
    name: legName(wire.pin),
    drives: { high: pulled, low },
    reads: chipReads(chip, rail),
    stands: chipStands(chip, wire, rail),
  })
  const deviceEnd = oneWay({
    name: end.instance.name,
    drives: { high: shift ? asStated(label, 'V_OH', 'V', supply) : pulled, low },
    reads: deviceReads(end, supply)!,
    stands: deviceStands(end, supply),
  })
  const bad =
    [chipEnd, deviceEnd].find((v) => v.severity === 'stops') ?? [chipEnd, deviceEnd].find((v) => v.severity)
  return {
    wire,
    end,
    direction: 'both ways',
    ...(bad ?? chipEnd),
    margins: [...chipEnd.margins, ...deviceEnd.margins],
    reaches: pulled,
    stands: chipStands(chip, wire, rail),
    shift: shift?.kind,
  }
}

/** What a clamp lets through: the lower of what comes and the rail with the diode’s voltage on it. */
const clamped = (from: Worked, rail: Worked, V_F: Worked): Worked =>
  sum(
    { label: `${from.label}, clamped`, symbol: 'V_OH', unit: 'V' },
    { [from.symbol]: from, V_DD: rail, V_F },
    (i: Record<string, Term>) => least(i[from.symbol]!, i.V_DD!.plus(i.V_F!)),
  )

/** What flows through the leg’s own clamp at a voltage above the rail, where its table is known. */
const clampFacts = (chip: Chip, wire: Wire, reaches: Worked, rail: Worked): Fact[] => {
  const driver = chip.io.drivers?.find((d) => d.id === wire.pin.driver)
  const above = reaches.value.max - rail.value.min
  if (!driver?.powerClamp || above <= 0) return []
  const current = tableCurrent(driver.powerClamp, above, 'max')
  const text = formatQuantity(current, 'A', 3)
  return [
    {
      ...say`${volts(above)} above the rail, the clamp of ${legSaid(wire.pin)} takes up to ${text}, if what drives it can give as much`,
      origin: partOrigin(chip, `io.drivers.${driver.id}.powerClamp`, {
        kind: 'guaranteed',
        source: driver.source,
      }),
    },
  ]
}

const digitalLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { chip, rail } = context
  const shift = context.shiftOf(wire, end)
  const stands = chipStands(chip, wire, rail)
  const out = deviceDrives(end, supply)
  if (out) {
    const drives = shift?.divider
      ? scaled(out, throughDivider(shift.divider))
      : shift
        ? {
            ...out,
            high: shift.forward
              ? clamped(out.high, rail, shift.forward)
              : asStated(
                  out.high.label,
                  'V_OH',
                  'V',
                  rail,
                  'Behind the shift it is pulled to the chip’s rail.',
                ),
          }
        : out
    const found = oneWay({ name: legName(wire.pin), drives, reads: chipReads(chip, rail), stands })
    return {
      wire,
      end,
      direction: 'to the chip',
      ...found,
      ...(found.severity === 'stops' && {
        facts: [...found.facts, ...clampFacts(chip, wire, drives.high, rail)],
      }),
      reaches: drives.high,
      stands,
      shift: shift?.kind,
      divider: shift?.divider,
    }
  }
  const reads = deviceReads(end, supply)
  if (!reads || end.signal.electrical.kind !== 'logic-input') return undefined
  const own = chipDrives(chip, wire, rail, (e) => voltageFor(context.supplies, e.instance.need))
  const drives = shift
    ? {
        ...own,
        high: asStated(own.high.label, 'V_OH', 'V', supply, 'Behind the shift it is the far side’s.'),
      }
    : own
  return {
    wire,
    end,
    direction: 'to the device',
    ...oneWay({ name: end.instance.name, drives, reads, stands: deviceStands(end, supply) }),
    reaches: own.high,
    stands,
    shift: shift?.kind,
  }
}

/** Every end of every line whose supplies are known. */
export const levelsOf = (wires: Wire[], context: LevelContext): LineLevel[] =>
  wires
    .filter((w) => !w.impossible)
    .flatMap((wire) =>
      wire.signal.ends.flatMap((end) => {
        const supply = voltageFor(context.supplies, end.instance.need)
        if (!supply) return []
        return (
          analogLevel(wire, end, supply, context) ??
          referenceLevel(wire, end, context) ??
          givenLevel(wire, end, supply, context) ??
          busLevel(wire, end, supply, context) ??
          digitalLevel(wire, end, supply, context) ??
          []
        )
      }),
    )
