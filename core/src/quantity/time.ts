// Lengths of time as builders type and read them: 30 s, 1 h 30 min, 2 days. Between they are seconds.

import { formatQuantity, QuantityError } from './notation'

const inSeconds: Record<string, number> = {
  us: 1e-6,
  µs: 1e-6,
  ms: 1e-3,
  s: 1,
  sec: 1,
  second: 1,
  min: 60,
  minute: 60,
  h: 3600,
  hour: 3600,
  d: 86400,
  day: 86400,
}

/** `90`, `90 s`, `1.5 min`, `1 h 30 min`, `2 days` in seconds; a number alone is seconds. Throws QuantityError with what could not be read. */
export const parseTime = (text: string): number => {
  const typed = text.trim().toLowerCase()
  const pieces = [...typed.matchAll(/(\d+(?:[.,]\d+)?)\s*([a-zµμ]*)\s*/gy)]
  const length = pieces.reduce((sum, [all]) => sum + all.length, 0)
  if (pieces.length === 0 || length < typed.length)
    throw new QuantityError(`“${text}” is no length of time: such as 30 s, 10 min, 1 h 30 min`)
  return pieces.reduce((sum, [, number, written = '']) => {
    const unit = written.replace('μ', 'µ')
    const one = inSeconds[unit] ?? inSeconds[unit.replace(/s$/, '')]
    if (unit === 'm') throw new QuantityError('“m” may be minutes or a thousandth: min or ms')
    if (unit === '' && pieces.length > 1) throw new QuantityError(`${number} of what? Such as 1 h 30 min`)
    if (unit !== '' && one === undefined)
      throw new QuantityError(`“${unit}” is no unit of time: s, min, h, days`)
    return sum + Number(number!.replace(',', '.')) * (one ?? 1)
  }, 0)
}

/** As `parseTime` reads it, and exactly: 21 600 s are 6 h, 90 s are 1 min 30 s. */
export const timeWords = (seconds: number): string => {
  if (seconds < 60) return formatQuantity(seconds, 's')
  const milli = Math.round(seconds * 1000)
  const days = Math.floor(milli / 86_400_000)
  const hours = Math.floor((milli % 86_400_000) / 3_600_000)
  const minutes = Math.floor((milli % 3_600_000) / 60_000)
  const rest = (milli % 60_000) / 1000
  return [
    days && `${days} ${days === 1 ? 'day' : 'days'}`,
    hours && `${hours} h`,
    minutes && `${minutes} min`,
    rest && `${rest} s`,
  ]
    .filter(Boolean)
    .join(' ')
}
