// A development board: which header position is which pin, what else hangs on it, and the blocks a standalone board
// would or would not copy.

import { array, type InferType, object, string } from 'yup'
import { count, head, identifier, optionalText, quantity, rated, text } from '../fields'
import { link } from './link'

const position = object({
  label: text(),
  pin: identifier().optional(),
  rail: identifier().optional(),
  number: count().optional(),
}).exact()

const header = object({
  id: identifier(),
  name: text(),
  footprint: optionalText(),
  positions: array().of(position).required(),
}).exact()
const load = object({
  pin: identifier(),
  what: text(),
  current: rated('A').optional(),
  pull: string().strict(true).oneOf(['up', 'down']).optional(),
  resistance: rated('Ω').optional(),
  source: optionalText(),
}).exact()

/** What a board of one's own does with a block: copy it, leave it out, or choose anew. */
export type Standalone = 'copy' | 'leave out' | 'choose'

export const boardSchema = object({
  ...head('board'),
  chip: identifier(),
  input: rated('V', 'recommended').required(),
  inputAbsolute: rated('V', 'absolute').optional(),
  logic: rated('V').required(),
  /** The library's regulator that feeds the logic rail; without it the input is the rail. */
  regulator: identifier().optional(),
  /** What its own USB plug feeds, and whether it lets current back into the computer; absent: its sheet doesn’t say. */
  usb: object({
    feeds: string()
      .strict(true)
      .oneOf(['input', 'rail'] as const)
      .required(),
    backwards: string()
      .strict(true)
      .oneOf(['blocks', 'conducts'] as const)
      .required(),
  })
    .exact()
    .default(undefined)
    .optional(),
  /** Its own jack for a hollow plug, as it is sold; absent: it has none, or its sheet doesn’t say. */
  jack: object({
    outer: quantity('m').required(),
    pin: quantity('m').required(),
    polarity: string()
      .strict(true)
      .oneOf(['centre positive', 'centre negative'] as const)
      .required(),
    source: optionalText(),
  })
    .exact()
    .default(undefined)
    .optional(),
  clock: object({ source: identifier(), frequency: quantity('Hz').required(), part: identifier().optional() })
    .exact()
    .default(undefined)
    .optional(),
  headers: array().of(header).required(),
  loads: array().of(load).optional(),
  links: array().of(link).optional(),
  blocks: array()
    .of(
      object({
        id: identifier(),
        name: text(),
        does: text(),
        part: identifier().optional(),
        asleep: rated('A').required(),
        awake: rated('A').required(),
        pins: array().of(identifier()).optional(),
        standalone: string<Standalone>().strict(true).oneOf(['copy', 'leave out', 'choose']).required(),
        why: text(),
      }).exact(),
    )
    .required(),
  pinCurrent: rated('A', 'recommended').optional(),
  /** Devices of the board on its I2C bus. */
  addresses: array()
    .of(object({ unit: identifier(), address: count(), what: text(), source: optionalText() }).exact())
    .optional(),
  length: quantity('m').optional(),
  width: quantity('m').optional(),
}).exact()

export type Board = Omit<InferType<typeof boardSchema>, 'kind'> & { kind: 'board' }
