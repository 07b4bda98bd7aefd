// What charges a cell on the board, and what guards one.

import { array, type InferType, object, string } from 'yup'
import { count, head, identifier, packageFields, quantity, rated } from '../fields'

/** A linear one for a single lithium cell: a constant current, then a constant voltage until the current has fallen. */
export const chargerSchema = object({
  ...head('charger'),
  inputRecommended: rated('V', 'recommended').required(),
  inputAbsolute: rated('V', 'absolute').required(),
  /** To which it brings the cell. */
  voltage: rated('V').required(),
  /** What its resistor can set. */
  current: rated('A', 'recommended').required(),
  /** The current is this over the resistor at its setting leg. */
  setting: rated('V').required(),
  /** The share of that current at which it takes the cell for full. */
  ends: rated('').required(),
  /** What its input must be above the cell. */
  headroom: rated('V').required(),
  quiescent: rated('A').required(),
  /** Out of the cell while nothing is at its input. */
  back: rated('A').required(),
  junctionMax: rated('°C', 'recommended').required(),
  inputCapacitor: quantity('F').required(),
  outputCapacitor: quantity('F').required(),
  package: packageFields().required(),
  legs: array()
    .of(
      object({
        leg: count(),
        role: string().strict(true).oneOf(['in', 'out', 'ground', 'set', 'none']).required(),
        name: identifier(),
      }).exact(),
    )
    .min(4)
    .required(),
}).exact()

/** A board for one cell, between it and all else: it opens in the minus when the cell is empty, overcharged or shorted. */
export const protectionSchema = object({
  ...head('protection'),
  /** Below which it lets nothing out. */
  voltage: rated('V').required(),
  /** Above which it lets nothing in. */
  full: rated('V').required(),
  /** Out of the cell, above which it opens. */
  current: rated('A').required(),
  /** In the minus, while it is closed. */
  resistance: rated('Ω').required(),
  /** Out of the cell, all the time. */
  quiescent: rated('A').required(),
}).exact()

export type Charger = Omit<InferType<typeof chargerSchema>, 'kind'> & { kind: 'charger' }
export type Protection = Omit<InferType<typeof protectionSchema>, 'kind'> & { kind: 'protection' }
