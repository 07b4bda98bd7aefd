// Pull-ups: for a contact that only ever closes to ground, and for the two lines of an I2C bus.

import { busMode, busLow, chipReads } from '../levels'
import { preferred, type SupportPart } from '../circuit'
import { byTheBook, everyStance, supportChoice } from '../design'
import { fromPart, fromRule, type Worked, type WorkedInput, say } from '../findings'
import { formatQuantity, fullRange } from '../quantity'
import type { Chip, Resistors } from '../parts'
import { dimensionOf, number, parallel, sum, type Term, total } from '../sums'
import { onceAWire } from './once'
import { attributeOf, type EndOf, endsOf, type Wire } from '../legs'
import { pullUp, type SignalSupport } from './context'

/** What a closed contact may waste: a rule of thumb, small against any supply. */
const contactCurrent = 0.5e-3

/** What leaves the line open while it is not low: a contact, or an output that can only pull down. */
const openEnd = (wire: Wire) =>
  wire.signal.ends.find(
    ({ signal: { electrical: e } }) => e.kind === 'contact' || (e.kind === 'logic-output' && e.openDrain),
  )

/** The window for the pull-up of a line that is closed to ground and else open. */
export const contactWindow = onceAWire(
  (wire, chip: Chip, rail: Worked): { smallest: Worked; largest: Worked } | undefined => {
    const end = openEnd(wire)
    if (!end) return undefined
    const { electrical } = end.signal
    const contactLeak =
      electrical.kind === 'contact' && electrical.leakage
        ? fromPart(
            'I_in',
            'leakage of the contact',
            end.instance.part,
            `${end.signal.id}.leakage`,
            electrical.leakage,
            'A',
          )
        : undefined
    return {
      largest: largestPullUp(
        'Largest pull-up',
        rail,
        chipReads(chip, rail).high,
        legLeakage(chip, contactLeak),
      ),
      smallest: sum(
        {
          label: 'Pull-up for a closed contact',
          symbol: 'R',
          unit: 'Ω',
          note: 'Fitted is the nearest preferred value to the usual one.',
        },
        {
          V_DD: rail,
          I_closed: fromRule(
            'I_closed',
            'current while closed',
            contactCurrent,
            'A',
            'a tenth of what an LED takes; less is noise-prone',
          ),
        },
        (i) => i.V_DD.over(i.I_closed),
      ),
    }
  },
)

/** Leakage of a leg, and of what else leaks on its line. */
export const legLeakage = (chip: Chip, more?: WorkedInput): Worked =>
  sum(
    { label: 'Leakage on the line', symbol: 'I_leak', unit: 'A' },
    {
      I_leg: fromPart('I_leg', 'leakage of the leg', chip, 'io.leakage', chip.io.leakage, 'A'),
      ...(more && { I_in: more }),
    },
    (i: Record<string, Term>) => total(Object.values(i), dimensionOf('A')),
  )

/** A pull-up must hold a line at V_IH against leakage; the least of it counts. */
export const largestPullUp = (label: string, V_DD: Worked, V_IH: Worked, I_leak: Worked): Worked =>
  sum(
    {
      label,
      symbol: 'R_max',
      unit: 'Ω',
      counts: 'min',
      note: 'At the lowest supply and the highest leakage.',
    },
    {
      V_left: sum({ label: 'Left above the threshold', symbol: 'V_left', unit: 'V' }, { V_DD, V_IH }, (i) =>
        i.V_DD.minus(i.V_IH),
      ),
      I_leak,
    },
    (i) => i.V_left.over(i.I_leak),
  )

export const contactPullUp: SignalSupport = (wire, { chip, rail, stock, design }) => {
  const window = contactWindow(wire, chip, rail)
  if (!window || !stock.resistors) return []
  const inside = attributeOf(wire.pin, 'no-pull-up') ? undefined : chip.io.pullUp
  const leakage = fullRange(chip.io.leakage)
  const { smallest: smallestWorked, largest: largestWorked } = window
  const largest = largestWorked.value.min
  const value = preferred(
    stock.resistors,
    Math.min(smallestWorked.value.typ, largest / (1 + stock.resistors.tolerance)),
    'nearest',
  )
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
          ...say`The program must switch on the leg’s own pull-up of ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)}; until then ${wire.signal.name} floats.`,
          facts: [
            say`The leg’s own pull-up is ${formatQuantity(own.min, 'Ω', 2)} to ${formatQuantity(own.max, 'Ω', 2)} (${chip.sheet}, ${inside.source ?? 'pull-ups'})`,
            {
              ...say`The largest that still reads high is ${formatQuantity(largest, 'Ω', 3)}`,
              worked: largestWorked,
            },
          ],
        }
      : {
          severity: 'stops',
          grade: 'impossible',
          ...say`${wire.signal.name} floats while the contact is open: ${formatQuantity(leakage.max, 'A')} of leakage decides what is read.`,
          facts: [
            say`${wire.pin.id} has no pull-up of its own`,
            say`A contact drives the line only while it is closed`,
          ],
        },
  }
  return [support]
}

/** Pull-ups that the carrier has on the leg of a wire. */
export const boardPulls = (wire: Wire, chip: Chip) =>
  (chip.board?.loads ?? []).filter((l) => l.pin === wire.pin.id && l.pull === 'up' && l.resistance)

export interface BusWindow {
  /** Of all pull-ups on the line together; the greatest of it counts. */
  smallest: Worked
  /** The least of it counts. */
  largest: Worked
  /** On the devices’ own boards and the carrier, together. */
  fitted?: Worked
  /** Everything on the line, farads. */
  load: Worked
  /** The most that the specification allows. */
  loadLimit: number
}

/** The window for the pull-ups of an I2C line. */
export const busWindow = (
  wire: Wire,
  chip: Chip,
  rail: Worked,
  speed = wire.signal.frequency ?? 100e3,
): BusWindow | undefined => windowAt(wire, chip, rail, speed)

type DrainEnd = EndOf<'open-drain'>

/** Pull-ups that are there: on the devices’ own boards, and on the carrier. */
const pullsOn = (wire: Wire, ends: DrainEnd[], chip: Chip): WorkedInput[] => [
  ...ends.flatMap(({ end: { instance, signal }, electrical: drain }) =>
    drain.fitted
      ? [
          {
            ...fromPart(
              'R',
              `pull-up on ${instance.name}`,
              instance.part,
              `${signal.id}.fitted`,
              drain.fitted,
              'Ω',
            ),
            variable: `${instance.id} ${signal.id}.fitted`,
          },
        ]
      : [],
  ),
  ...boardPulls(wire, chip).map((l) =>
    fromPart(
      'R',
      l.what,
      chip.board!,
      `loads.${l.pin}.resistance`,
      { source: l.source, ...l.resistance! },
      'Ω',
    ),
  ),
]

/** The chip’s leg and every device with its leads. */
const loadOn = (wire: Wire, ends: DrainEnd[], chip: Chip): Worked =>
  sum(
    { label: `Capacitance on ${wire.signal.name}`, symbol: 'C_b', unit: 'F' },
    {
      C_pin: fromPart('C_pin', 'the chip’s leg', chip, 'io.capacitance', chip.io.capacitance, 'F'),
      ...Object.fromEntries(
        ends.map(({ end: { instance, signal }, electrical: drain }, i) => [
          `C_${i + 1}`,
          fromPart(
            `C_${i + 1}`,
            `${instance.name} with its leads`,
            instance.part,
            `${signal.id}.capacitance`,
            drain.capacitance,
            'F',
          ),
        ]),
      ),
    },
    (i: Record<string, Term>) => total(Object.values(i), dimensionOf('F')),
  )

/** Below it who sinks least can’t pull the line low. */
const smallestOn = ({ signal: { name } }: Wire, ends: DrainEnd[], rail: Worked): Worked => {
  const {
    end: { instance, signal },
    electrical: drain,
  } = ends.reduce((a, b) =>
    fullRange(a.electrical.sinkCurrent).min <= fullRange(b.electrical.sinkCurrent).min ? a : b,
  )
  return sum(
    {
      label: `Smallest pull-up of ${name}`,
      symbol: 'R_min',
      unit: 'Ω',
      counts: 'max',
      note: 'I2C-bus specification, section 7.1.',
    },
    {
      V_DD: rail,
      V_OL: fromRule(
        'V_OL',
        'highest low level',
        busLow(rail).value.max,
        'V',
        'I2C-bus specification, table 9',
      ),
      I_OL: fromPart(
        'I_OL',
        `what ${instance.name} can sink`,
        instance.part,
        `${signal.id}.sinkCurrent`,
        drain.sinkCurrent,
        'A',
      ),
    },
    (i) => i.V_DD.minus(i.V_OL).over(i.I_OL),
  )
}

const windowAt = onceAWire((wire, chip: Chip, rail: Worked, speed: number): BusWindow | undefined => {
  const ends = endsOf(wire, 'open-drain')
  if (ends.length === 0) return undefined
  const { rise, load: loadLimit, name } = busMode(speed)
  const pulls = pullsOn(wire, ends, chip)
  const load = loadOn(wire, ends, chip)
  return {
    fitted: pulls.length > 0 ? together(`Pull-ups on the boards, ${wire.signal.name}`, pulls) : undefined,
    smallest: smallestOn(wire, ends, rail),
    largest: sum(
      {
        label: `Largest pull-up of ${wire.signal.name}`,
        symbol: 'R_max',
        unit: 'Ω',
        counts: 'min',
        note: `At ${name} (I2C-bus specification, section 7.1).`,
      },
      { t_r: fromRule('t_r', 'longest rise time', rise, 's', 'I2C-bus specification, table 10'), C_b: load },
      (i) => i.t_r.over(number(0.8473).times(i.C_b)),
    ),
    load,
    loadLimit,
  }
})

/** Resistors that all pull one line. */
export const together = (label: string, resistors: WorkedInput[]): Worked =>
  sum(
    { label, symbol: 'R_Σ', unit: 'Ω' },
    Object.fromEntries(resistors.map((r, i) => [`R_${i + 1}`, { ...r, symbol: `R_${i + 1}` }])),
    (i: Record<string, Term>) => parallel(...Object.values(i)),
  )

/**
 * The pull-up of ours beside those on the boards, ohms: all together stay in the window at every corner. Undefined where
 * the boards’ own do; where nothing can, the smallest that every device can still pull low.
 */
export const ourPullUp = (
  { smallest, largest, fitted }: BusWindow,
  drawer: Resistors,
): { value: ReturnType<typeof preferred>; empty: boolean } | undefined => {
  const [low, high] = [smallest.value.max, largest.value.min]
  if (fitted && fitted.value.max <= high) return undefined
  // 1/R = 1/R_together − 1/R_boards
  const beside = (all: number, boards: number | undefined) =>
    boards === undefined ? all : boards <= all ? Infinity : 1 / (1 / all - 1 / boards)
  const least = beside(low, fitted?.value.min) / (1 - drawer.tolerance)
  const most = beside(high, fitted?.value.max) / (1 + drawer.tolerance)
  if (!(least <= most)) return { value: preferred(drawer, least, 'up'), empty: true }
  const middle = preferred(drawer, Math.sqrt(least * most), 'nearest')
  const inside = (v: typeof middle) => v.value >= least && v.value <= most
  const found = [middle, preferred(drawer, least, 'up'), preferred(drawer, most, 'down')].find(inside)
  return found ? { value: found, empty: false } : { value: preferred(drawer, least, 'up'), empty: true }
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
  const [low, high] = [window.smallest.value.max, window.largest.value.min]
  const ours = ourPullUp(window, stock.resistors)
  const value = ours?.value ?? preferred(stock.resistors, Math.sqrt(low * high), 'nearest')
  const key = `pull:${wire.signal.id}`
  const support: SupportPart = {
    ...pullUp('pull', wire, stock.resistors, value),
    why: 'both sides of this bus only pull down; without a pull-up it never goes high',
    worked: [window.smallest, window.largest],
    ...supportChoice(design, key, ours ? everyStance : []),
    risk: {
      severity: ours ? 'stops' : 'notes',
      grade: ours ? 'impossible' : 'guaranteed',
      ...(ours
        ? say`Without a pull-up below ${formatQuantity(high, 'Ω', 3)} ${wire.signal.name} can’t rise in time.`
        : say`The pull-ups on the devices’ own boards, together ${formatQuantity(window.fitted!.value.typ, 'Ω', 3)}, are enough.`),
      facts: [
        {
          ...say`Between ${formatQuantity(low, 'Ω', 3)} and ${formatQuantity(high, 'Ω', 3)} is right`,
          worked: window.largest,
        },
      ],
    },
  }
  return !ours && !support.forced ? [] : [support]
}
