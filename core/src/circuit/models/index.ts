// All element models: a new one is its form in a file here and its line in this list.

import { limitedRegulator, linearRegulator, switchingRegulator } from './converters'
import { curve, diode } from './curves'
import type { Form, NetId } from './form'
import { capacitor, contact, current, inductor, load, resistor, source } from './linear'
import { bipolar, mosfet } from './transistors'

export const forms = {
  resistor,
  contact,
  capacitor,
  inductor,
  source,
  current,
  load,
  diode,
  curve,
  mosfet,
  bipolar,
  'linear regulator': linearRegulator,
  'switching regulator': switchingRegulator,
  'limited regulator': limitedRegulator,
}

type Forms = typeof forms
/** `{kind: 'resistor', resistance: 1000}` */
export type Model = {
  [K in keyof Forms]: Forms[K] extends Form<infer P> ? { kind: K } & P : never
}[keyof Forms]

export interface Element {
  id: string
  /** What it is there for, in a word: `polarity diode`, `load`. */
  role: string
  model: Model
  /** The net of each terminal of its form. */
  terminals: Record<string, NetId>
}

/** The form of a model, for whoever asks without knowing which. */
export const formOf = (model: Model): Form<Model> => forms[model.kind] as Form<unknown>

export type { At, Answer, Course, Form, NetId } from './form'
export { thermalVoltage } from './curves'
export { transconductanceOf } from './transistors'
