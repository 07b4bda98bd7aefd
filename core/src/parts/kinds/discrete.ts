// The small parts: diodes, LEDs, transistors, crystals, resonators, series of resistors and capacitors, connectors.

import { array, type InferType, number, object, string } from 'yup'
import { count, flag, head, optionalText, packageFields, quantity, rated, text } from '../fields'

/** A diode's curve as points, least current first; straight between them. */
const curve = () =>
  array()
    .of(
      object({
        current: quantity('A').required(),
        voltage: rated('V').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(1)
    .required()

export const ledSchema = object({
  ...head('led'),
  colour: text(),
  forward: curve(),
  current: rated('A', 'recommended').required(),
  currentAbsolute: rated('A', 'absolute').required(),
  diameter: quantity('m').optional(),
}).exact()

export const diodeSchema = object({
  ...head('diode'),
  sort: string().strict(true).oneOf(['schottky', 'silicon', 'zener']).required(),
  forward: curve(),
  current: rated('A', 'recommended').required(),
  reverse: rated('V', 'absolute').required(),
  /** Through it the wrong way round. */
  leakage: rated('A').optional(),
  package: packageFields().required(),
}).exact()

export const transistorSchema = object({
  ...head('transistor'),
  sort: string().strict(true).oneOf(['n-mosfet', 'p-mosfet', 'npn', 'pnp']).required(),
  /** Of the gate against the source; of a p-channel one below it, told without its sign. */
  threshold: rated('V').optional(),
  /** Channel resistance at these gate voltages, told in the same way. */
  channel: array()
    .of(
      object({
        gate: quantity('V').required(),
        resistance: rated('Ω').required(),
        source: optionalText(),
      }).exact(),
    )
    .optional(),
  gain: rated('').optional(),
  /** Of a bipolar one, from collector to emitter with a tenth of the collector’s current in the base. */
  saturation: rated('V').optional(),
  /** From base to emitter then. */
  baseEmitter: rated('V').optional(),
  current: rated('A', 'recommended').required(),
  voltage: rated('V', 'absolute').required(),
  /** Between gate and source, either way. */
  gateVoltage: rated('V', 'absolute').optional(),
  gateCapacitance: rated('F').optional(),
  /** The part of it that lies between gate and drain. */
  drainCapacitance: rated('F').optional(),
  gateLeakage: rated('A').optional(),
  /** Through the channel while it is off. */
  leakage: rated('A').optional(),
  package: packageFields().required(),
  legs: array()
    .of(
      object({
        leg: count(),
        role: string()
          .strict(true)
          .oneOf(['gate', 'drain', 'source', 'base', 'collector', 'emitter'])
          .required(),
      }).exact(),
    )
    .min(3)
    .required(),
}).exact()

export const crystalSchema = object({
  ...head('crystal'),
  frequency: quantity('Hz').required(),
  loadCapacitance: quantity('F').required(),
  /** As shares, not ppm: 30 ppm is 30e-6. */
  tolerance: number().strict(true).min(0).max(0.1).required(),
  temperature: number().strict(true).min(0).max(0.1).required(),
  ageing: number().strict(true).min(0).max(0.1).required(),
  motional: quantity('F').optional(),
  shunt: quantity('F').optional(),
  resistance: rated('Ω').optional(),
  package: packageFields().required(),
}).exact()

export const resonatorSchema = object({
  ...head('resonator'),
  frequency: quantity('Hz').required(),
  tolerance: number().strict(true).min(0).max(0.1).required(),
  capacitorsInside: flag(),
  package: packageFields().required(),
}).exact()

const seriesName = () => string().strict(true).oneOf(['E6', 'E12', 'E24', 'E48', 'E96']).required()

export const resistorsSchema = object({
  ...head('resistors'),
  series: seriesName(),
  tolerance: number().strict(true).min(0).max(0.5).required(),
  power: quantity('W').required(),
  from: quantity('Ω').required(),
  to: quantity('Ω').required(),
  package: packageFields().required(),
}).exact()

export const capacitorsSchema = object({
  ...head('capacitors'),
  sort: string().strict(true).oneOf(['ceramic', 'electrolytic', 'film']).required(),
  series: seriesName(),
  tolerance: number().strict(true).min(0).max(0.8).required(),
  voltage: quantity('V').required(),
  from: quantity('F').required(),
  to: quantity('F').required(),
  esr: rated('Ω').optional(),
  package: packageFields().required(),
}).exact()

export const connectorSchema = object({
  ...head('connector'),
  sort: string()
    .strict(true)
    .oneOf([
      'programming header',
      'pin header',
      'socket',
      'barrel jack',
      'screw terminal',
      'cell holder',
      'usb jack',
      'breadboard contact',
      'crimp',
    ])
    .required(),
  contacts: count(),
  rows: count(),
  /** Of one contact, joined. */
  resistance: rated('Ω').optional(),
  current: rated('A', 'recommended').optional(),
  /** Of a jack: the plug that goes in, where not the usual one of its sort. */
  takes: optionalText(),
  /** Of such a jack: the resistors for which a source waits are on it. */
  asks: flag(),
  /** Of a jack for hollow plugs, as it is sold: what goes in, and its pin. Leg 1 is the pin, leg 2 the sleeve. */
  barrel: object({ outer: quantity('m').required(), pin: quantity('m').required() })
    .exact()
    .default(undefined)
    .optional(),
  package: packageFields().required(),
}).exact()

/** A threshold: factor · supply + offset. */
const level = object({
  factor: number().strict(true).required(),
  offset: quantity('V').default(0),
}).exact()

/** One line from one voltage to another: it runs on the supply of its output. */
export const bufferSchema = object({
  ...head('buffer'),
  supply: rated('V', 'recommended').required(),
  high: level.required(),
  low: level.required(),
  /** What its input stands, whatever its supply. */
  stands: quantity('V').required(),
  /** Bits a second. */
  rate: quantity('Hz').required(),
  package: packageFields().required(),
}).exact()

export const switchSchema = object({
  ...head('switch'),
  sort: string().strict(true).oneOf(['push', 'slide', 'toggle']).required(),
  current: rated('A', 'recommended').required(),
  package: packageFields().required(),
}).exact()

type As<K extends string, T> = Omit<T, 'kind'> & { kind: K }
export type Led = As<'led', InferType<typeof ledSchema>>
export type Diode = As<'diode', InferType<typeof diodeSchema>>
export type Transistor = As<'transistor', InferType<typeof transistorSchema>>
export type Crystal = As<'crystal', InferType<typeof crystalSchema>>
export type Resonator = As<'resonator', InferType<typeof resonatorSchema>>
export type Resistors = As<'resistors', InferType<typeof resistorsSchema>>
export type Capacitors = As<'capacitors', InferType<typeof capacitorsSchema>>
export type Connector = As<'connector', InferType<typeof connectorSchema>>
export type Buffer = As<'buffer', InferType<typeof bufferSchema>>
export type Switch = As<'switch', InferType<typeof switchSchema>>
