// What a meter said against what was predicted, and what could explain the difference: each guess is the project with one thing
// otherwise, worked out like the project itself.

import type { Measurement } from '../design'
import { fromDecision, fromWorked, say, type Said, type Worked } from '../findings'
import { exactly, formatQuantity, type Range, timeWords } from '../quantity'
import type { State } from '../states'
import { asVariable, sum, type Term } from '../sums'
import type { Consumer } from './consumers'
import { feedingOf } from './feeding'
import { type Asked, drawnIn, guesses } from './guesses'

/** One thing that may be otherwise than planned. */
export interface Suspect {
  id: string
  /** “Display is still on”. */
  what: Said
  /** What the meter would say then, A. */
  then: Worked
  /** What it changes, A: how much of the difference it takes. */
  change: Worked
  /** That the meter’s reading lies within what it would say. */
  explains: boolean
  /** How likely, of all that are named; they add up to one. */
  weight: number
  /** What to do to tell it from the others, with what the meter says if it is this. */
  test: Said
}

export interface Compared {
  measurement: Measurement
  /** Absent: the project has no such state any more. */
  state?: State
  /** With what the meter may be off. */
  reading: Worked
  /** Absent without that state, or where nothing feeds the project. */
  predicted?: Worked
  /** Reading less predicted. */
  difference?: Worked
  verdict?: 'agrees' | 'more' | 'less'
  /** Lost across the meter at this reading, and with all that the project can draw at once: V. */
  burden?: { now: Worked; worst: Worked }
  /** What of the meter itself spoils the reading. */
  meter: Said[]
  suspects: Suspect[]
  /** So many less likely ones are left out. */
  leftOut: number
}

/** Where nobody says how far a meter may be off: a usual one, as a share of its reading. */
const usualError = 0.015
/** Two counts of a display that goes to 2,000. */
const counts = 1e-3
/** Shorter than this nobody reads a meter, s. */
const glance = 3
/** More than this share of the supply across a meter changes what is measured. */
const tooMuch = 0.05

/** What a meter’s reading can stand for, A. */
export const readMeter = ({ reading, accuracy, range, at }: Measurement): Worked => {
  const a = accuracy ?? usualError
  return sum(
    {
      label: at === 'rail' ? 'Measured at the rail' : 'Measured at the source',
      symbol: 'I_meter',
      unit: 'A',
      note:
        accuracy === undefined
          ? 'How far off the meter may be was not said: 1.5 % of the reading is taken, as of a usual one.'
          : undefined,
    },
    {
      I_read: fromDecision('I_read', 'what the meter said', reading, 'A', 'read from the meter'),
      e: {
        ...fromDecision('e', 'how far off it may be', 0, '', accuracy === undefined ? 'assumed' : 'as given'),
        value: { min: -a, typ: 0, max: a },
        variable: 'error of the meter',
      },
      ...(range !== undefined && {
        I_count: {
          ...fromDecision('I_count', 'two counts of its last digit', 0, 'A', 'of a display of 2,000'),
          value: { min: -range * counts, typ: 0, max: range * counts },
          variable: 'last digit of the meter',
        },
      }),
    },
    (i: Record<string, Term>) => {
      const off = i.I_read!.plus(i.I_read!.times(i.e!))
      return i.I_count ? off.plus(i.I_count) : off
    },
  )
}

const overlap = (a: Range, b: Range) => a.min <= b.max && b.min <= a.max
const nothing = 1e-12

const acrossMeter = ({ burden }: Measurement, current: Worked, label: string): Worked | undefined =>
  burden === undefined
    ? undefined
    : sum(
        { label, symbol: 'V_meter', unit: 'V' },
        { R_meter: fromDecision('R_meter', 'inside the meter', burden, 'Ω', 'of its range'), I: current },
        (i) => i.R_meter.times(i.I),
      )

/** What the meter itself makes of it. */
const ofTheMeter = (
  m: Measurement,
  burden: Compared['burden'],
  supply: Worked | undefined,
  /** The state, each time, s. */
  lasts: number | undefined,
): Said[] => {
  const told: Said[] = []
  if (lasts !== undefined && lasts < glance)
    told.push(
      say`It lasts ${timeWords(lasts)} each time: a meter shows a mean over what comes before and after as well, unless it holds the greatest.`,
    )
  if (m.range !== undefined && m.reading > m.range)
    told.push(
      say`${formatQuantity(m.reading, 'A')} are beyond its range of ${formatQuantity(m.range, 'A')}: what it says then is no number.`,
    )
  else if (m.range !== undefined && m.range * counts > 0.1 * m.reading)
    told.push(
      say`In its range of ${formatQuantity(m.range, 'A')} the last digits alone are ±${formatQuantity(m.range * counts, 'A', 2)}: take a lower one, once it sleeps.`,
    )
  const volts = supply?.value.typ
  if (burden && volts !== undefined) {
    if (burden.now.value.typ > tooMuch * volts)
      told.push(
        say`Across the meter ${formatQuantity(burden.now.value.typ, 'V', 2)} are lost: the project gets ${formatQuantity(volts - burden.now.value.typ, 'V', 3)} of ${formatQuantity(volts, 'V', 3)}, and draws otherwise than without it.`,
      )
    if (burden.worst.value.max > tooMuch * volts)
      told.push(
        say`When the project draws the ${formatQuantity(burden.worst.value.max / m.burden!, 'A', 2)} that it can draw at once, ${formatQuantity(burden.worst.value.max, 'V', 2)} would fall across the meter: it may not start through it. Bridge the meter with a wire until it sleeps.`,
      )
  }
  return told
}

/** Guesses told apart less sharply than this, as a share, are not told apart. */
const blur = 0.1
/** What explains a part of it only, against what explains all. */
const partly = 0.05
const most = 6
/** Guesses less likely than this are not told, unless they explain all of it. */
const seldom = 0.01

/** With how likely it was before anything was measured. */
type Likely = Suspect & { before: number }

/** So many single guesses, the largest first, are tried two by two. */
const paired = 12

/** What is said of: a device, the chip, a part. Two of one exclude each other. */
const subject = ({ id }: Suspect): string => (id.startsWith('chip') ? 'chip' : id.split(' ')[1]!)

const pairsOf = (singles: readonly Likely[], predicted: Worked, reading: Worked): Likely[] => {
  const largest = [...singles]
    .sort((a, b) => Math.abs(b.change.value.typ) - Math.abs(a.change.value.typ))
    .slice(0, paired)
  return largest.flatMap((a, n) =>
    largest.slice(n + 1).flatMap((b): Likely[] => {
      if (subject(a) === subject(b)) return []
      const symbols = { label: 'Both together', symbol: 'I', unit: 'A' } as const
      const inputs = {
        I_1: { ...asVariable(a.then), symbol: 'I_1' },
        I_2: { ...asVariable(b.then), symbol: 'I_2', value: shifted(b.then.value, predicted.value) },
        I_usual: { ...asVariable(predicted), symbol: 'I_usual', value: exactly(predicted.value.typ) },
      }
      // What they have in common is in both, and counts once.
      const then = sum(symbols, inputs, (i) => i.I_1.plus(i.I_2).minus(i.I_usual))
      if (!overlap(then.value, reading.value)) return []
      const off = Math.log(then.value.typ / reading.value.typ) / blur
      return [
        {
          id: `${a.id} and ${b.id}`,
          what: say`${a.what}; also: ${b.what}`,
          then,
          change: sum(
            { label: 'What both change', symbol: 'I_changed', unit: 'A' },
            { I_1: a.change, I_2: b.change },
            (i) => i.I_1.plus(i.I_2),
          ),
          explains: true,
          before: a.before * b.before,
          weight: a.before * b.before * Math.exp((-off * off) / 2),
          test: a.test,
        },
      ]
    }),
  )
}

/** The part of a guess that is beyond what is predicted anyway, as far as it varies by itself. */
const shifted = (then: Range, predicted: Range): Range => ({
  min: Math.min(then.typ, then.min - predicted.min + predicted.typ),
  typ: then.typ,
  max: Math.max(then.typ, then.max - predicted.max + predicted.typ),
})

/** What a measurement is compared with. */
const predictedFor = (asked: Asked, { state: id, at }: Measurement) => {
  const { design, power } = asked
  const state = power.states.find((s) => s.id === id)
  if (!state || (at === 'source' && !power.source)) return undefined
  const currentWith = (consumers: readonly Consumer[]): Worked => {
    const fed = feedingOf(power.supplies, consumers, [state], design.needs.limits.ambient)
    return (at === 'rail' ? fed.own : fed.head).cycle[state.id]!
  }
  const base = drawnIn(asked, state)
  return { state, base, currentWith, predicted: currentWith(base) }
}

/** Whether a reading is one of those that were predicted; undefined where nothing is. */
export const agrees = (asked: Asked, measurement: Measurement) => {
  const found = predictedFor(asked, measurement)
  if (!found) return undefined
  const reading = readMeter(measurement)
  const { state, predicted } = found
  return { state, predicted, reading, agrees: overlap(reading.value, predicted.value) }
}

export const compareMeasured = (asked: Asked, measurement: Measurement): Compared => {
  const { power } = asked
  const found = predictedFor(asked, measurement)
  const reading = readMeter(measurement)
  const { supplies } = power
  const supply = measurement.at === 'rail' ? power.rail : supplies.open[supplies.fed.source]
  const now = acrossMeter(measurement, reading, 'Lost across the meter, at this reading')
  const worst = acrossMeter(
    measurement,
    measurement.at === 'rail' ? power.work : power.fromSource,
    'Lost across the meter, with all that can be drawn at once',
  )
  const burden = now && worst && { now, worst }
  const bare: Compared = {
    measurement,
    ...(found && { state: found.state }),
    reading,
    ...(burden && { burden }),
    meter: ofTheMeter(
      measurement,
      burden,
      supply,
      asked.design.needs.states?.find((s) => s.id === measurement.state)?.lasts,
    ),
    suspects: [],
    leftOut: 0,
  }
  if (!found) return bare
  const { state, base, currentWith, predicted } = found
  const difference = sum(
    { label: 'Measured less predicted', symbol: 'I_more', unit: 'A' },
    { I_meter: reading, I_predicted: { ...fromWorked(predicted), symbol: 'I_predicted' } },
    (i) => i.I_meter.minus(i.I_predicted),
  )
  const verdict = overlap(reading.value, predicted.value)
    ? 'agrees'
    : reading.value.typ > predicted.value.typ
      ? 'more'
      : 'less'
  const known = { ...bare, predicted, difference, verdict } as const
  if (verdict === 'agrees') return known
  const missing = reading.value.typ - predicted.value.typ
  const told: Likely[] = guesses(asked, state, base, missing).flatMap(
    ({ id, what, before, consumers, test }) => {
      const then = currentWith(consumers())
      const moved = then.value.typ - predicted.value.typ
      // The other way, or next to none of it.
      if (moved / missing < 0.1 || Math.abs(moved) < nothing) return []
      const explains = overlap(then.value, reading.value)
      // It alone would be more than was measured: it can’t be.
      if (!explains && Math.abs(moved) > Math.abs(missing)) return []
      const width = Math.log(
        Math.max(then.value.max, nothing) / Math.max(then.value.min, then.value.max / 1e3, nothing),
      )
      const σ = Math.min(0.7, blur + width / 4)
      const off = Math.log(Math.max(then.value.typ, nothing) / Math.max(measurement.reading, nothing)) / σ
      const change = sum(
        { label: 'What it changes', symbol: 'I_changed', unit: 'A' },
        {
          I_then: {
            ...fromWorked(then),
            symbol: 'I_then',
            value: exactly(then.value.typ),
            variable: `then ${id}`,
          },
          I_predicted: {
            ...fromWorked(predicted),
            symbol: 'I_predicted',
            value: exactly(predicted.value.typ),
            variable: 'usually predicted',
          },
        },
        (i) => i.I_then.minus(i.I_predicted),
      )
      return [
        {
          id,
          what,
          then,
          change,
          explains,
          before,
          weight: before * (explains ? 1 : partly) * Math.exp((-off * off) / 2),
          test: test(formatQuantity(Math.max(0, measurement.reading - moved), 'A', 2)),
        },
      ]
    },
  )
  // Where nothing alone is enough, two that are.
  const listed = told.some((s) => s.explains) ? told : [...told, ...pairsOf(told, predicted, reading)]
  const all = listed.reduce((total, s) => total + s.weight, 0)
  const ranked = listed
    .map(({ id, what, then, change, explains, weight, test }): Suspect => ({
      id,
      what,
      then,
      change,
      explains,
      weight: all > 0 ? weight / all : 1 / listed.length,
      test,
    }))
    .sort((a, b) => Number(b.explains) - Number(a.explains) || b.weight - a.weight)
  const suspects = ranked.filter((s) => s.explains || s.weight > seldom).slice(0, most)
  return { ...known, suspects, leftOut: ranked.length - suspects.length }
}

/** Everything that was measured, in the order in which it was noted. */
export const measuredOf = (asked: Asked): Compared[] =>
  (asked.design.power.measured ?? []).map((m) => compareMeasured(asked, m))
