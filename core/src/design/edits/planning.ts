import type { Part } from '../../parts'
import { capital, formatQuantity } from '../../quantity'
import {
  type CellsChoice,
  type Charging,
  type ClockChoice,
  type Design,
  type FedBy,
  feederName,
  type FurtherId,
  type FurtherRail,
  type Latch,
  type Lead,
  leadField,
  leadNames,
  type LeadOwner,
  type Measurement,
  mostRails,
  type RadioAnswer,
  type ShiftKind,
} from '../types'
import { cellsField, joinedOf } from '../cells'
import { canFeed, withoutFeeder } from '../rails'
import { defineEdit, without } from './define'

type Plan = Record<string, string>
const withPins = (design: Design, pins: Partial<Design['pins']>): Design => ({
  ...design,
  pins: { ...design.pins, ...pins },
})

/** Without the mark of what is moved by hand: it is soldered there no longer. */
const unsoldered = (design: Design, ...signals: string[]): Pick<Design['pins'], 'soldered'> => {
  if (!design.pins.soldered) return {}
  const left = without(design.pins.soldered, ...signals)
  return { soldered: Object.keys(left).length > 0 ? left : undefined }
}

/** The locks with these added; whoever was locked on one of their pins gives way. */
const lockedOn = (design: Design, added: Plan): Plan => {
  const pins = Object.values(added)
  const { locks } = design.pins
  return { ...without(locks, ...Object.keys(locks).filter((s) => pins.includes(locks[s]!))), ...added }
}

const withRails = (design: Design, rails: FurtherRail[]): Design => ({
  ...design,
  power: { ...design.power, rails },
})

const measuredIn = ({ power }: Design): Measurement[] => power.measured ?? []
const withMeasured = (design: Design, measured: Measurement[]): Design => ({
  ...design,
  power: { ...design.power, measured: measured.length > 0 ? measured : undefined },
})

export const planningEdits = {
  /**
   * `kept`: the plan carried over to the new one's pins, to stay close to; `locks`, `soldered` and `excluded` what of
   * them has a place there (see `swapTo`). What a line of its own carries, a shift or an answer about the radio, stays.
   */
  chooseChip: defineEdit<{
    part: string
    name: string
    kept?: Plan
    locks?: Plan
    soldered?: Plan
    excluded?: string[]
    also?: string[]
    resetAsPort?: boolean
  }>({
    label: ({ name }) => `Choose ${name}`,
    apply: (design, { part, kept, locks, soldered, excluded, also, resetAsPort }) =>
      part === design.chip.part
        ? design
        : {
            ...design,
            chip: { part, ...(also && also.length > 0 ? { also } : {}) },
            pins: {
              locks: locks ?? {},
              ...(soldered && Object.keys(soldered).length > 0 ? { soldered } : {}),
              ...(resetAsPort ? { resetAsPort } : {}),
              excluded: excluded ?? [],
              kept: kept ?? {},
              ...(design.pins.radio ? { radio: design.pins.radio } : {}),
              ...(design.pins.shifts ? { shifts: design.pins.shifts } : {}),
            },
          },
  }),
  /** A wire that is soldered stays where it is, whatever a plan would save. */
  solder: defineEdit<{ signal: string; name: string; pin: string }>({
    label: ({ name, pin }) => `Mark ${name} as soldered to ${pin}`,
    apply: (design, { signal, pin }) =>
      withPins(design, { soldered: { ...design.pins.soldered, [signal]: pin } }),
  }),
  unsolder: defineEdit<{ signal: string; name: string }>({
    label: ({ name }) => `${name} is no longer soldered`,
    apply: (design, { signal }) => withPins(design, unsoldered(design, signal)),
  }),
  /** On small chips the reset leg can serve as one port more. */
  useReset: defineEdit<{ port: boolean }>({
    label: ({ port }) => (port ? 'Use the reset leg as a port' : 'Keep the reset leg for reset'),
    apply: (design, { port }) => withPins(design, { resetAsPort: port || undefined }),
  }),
  /** The wires as they are now, to stay close to: a plan that was looked for longer is found again at once. */
  keepPlan: defineEdit<{ kept: Plan }>({
    label: () => 'Keep this plan',
    apply: (design, { kept }) => withPins(design, { kept }),
  }),
  /** Whether the plan must hold on another board of the same header too. */
  setAlso: defineEdit<{ part: string; name: string; on: boolean }>({
    label: ({ name, on }) => (on ? `Plan for ${name} as well` : `Plan without ${name}`),
    apply: (design, { part, on }) => {
      const others = (design.chip.also ?? []).filter((p) => p !== part)
      const also = on ? [...others, part] : others
      return { ...design, chip: { ...design.chip, also: also.length > 0 ? also : undefined } }
    },
  }),
  /** From a board to the bare chip on it: the same plan, and the board's clock and regulator to start from. */
  makeStandalone: defineEdit<{
    part: string
    name: string
    kept: Plan
    clock?: ClockChoice
    regulator?: string
  }>({
    label: ({ name }) => `Build it around the bare ${name}`,
    apply: (design, { part, kept, clock, regulator }) => ({
      ...design,
      chip: { part, clock },
      pins: { ...design.pins, kept },
      power: { ...design.power, regulator: design.power.regulator ?? regulator },
    }),
  }),
  /** From now on planned with these facts of a part, in place of those it was planned with. */
  takeFacts: defineEdit<{ part: Part }>({
    label: ({ part }) => `Take over the new facts of ${part.name}`,
    apply: (design, { part }) => ({ ...design, parts: { ...design.parts, [part.id]: part } }),
  }),
  chooseClock: defineEdit<{ clock: ClockChoice; name: string }>({
    label: ({ name }) => `Clock from ${name}`,
    apply: (design, { clock }) => ({ ...design, chip: { ...design.chip, clock } }),
  }),
  /** `kept` is the plan at the time, so that the other signals stay where they are if they can. */
  moveSignal: defineEdit<{ signal: string; name: string; pin: string; kept: Plan }>({
    label: ({ name, pin }) => `Move ${name} to ${pin}`,
    apply: (design, { signal, pin, kept }) =>
      withPins(design, {
        locks: lockedOn(design, { [signal]: pin }),
        kept: without(kept, signal, ...Object.keys(kept).filter((s) => kept[s] === pin)),
        ...unsoldered(design, signal),
      }),
  }),
  swapSignals: defineEdit<{ a: string; b: string; nameA: string; nameB: string; kept: Plan }>({
    label: ({ nameA, nameB }) => `Swap ${nameA} and ${nameB}`,
    apply: (design, { a, b, kept }) => {
      const [pinA, pinB] = [kept[a], kept[b]]
      return pinA && pinB
        ? withPins(design, {
            locks: lockedOn(design, { [a]: pinB, [b]: pinA }),
            kept: without(kept, a, b),
            ...unsoldered(design, a, b),
          })
        : design
    },
  }),
  lockSignal: defineEdit<{ signal: string; name: string; pin: string }>({
    label: ({ name, pin }) => `Lock ${name} on ${pin}`,
    apply: (design, { signal, pin }) => withPins(design, { locks: lockedOn(design, { [signal]: pin }) }),
  }),
  unlockSignal: defineEdit<{ signal: string; name: string }>({
    label: ({ name }) => `Unlock ${name}`,
    apply: (design, { signal }) =>
      withPins(design, {
        locks: without(design.pins.locks, signal),
        kept: without(design.pins.kept, signal),
      }),
  }),
  replan: defineEdit<Record<never, never>>({
    label: () => 'Plan afresh, keeping only locks',
    apply: (design) => withPins(design, { kept: {} }),
  }),
  excludePin: defineEdit<{ pin: string; kept: Plan }>({
    label: ({ pin }) => `Keep ${pin} free`,
    apply: (design, { pin, kept }) =>
      withPins(design, {
        excluded: [...design.pins.excluded.filter((p) => p !== pin), pin],
        locks: without(
          design.pins.locks,
          ...Object.keys(design.pins.locks).filter((s) => design.pins.locks[s] === pin),
        ),
        kept,
      }),
  }),
  includePin: defineEdit<{ pin: string }>({
    label: ({ pin }) => `Allow ${pin} again`,
    apply: (design, { pin }) => withPins(design, { excluded: design.pins.excluded.filter((p) => p !== pin) }),
  }),
  answerRadio: defineEdit<{ signal: string; name: string; answer: RadioAnswer | null }>({
    label: ({ name, answer }) =>
      answer === 'pause'
        ? `Pause the radio to read ${name}`
        : answer === 'accept'
          ? `Accept that ${name} fails while the radio is on`
          : `Keep ${name} off converters that the radio stops`,
    apply: (design, { signal, answer }) =>
      withPins(design, {
        radio: {
          ...without(design.pins.radio ?? {}, signal),
          ...(answer === null ? {} : { [signal]: answer }),
        },
      }),
  }),
  /** No shift: the line is plain again. */
  fitShift: defineEdit<{ signal: string; name: string; shift: ShiftKind | null }>({
    label: ({ name, shift }) => (shift ? `Fit a ${shift} into ${name}` : `Make ${name} a plain line`),
    apply: (design, { signal, shift }) =>
      withPins(design, {
        shifts: { ...without(design.pins.shifts ?? {}, signal), ...(shift ? { [signal]: shift } : {}) },
      }),
  }),
  /** No part: what there is without one, a diode or nothing. */
  chooseGuard: defineEdit<{ part: string | null; name: string }>({
    label: ({ part, name }) =>
      part
        ? `${capital(name)} against a plug the wrong way round`
        : 'No transistor against a plug the wrong way round',
    apply: (design, { part }) => ({
      ...design,
      power: { ...without(design.power, 'guard'), ...(part && { guard: part }) },
    }),
  }),
  /** `cells`: how many of it; absent: one. */
  chooseSource: defineEdit<{ part: string; name: string; cells?: CellsChoice }>({
    label: ({ name }) => `Feed it from ${name}`,
    apply: (design, { part, cells }) => ({
      ...design,
      power: { ...without(design.power, 'cells'), source: part, ...(cells && { cells }) },
    }),
  }),
  /** No part: no second feed; what hung on it goes back to the rail. */
  chooseFeed: defineEdit<{ part: string | null; name: string; cells?: CellsChoice }>({
    label: ({ part, name }) => (part ? `Second feed from ${name}` : 'Do without the second feed'),
    apply: (design, { part, cells }) => {
      const fed = {
        ...design,
        power: {
          ...without(design.power, 'feedCells'),
          feed: part ?? undefined,
          ...(cells && { feedCells: cells }),
        },
      }
      return part ? fed : withoutFeeder(fed, 'feed')
    },
  }),
  /** Nothing hangs on it yet. */
  addRail: defineEdit<{ rail: FurtherRail; name: string }>({
    label: ({ rail: { id }, name }) => `Add a ${feederName(id)} behind ${name}`,
    apply: (design, { rail }) => {
      const rails = design.power.rails ?? []
      const isFree = rails.length < mostRails && !rails.some((r) => r.id === rail.id)
      return isFree ? withRails(design, [...rails, rail]) : design
    },
  }),
  changeRail: defineEdit<{ id: FurtherId; change: { regulator: string } | { from: FedBy }; what: string }>({
    label: ({ id, what }) => `${capital(feederName(id))}: ${what}`,
    apply: (design, { id, change }) => {
      const rails = design.power.rails
      // Nothing feeds itself.
      if (!rails || ('from' in change && !canFeed(design, id).includes(change.from))) return design
      return withRails(
        design,
        rails.map((r) =>
          r.id !== id
            ? r
            : 'regulator' in change
              ? { ...r, regulator: change.regulator }
              : { ...r, from: change.from === 'source' ? undefined : change.from },
        ),
      )
    },
  }),
  /** What hung on it goes back to the chip’s rail. */
  removeRail: defineEdit<{ id: FurtherId }>({
    label: ({ id }) => `Do without the ${feederName(id)}`,
    apply: (design, { id }) => withoutFeeder(design, id),
  }),
  chooseRegulator: defineEdit<{ part: string | null; name: string }>({
    label: ({ part, name }) => (part ? `Regulate with ${name}` : 'Feed the rail without a regulator'),
    apply: (design, { part }) => ({
      ...design,
      power: { ...design.power, regulator: part ?? undefined },
    }),
  }),
  changeCells: defineEdit<{ of: LeadOwner; change: CellsChoice; name: string }>({
    label: ({ change, name }) =>
      `${name}: ${[
        ...(change.series === undefined ? [] : [`${change.series} in a row`]),
        ...(change.parallel === undefined ? [] : [`${change.parallel} beside one another`]),
      ].join(', ')}`,
    apply: (design, { of, change }) => ({
      ...design,
      power: { ...design.power, [cellsField[of]]: { ...joinedOf(design, of), ...change } },
    }),
  }),
  /** A field that is undefined is taken away; of a lead with nothing in it nothing is left. */
  changeLead: defineEdit<{ of: LeadOwner; change: Partial<Lead>; what: string }>({
    label: ({ of, what }) => `${capital(leadNames[of])}: ${what}`,
    apply: (design, { of, change }) => {
      const field = leadField[of]
      const now = Object.entries({ ...design.power[field], ...change }).filter(([, v]) => v !== undefined)
      return {
        ...design,
        power: { ...design.power, [field]: now.length > 0 ? Object.fromEntries(now) : undefined },
      }
    },
  }),
  /** A field that is undefined is what the button’s file proposes. */
  changeLatch: defineEdit<{ change: Partial<Latch>; what: string }>({
    label: ({ what }) => `Latch: ${what}`,
    apply: (design, { change }) => {
      const now = Object.entries({ ...design.power.latch, ...change }).filter(([, v]) => v !== undefined)
      return {
        ...design,
        power: { ...design.power, latch: now.length > 0 ? Object.fromEntries(now) : undefined },
      }
    },
  }),
  /** A field that is undefined is taken away; without a charger nothing is left of it. */
  changeCharging: defineEdit<{ change: Partial<Charging>; what: string }>({
    label: ({ what }) => `Charging: ${what}`,
    apply: (design, { change }) => {
      const now = { ...design.power.charging, ...change }
      const left = Object.fromEntries(Object.entries(now).filter(([, v]) => v !== undefined))
      return {
        ...design,
        power: {
          ...design.power,
          charging: now.charger === undefined ? undefined : (left as unknown as Charging),
        },
      }
    },
  }),
  addMeasurement: defineEdit<{ measurement: Measurement }>({
    label: ({ measurement: { reading } }) => `Note that ${formatQuantity(reading, 'A')} were measured`,
    apply: (design, { measurement }) => withMeasured(design, [...measuredIn(design), measurement]),
  }),
  changeMeasurement: defineEdit<{ id: string; change: Partial<Omit<Measurement, 'id'>> }>({
    label: ({ change: { found } }) => (found ? `Note what it was: ${found}` : 'Change what was measured'),
    apply: (design, { id, change }) =>
      withMeasured(
        design,
        measuredIn(design).map((m) => (m.id === id ? { ...m, ...change } : m)),
      ),
  }),
  removeMeasurement: defineEdit<{ id: string }>({
    label: () => 'Take a measurement away',
    apply: (design, { id }) =>
      withMeasured(
        design,
        measuredIn(design).filter((m) => m.id !== id),
      ),
  }),
  leaveOut: defineEdit<{ support: string; name: string }>({
    label: ({ name }) => `Leave out the ${name}`,
    apply: (design, { support }) => ({
      ...design,
      build: { ...design.build, support: { ...design.build.support, [support]: 'out' } },
    }),
  }),
  putIn: defineEdit<{ support: string; name: string }>({
    label: ({ name }) => `Put in the ${name}`,
    apply: (design, { support }) => ({
      ...design,
      build: { ...design.build, support: { ...design.build.support, [support]: 'in' } },
    }),
  }),
}
