// Pull-ups: for a contact that only ever closes to ground, and for the two lines of an I2C bus.

import { preferred, type SupportPart } from '../../circuit'
import { byTheBook, everyStance, supportChoice } from '../../design'
import { largestBusPullUp, largestPullUp, smallestBusPullUp, smallestPull } from '../../electrical'
import { fromPart, fromRule, fromWorked, type Worked } from '../../findings'
import { exactly, formatQuantity, fullRange, parallel, type Range } from '../../quantity'
import type { Chip } from '../../parts'
import type { Wire } from '../plan'
import { attributeOf } from '../ways'
import { pullUp, type SignalSupport } from './context'

/** What a closed contact may waste: a rule of thumb, small against any supply. */
const contactCurrent = 0.5e-3

/** What leaves the line open while it is not low: a contact, or an output that can only pull down. */
const openEnd = (wire: Wire) =>
  wire.signal.ends.find(
    ({ signal: { electrical: e } }) => e.kind === 'contact' || (e.kind === 'logic-output' && e.openDrain),
  )

/** The window for the pull-up of a line that is closed to ground and else open. */
export const contactWindow = (
  wire: Wire,
  chip: Chip,
  rail: Worked,
): { smallest: Worked; largest: Worked } | undefined => {
  const electrical = openEnd(wire)?.signal.electrical
  if (!electrical) return undefined
  const leakage = fullRange(chip.io.leakage)
  const high = chip.io.inputHigh
  const contactLeak =
    electrical.kind === 'contact' && electrical.leakage ? fullRange(electrical.leakage).max : 0
  const threshold = high.factor * rail.value.min + (high.offset ?? 0)
  return {
    largest: {
      label: 'Largest pull-up',
      symbol: 'R_max',
      value: exactly(largestPullUp(rail.value.min, threshold, leakage.max + contactLeak)),
      unit: 'Ω',
      formula: '(V_DD − V_IH) / I_leak',
      inputs: [
        fromWorked(rail),
        fromRule(
          'V_IH',
          'least voltage read as high',
          threshold,
          'V',
          `${chip.sheet}, ${high.factor} · V_DD`,
        ),
        fromPart(
          'I_leak',
          'leakage of the leg',
          chip,
          'io.leakage',
          { ...chip.io.leakage, max: leakage.max + contactLeak },
          'A',
        ),
      ],
      note: 'At the lowest supply and the highest leakage.',
    },
    smallest: {
      label: 'Pull-up for a closed contact',
      symbol: 'R',
      value: exactly(smallestPull(rail.value.typ, contactCurrent)),
      unit: 'Ω',
      formula: 'V_DD / I_closed',
      inputs: [
        fromWorked(rail),
        fromRule(
          'I_closed',
          'current while closed',
          contactCurrent,
          'A',
          'a tenth of what an LED takes; less is noise-prone',
        ),
      ],
      note: 'Fitted is the nearest preferred value.',
    },
  }
}

export const contactPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const window = contactWindow(wire, chip, rail)
  if (!window || !stock.resistors) return []
  const inside = attributeOf(wire.pin, 'no-pull-up') ? undefined : chip.io.pullUp
  const leakage = fullRange(chip.io.leakage)
  const { smallest: smallestWorked, largest: largestWorked } = window
  const largest = largestWorked.value.typ
  const smallest = smallestWorked.value.typ
  const value = preferred(stock.resistors, smallest, 'nearest')
  const key = `pull:${wire.signal.id}`
  const own = inside && fullRange(inside)
  const support: SupportPart = {
    ...pullUp('pull', wire, stock.resistors, value),
    why: own
      ? `holds the line high while the contact is open, also before the program switches the leg’s own ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)} on`
      : 'holds the line high while the contact is open; this leg has no pull-up of its own',
    worked: [smallestWorked, largestWorked],
    ...supportChoice(design, key, own ? byTheBook : everyStance),
    risk: own
      ? {
          severity: 'notes',
          grade: own.max <= largest ? 'guaranteed' : 'typical',
          text: `The program must switch on the leg’s own pull-up of ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)}; until then ${wire.signal.name} floats.`,
          facts: [
            {
              text: `The leg’s own pull-up is ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)} (${chip.sheet}, ${inside.source ?? 'pull-ups'})`,
            },
            {
              text: `The largest that still reads high is ${formatQuantity(largest, 'Ω', 3)}`,
              worked: largestWorked,
            },
          ],
        }
      : {
          severity: 'stops',
          grade: 'impossible',
          text: `${wire.signal.name} floats while the contact is open: ${formatQuantity(leakage.max, 'A')} of leakage decides what is read.`,
          facts: [
            { text: `${wire.pin.id} has no pull-up of its own` },
            { text: 'A contact drives the line only while it is closed' },
          ],
        },
  }
  return [support]
}

/** Speeds and rise times of the I2C-bus specification, table 10: standard mode, fast mode, fast mode plus. */
export const busSpeeds = [
  { speed: 100e3, rise: 1000e-9, name: '100 kHz' },
  { speed: 400e3, rise: 300e-9, name: '400 kHz' },
  { speed: 1e6, rise: 120e-9, name: '1 MHz' },
]
const busLow = 0.4

/** Pull-ups that the carrier has on the leg of a wire. */
export const boardPulls = (wire: Wire, chip: Chip) =>
  (chip.board?.loads ?? []).filter((l) => l.pin === wire.pin.id && l.pull === 'up' && l.resistance)

export interface BusWindow {
  smallest: Worked
  largest: Worked
  fitted?: Range
}

/** The window for the pull-ups of an I2C line. */
export const busWindow = (
  wire: Wire,
  chip: Chip,
  rail: Worked,
  speed = wire.signal.frequency ?? 100e3,
): BusWindow | undefined => {
  const ends = wire.signal.ends.flatMap((e) =>
    e.signal.electrical.kind === 'open-drain' ? [{ ...e, drain: e.signal.electrical }] : [],
  )
  if (ends.length === 0) return undefined
  const { rise } = busSpeeds.find((r) => speed <= r.speed) ?? busSpeeds.at(-1)!
  const weakest = ends.reduce((a, b) =>
    fullRange(a.drain.sinkCurrent).min <= fullRange(b.drain.sinkCurrent).min ? a : b,
  )
  const sink = fullRange(weakest.drain.sinkCurrent).min
  const pinLoad = fullRange(chip.io.capacitance).max
  const capacitance = ends.reduce((sum, e) => sum + fullRange(e.drain.capacitance).max, pinLoad)
  const fitted = [
    ...ends.flatMap((e) => (e.drain.fitted ? [fullRange(e.drain.fitted)] : [])),
    // Pull-ups of the carrier count like the devices’ own.
    ...boardPulls(wire, chip).map((l) => fullRange(l.resistance!)),
  ]
  return {
    fitted: fitted.length > 0 ? parallel(...fitted) : undefined,
    smallest: {
      label: `Smallest pull-up of ${wire.signal.name}`,
      symbol: 'R_min',
      value: exactly(smallestBusPullUp(rail.value.max, busLow, sink)),
      unit: 'Ω',
      formula: '(V_DD − V_OL) / I_OL',
      inputs: [
        fromWorked(rail),
        fromRule('V_OL', 'highest low level', busLow, 'V', 'I2C-bus specification, table 9'),
        fromPart(
          'I_OL',
          `what ${weakest.instance.name} can sink`,
          weakest.instance.part,
          `${weakest.signal.id}.sinkCurrent`,
          weakest.drain.sinkCurrent,
          'A',
        ),
      ],
      note: 'At the highest supply.',
    },
    largest: {
      label: `Largest pull-up of ${wire.signal.name}`,
      symbol: 'R_max',
      value: exactly(largestBusPullUp(rise, capacitance)),
      unit: 'Ω',
      formula: 't_r / (0.8473 · C_b)',
      inputs: [
        fromRule('t_r', 'longest rise time', rise, 's', 'I2C-bus specification, table 10'),
        fromPart('C_pin', 'the chip’s leg', chip, 'io.capacitance', chip.io.capacitance, 'F'),
        ...ends.map((e, i) =>
          fromPart(
            `C_${i + 1}`,
            `${e.instance.name} with its leads`,
            e.instance.part,
            `${e.signal.id}.capacitance`,
            e.drain.capacitance,
            'F',
          ),
        ),
      ],
      note: 'C_b is the sum of the capacitances on the line, each at its highest.',
    },
  }
}

/** The chip’s side of a line that a MOSFET divides: what is beyond has pull-ups of its own. */
const nearSide = (wire: Wire, shifts: Record<string, unknown> | undefined): Wire => {
  if (!shifts?.[wire.signal.id]) return wire
  const near = wire.signal.ends.filter((e) => !e.instance.need.fedBy)
  const without = wire.signal.ends.map((e) => ({
    ...e,
    signal: { ...e.signal, electrical: { ...e.signal.electrical, fitted: undefined } },
  }))
  return { ...wire, signal: { ...wire.signal, ends: near.length > 0 ? near : without } }
}

export const busPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const window = busWindow(nearSide(wire, design.pins.shifts), chip, rail)
  if (!window || !stock.resistors) return []
  const [low, high] = [window.smallest.value.typ, window.largest.value.typ]
  const enough = window.fitted && window.fitted.max <= high
  const value = preferred(stock.resistors, Math.sqrt(low * high), 'nearest')
  const key = `pull:${wire.signal.id}`
  const support: SupportPart = {
    ...pullUp('pull', wire, stock.resistors, value),
    why: 'both sides of this bus only pull down; without a pull-up it never goes high',
    worked: [window.smallest, window.largest],
    ...supportChoice(design, key, enough ? [] : everyStance),
    risk: {
      severity: enough ? 'notes' : 'stops',
      grade: enough ? 'guaranteed' : 'impossible',
      text: enough
        ? `The pull-ups on the devices’ own boards, together ${formatQuantity(window.fitted!.typ, 'Ω', 3)}, are enough.`
        : `Without a pull-up below ${formatQuantity(high, 'Ω', 3)} ${wire.signal.name} can’t rise in time.`,
      facts: [
        {
          text: `Between ${formatQuantity(low, 'Ω', 3)} and ${formatQuantity(high, 'Ω', 3)} is right`,
          worked: window.largest,
        },
      ],
    },
  }
  return enough && !support.forced ? [] : [support]
}
