// A microcontroller chip or module: legs, units, what each leg can be, limits, clock, memory, and the support circuit
// its sheet asks for.

import { array, type InferType, number, object, string } from 'yup'
import type { Board } from './board'
import {
  count,
  flag,
  head,
  identifier,
  oneOfKind,
  optionalText,
  packageFields,
  quantity,
  rated,
  text,
} from '../fields'

export const unitKinds = [
  'converter',
  'dac',
  'timer',
  'uart',
  'i2c',
  'spi',
  'can',
  'usb',
  'interrupt',
  'touch',
  'wake',
  'comparator',
  'oscillator',
  'debug',
  'programming',
  'other',
] as const
export type UnitKind = (typeof unitKinds)[number]

const unit = object({
  id: identifier(),
  kind: string().strict(true).oneOf(unitKinds).required(),
  name: text(),
  signals: array().of(identifier()).min(1).max(300).required(),
  /** Bits of a converter or timer. */
  resolution: count().optional(),
  /** By what a timer’s clock can be divided: these … */
  prescalers: array().of(count()).optional(),
  /** … or any whole number up to this. */
  prescalerUpTo: count().optional(),
  /** What a timer can do besides giving pulses. */
  also: array()
    .of(
      string()
        .strict(true)
        .oneOf(['capture', 'quadrature'] as const)
        .required(),
    )
    .optional(),
  /** Input range of a converter; without it, ground to supply. */
  range: rated('V').optional(),
  /** Of a converter: the highest resistance from which it still reads to its last bit, … */
  sourceResistance: rated('Ω', 'recommended').optional(),
  /** … and the capacitance inside it that is charged for each reading. */
  samplingCapacitance: rated('F').optional(),
  /** What stops this unit while it is on: "radio". */
  disabledBy: array().of(text()).optional(),
  source: optionalText(),
}).exact()

/** `ADC.AIN0`, or `TMR1.CH2@3` where function number 3 selects it. */
const pinFunction = object({ unit: identifier(), signal: identifier(), select: count().optional() })
  .transform((value: unknown, original: unknown) => {
    if (typeof original !== 'string') return value
    const match = /^([\w+-]+)\.([\w+-]+)(?:@(\d+))?$/.exec(original)
    if (!match) return { unit: undefined, signal: undefined }
    return { unit: match[1], signal: match[2], ...(match[3] ? { select: Number(match[3]) } : {}) }
  })
  .exact()
  .meta({ written: 'function' })

const why = { reason: optionalText(), source: optionalText() }
const plain = <K extends string>(kind: K) =>
  object({ kind: string<K>().strict(true).oneOf([kind]).required(), ...why }).exact()

/** What makes a leg unlike its neighbours, each with a reason and a source. */
const attribute = oneOfKind({
  'input-only': plain('input-only'),
  'no-pull-up': plain('no-pull-up'),
  'no-pull-down': plain('no-pull-down'),
  flash: plain('flash'),
  oscillator: plain('oscillator'),
  'download-link': plain('download-link'),
  'on-board-lamp': plain('on-board-lamp'),
  'wake-up': plain('wake-up'),
  'loaded-design': plain('loaded-design'),
  reset: object({
    kind: string<'reset'>().strict(true).oneOf(['reset']).required(),
    /** It can serve as a port: what then becomes of programming. */
    asPort: optionalText(),
    ...why,
  }).exact(),
  tolerant: object({
    kind: string<'tolerant'>().strict(true).oneOf(['tolerant']).required(),
    voltage: quantity('V').required(),
    ...why,
  }).exact(),
  strap: object({
    kind: string<'strap'>().strict(true).oneOf(['strap']).required(),
    /** Level sampled at reset and what it leads to. */
    low: text(),
    high: text(),
    /** The level a normal start needs. */
    needs: string().strict(true).oneOf(['low', 'high']).required(),
    /** The chip's own pull while it samples. */
    pull: string().strict(true).oneOf(['up', 'down', 'none']).required(),
    ...why,
  }).exact(),
  programming: object({
    kind: string<'programming'>().strict(true).oneOf(['programming']).required(),
    signal: identifier(),
    /** Who drives the line while programming. */
    drivenBy: string().strict(true).oneOf(['programmer', 'chip']).required(),
    ...why,
  }).exact(),
  debug: object({
    kind: string<'debug'>().strict(true).oneOf(['debug']).required(),
    signal: identifier(),
    ...why,
  }).exact(),
  startup: object({
    kind: string<'startup'>().strict(true).oneOf(['startup']).required(),
    state: string()
      .strict(true)
      .oneOf(['floating', 'pulled-up', 'pulled-down', 'driven-high', 'driven-low', 'chatter'])
      .required(),
    ...why,
  }).exact(),
})

export const pinTypes = ['io', 'input', 'output', 'supply', 'ground', 'reference', 'radio', 'none'] as const

const pin = object({
  /** The name used in this file, normally the port name: `PB3`. */
  id: identifier(),
  legs: array().of(count()).min(1).max(40).required(),
  type: string().strict(true).oneOf(pinTypes).required(),
  /** Which rail a supply, ground or reference leg belongs to. */
  rail: identifier().optional(),
  /** The number used in the program. */
  number: count().optional(),
  /** Further names: on charts, in the core library of the program. */
  names: array().of(text()).optional(),
  functions: array().of(pinFunction).optional(),
  /** Which of `io.drivers` is behind it. */
  driver: identifier().optional(),
  attributes: array()
    .of(attribute as never)
    .optional() as never,
}).exact()

/** A threshold or level as a share of the supply plus a fixed part: V = factor · V_DD + offset. */
const level = object({
  factor: number().strict(true).required(),
  offset: quantity('V').default(0),
  source: optionalText(),
}).exact()

const clockSource = object({
  id: identifier(),
  kind: string().strict(true).oneOf(['internal', 'crystal', 'resonator', 'external']).required(),
  name: text(),
  /** Permitted (or, for an internal one, selectable) frequencies. */
  min: quantity('Hz').required(),
  max: quantity('Hz').required(),
  frequencies: array().of(quantity('Hz').required()).optional(),
  pins: array().of(identifier()).optional(),
  /** Worst deviation over supply and temperature, as a share: 0.1 is ±10 %. */
  tolerance: number().strict(true).min(0).max(1).optional(),
  /** Capacitance of a leg and its traces that a crystal sees on each side. */
  strayCapacitance: rated('F').optional(),
  source: optionalText(),
}).exact()

export const wakeWays = ['clock', 'leg', 'touch'] as const

const mode = object({
  id: identifier(),
  name: text(),
  kind: string().strict(true).oneOf(['active', 'idle', 'sleep']).required(),
  /** Current at standstill; add `perHertz` times the clock. */
  current: rated('A', 'guaranteed').required(),
  perHertz: rated('', 'guaranteed').optional(),
  /** What ends it, in the words of the sheet. */
  wakes: array().of(text()).optional(),
  /** The same to reckon with: its own clock, a leg that has a wake-up function, a touch input. */
  wakeUps: array().of(string().strict(true).oneOf(wakeWays).required()).optional(),
  /** The clock ends it by a wire from this pin to that. */
  wakeWire: object({ from: identifier(), to: identifier() }).exact().default(undefined).optional(),
  retains: optionalText(),
}).exact()

const drop = object({
  current: quantity('A').required(),
  drop: rated('V').required(),
  source: optionalText(),
}).exact()

const limitGroup = object({
  id: identifier(),
  name: text(),
  pins: array().of(identifier()).required(),
  recommended: rated('A', 'recommended').optional(),
  absolute: rated('A', 'absolute').optional(),
}).exact()

/** Current over voltage in three corners, as measured or simulated by the maker; volts ascending. */
const driveTable = () =>
  array()
    .of(object({ voltage: quantity('V').required(), current: rated('A').required() }).exact())
    .min(2)
    .optional()

/** How a leg drives and clamps, from an IBIS file. Voltages count from the rail that the table belongs to. */
const driver = object({
  id: identifier(),
  name: text(),
  type: text(),
  /** The supply in the three corners. */
  supply: rated('V', 'condition').optional(),
  capacitance: rated('F').optional(),
  /** Volts above ground, amperes into the leg. */
  pullDown: driveTable(),
  /** Volts below the supply, amperes out of the leg. */
  pullUp: driveTable(),
  /** Volts above the supply, amperes into the leg. */
  powerClamp: driveTable(),
  /** Volts below ground, amperes out of the leg. */
  groundClamp: driveTable(),
  source: optionalText(),
}).exact()

export const chipSchema = object({
  ...head('chip'),
  family: text(),
  package: packageFields().required(),
  supply: object({
    recommended: rated('V', 'recommended').required(),
    absolute: rated('V', 'absolute').required(),
  })
    .exact()
    .required(),
  /** Of the air around it. */
  temperature: rated('°C', 'recommended').optional(),
  /** Highest clock at a supply; straight between the points, none below the first. */
  frequencyLimits: array()
    .of(
      object({
        supply: quantity('V').required(),
        frequency: quantity('Hz').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(1)
    .required(),
  clockSources: array().of(clockSource).min(1).required(),
  modes: array().of(mode).min(1).required(),
  /** From a supply that is enough to the first line of the program. */
  startUp: rated('s').optional(),
  memory: object({ program: count(), data: count(), stored: count(), loader: count().optional() })
    .exact()
    .required(),
  io: object({
    inputHigh: level.required(),
    inputLow: level.required(),
    outputHigh: array().of(drop).min(1).required(),
    outputLow: array().of(drop).min(1).required(),
    leakage: rated('A').required(),
    capacitance: rated('F').required(),
    /** How far above the supply an ordinary leg may be taken. */
    aboveSupply: rated('V', 'absolute').required(),
    pullUp: rated('Ω').optional(),
    pullDown: rated('Ω').optional(),
    drivers: array().of(driver).optional(),
  })
    .exact()
    .required(),
  limits: object({
    pinRecommended: rated('A', 'recommended').required(),
    pinAbsolute: rated('A', 'absolute').required(),
    groups: array().of(limitGroup).optional(),
    total: rated('A', 'recommended').required(),
    totalAbsolute: rated('A', 'absolute').optional(),
  })
    .exact()
    .required(),
  /** How a leg comes to one of its functions: wired for good, or one selected of several. */
  routing: string().strict(true).oneOf(['fixed', 'selected']).required(),
  units: array().of(unit).required(),
  /** Any signal of these units to any of these pins. */
  matrix: array()
    .of(
      object({
        units: array().of(identifier()).required(),
        pins: array().of(identifier()).required(),
        source: optionalText(),
      }).exact(),
    )
    .optional(),
  pins: array().of(pin).min(1).required(),
  /** What it draws while the radio is on, beside the clock’s mode. */
  radio: object({ name: text(), current: rated('A').required() })
    .exact()
    .default(undefined)
    .optional(),
  programming: array()
    .of(
      object({
        id: identifier(),
        name: text(),
        voltage: rated('V', 'recommended').optional(),
        /** Signals in the order of the header's contacts; `supply`, `ground` or a pin id as `at`. */
        contacts: array()
          .of(object({ signal: identifier(), at: identifier() }).exact())
          .min(2)
          .required(),
        source: optionalText(),
      }).exact(),
    )
    .min(1)
    .required(),
  /** Bytes chosen when programming: which bits mean what. */
  configuration: array()
    .of(
      object({
        id: identifier(),
        name: text(),
        default: count(),
        fields: array()
          .of(
            object({
              id: identifier(),
              name: text(),
              bits: array().of(count()).required(),
              choices: array()
                .of(object({ value: count(), means: text(), locksOut: flag() }).exact())
                .required(),
              source: optionalText(),
            }).exact(),
          )
          .required(),
      }).exact(),
    )
    .optional(),
  support: object({
    decoupling: array()
      .of(
        object({
          pin: identifier(),
          capacitance: quantity('F').required(),
          within: quantity('m').optional(),
          source: optionalText(),
        }).exact(),
      )
      .required(),
    bulk: quantity('F').optional(),
    reset: object({
      pin: identifier(),
      pullUp: rated('Ω', 'recommended').required(),
      internalPullUp: rated('Ω').optional(),
      source: optionalText(),
    })
      .exact()
      .default(undefined)
      .optional(),
    source: optionalText(),
  })
    .exact()
    .required(),
}).exact()

/** One leg attribute, as the file gives it. */
export type PinAttribute = { reason?: string; source?: string } & (
  | {
      kind:
        | 'input-only'
        | 'no-pull-up'
        | 'no-pull-down'
        | 'flash'
        | 'oscillator'
        | 'download-link'
        | 'on-board-lamp'
        | 'wake-up'
        | 'loaded-design'
    }
  | { kind: 'reset'; asPort?: string }
  | { kind: 'tolerant'; voltage: number }
  | { kind: 'strap'; low: string; high: string; needs: 'low' | 'high'; pull: 'up' | 'down' | 'none' }
  | { kind: 'programming'; signal: string; drivenBy: 'programmer' | 'chip' }
  | { kind: 'debug'; signal: string }
  | {
      kind: 'startup'
      state: 'floating' | 'pulled-up' | 'pulled-down' | 'driven-high' | 'driven-low' | 'chatter'
    }
)
type RawChip = InferType<typeof chipSchema>
export type ChipPin = Omit<RawChip['pins'][number], 'attributes'> & {
  attributes?: PinAttribute[]
  /** On a board: what is printed beside each of its header positions, in the order of `legs`. Never in a file. */
  labels?: string[]
  /** On a board: its header positions as expansion boards know them, `trestle main.3`. Never in a file. */
  places?: string[]
}
export type Chip = Omit<RawChip, 'pins' | 'kind'> & {
  kind: 'chip'
  pins: ChipPin[]
  /** The board that carries it, when a board was chosen (see `carrierOf`). Never in a file. */
  board?: Board
  /** Other boards of the same header that the plan must hold on as well. Never in a file. */
  alsoOn?: Chip[]
}
export type LegDriver = NonNullable<Chip['io']['drivers']>[number]
export type ChipUnit = Chip['units'][number]
export type ClockSource = Chip['clockSources'][number]
