// What feeds a project: sources with plugs or cells, and regulators.

import { array, type InferType, object, string } from 'yup'
import { count, flag, head, identifier, optionalText, packageFields, quantity, rated, text } from '../fields'

export const sourceSchema = object({
  ...head('source'),
  sort: string().strict(true).oneOf(['adapter', 'usb', 'cells', 'panel']).required(),
  /** At its terminals, over load and age. For cells: from empty to fresh; for a panel: in full sun, from what it gives its current at to nothing drawn. */
  voltage: rated('V').required(),
  current: rated('A', 'recommended').required(),
  /** Of USB: what it gives before anything has asked it for more; absent: the 100 mA of any port. */
  unasked: rated('A', 'recommended').optional(),
  /** Of USB: it gives nothing until it finds this from each of its plug’s two asking contacts to the minus, Ω. */
  waits: rated('Ω', 'recommended').optional(),
  plug: text(),
  /** Of a hollow plug, as it is sold: across it, and across its hole. */
  barrel: object({ outer: quantity('m').required(), bore: quantity('m').required() })
    .exact()
    .default(undefined)
    .optional(),
  polarity: string().strict(true).oneOf(['centre positive', 'centre negative', 'fixed', 'marked']).required(),
  /** Charge of fresh cells to the lowest voltage above. */
  capacity: rated('Ah').optional(),
  resistance: rated('Ω').optional(),
  /** At rest and at 20 °C, over the share of the charge that has flowed: from none to all of it, the voltage falling. */
  discharge: array()
    .of(
      object({
        used: quantity('').min(0).max(1).required(),
        voltage: rated('V').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(2)
    .optional(),
  /** Share of the charge that goes by itself in a year. */
  selfDischarge: rated('').optional(),
  /** What they give in air this cold, of what they do at 20 °C, and what their resistance then is, of that: the air rising, up to 20 °C. */
  cold: array()
    .of(
      object({
        air: quantity('°C').min(-60).max(60).required(),
        charge: rated('').required(),
        resistance: rated('').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(2)
    .optional(),
  /** The same of cells that have been charged so often, of what new ones have. */
  worn: array()
    .of(
      object({
        charges: count(),
        charge: rated('').required(),
        resistance: rated('').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(1)
    .optional(),
  rechargeable: flag(),
  /** One cell, of which several may be joined: so many in a row, and beside one another, at the most. */
  joins: object({ series: count(), parallel: count() }).exact().default(undefined).optional(),
  /** How it may be charged: from the least voltage that fills it to the most that it stands; while it is as warm as this. */
  charging: object({
    voltage: rated('V', 'absolute').required(),
    current: rated('A', 'recommended').required(),
    temperature: rated('°C', 'recommended').required(),
  })
    .exact()
    .default(undefined)
    .optional(),
  /** What sits on the cell and guards it: below which voltage, and above which current, it lets nothing out. */
  protection: object({ voltage: rated('V').required(), current: rated('A').required() })
    .exact()
    .default(undefined)
    .optional(),
  cautions: array()
    .of(string().strict(true).oneOf(['mains', 'lithium', 'short', 'children']).required())
    .optional(),
}).exact()

export const regulatorSchema = object({
  ...head('regulator'),
  topology: string().strict(true).oneOf(['linear', 'switching']).required(),
  /** Which way a switching one changes voltage: from a higher one down (absent), or from a lower one up. */
  converts: string().strict(true).oneOf(['down', 'up']).optional(),
  output: rated('V').required(),
  current: rated('A', 'recommended').required(),
  inputRecommended: rated('V', 'recommended').required(),
  inputAbsolute: rated('V', 'absolute').required(),
  /** Voltage needed above the output, at these currents; straight between the points. */
  dropout: array()
    .of(
      object({
        current: quantity('A').required(),
        voltage: rated('V').required(),
        source: optionalText(),
      }).exact(),
    )
    .min(1)
    .required(),
  quiescent: rated('A').required(),
  junctionMax: rated('°C', 'recommended').required(),
  package: packageFields().required(),
  legs: array()
    .of(
      object({
        leg: count(),
        role: string().strict(true).oneOf(['in', 'out', 'ground', 'none']).required(),
        name: identifier(),
      }).exact(),
    )
    .min(3)
    .required(),
  inputCapacitor: quantity('F').required(),
  outputCapacitor: object({
    capacitance: quantity('F').required(),
    esr: rated('Ω').optional(),
    source: optionalText(),
  })
    .exact()
    .required(),
  /** What a switching one takes at its input at most: one that converts up takes more than it gives. */
  inputCurrent: rated('A', 'recommended').optional(),
  /** From its output to its input, while that is off: without it a linear one and one that converts down are taken to conduct. */
  backwards: string().strict(true).oneOf(['blocks', 'conducts']).optional(),
  /** What is left of its switching on its output, from crest to trough. */
  ripple: rated('V').optional(),
  /** Share of input power that reaches the output, for a switching one. */
  efficiency: array()
    .of(object({ current: quantity('A').required(), share: quantity('').required() }).exact())
    .optional(),
}).exact()

/** It comes with a hollow plug on a lead, which another could be mistaken for. */
export const byHollowPlug = ({ sort }: Pick<Source, 'sort'>): boolean =>
  sort === 'adapter' || sort === 'panel'

export type Source = Omit<InferType<typeof sourceSchema>, 'kind'> & {
  kind: 'source'
  /** What is stated is of so many of what its file describes; in no file. */
  joined?: { series: number; parallel: number }
}
export type Regulator = Omit<InferType<typeof regulatorSchema>, 'kind'> & { kind: 'regulator' }
