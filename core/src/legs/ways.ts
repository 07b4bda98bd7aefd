// What a chip's pin could do for a signal: the ways to serve it, or the reason why it can't.

import type { RadioAnswer } from '../design'
import { askedWord, type SignalNeed } from '../needs'
import type { Chip, ChipPin, PinAttribute, SignalKind, UnitKind } from '../parts'

/** One way to serve a signal on a pin: as a plain leg, or through a unit's line. */
export interface Way {
  /** Absent for plain input and output. */
  unit?: string
  line?: string
  /** The number that selects the function, where it is selected. */
  select?: number
}

export type Ways = { ways: Way[] } | { reason: string }

export const unitFor: Partial<Record<SignalKind, UnitKind>> = {
  'analog-in': 'converter',
  'analog-out': 'dac',
  pwm: 'timer',
  interrupt: 'interrupt',
  touch: 'touch',
  wake: 'wake',
  capture: 'timer',
  quadrature: 'timer',
}
const drivesPin = new Set<SignalKind>([
  'digital-in',
  'analog-in',
  'interrupt',
  'touch',
  'wake',
  'capture',
  'quadrature',
  'reference',
])
const typeWords: Partial<Record<ChipPin['type'], string>> = {
  supply: 'it is a supply leg',
  ground: 'it is a ground leg',
  reference: 'it is the converter’s reference',
  radio: 'it is the antenna’s',
  none: 'it is not connected inside',
}

export const attributeOf = <K extends PinAttribute['kind']>(
  pin: ChipPin,
  kind: K,
): (PinAttribute & { kind: K }) | undefined =>
  pin.attributes?.find((a): a is PinAttribute & { kind: K } => a.kind === kind)

/** Whether the chip drives the line, and not only listens. */
export const isOutput = ({ kind, bus }: Pick<SignalNeed, 'kind' | 'bus'>): boolean =>
  !drivesPin.has(kind) && !(bus?.kind === 'uart' && bus.line === 'RX')

/** Whether the program uses the radio, and what is done about converters that it stops, by signal. */
export interface RadioUse {
  on: boolean
  answers: Record<string, RadioAnswer>
}

/** Whether the unit of this way stops while the radio is on. */
export const stoppedByRadio = (chip: Chip, way: Pick<Way, 'unit'>): boolean =>
  chip.units.some((u) => u.id === way.unit && u.disabledBy?.includes('radio'))

const stopsReading = (chip: Chip, way: Way, signal: SignalNeed, radio: RadioUse | undefined): boolean =>
  (radio?.on ?? false) &&
  stoppedByRadio(chip, way) &&
  !signal.mayPauseRadio &&
  radio?.answers[signal.id] === undefined

type Ability = Required<Pick<Way, 'unit' | 'line'>> & Pick<Way, 'select'> & { kind?: UnitKind }

/** Worked out once for a chip: every question about its plan asks for them again. */
const known = new WeakMap<Chip, Map<string, Ability[]>>()

/** What each pin can be, fixed, selected and by matrix, by pin id. */
const abilitiesOf = (chip: Chip): Map<string, Ability[]> => {
  const before = known.get(chip)
  if (before) return before
  const units = new Map(chip.units.map((u) => [u.id, u]))
  const abilities = new Map<string, Ability[]>()
  for (const pin of chip.pins) {
    const routed = (chip.matrix ?? [])
      .filter((m) => m.pins.includes(pin.id))
      .flatMap((m) => m.units)
      .flatMap((unit) =>
        (units.get(unit)?.signals ?? []).map((line) => ({ unit, line, kind: units.get(unit)?.kind })),
      )
    abilities.set(pin.id, [
      ...(pin.functions ?? []).map((f) => ({
        unit: f.unit,
        line: f.signal,
        select: f.select,
        kind: units.get(f.unit)?.kind,
      })),
      ...routed,
    ])
  }
  known.set(chip, abilities)
  return abilities
}

/** A timer measures and counts where its file says so; an encoder’s lines A and B are on its first two channels. */
const timerCan = (chip: Chip, { unit, line }: Ability, { kind, pair }: SignalNeed): boolean => {
  if (kind !== 'capture' && kind !== 'quadrature') return true
  const timer = chip.units.find((u) => u.id === unit)
  return (
    (timer?.also?.includes(kind) ?? false) &&
    (kind === 'capture' || line === timer!.signals[pair?.line === 'A' ? 0 : 1])
  )
}

/**
 * Ways in which `pin` serves `signal`, from the chip's part file alone. `taken` names pins that something else needs
 * (the crystal, reset) with the reason.
 */
export const waysToServe = (
  chip: Chip,
  pin: ChipPin,
  signal: SignalNeed,
  taken: Record<string, string>,
  radio?: RadioUse,
): Ways => {
  const off = signal.at?.find((seat) => !pin.places?.includes(seat.place))
  if (off) return { reason: `${off.instance.name} has it at its ${off.label}` }
  if (signal.kind === 'reference')
    return pin.type === 'reference' ? { ways: [{}] } : { reason: 'it is not the converter’s reference' }
  const fixed = typeWords[pin.type]
  if (fixed) return { reason: pin.labels && pin.type === 'none' ? 'it carries no signal' : fixed }
  if (Object.hasOwn(taken, pin.id)) return { reason: taken[pin.id]! }
  if (attributeOf(pin, 'flash')) return { reason: 'it is wired to the flash memory' }
  const output = isOutput(signal)
  if (output && (pin.type === 'input' || attributeOf(pin, 'input-only')))
    return { reason: 'it can only be an input' }
  if (!output && pin.type === 'output') return { reason: 'it can only be an output' }
  const kind = signal.bus?.kind ?? unitFor[signal.kind]
  if (!kind) return { ways: [{}] }
  const ways = (abilitiesOf(chip).get(pin.id) ?? [])
    .filter((f) => f.kind === kind && (signal.bus === undefined || f.line === signal.bus.line))
    .filter((f) => timerCan(chip, f, signal))
    .map(({ unit, line, select }): Way => ({ unit, line, select }))
  const heard = ways.filter((w) => !stopsReading(chip, w, signal, radio))
  if (heard.length > 0) return { ways: heard }
  if (ways.length > 0) return { reason: `its converter ${ways[0]!.unit} stops while the radio is on` }
  return { reason: `it has no ${askedWord(signal)}${signal.bus ? ` ${signal.bus.line}` : ''}` }
}
