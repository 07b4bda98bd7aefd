// Something a project needs besides its chip: a sensor, a display, a button. It has terminals, one or more ways of
// wiring it, currents by mode, and variants that differ from maker to maker.

import { array, type InferType, lazy, number, object, string } from 'yup'
import {
  count,
  flag,
  head,
  identifier,
  oneOfKind,
  optionalText,
  quantity,
  type Rated,
  rated,
  recordOf,
  text,
} from '../fields'
import { link } from './link'

const terminal = object({
  id: identifier(),
  role: string().strict(true).oneOf(['supply', 'ground', 'signal', 'passive']).required(),
  /** A terminal that another maker leaves out, and where the line then rests. */
  optional: flag(),
  restsAt: string().strict(true).oneOf(['ground', 'supply', 'floating']).optional(),
  label: optionalText(),
}).exact()

const level = object({ factor: number().strict(true).required(), offset: quantity('V').default(0) }).exact()
const kindOf = <K extends string>(kind: K) => string<K>().strict(true).oneOf([kind]).required()

/** What sits at the device's end of the wire. */
const electrical = oneOfKind({
  /** The device listens. */
  'logic-input': object({
    kind: kindOf('logic-input'),
    high: level.required(),
    low: level.required(),
    leakage: rated('A').optional(),
    pull: string().strict(true).oneOf(['up', 'down']).optional(),
    pullResistance: rated('Ω').optional(),
  }).exact(),
  /** The device drives. */
  'logic-output': object({
    kind: kindOf('logic-output'),
    high: rated('V').optional(),
    openDrain: flag(),
  }).exact(),
  /** Two-way open-drain line with pull-ups: I2C. */
  'open-drain': object({
    kind: kindOf('open-drain'),
    sinkCurrent: rated('A').required(),
    capacitance: rated('F').required(),
    fitted: rated('Ω').optional(),
  }).exact(),
  /** A light-emitting diode between the leg and ground or supply, through a resistor of ours. */
  led: object({
    kind: kindOf('led'),
    led: identifier(),
    current: quantity('A').required(),
    to: string().strict(true).oneOf(['ground', 'supply']).required(),
    power: identifier().optional(),
  }).exact(),
  /** A contact that closes to ground; behind a diode it pulls the line no lower than what falls in that. */
  contact: object({
    kind: kindOf('contact'),
    behindDiode: flag(),
    leakage: rated('A').optional(),
    capacitance: rated('F').optional(),
  }).exact(),
  /** A load switched by a transistor of ours: on its ground side, or in its plus where that is a p-channel one. */
  switched: object({
    kind: kindOf('switched'),
    transistor: identifier(),
    inductive: flag(),
    diode: identifier().optional(),
    current: rated('A').required(),
    grounded: flag(),
  }).exact(),
  /** A voltage that the chip’s converters measure against. */
  reference: object({ kind: kindOf('reference'), voltage: rated('V').required() }).exact(),
  /** The device listens to a voltage, and takes a current for it. */
  'analog-load': object({
    kind: kindOf('analog-load'),
    resistance: rated('Ω').required(),
    /** What it stands, where that is less than its supply. */
    max: quantity('V').optional(),
  }).exact(),
  /** A voltage to be measured. */
  analog: object({
    kind: kindOf('analog'),
    max: quantity('V').optional(),
    sourceResistance: rated('Ω').optional(),
    dividerTo: string().strict(true).oneOf(['ground', 'supply']).optional(),
    divider: quantity('Ω').optional(),
  }).exact(),
})

export const signalKinds = [
  'digital-out',
  'digital-in',
  'analog-in',
  'analog-out',
  'pwm',
  'interrupt',
  'touch',
  'wake',
  'bus',
  /** Pulses whose length or rate a timer measures. */
  'capture',
  /** One of the two lines of an encoder that a timer counts up and down; `line` says which: A or B. */
  'quadrature',
  /** One line on which both ends pull down and neither drives high. */
  'open-drain',
  /** A voltage for the converters to measure against. */
  'reference',
] as const
export type SignalKind = (typeof signalKinds)[number]

const signal = object({
  id: identifier(),
  terminal: identifier(),
  kind: string().strict(true).oneOf(signalKinds).required(),
  /** For `bus`: which bus and which of its lines. A select of an SPI device is a plain `digital-out`. */
  bus: string().strict(true).oneOf(['i2c', 'spi', 'uart', 'can']).optional(),
  line: identifier().optional(),
  /** For `pwm`: the frequency its timer must have. */
  frequency: quantity('Hz').optional(),
  /** Frequencies that do as well, where the exact one doesn’t matter: then a timer can be shared. */
  frequencyRange: rated('Hz', 'recommended').optional(),
  /** For `pwm`: the pulses that say something, where that is less than the whole period: a servo’s 1 to 2 ms. */
  pulse: object({ shortest: quantity('s').required(), longest: quantity('s').required() })
    .exact()
    .default(undefined)
    .optional(),
  /** Bits a second that the line must carry, where that is more than a few edges a millisecond. */
  rate: quantity('Hz').optional(),
  /** Where lengths of pulses say something: how far off the chip’s may be, as a share. */
  timing: number().strict(true).min(0).max(1).optional(),
  /** The load must not twitch before the program runs. */
  quiet: flag(),
  /** The reading can wait until the radio is paused. */
  mayPauseRadio: flag(),
  electrical: electrical as never,
  /** Of an expansion board: the header position it sits at, `main.3`. */
  at: optionalText(),
  source: optionalText(),
}).exact()

const linkPositions = lazy((value: unknown) =>
  recordOf(value, identifier).default(undefined).optional(),
) as never

const wiring = object({
  id: identifier(),
  name: text(),
  signals: array().of(signal).required(),
  /** Positions of the device's links for this wiring: {link: position}. */
  links: linkPositions,
  address: count().optional(),
  /** Speeds of an I2C bus that the device keeps up with; the specification asks each for 100 kHz. */
  busSpeed: rated('Hz', 'recommended').optional(),
  /** Other addresses that its address links can give it, by link position. */
  addresses: array()
    .of(object({ address: count(), links: linkPositions }).exact())
    .optional(),
  /**
   * Several can follow one another: what the chip sends enters the first at this signal and goes on from this terminal
   * into the next; the other lines they share. A signal to the chip at that terminal comes from the last.
   */
  chain: object({ in: identifier(), out: identifier() }).exact().default(undefined).optional(),
  /** Signals that make a byte, lowest bit first. */
  byte: array().of(identifier()).min(2).max(32).optional(),
}).exact()

const mode = object({
  id: identifier(),
  name: text(),
  current: rated('A').required(),
  /** Share of the time spent in it, where the device itself decides. */
  share: number().strict(true).min(0).max(1).optional(),
}).exact()

const variant = object({
  id: identifier(),
  name: text(),
  maker: optionalText(),
  missing: array()
    .of(
      object({
        terminal: identifier(),
        restsAt: string().strict(true).oneOf(['ground', 'supply', 'floating']).required(),
      }).exact(),
    )
    .optional(),
  address: count().optional(),
  supply: rated('V', 'recommended').optional(),
  tried: flag(),
  source: optionalText(),
}).exact()

export const cautionKinds = ['mains', 'lithium', 'heat', 'motor', 'eyes', 'light'] as const

export const deviceSchema = object({
  ...head('device'),
  /** What sort of thing: "display", "button". Typed names are matched against it as well. */
  group: text(),
  terminals: array().of(terminal).min(1).required(),
  supply: rated('V', 'recommended').optional(),
  supplyAbsolute: rated('V', 'absolute').optional(),
  /** Currents from the rail. The first mode is rest, the last is full work. */
  modes: array().of(mode).required(),
  wirings: array().of(wiring).min(1).required(),
  /** The wirings do the same work: unless the builder says, the pin planner takes the one that fits best. */
  planChooses: flag(),
  links: array().of(link).optional(),
  variants: array().of(variant).optional(),
  /** Program and data memory its driver code takes, in bytes. */
  memory: object({ program: count(), data: count() }).exact().required(),
  height: quantity('m').optional(),
  /** A button that switches the project’s supply on, until the program lets go: what is proposed to lie in the plus, and its diodes. */
  latch: object({ pass: identifier(), diode: identifier() }).exact().default(undefined).optional(),
  /** A bridge: what is joined to the two terminals of one of its outputs turns either way, or stands still. */
  drives: object({
    /** Terminals, both of role `passive`. */
    outputs: array()
      .of(object({ one: identifier(), other: identifier() }).exact())
      .min(1)
      .required(),
    /** Of each output: for as long as one likes, and for a moment. */
    current: rated('A', 'recommended').required(),
    peak: rated('A', 'absolute').optional(),
    /** Of the two switches in a load’s way together; of bipolar ones what falls in them. */
    resistance: rated('Ω').optional(),
    drop: rated('V').optional(),
    /** Diodes inside catch what a coil does when it is let go. */
    clamped: flag(),
    thermalResistance: rated('K/W').optional(),
  })
    .exact()
    .default(undefined)
    .optional(),
  /** A board that is plugged onto the header of another: which footprint, and what it prints beside each position. */
  expansion: object({
    fits: text(),
    positions: array()
      .of(object({ at: text(), label: text() }).exact())
      .min(1)
      .required(),
    /** It doesn’t pass the header on: nothing goes on top. */
    top: flag(),
  })
    .exact()
    .default(undefined)
    .optional(),
  cautions: array().of(string().strict(true).oneOf(cautionKinds).required()).optional(),
}).exact()

export type Electrical =
  | {
      kind: 'logic-input'
      high: { factor: number; offset: number }
      low: { factor: number; offset: number }
      leakage?: RatedValue
      pull?: 'up' | 'down'
      pullResistance?: RatedValue
    }
  | { kind: 'logic-output'; high?: RatedValue; openDrain?: boolean }
  | { kind: 'open-drain'; sinkCurrent: RatedValue; capacitance: RatedValue; fitted?: RatedValue }
  | { kind: 'led'; led: string; current: number; to: 'ground' | 'supply'; power?: string }
  /** A terminal that this variant lacks, its position tied for good. */
  | { kind: 'tied'; to: 'ground' | 'supply' }
  | { kind: 'reference'; voltage: RatedValue }
  | { kind: 'analog-load'; resistance: RatedValue; max?: number }
  | { kind: 'contact'; behindDiode?: boolean; leakage?: RatedValue; capacitance?: RatedValue }
  | {
      kind: 'switched'
      transistor: string
      inductive?: boolean
      diode?: string
      current: RatedValue
      /** Its minus lies on its housing, and on whatever that touches. */
      grounded?: boolean
      /** Set where the transistor is a p-channel one: it lies in the load’s plus then, not below it. */
      plus?: true
    }
  | {
      kind: 'analog'
      max?: number
      sourceResistance?: RatedValue
      dividerTo?: 'ground' | 'supply'
      divider?: number
    }
type RatedValue = Rated
type RawDevice = InferType<typeof deviceSchema>
type RawWiring = RawDevice['wirings'][number]
export type DeviceSignal = Omit<RawWiring['signals'][number], 'electrical'> & { electrical: Electrical }
export type LinkPositions = Record<string, string>
export type DeviceWiring = Omit<RawWiring, 'signals' | 'links' | 'addresses'> & {
  signals: DeviceSignal[]
  links?: LinkPositions
  addresses?: { address: number; links?: LinkPositions }[]
}
export type Device = Omit<RawDevice, 'wirings' | 'kind'> & { kind: 'device'; wirings: DeviceWiring[] }
