// What a lead is made of: wire by the metre, and fuses.

import { array, type InferType, object, string } from 'yup'
import { head, optionalText, packageFields, quantity, rated, text } from '../fields'

export const wireSchema = object({
  ...head('wire'),
  /** As it is sold: “0.5 mm², stranded”. */
  gauge: text(),
  /** Of one metre of one conductor, at 20 °C. */
  resistance: rated('Ω/m').required(),
  /** All day, in air of `ratedAt`, with its fellow beside it. */
  current: rated('A', 'recommended').required(),
  ratedAt: quantity('°C').required(),
  /** What its insulation stands all day. */
  insulation: rated('°C', 'recommended').required(),
}).exact()

export const fuseSchema = object({
  ...head('fuse'),
  sort: string().strict(true).oneOf(['blow', 'self-healing']).required(),
  /** What it carries for ever, in air of 23 °C. */
  current: rated('A', 'recommended').required(),
  /** What surely opens it sooner or later, in air of 23 °C. */
  trips: rated('A').required(),
  /** The share of both that is left in warmer and colder air; straight between the points. */
  derating: array()
    .of(
      object({
        air: quantity('°C').required(),
        share: quantity('').min(0).max(3).required(),
        source: optionalText(),
      }).exact(),
    )
    .min(2)
    .required(),
  /** As fitted; for one that heals itself also after it has tripped once. */
  resistance: rated('Ω').required(),
  voltage: rated('V', 'absolute').required(),
  /** The most that it can interrupt. */
  breaking: rated('A', 'absolute').required(),
  package: packageFields().required(),
}).exact()

export type Wire = Omit<InferType<typeof wireSchema>, 'kind'> & { kind: 'wire' }
export type Fuse = Omit<InferType<typeof fuseSchema>, 'kind'> & { kind: 'fuse' }
