// What makes one leg a worse choice than another, each with a name and a reason. Costs are whole numbers; only their
// order matters: a leg that can stop the board costs more than any number of wires that move.

import type { SignalNeed } from '../needs'
import { formatQuantity } from '../quantity'
import type { Chip, ChipPin, UnitKind } from '../parts'
import { timerFit } from './timer-fit'
import { attributeOf, type RadioUse, stoppedByRadio, unitFor, type Way } from './ways'

export interface CostItem {
  name: string
  points: number
  reason: string
}

interface CostRule {
  name: string
  /** It looks at what the pin’s file says of it, and is nothing for a pin like any other. */
  ofPin?: true
  cost: (
    signal: SignalNeed,
    pin: ChipPin,
    context: CostContext,
    way: Way,
  ) => { points: number; reason: string } | undefined
}
export interface CostContext {
  chip: Chip
  radio: RadioUse
  kept: Record<string, string>
  /** Hertz of the chip’s clock; absent: timers are not judged. */
  clock?: number
  /** What the pin could be of which there is little: few pins offer it, less how many signals ask for it. */
  scarceOf: (pin: ChipPin) => UnitKind[]
}

/** Whether a device drives this line, against a programmer that drives it too. */
export const isDrivenByDevice = (signal: SignalNeed): boolean =>
  signal.ends.some((e) => e.signal.electrical.kind === 'logic-output' && !e.signal.electrical.openDrain)

const loads = (signal: SignalNeed): boolean =>
  signal.ends.some((e) => ['led', 'switched', 'contact'].includes(e.signal.electrical.kind))

const rules: CostRule[] = [
  {
    name: 'programming leg',
    ofPin: true,
    cost: (signal, pin) => {
      const use = attributeOf(pin, 'programming')
      if (!use) return undefined
      if (isDrivenByDevice(signal))
        return {
          points: 60,
          reason: `${signal.name} drives the line that the programmer drives as ${use.signal}`,
        }
      if (loads(signal))
        return {
          points: 9,
          reason: `${signal.name} loads the programmer’s ${use.signal}, and acts while programming`,
        }
      return { points: 6, reason: `${signal.name} shares the programmer’s ${use.signal}` }
    },
  },
  {
    name: 'debug leg',
    ofPin: true,
    cost: (_, pin) => {
      const use = attributeOf(pin, 'debug')
      return use && { points: 30, reason: `using it gives up the debugger’s ${use.signal}` }
    },
  },
  {
    name: 'start-up strap',
    ofPin: true,
    cost: (signal, pin) => {
      const strap = attributeOf(pin, 'strap')
      return (
        strap && {
          points: 25,
          reason: `sampled at reset: it must be ${strap.needs}, and ${signal.name} hangs on it`,
        }
      )
    },
  },
  {
    name: 'download link',
    ofPin: true,
    cost: (_, pin) =>
      attributeOf(pin, 'download-link') && {
        points: 20,
        reason: 'shared with the line that programs are loaded over',
      },
  },
  {
    name: 'start-up twitch',
    ofPin: true,
    cost: (signal, pin) => {
      const startup = attributeOf(pin, 'startup')
      if (!signal.quiet || !startup || !['pulled-up', 'driven-high', 'chatter'].includes(startup.state))
        return undefined
      return {
        points: 20,
        reason: `${startup.state.replace('-', ' ')} at start-up, and ${signal.name} must stay quiet`,
      }
    },
  },
  {
    name: 'above what it stands',
    cost: ({ reaches }, pin) => {
      const stands = attributeOf(pin, 'tolerant')?.voltage ?? 0
      if (reaches === undefined || stands >= reaches) return undefined
      return {
        points: 15,
        reason: `${formatQuantity(reaches, 'V', 2)} comes from the device, and the leg doesn’t stand it without a shift`,
      }
    },
  },
  {
    name: 'radio paused',
    cost: (signal, _, { chip, radio }, way) =>
      radio.on && stoppedByRadio(chip, way)
        ? radio.answers[signal.id] === 'accept'
          ? { points: 8, reason: `readings of ${signal.name} fail while the radio is on` }
          : { points: 12, reason: `the radio pauses while ${signal.name} is read` }
        : undefined,
  },
  {
    name: 'board part on it',
    ofPin: true,
    cost: (signal, pin) => {
      const lamp = attributeOf(pin, 'on-board-lamp')
      return (
        lamp && {
          points: 5,
          reason: `${lamp.reason ?? 'a lamp of the board hangs on it'}, and follows ${signal.name}`,
        }
      )
    },
  },
  {
    name: 'crystal leg',
    ofPin: true,
    cost: (_, pin) =>
      attributeOf(pin, 'oscillator') && { points: 4, reason: 'kept free, a crystal can be fitted later' },
  },
  {
    name: 'timer too coarse',
    cost: (signal, _, { chip, clock }, way) => {
      const fit = timerFit(chip, signal, way.unit, clock)
      return fit && { points: fit.reaches ? 10 : 40, reason: fit.text }
    },
  },
  {
    name: 'scarce ability spent',
    cost: (signal, pin, { scarceOf }) => {
      const needed = abilitiesFor(signal)
      const spent = scarceOf(pin).filter((kind) => !needed.includes(kind))
      if (spent.length === 0) return undefined
      return {
        points: spent.length,
        reason: `it could be ${spent.map((k) => unitWords[k] ?? k).join(', ')}, of which there are few`,
      }
    },
  },
  {
    name: 'moves a wire',
    cost: (signal, pin, { kept }) => {
      const before = kept[signal.id]
      return before && before !== pin.id
        ? { points: 4, reason: `${signal.name} was on ${before}` }
        : undefined
    },
  },
]

/** What a signal needs of its leg, the ability that it uses up first. An interrupt’s leg may be one that wakes. */
const abilitiesFor = (signal: SignalNeed): UnitKind[] => {
  if (signal.bus) return [signal.bus.kind]
  const unit = unitFor[signal.kind]
  return unit === 'wake' ? ['wake', 'interrupt'] : unit ? [unit] : []
}

const weighs = new Set<UnitKind>([
  'converter',
  'timer',
  'i2c',
  'spi',
  'uart',
  'interrupt',
  'touch',
  'wake',
  'dac',
])
const unitWords: Partial<Record<UnitKind, string>> = {
  converter: 'an analog input',
  timer: 'a PWM output',
  i2c: 'an I2C line',
  spi: 'an SPI line',
  uart: 'a serial line',
  interrupt: 'an interrupt input',
  touch: 'a touch input',
  wake: 'a wake-up input',
  dac: 'an analog output',
}

/** Pins that differ from their neighbours in what a rule weighs; worked out once for a pin. */
const special = new WeakMap<ChipPin, boolean>()
const isSpecial = (pin: ChipPin): boolean => {
  const known = special.get(pin)
  if (known !== undefined) return known
  const found = (pin.attributes ?? []).some((a) => a.kind !== 'tolerant')
  special.set(pin, found)
  return found
}
const always = rules.filter((r) => !r.ofPin)

export const costsOf = (signal: SignalNeed, pin: ChipPin, way: Way, context: CostContext): CostItem[] => {
  const items: CostItem[] = []
  for (const rule of isSpecial(pin) ? rules : always) {
    const cost = rule.cost(signal, pin, context, way)
    if (cost) items.push({ name: rule.name, ...cost })
  }
  return items
}

export const costContext = ({
  chip,
  signals,
  kept,
  radio,
  clock,
}: Omit<CostContext, 'scarceOf'> & { signals: SignalNeed[] }): CostContext => {
  const kindOfUnit = new Map(chip.units.map((u) => [u.id, u.kind]))
  const spare = new Map<UnitKind, number>()
  for (const pin of chip.pins)
    for (const kind of new Set((pin.functions ?? []).map((f) => kindOfUnit.get(f.unit)!)))
      spare.set(kind, (spare.get(kind) ?? 0) + 1)
  for (const s of signals) {
    const [kind] = abilitiesFor(s)
    if (kind) spare.set(kind, (spare.get(kind) ?? 0) - (s.when ? 0 : 1))
  }
  const known = new Map<string, UnitKind[]>()
  const scarceOf = (pin: ChipPin): UnitKind[] => {
    const before = known.get(pin.id)
    if (before) return before
    const able = new Set((pin.functions ?? []).map((f) => kindOfUnit.get(f.unit)!))
    // A leg that wakes the chip by its interrupt has one ability, not two.
    if (able.has('interrupt')) able.delete('wake')
    const scarce = [...able].filter((kind) => (spare.get(kind) ?? Infinity) <= 6 && weighs.has(kind))
    known.set(pin.id, scarce)
    return scarce
  }
  return { chip, radio, kept, clock, scarceOf }
}
