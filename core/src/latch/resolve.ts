// What becomes of a latch: how far it is on and off, how long it must be pressed, when it is off again, what it takes meanwhile.

import { fittedCapacitors, fittedFor, fittedResistor, type SupportPart } from '../circuit'
import {
  assumedIn,
  type Assumption,
  fromDecision,
  fromPart,
  fromRule,
  type Stages,
  type Worked,
  type WorkedInput,
} from '../findings'
import { chipReads } from '../levels'
import type { Chip, Rated } from '../parts'
import { fullRange } from '../quantity'
import {
  asStated,
  asVariable,
  dimensionOf,
  greatest,
  junctionOf,
  logarithm,
  number,
  sum,
  type SumInput,
  type Term,
  total,
} from '../sums'
import {
  behindPlug,
  chargeOf,
  forwardOf,
  insideOf,
  ledOnly,
  leadResistance,
  notCounted,
  passResistance,
  type Wear,
  wearOf,
} from '../supply'
import { offCurrent, thresholdOf } from '../support'
import { type LatchPlan } from './plan'

export interface LatchResult extends LatchPlan {
  /** Between gate and source, V: while the button is pressed, while the program holds, while all is off. */
  pressed: Worked
  held: Worked
  off: Worked
  threshold: WorkedInput
  /** Its channel while it holds; absent where its sheet states none. */
  channel?: Worked
  /** Lost in it, V, and turned to heat, W; its junction, °C. */
  drop?: Worked
  heat?: Worked
  junction?: Worked
  /** The button as the program reads it: the level while pressed, and what is left below the one that counts as low, V. */
  key?: LatchPlan['key']
  low?: Worked
  margin?: Worked
  /** Until the rail is up, the program runs, and holds; and all of it, s. */
  rise?: Worked
  startUp: Worked
  setUp: Worked
  press: Worked
  /** From letting go to a channel that is off, and until the rail is below what the chip works with, s. */
  release: Worked
  fall?: Worked
  /** As the source is put in the gate lags behind: between gate and source then, V, and for how long it is on, s. */
  jump: Worked
  blink: Worked
  /** A finger from gate to ground of less than this switches it on, Ω. */
  touch: Worked
  /** Out of the source, A, while all is off; and s until that and age have emptied it. */
  standby: Worked
  shelf?: Worked
  /** Through the resistor while it is on, A. */
  holding: Worked
  /** What all that stands on and no sheet states. */
  assumed: Assumption[]
}

/** From the first line of the program to the one that holds: a few settings before it, at most, s. */
const usualSetUp = 5e-3
/** Where no sheet says how long a chip takes to start. */
const usualStart = { min: 1e-3, typ: 10e-3, max: 100e-3, kind: 'assumed' } satisfies Rated
/** Of a transistor whose sheet doesn’t state them. */
const usualGate = { typ: 500e-12, max: 1e-9, kind: 'assumed' } satisfies Rated
const usualDrain = { typ: 80e-12, max: 150e-12, kind: 'assumed' } satisfies Rated

const seconds = dimensionOf('s')
const farads = dimensionOf('F')
const year = number(365.25 * 86400, seconds)

/** From the gate to ground beside its transistor: tracks, the wire to the button, the diode, F. */
const stray = { min: 5e-12, typ: 20e-12, max: 100e-12 }

/** What the resistor has to empty: between gate and source, and to ground. */
const gateCapacitances = ({ pass, pull }: Pick<LatchPlan, 'pass' | 'pull'>): Record<string, WorkedInput> => ({
  C_iss: fromPart(
    'C_iss',
    `gate of ${pass.name}`,
    pass,
    'gateCapacitance',
    pass.gateCapacitance ?? usualGate,
    'F',
  ),
  C_stray: {
    symbol: 'C_stray',
    label: 'tracks, diode and the wire to the button',
    value: stray,
    unit: 'F',
    origin: { kind: 'rule', source: 'usual for some centimetres' },
    variable: 'stray capacitance of the latch',
  },
  ...(pull && {
    C_pull: fromPart(
      'C_pull',
      `drain of ${pull.name}`,
      pull,
      'drainCapacitance',
      pull.drainCapacitance ?? usualDrain,
      'F',
    ),
  }),
})
export const usualStray = stray.typ

/** Capacitors that lie between one of these nets and ground. */
export const capacitorsOn = (support: readonly SupportPart[], nets: readonly string[]): WorkedInput[] =>
  fittedCapacitors(
    support.filter((s) => s.legs.some((l) => nets.includes(l.net)) && s.legs.some((l) => l.net === 'GND')),
  )

const together = (label: string, capacitors: readonly WorkedInput[]): Worked =>
  sum(
    { label, symbol: 'C', unit: 'F' },
    Object.fromEntries(capacitors.map((c) => [c.symbol, c])),
    (i: Record<string, Term>) => total(Object.values(i), farads),
  )

const pullUpOf = ({ resistors, pullUp }: Pick<LatchPlan, 'resistors' | 'pullUp'>): WorkedInput =>
  fittedResistor('R_up', 'resistor from gate to source', resistors, pullUp, 'latch-pull-up')

/** Through the resistor while it is on, A. */
export const latchHolding = (plan: Pick<LatchPlan, 'resistors' | 'pullUp' | 'source'>): Worked => {
  const { source } = plan
  return sum(
    { label: 'Through the latch’s resistor while it is on', symbol: 'I_up', unit: 'A', counts: 'max' },
    {
      V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'),
      R_up: pullUpOf(plan),
    },
    (i) => i.V_source.over(i.R_up),
  )
}

/** Out of the source while all is off, A; `inFront`: what draws from it in front of the latch, by its symbol. */
export const latchStandby = (
  { pass, leak }: Pick<LatchPlan, 'pass' | 'leak'>,
  inFront: Readonly<Record<string, SumInput>> = {},
): Worked =>
  sum(
    { label: 'From the source while all is off', symbol: 'I_off', unit: 'A', counts: 'max' },
    { I_pass: offCurrent('I_pass', pass), I_leak: leak, ...inFront },
    (i: Record<string, Term>) => total(Object.values(i), dimensionOf('A')),
  )

/** Between gate and source in each of its three states. */
const gates = (plan: LatchPlan, V_cell: Worked, R_up: WorkedInput) => {
  const { readable, diode, leak } = plan
  const I_up = latchHolding(plan)
  const on = { symbol: 'V_GS', unit: 'V' as const, counts: 'min' as const }
  return {
    holding: I_up,
    held: sum(
      {
        ...on,
        label: 'Between gate and source while the program holds',
        note: 'Next to nothing falls in the transistor that pulls the gate down: only the resistor’s current flows through it.',
      },
      { V_cell },
      (i) => i.V_cell,
    ),
    pressed:
      readable && diode
        ? sum(
            { ...on, label: 'Between gate and source while the button is pressed' },
            { V_cell, V_F: forwardOf(diode, asVariable(I_up)) },
            (i) => i.V_cell.minus(i.V_F),
          )
        : sum(
            { ...on, label: 'Between gate and source while the button is pressed' },
            { V_cell },
            (i) => i.V_cell,
          ),
    off: sum(
      {
        label: 'Between gate and source while all is off',
        symbol: 'V_off',
        unit: 'V',
        counts: 'max',
        note: 'What leaks off the gate comes through the resistor, and something falls across it.',
      },
      { I_leak: leak, R_up },
      (i) => i.I_leak.times(i.R_up),
    ),
  }
}

/** What the program sees of a pressed button: the diode lets it no lower than what falls across itself. */
const keyLevel = (plan: LatchPlan, support: readonly SupportPart[], chip: Chip, rail: Worked) => {
  const { key, diode } = plan
  if (!key || !diode) return {}
  const fitted = fittedFor(support, 'line pull-up', key.signal.id)
  const own = chip.io.pullUp
  const R_pull =
    fitted?.part.kind === 'resistors'
      ? fittedResistor('R_pull', fitted.name, fitted.part, fitted.value!, fitted.key)
      : own && fromPart('R_pull', 'pull-up of the leg', chip, 'io.pullUp', own, 'Ω')
  if (!R_pull) return {}
  const I = sum(
    { label: 'Through the pull-up while pressed', symbol: 'I_key', unit: 'A' },
    { V_DD: rail, R_pull },
    (i) => i.V_DD.over(i.R_pull),
  )
  const low = asStated(
    'Level of a pressed button at its leg',
    'V_key',
    'V',
    forwardOf(diode, asVariable(I)),
    'The diode keeps the gate’s voltage off the leg, and lets the leg no lower than what falls in itself.',
  )
  return {
    low,
    margin: sum(
      { label: 'Left below what the leg reads as low', symbol: 'NM_L', unit: 'V', counts: 'min' },
      { V_IL: chipReads(chip, rail).low, V_key: low },
      (i) => i.V_IL.minus(i.V_key),
    ),
  }
}

export const resolveLatch = (
  plan: LatchPlan,
  { design, power }: Pick<Stages, 'design' | 'power'>,
  chip: Chip,
  support: readonly SupportPart[],
): LatchResult | undefined => {
  const { source, pass } = plan
  const { rail } = power
  if (!rail) return undefined
  const { lead, wear } = power.supplies.sources.find((s) => s.id === 'source') ?? {}
  const led = lead && ledOnly(lead)
  const through = asVariable(power.through)
  const V_cell = behindPlug({ part: source, lead: led, wear }, through)
  const R_up = pullUpOf(plan)
  const V_th = thresholdOf(pass)
  const gate = gates(plan, V_cell, R_up)
  const R_DS = passResistance(pass, source)
  const given = R_DS && { I: through, R_DS: asVariable(R_DS) }
  const heat =
    given &&
    sum({ label: 'Heat in the latch', symbol: 'P', unit: 'W', counts: 'max' }, given, (i) =>
      i.I.times(i.I).times(i.R_DS),
    )
  const junction = heat && junctionOf(`Junction of ${pass.name}`, pass, design.needs.limits.ambient, heat)
  const C = gateCapacitances(plan)
  const toGround = (i: Record<string, Term>) => (i.C_pull ? i.C_stray!.plus(i.C_pull) : i.C_stray!)
  const all = (i: Record<string, Term>) => i.C_iss!.plus(toGround(i))
  const V_source = fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')
  const times = pressTimes(plan, { design, power }, chip, support, led && asVariable(leadResistance(led)))
  const jump = sum(
    {
      label: 'Between gate and source as the source is put in',
      symbol: 'V_jump',
      unit: 'V',
      counts: 'max',
      note: 'The source jumps, and what lies between gate and ground holds the gate back. What lies between it and the rail doesn’t: until the rail has followed no program runs.',
    },
    { V_source, ...C },
    (i: Record<string, Term>) => i.V_source!.times(toGround(i)).over(all(i)),
  )
  // A charger’s output and what guards the cell are in front of it, and never off.
  const inFront = Object.fromEntries(
    power.consumers.flatMap(({ id, support, rest }) =>
      support === 'charger' ? [['I_back', rest]] : id === 'protection.source' ? [['I_guard', rest]] : [],
    ),
  )
  const standby = latchStandby(plan, inFront)
  const found = {
    ...plan,
    ...gate,
    threshold: V_th,
    ...(R_DS && { channel: R_DS }),
    ...(given && {
      drop: sum({ label: 'Lost in the latch', symbol: 'V_DS', unit: 'V', counts: 'max' }, given, (i) =>
        i.I.times(i.R_DS),
      ),
    }),
    ...(heat && { heat }),
    ...(junction && { junction }),
    ...keyLevel(plan, support, chip, rail),
    ...times,
    release: sum(
      {
        label: 'From letting go to a channel that is off',
        symbol: 't_off',
        unit: 's',
        counts: 'max',
        note: 'The resistor empties the gate down to its least threshold: R C ln(V / V_th).',
      },
      { R_up, V_source, V_th, ...C },
      (i: Record<string, Term>) =>
        i.R_up!.times(all(i)).times(logarithm(greatest(number(1), i.V_source!.over(i.V_th!)))),
    ),
    jump,
    blink: sum(
      {
        label: 'On by itself as the source is put in',
        symbol: 't_blink',
        unit: 's',
        counts: 'max',
        note: 'Until the resistor has brought the gate back below its threshold.',
      },
      { R_up, V_jump: asVariable(jump), V_th, ...C },
      (i: Record<string, Term>) =>
        i.R_up!.times(all(i)).times(logarithm(greatest(number(1), i.V_jump!.over(i.V_th!)))),
    ),
    touch: sum(
      {
        label: 'A finger from gate to ground that switches it on',
        symbol: 'R_touch',
        unit: 'Ω',
        counts: 'max',
        note: 'Resistor and finger divide the source’s voltage: as soon as the threshold falls across the resistor it begins to carry.',
      },
      { R_up, V_source, V_th },
      (i) => i.R_up.times(greatest(number(0, dimensionOf('V')), i.V_source.minus(i.V_th))).over(i.V_th),
    ),
    standby,
    ...shelfOf(plan, standby, wearOf(design.needs.limits)),
  }
  const { pressed, held, off, press, release, blink, low, fall, largest } = found
  const numbers = [pressed, held, off, press, release, blink, standby, largest, low, fall]
  return {
    ...found,
    assumed: assumedIn(numbers),
  }
}

/** Until it holds by itself, and until it is off. */
const pressTimes = (
  { source, pass }: LatchPlan,
  { design, power }: Pick<Stages, 'design' | 'power'>,
  chip: Chip,
  support: readonly SupportPart[],
  R_lead: WorkedInput | undefined,
): Pick<LatchResult, 'rise' | 'startUp' | 'setUp' | 'press' | 'fall'> => {
  const all = capacitorsOn(support, ['VPLUG', 'VIN', 'VCC'])
  const onRail = capacitorsOn(support, ['VCC'])
  const R_DS = passResistance(pass, source)
  const R_i = insideOf(source, wearOf(design.needs.limits))
  const way: Record<string, SumInput> = {
    ...(R_i && { R_i }),
    ...(R_lead && { R_lead }),
    ...(R_DS && { R_DS: asVariable(R_DS) }),
  }
  const { regulator } = power
  // What a regulator has left for the capacitors behind it while everything works.
  const most = regulator && fullRange(regulator.current).min - power.loaded.value.max
  const behind =
    regulator && onRail.length > 0 && most! > 0
      ? sum(
          {
            label: 'Until the regulator has filled what is behind it',
            symbol: 't_fill',
            unit: 's',
            counts: 'max',
            note: 'With its rated current, less what is drawn meanwhile: C V / (I_max − I).',
          },
          {
            C: asVariable(together('Capacitors of the rail', onRail)),
            V_DD: power.rail!,
            I_max: fromPart('I_max', regulator.name, regulator, 'current', regulator.current, 'A'),
            I: asVariable(power.loaded),
          },
          (i) => i.C.times(i.V_DD).over(i.I_max.minus(i.I)),
        )
      : undefined
  const rise =
    all.length > 0 && Object.keys(way).length > 0
      ? sum(
          {
            label: 'Until the rail is up',
            symbol: 't_rise',
            unit: 's',
            counts: 'max',
            note: 'The capacitors fill through all that is in the way: to 95 % in R C ln 20.',
          },
          {
            C_all: asVariable(together('All capacitors that fill', all)),
            ...way,
            ...(behind && { t_fill: behind }),
          },
          (i: Record<string, Term>) => {
            const filled = total(
              Object.keys(way).map((r) => i[r]!),
              dimensionOf('Ω'),
            )
              .times(i.C_all!)
              .times(logarithm(number(20)))
            return i.t_fill ? filled.plus(i.t_fill) : filled
          },
        )
      : undefined
  const startUp = asStated(
    `From the rail to the first line of the program`,
    't_start',
    's',
    fromPart('t_start', `start of ${chip.name}`, chip, 'startUp', chip.startUp ?? usualStart, 's'),
  )
  const chosen = design.power.latch?.setUp
  const setUp = asStated(
    'From the first line of the program to the one that holds',
    't_set',
    's',
    chosen === undefined
      ? fromRule(
          't_set',
          'settings of the program before it holds',
          usualSetUp,
          's',
          'assumed: hold as the first thing',
        )
      : fromDecision('t_set', 'set-up before it holds', chosen, 's', 'set on the Power page'),
  )
  return {
    ...(rise && { rise }),
    startUp,
    setUp,
    press: sum(
      { label: 'Press at least', symbol: 't_press', unit: 's', counts: 'max' },
      { ...(rise && { t_rise: rise }), t_start: startUp, t_set: setUp },
      (i: Record<string, Term>) => total(Object.values(i), seconds),
    ),
    ...(onRail.length > 0 &&
      power.loaded.value.min > 0 &&
      // How much of its input’s charge a switching one makes how much of its output’s depends on both.
      regulator?.topology !== 'switching' && { fall: fallOf({ power }, chip, support) }),
  }
}

/** What the capacitors hold above what the chip works with, at what is drawn: those in front of a linear regulator too. */
const fallOf = ({ power }: Pick<Stages, 'power'>, chip: Chip, support: readonly SupportPart[]): Worked => {
  const inFront = power.regulator && power.input ? capacitorsOn(support, ['VIN']) : []
  const V_min = chip.supply.recommended
  const volts = dimensionOf('V')
  return sum(
    {
      label: 'Until the rail is below what the chip works with',
      symbol: 't_fall',
      unit: 's',
      counts: 'max',
      note: 'What the capacitors hold, at what is drawn: C (V − V_min) / I.',
    },
    {
      C: asVariable(together('Capacitors of the rail', capacitorsOn(support, ['VCC']))),
      V_DD: power.rail!,
      V_min: fromRule(
        'V_min',
        `lowest supply of ${chip.name}`,
        V_min.min ?? V_min.typ ?? 0,
        'V',
        V_min.source ?? chip.sheet,
      ),
      I: asVariable(power.loaded),
      ...(inFront.length > 0 && {
        C_in: asVariable(together('Capacitors in front of the regulator', inFront)),
        V_in: power.input!,
      }),
    },
    (i: Record<string, Term>) => {
      const left = (V: Term) => greatest(number(0, volts), V.minus(i.V_min!))
      const onRail = i.C!.times(left(i.V_DD!))
      return (i.C_in ? onRail.plus(i.C_in.times(left(i.V_in!))) : onRail).over(i.I!)
    },
  )
}

/** Until leakage and age have emptied cells that lie in it, switched off. */
const shelfOf = ({ source }: LatchPlan, I_off: Worked, wear: Wear): Pick<LatchResult, 'shelf'> => {
  const Q = chargeOf(source, wear)
  if (!Q) return {}
  const s =
    source.selfDischarge &&
    fromPart('s', 'lost by itself in a year', source, 'selfDischarge', source.selfDischarge, '')
  return {
    shelf: sum(
      {
        label: 'Cells last, switched off',
        symbol: 't_shelf',
        unit: 's',
        counts: 'min',
        note: notCounted(source, wear)
          .map(({ text }) => text)
          .join(' '),
      },
      { Q, I_off: asVariable(I_off), ...(s && { s }) },
      // What leaks and what is lost by itself, each as a share of the charge: every input once, so that the extremes are at corners.
      (i: Record<string, Term>) =>
        i.s ? number(1).over(i.I_off!.over(i.Q!).plus(i.s.over(year))) : i.Q!.over(i.I_off!),
    ),
  }
}
