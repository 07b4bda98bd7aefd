// Pull-ups: for a contact that only ever closes to ground, and for the two lines of an I2C bus.

import { preferred, type SupportPart } from '../../circuit'
import { byTheBook, everyStance, supportChoice } from '../../design'
import { largestBusPullUp, largestPullUp, smallestBusPullUp, smallestPull } from '../../electrical'
import { fromPart, fromRule, fromWorked, type Worked } from '../../findings'
import { exactly, formatQuantity, fullRange, parallel, type Range } from '../../quantity'
import type { Wire } from '../plan'
import { attributeOf } from '../ways'
import { netOf, type SignalSupport } from './context'

/** What a closed contact may waste: a rule of thumb, small against any supply. */
const contactCurrent = 0.5e-3

export const contactPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'contact')
  if (!end || !stock.resistors || end.signal.electrical.kind !== 'contact') return []
  const inside = attributeOf(wire.pin, 'no-pull-up') ? undefined : chip.io.pullUp
  const leakage = fullRange(chip.io.leakage)
  const high = chip.io.inputHigh
  const contactLeak = end.signal.electrical.leakage ? fullRange(end.signal.electrical.leakage).max : 0
  const threshold = high.factor * rail.value.min + (high.offset ?? 0)
  const largest = largestPullUp(rail.value.min, threshold, leakage.max + contactLeak)
  const smallest = smallestPull(rail.value.typ, contactCurrent)
  const value = preferred(stock.resistors, smallest, 'nearest')
  const key = `pull:${wire.signal.id}`
  const largestWorked: Worked = {
    label: 'Largest pull-up',
    symbol: 'R_max',
    value: exactly(largest),
    unit: 'Ω',
    formula: '(V_DD − V_IH) / I_leak',
    inputs: [
      fromWorked(rail),
      fromRule('V_IH', 'least voltage read as high', threshold, 'V', `${chip.sheet}, ${high.factor} · V_DD`),
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
  }
  const smallestWorked: Worked = {
    label: 'Pull-up for a closed contact',
    symbol: 'R',
    value: exactly(smallest),
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
    note: `Fitted is the nearest preferred value, ${formatQuantity(value.value, 'Ω')}.`,
  }
  const own = inside && fullRange(inside)
  const support: SupportPart = {
    key,
    name: `pull-up of ${wire.signal.name}`,
    part: stock.resistors,
    value: { ...value },
    legs: [
      { name: '1', net: 'VCC' },
      { name: '2', net: netOf(wire.signal.name) },
    ],
    why: own
      ? `holds the line high while the contact is open, also before the program switches the leg’s own ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)} on`
      : 'holds the line high while the contact is open; this leg has no pull-up of its own',
    worked: [smallestWorked, largestWorked],
    signal: wire.signal.id,
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

/** Rise times of the I2C-bus specification, table 10: standard mode, fast mode, fast mode plus. */
const riseTimes = [
  { speed: 100e3, rise: 1000e-9 },
  { speed: 400e3, rise: 300e-9 },
  { speed: 1e6, rise: 120e-9 },
]
const busLow = 0.4

export interface BusWindow {
  smallest: Worked
  largest: Worked
  fitted?: Range
}

/** The window for the pull-ups of an I2C line. */
export const busWindow = (
  wire: Wire,
  chip: Parameters<SignalSupport>[1]['chip'],
  rail: Worked,
): BusWindow | undefined => {
  const ends = wire.signal.ends.flatMap((e) =>
    e.signal.electrical.kind === 'open-drain' ? [{ ...e, drain: e.signal.electrical }] : [],
  )
  if (ends.length === 0) return undefined
  const { rise } = riseTimes.find((r) => (wire.signal.frequency ?? 100e3) <= r.speed) ?? riseTimes.at(-1)!
  const weakest = ends.reduce((a, b) =>
    fullRange(a.drain.sinkCurrent).min <= fullRange(b.drain.sinkCurrent).min ? a : b,
  )
  const sink = fullRange(weakest.drain.sinkCurrent).min
  const pinLoad = fullRange(chip.io.capacitance).max
  const capacitance = ends.reduce((sum, e) => sum + fullRange(e.drain.capacitance).max, pinLoad)
  const fitted = ends.flatMap((e) => (e.drain.fitted ? [fullRange(e.drain.fitted)] : []))
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

export const busPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const window = busWindow(wire, chip, rail)
  if (!window || !stock.resistors) return []
  const [low, high] = [window.smallest.value.typ, window.largest.value.typ]
  const enough = window.fitted && window.fitted.max <= high
  const value = preferred(stock.resistors, Math.sqrt(low * high), 'nearest')
  const key = `pull:${wire.signal.id}`
  const support: SupportPart = {
    key,
    name: `pull-up of ${wire.signal.name}`,
    part: stock.resistors,
    value: { ...value },
    legs: [
      { name: '1', net: 'VCC' },
      { name: '2', net: netOf(wire.signal.name) },
    ],
    why: 'both sides of this bus only pull down; without a pull-up it never goes high',
    worked: [window.smallest, window.largest],
    signal: wire.signal.id,
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
