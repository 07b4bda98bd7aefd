// What a builder says about a pasted part besides its tables: what can’t be read is told beside its field, and not left out.

import { object, string, ValidationError } from 'yup'
import { quantityText } from '../../shared/schemas'
import type { PasteDraft } from './draft'

const volts = quantityText('V', 0.5, 1000).trim()
const anyPart = {
  price: string().matches(/^\s*(\d+([.,]\d+)?)?\s*$/, 'An amount in euro, like 1.20, or nothing'),
}
const schemas = {
  chip: object({
    ...anyPart,
    legs: string().matches(/^\s*([1-9]\d{0,3})?\s*$/, 'How many legs it has; nothing for those of the table'),
  }),
  regulator: object({ ...anyPart, pitch: quantityText('m', 0.0003, 0.02).trim() }),
  device: object({ ...anyPart }),
  board: object({
    ...anyPart,
    logic: volts.required('Its logic voltage'),
    inputMin: volts.required('Its lowest input'),
    inputMax: volts.required('Its highest input'),
  }),
}

export const headNames: Partial<Record<keyof PasteDraft, string>> = {
  price: 'Price',
  legs: 'Legs',
  group: 'What sort of thing',
  pitch: 'Between its legs',
  logic: 'Logic',
  inputMin: 'Input from',
  inputMax: 'Input to',
}

export type HeadFaults = Partial<Record<keyof PasteDraft, string>>

/** By field, in the order of the form. */
export const headFaults = (draft: PasteDraft): HeadFaults => {
  try {
    schemas[draft.kind].validateSync(draft, { abortEarly: false })
    return {}
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message]))
  }
}
