// What a field of a form may hold, in the words in which it is refused.

import { formatQuantity, parseQuantity, QuantityError, type Unit } from '@root-board/core/quantity'
import { string } from 'yup'

/** Text that reads as a quantity within bounds, or nothing. */
export const quantityText = (unit: Unit, min: number, max: number, beyond?: string) =>
  string()
    .default('')
    .test('quantity', function (text) {
      if (text.trim() === '') return true
      try {
        const value = parseQuantity(text, unit)
        if (value >= min && value <= max) return true
        return this.createError({
          message:
            value > max && beyond
              ? beyond
              : `From ${formatQuantity(min, unit)} to ${formatQuantity(max, unit)}`,
        })
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error
        return this.createError({ message: error.message })
      }
    })
