// Something a builder sets by hand on a board or device: a solder bridge, a shunt, a switch.

import { array, object, string } from 'yup'
import { identifier, text } from '../fields'

export const link = object({
  id: identifier(),
  name: text(),
  kind: string().strict(true).oneOf(['solder bridge', 'shunt', 'switch', 'zero-ohm']).required(),
  positions: array()
    .of(object({ id: identifier(), effect: text() }).exact())
    .min(1)
    .required(),
  factory: identifier(),
}).exact()
