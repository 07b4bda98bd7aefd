// Quantities that read better in words than with prefixes.

import { formatQuantity, type PrintedQuantity, printQuantity, type Unit } from './notation'

/** °C: solder has melted and the part is gone; what the sum goes on to says no more. */
const gone = 300
export const isGone = (celsius: number): boolean => celsius > gone

/** As printQuantity, for those who look at it: a temperature that nothing lives to is not spelt out. */
export const printShown = (value: number, unit: Unit, significant = 3): PrintedQuantity =>
  unit === '°C' && isGone(Math.abs(value))
    ? { number: `${value > 0 ? '> ' : '< −'}${gone}`, unit }
    : printQuantity(value, unit, significant)

/** A temperature in a sentence. */
export const celsiusWords = (value: number): string =>
  isGone(value) ? `far more than ${gone} °C` : formatQuantity(value, '°C', 3)

/** Seconds as a builder would say them: “4 h 20 min”, “37 days”. */
export const durationWords = (seconds: number): string => {
  if (!Number.isFinite(seconds)) return 'no end'
  const days = seconds / 86400
  if (days >= 2) return `${days >= 100 ? Math.round(days) : Number(days.toPrecision(2))} days`
  const minutes = Math.round(seconds / 60)
  return minutes >= 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes} min`
}

/** As a sentence begins. */
/** “A, B and C”; of more than three the first two, and how many more. */
export const namesInWords = (names: readonly string[]): string =>
  names.length > 3
    ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
    : names.join(', ').replace(/, ([^,]*)$/, ' and $1')

export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`

export const euro = (value: number): string => `€ ${value.toFixed(2)}`

const list = new Intl.ListFormat('en-GB')
/** `A, B and C`. */
export const listWords = (names: readonly string[]): string => list.format(names)
