// What becomes of a cell that is charged on the board: how long it takes, how warm the charger gets, whether it ever ends.

import {
  assumedIn,
  type Assumption,
  fromDecision,
  fromPart,
  type Stages,
  type Worked,
  type WorkedInput,
} from '../findings'
import {
  asStated,
  asVariable,
  dimensionOf,
  greatest,
  junctionOf,
  least,
  logarithm,
  number,
  sum,
} from '../sums'
import type { ChargingPlan } from './plan'

export interface ChargingResult extends ChargingPlan {
  /** To which it brings the cell, V. */
  voltage: Worked
  /** The current below which it takes the cell for full, A. */
  ends: Worked
  /** Out of the cell while nothing is plugged in, A. */
  back: Worked
  /** What the project takes meanwhile, and what is left for the cell, A. */
  meanwhile: Worked
  net: Worked
  /** From empty to full with the project running, s; absent where more may be taken than comes. */
  time?: Worked
  /** Of what it is charged from: A taken, V left above what the charger needs. */
  input?: Worked
  room?: Worked
  /** W in the charger, and its junction, °C. */
  heat?: Worked
  junction?: Worked
  /** From a panel whose sun is said: into the cell in a day, out of it, and what that leaves, Ah; how long it lasts without any (the runtime), s. */
  day?: { gained: Worked; drawn: Worked; left: Worked; dark?: Worked }
  /** What all that stands on and no sheet states. */
  assumed: Assumption[]
}

/**
 * The share of the charge that goes in while the current falls. It depends on the cell’s resistance, which grows with age and cold;
 * cells charged in one hour to four take between these.
 */
const falling: WorkedInput = {
  symbol: 's',
  label: 'share that goes in while the current falls',
  value: { min: 0.05, typ: 0.15, max: 0.35 },
  unit: '',
  origin: { kind: 'rule', source: 'assumed: usual for lithium cells charged in one hour to four' },
  variable: 'share of the charge at falling current',
}

/** What is on a panel, how old it is and how it stands, of what its sheet says of a new one square to the sun. */
const dusty: WorkedInput = {
  symbol: 'd',
  label: 'share left by dust, age and how the panel stands',
  value: { min: 0.6, typ: 0.8, max: 1 },
  unit: '',
  origin: { kind: 'rule', source: 'assumed: a panel outdoors, turned to the south and wiped now and then' },
  variable: 'share of the panel',
}

/** A day, s. */
const dayLong = number(86400, dimensionOf('s'))

/**
 * Hours of full sun stand for a day’s light. A charger set below what the panel gives in full sun gets at least that share of it in less;
 * set above, it gets what the panel gives: the smaller of the two in either case.
 */
const dayOf = (
  { from, current }: Pick<ChargingPlan, 'from' | 'current'>,
  meanwhile: Worked,
  hours: number | undefined,
  runtime: Worked | undefined,
): ChargingResult['day'] => {
  if (from?.sort !== 'panel' || hours === undefined) return undefined
  const gained = sum(
    { label: 'Into the cell and the project in a day', symbol: 'Q_sun', unit: 'Ah', counts: 'min' },
    {
      h: fromDecision(
        'h',
        'full sun a day, in the poorest month',
        hours * 3600,
        's',
        'set on the Power page',
      ),
      d: dusty,
      I_charge: asVariable(current),
      I_panel: fromPart('I_panel', `${from.name} in full sun`, from, 'current', from.current, 'A'),
    },
    (i) => i.h.times(least(i.I_charge, i.d.times(i.I_panel))),
  )
  const drawn = sum(
    { label: 'Out of the cell in a day', symbol: 'Q_day', unit: 'Ah', counts: 'max' },
    { I_project: asVariable(meanwhile) },
    (i) => i.I_project.times(dayLong),
  )
  return {
    gained,
    drawn,
    left: sum(
      { label: 'Left of a day', symbol: 'Q_left', unit: 'Ah', counts: 'min' },
      { Q_sun: asVariable(gained), Q_day: asVariable(drawn) },
      (i) => i.Q_sun.minus(i.Q_day),
    ),
    ...(runtime && { dark: runtime }),
  }
}

export const resolveCharging = (
  plan: ChargingPlan,
  { design, power }: Pick<Stages, 'design' | 'power'>,
): ChargingResult => {
  const { charger, cell, from, current } = plan
  const part = (
    symbol: string,
    label: string,
    field: 'voltage' | 'ends' | 'back' | 'quiescent' | 'headroom',
    unit: 'V' | 'A' | '',
  ) => fromPart(symbol, label, charger, field, charger[field], unit)
  const I = asVariable(current)
  const voltage = asStated(
    'To which the charger brings the cell',
    'V_charge',
    'V',
    part('V_charge', charger.name, 'voltage', 'V'),
  )
  const k = part('k', 'share at which it takes the cell for full', 'ends', '')
  const meanwhile = asStated(
    'What the project takes meanwhile',
    'I_project',
    'A',
    asVariable(power.average),
    'On average; out of the same terminals that the cell is charged at.',
  )
  const net = sum(
    { label: 'Left for the cell', symbol: 'I_cell', unit: 'A', counts: 'min' },
    { I_charge: I, I_project: asVariable(meanwhile) },
    (i) => i.I_charge.minus(i.I_project),
  )
  const V_from = from && fromPart('V_from', from.name, from, 'voltage', from.voltage, 'V')
  const heat =
    V_from &&
    sum(
      {
        label: 'Heat in the charger',
        symbol: 'P',
        unit: 'W',
        counts: 'max',
        note: 'It is linear: what it is fed with above the cell turns to heat, most while the cell is empty.',
      },
      { V_from, V_cell: fromPart('V_cell', cell.name, cell, 'voltage', cell.voltage, 'V'), I_charge: I },
      (i) => greatest(number(0, dimensionOf('V')), i.V_from.minus(i.V_cell)).times(i.I_charge),
    )
  const junction =
    heat && junctionOf(`Junction of ${charger.name}`, charger, design.needs.limits.ambient, heat)
  const day = dayOf(plan, meanwhile, design.power.charging?.sun, power.runtime)
  const found: Omit<ChargingResult, 'assumed'> = {
    ...plan,
    voltage,
    ends: sum(
      { label: 'Taken for full below', symbol: 'I_end', unit: 'A', counts: 'min' },
      { k, I_charge: I },
      (i) => i.k.times(i.I_charge),
    ),
    back: asStated(
      `Out of the cell into ${charger.name}, nothing plugged in`,
      'I_back',
      'A',
      part('I_back', charger.name, 'back', 'A'),
    ),
    meanwhile,
    net,
    ...(cell.capacity &&
      net.value.min > 0 && {
        time: sum(
          {
            label: 'From empty to full, the project running',
            symbol: 't',
            unit: 's',
            counts: 'max',
            note: 'At full current until the voltage is reached; then the current falls to its last share as an exponential, and its mean is (1 − k) / ln(1 / k) of it.',
          },
          {
            Q: fromPart('Q', 'charge of the cell', cell, 'capacity', cell.capacity, 'Ah'),
            I_cell: asVariable(net),
            s: falling,
            k,
          },
          (i) =>
            i.Q.over(i.I_cell).times(
              number(1)
                .minus(i.s)
                .plus(i.s.times(logarithm(number(1).over(i.k))).over(number(1).minus(i.k))),
            ),
        ),
      }),
    ...(V_from && {
      input: sum(
        { label: `From ${from.name} while it charges`, symbol: 'I_from', unit: 'A', counts: 'max' },
        { I_charge: I, I_q: part('I_q', `${charger.name} itself`, 'quiescent', 'A') },
        (i) => i.I_charge.plus(i.I_q),
      ),
      room: sum(
        {
          label: 'Left above what the charger needs, the cell full',
          symbol: 'V_room',
          unit: 'V',
          counts: 'min',
        },
        {
          V_from,
          V_charge: asVariable(voltage),
          V_head: part('V_head', 'needed above the cell', 'headroom', 'V'),
        },
        (i) => i.V_from.minus(i.V_charge).minus(i.V_head),
      ),
    }),
    ...(heat && { heat }),
    ...(junction && { junction }),
    ...(day && { day }),
  }
  const { ends, back, time, input, room } = found
  return {
    ...found,
    assumed: assumedIn([current, ends, back, time, input, room, heat, junction, day?.gained]),
  }
}
