// Every line checked in both directions: what is driven against what is read, and against what each side stands.

import type { Supplies } from '../../circuit'
import { supplyOf } from '../../circuit'
import type { ShiftKind } from '../../design'
import { divided, noiseMargin, tableCurrent } from '../../electrical'
import {
  type Fact,
  fromPart,
  fromWorked,
  type Grade,
  partOrigin,
  type Severity,
  type Worked,
} from '../../findings'
import type { Chip } from '../../parts'
import { exactly, formatQuantity, fullRange, type Range } from '../../quantity'
import { legName } from '../passport'
import type { Wire } from '../plan'
import {
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
  /** What is left above and below the thresholds, and below what each side stands. */
  margins: Worked[]
  facts: Fact[]
  /** The highest voltage that reaches the leg, and what it must not exceed. */
  reaches: Worked
  stands: Worked
  shift?: ShiftKind
}

interface Side {
  name: string
  drives: Levels
  reads: Levels
  stands: Worked
}

const margin = (label: string, symbol: string, over: Worked, under: Worked, together: boolean): Worked => ({
  label,
  symbol,
  value: noiseMargin(over.value, under.value, together),
  unit: 'V',
  formula: `${over.symbol} − ${under.symbol}`,
  inputs: [fromWorked(over), fromWorked(under)],
  note: together
    ? 'Both follow one supply: compared corner by corner.'
    : 'The least of one against the greatest of the other.',
})

const worst = (all: Worked[], corner: keyof Range): number => Math.min(...all.map((m) => m.value[corner]))

const gradeOf = (margins: Worked[]): Grade =>
  worst(margins, 'min') >= -1e-9
    ? 'guaranteed'
    : worst(margins, 'typ') >= 0
      ? 'typical'
      : worst(margins, 'max') >= 0
        ? 'outside the sheet'
        : 'impossible'

const volts = (v: number) => formatQuantity(v, 'V', 3)

/** One side driving, the other reading. */
const oneWay = (
  side: Side,
  together: boolean,
  /** What drives it is no higher than what the side runs on, whatever that is just now. */
  ownSupply = together,
): Pick<LineLevel, 'grade' | 'severity' | 'text' | 'margins' | 'facts'> => {
  const { drives, reads, stands, name } = side
  const margins = [
    margin(`Margin of a high at ${name}`, 'NM_H', drives.high, reads.high, together),
    margin(`Margin of a low at ${name}`, 'NM_L', reads.low, drives.low, together),
  ]
  const facts = [
    {
      text: `High is ${volts(drives.high.value.min)} to ${volts(drives.high.value.max)}`,
      worked: drives.high,
    },
    { text: `${name} reads high from ${volts(reads.high.value.max)}`, worked: reads.high },
    { text: `${name} stands ${volts(stands.value.min)}`, worked: stands },
  ]
  if (drives.high.value.max > stands.value.min + 1e-9 && !ownSupply)
    return {
      grade: 'outside the sheet',
      severity: 'stops',
      margins,
      facts,
      text: `up to ${volts(drives.high.value.max)} reaches ${name}, which stands ${volts(stands.value.min)}`,
    }
  const grade = gradeOf(margins)
  const low = margins[1]!.value.min < margins[0]!.value.min
  return {
    grade,
    severity: grade === 'guaranteed' ? undefined : grade === 'impossible' ? 'stops' : 'risks',
    margins,
    facts,
    text:
      grade === 'guaranteed'
        ? ''
        : low
          ? `a low of up to ${volts(drives.low.value.max)} reaches ${name}, which reads low below ${volts(reads.low.value.min)}`
          : `as little as ${volts(drives.high.value.min)} reaches ${name}, which reads high from ${volts(reads.high.value.max)}`,
  }
}

const scaled = (levels: Levels, by: (w: Worked) => Worked): Levels => ({
  high: by(levels.high),
  low: by(levels.low),
})

export interface LevelContext {
  chip: Chip
  rail: Worked
  supplies: Supplies
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
  /** What is fitted in the line, with the levels it lets through. */
  shiftOf: (wire: Wire, end: End) => { kind: ShiftKind; top?: Range; bottom?: Range } | undefined
}

const throughDivider =
  (top: Range, bottom: Range) =>
  (from: Worked): Worked => ({
    ...from,
    label: `${from.label}, divided`,
    value: divided(from.value, top, bottom),
    formula: `${from.symbol} · R_2 / (R_1 + R_2)`,
    inputs: [
      fromWorked(from),
      {
        symbol: 'R_1',
        label: 'upper resistor',
        value: top,
        unit: 'Ω',
        origin: { kind: 'rule', source: 'fitted value and its tolerance' },
      },
      {
        symbol: 'R_2',
        label: 'lower resistor',
        value: bottom,
        unit: 'Ω',
        origin: { kind: 'rule', source: 'fitted value and its tolerance' },
      },
    ],
  })

const clean = (grade: Grade = 'guaranteed'): Pick<LineLevel, 'grade' | 'severity' | 'text'> => ({
  grade,
  severity: undefined,
  text: '',
})

/** A voltage to be measured, against the converter’s range and the leg. */
const analogLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { electrical } = end.signal
  // A resistance divides the rail, which is the range unless a reference is wired in.
  if (electrical.kind !== 'analog' || (electrical.dividerTo && !context.reference)) return undefined
  const { chip, rail } = context
  const { name } = end.instance
  const source: Worked =
    electrical.max === undefined
      ? { ...(electrical.dividerTo ? rail : supply), label: `Highest level of ${name}`, symbol: 'V_sig' }
      : statedVoltage(`Highest level of ${name}`, 'V_sig', end, 'max', {
          typ: electrical.max,
          kind: 'guaranteed',
        })
  const shift = context.shiftOf(wire, end)
  const reaches = shift?.top && shift.bottom ? throughDivider(shift.top, shift.bottom)(source) : source
  const stands = chipStands(chip, wire, rail)
  const range = converterRange(chip, wire, rail, context.reference)
  const together = electrical.max === undefined && supply === rail && !shift && !context.reference
  const margins = [
    margin('Below the top of the range', 'M_range', range, reaches, together),
    margin('Below what the leg stands', 'M_leg', stands, reaches, together),
  ]
  const over = !together && reaches.value.max > stands.value.min + 1e-9
  const above = reaches.value.max > range.value.max + 1e-9
  return {
    wire,
    end,
    direction: 'to the chip',
    margins,
    reaches,
    stands: { ...stands, value: exactly(Math.min(stands.value.min, range.value.min)) },
    shift: shift?.kind,
    facts: [
      { text: `${name} gives up to ${volts(source.value.max)}`, worked: source },
      ...(shift ? [{ text: `Divided, ${volts(reaches.value.max)} reaches the leg`, worked: reaches }] : []),
      { text: `The converter’s range ends at ${volts(range.value.min)}`, worked: range },
      { text: `${legName(wire.pin)} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(over
      ? {
          grade: 'outside the sheet' as const,
          severity: 'stops' as const,
          text: `up to ${volts(reaches.value.max)} reaches ${legName(wire.pin)}, which stands ${volts(stands.value.min)}`,
        }
      : above && !together
        ? {
            grade: margins[0]!.value.typ >= 0 ? ('typical' as const) : ('outside the sheet' as const),
            severity: 'risks' as const,
            text: `it goes up to ${volts(reaches.value.max)}, and all above ${volts(range.value.max)} reads as the top code`,
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
  const left = margin('Below the supply', 'M_ref', rail, gives, false)
  const over = gives.value.max > stands.value.min + 1e-9
  return {
    wire,
    end,
    direction: 'to the chip',
    margins: [left],
    reaches: gives,
    stands,
    facts: [
      { text: `${end.instance.name} gives up to ${volts(gives.value.max)}`, worked: gives },
      { text: `The supply is ${volts(rail.value.min)} to ${volts(rail.value.max)}`, worked: rail },
      { text: `${legName(wire.pin)} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(over
      ? {
          grade: 'outside the sheet' as const,
          severity: 'stops' as const,
          text: `up to ${volts(gives.value.max)} reaches ${legName(wire.pin)}, which stands ${volts(stands.value.min)}`,
        }
      : left.value.min < -1e-9
        ? {
            grade: 'outside the sheet' as const,
            severity: 'risks' as const,
            text: `a reference of up to ${volts(gives.value.max)} is above the supply, which is down to ${volts(rail.value.min)}`,
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
  const reaches: Worked = { ...rail, label: `Highest voltage to ${name}`, symbol: 'V_out' }
  const stands: Worked =
    electrical.max === undefined
      ? deviceStands(end, supply)
      : statedVoltage(`What ${name} stands`, 'V_max', end, 'max', {
          typ: electrical.max,
          kind: 'guaranteed',
        })
  const left = margin('Below what it stands', 'M_out', stands, reaches, false)
  // On one rail what the chip gives is never above what the device runs on.
  const fine = (supply === rail && electrical.max === undefined) || left.value.min >= -1e-9
  return {
    wire,
    end,
    direction: 'to the device',
    margins: [left],
    reaches,
    stands: chipStands(chip, wire, rail),
    facts: [
      { text: `The leg gives up to its supply, ${volts(reaches.value.max)}`, worked: reaches },
      { text: `${name} stands ${volts(stands.value.min)}`, worked: stands },
    ],
    ...(fine
      ? clean()
      : {
          grade: 'outside the sheet' as const,
          severity: 'risks' as const,
          text: `up to ${volts(reaches.value.max)} reaches ${name}, which stands ${volts(stands.value.min)}: the program must keep below it`,
        }),
  }
}

/** What a full converter code stands for: the reference that is wired in, else its own range, else the rail. */
export const converterRange = (chip: Chip, wire: Wire, rail: Worked, reference?: Worked): Worked => {
  if (reference)
    return {
      ...reference,
      label: 'Range of the converter',
      symbol: 'V_ref',
      formula: 'V_ext',
      inputs: [fromWorked(reference)],
    }
  const own = wire.unit?.range
  return {
    label: 'Range of the converter',
    symbol: 'V_ref',
    value: own ? exactly(fullRange(own).max) : rail.value,
    unit: 'V',
    formula: own ? 'V_range' : 'V_DD',
    inputs: [
      own
        ? fromPart('V_range', wire.unit!.name, chip, `units.${wire.unit!.id}.range`, own, 'V')
        : fromWorked(rail),
    ],
  }
}

/** An I2C line: pulled to the chip’s rail, and to the device’s supply where pull-ups sit on its own board. */
const busLevel = (wire: Wire, end: End, supply: Worked, context: LevelContext): LineLevel | undefined => {
  const { electrical } = end.signal
  if (electrical.kind !== 'open-drain') return undefined
  const { chip, rail } = context
  const shift = context.shiftOf(wire, end)
  const apart = supply !== rail
  const fittedHere = apart && electrical.fitted !== undefined && !shift
  const pulled: Worked = fittedHere
    ? {
        label: `High level of ${wire.signal.name}`,
        symbol: 'V_OH',
        value: {
          min: Math.min(rail.value.min, supply.value.min),
          typ: (rail.value.typ + supply.value.typ) / 2,
          max: Math.max(rail.value.max, supply.value.max),
        },
        unit: 'V',
        formula: `${rail.symbol} … ${supply.symbol}`,
        inputs: [fromWorked(rail), fromWorked(supply)],
        note: `Pulled to both: the pull-ups on ${end.instance.name} go to its own supply.`,
      }
    : { ...rail, label: `High level of ${wire.signal.name}`, symbol: 'V_OH' }
  const low: Worked = {
    label: 'Low level of a bus line',
    symbol: 'V_OL',
    value: { min: 0, typ: 0.2, max: 0.4 },
    unit: 'V',
    formula: 'V_OL',
    inputs: [],
    note: 'I2C-bus specification, table 9.',
  }
  const farDrives = { high: shift ? { ...supply, symbol: 'V_OH' } : pulled, low }
  const nearDrives = { high: pulled, low }
  const chipEnd = oneWay(
    {
      name: legName(wire.pin),
      drives: nearDrives,
      reads: chipReads(chip, rail),
      stands: chipStands(chip, wire, rail),
    },
    !fittedHere,
  )
  const deviceEnd = oneWay(
    {
      name: end.instance.name,
      drives: farDrives,
      reads: deviceReads(end, supply)!,
      stands: deviceStands(end, supply),
    },
    shift !== undefined || !apart,
    // Its own pull-ups go to its own supply: only the rail can be above that.
    shift !== undefined || !apart || rail.value.max <= deviceStands(end, supply).value.min,
  )
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

/** What a clamp lets through: the lower of what comes and the rail. */
const lower = (from: Worked, rail: Worked): Worked => ({
  label: `${from.label}, clamped`,
  symbol: 'V_OH',
  value: {
    min: Math.min(from.value.min, rail.value.min),
    typ: Math.min(from.value.typ, rail.value.typ),
    max: Math.min(from.value.max, rail.value.max),
  },
  unit: 'V',
  formula: `min(${from.symbol}, ${rail.symbol})`,
  inputs: [fromWorked(from), fromWorked(rail)],
})

/** What flows through the leg’s own clamp at a voltage above the rail, where its table is known. */
const clampFacts = (chip: Chip, wire: Wire, reaches: Worked, rail: Worked): Fact[] => {
  const driver = chip.io.drivers?.find((d) => d.id === wire.pin.driver)
  const above = reaches.value.max - rail.value.min
  if (!driver?.powerClamp || above <= 0) return []
  const current = tableCurrent(driver.powerClamp, above, 'min')
  const text = formatQuantity(current, 'A', 3)
  return [
    {
      text: `${volts(above)} above the rail, the clamp of ${legName(wire.pin)} takes up to ${text}, if what drives it can give as much`,
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
    const own = end.signal.electrical.kind === 'logic-output' && end.signal.electrical.high === undefined
    const drives =
      shift?.top && shift.bottom
        ? scaled(out, throughDivider(shift.top, shift.bottom))
        : shift
          ? { ...out, high: shift.kind === 'clamp' ? lower(out.high, rail) : { ...rail, symbol: 'V_OH' } }
          : out
    const side = { name: legName(wire.pin), drives, reads: chipReads(chip, rail), stands }
    const verdict = (together: boolean) => {
      const found = oneWay(side, together)
      return found.severity === 'stops'
        ? { ...found, facts: [...found.facts, ...clampFacts(chip, wire, drives.high, rail)] }
        : found
    }
    const together =
      (own && supply === rail && !shift) || (shift !== undefined && !shift.top && shift.kind !== 'clamp')
    return {
      wire,
      end,
      direction: 'to the chip',
      ...verdict(together),
      reaches: drives.high,
      stands,
      shift: shift?.kind,
    }
  }
  const reads = deviceReads(end, supply)
  if (!reads || end.signal.electrical.kind !== 'logic-input') return undefined
  const own = chipDrives(chip, wire.pin, rail, end)
  const drives = shift ? { ...own, high: { ...supply, symbol: 'V_OH' } } : own
  const side = { name: end.instance.name, drives, reads, stands: deviceStands(end, supply) }
  return {
    wire,
    end,
    direction: 'to the device',
    ...oneWay(side, supply === rail || shift !== undefined),
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
        const supply = supplyOf(context.supplies, end.instance.need)
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
