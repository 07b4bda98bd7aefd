// What a chip's pin could do for a signal: the ways to serve it, or the reason why it can't.

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

const unitFor: Partial<Record<SignalKind, UnitKind>> = {
  'analog-in': 'converter',
  'analog-out': 'dac',
  pwm: 'timer',
  interrupt: 'interrupt',
  touch: 'touch',
  wake: 'wake',
}
const drivesPin = new Set<SignalKind>(['digital-in', 'analog-in', 'interrupt', 'touch', 'wake'])
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
): Extract<PinAttribute, { kind: K }> | undefined =>
  pin.attributes?.find((a): a is Extract<PinAttribute, { kind: K }> => a.kind === kind)

const functionsOf = (chip: Chip, pin: ChipPin): Required<Pick<Way, 'unit' | 'line'>>[] => [
  ...(pin.functions ?? []).map((f) => ({ unit: f.unit, line: f.signal, select: f.select })),
  ...(chip.matrix ?? [])
    .filter((m) => m.pins.includes(pin.id))
    .flatMap((m) => m.units)
    .flatMap((id) =>
      (chip.units.find((u) => u.id === id)?.signals ?? []).map((line) => ({ unit: id, line })),
    ),
]

/**
 * Ways in which `pin` serves `signal`, from the chip's part file alone. `taken` names pins that something else needs
 * (the crystal, reset) with the reason.
 */
export const waysToServe = (
  chip: Chip,
  pin: ChipPin,
  signal: SignalNeed,
  taken: Record<string, string>,
): Ways => {
  const fixed = typeWords[pin.type]
  if (fixed) return { reason: fixed }
  if (Object.hasOwn(taken, pin.id)) return { reason: taken[pin.id]! }
  if (attributeOf(pin, 'flash')) return { reason: 'it is wired to the flash memory' }
  const output = !drivesPin.has(signal.kind) && !(signal.bus?.kind === 'uart' && signal.bus.line === 'RX')
  if (output && (pin.type === 'input' || attributeOf(pin, 'input-only')))
    return { reason: 'it can only be an input' }
  if (!output && pin.type === 'output') return { reason: 'it can only be an output' }
  const kind = signal.bus?.kind ?? unitFor[signal.kind]
  if (!kind) return { ways: [{}] }
  const ways = functionsOf(chip, pin).filter(
    (f) =>
      chip.units.find((u) => u.id === f.unit)?.kind === kind &&
      (signal.bus === undefined || f.line === signal.bus.line),
  )
  if (ways.length > 0) return { ways }
  return { reason: `it has no ${askedWord(signal)}${signal.bus ? ` ${signal.bus.line}` : ''}` }
}
