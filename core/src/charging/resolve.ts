// What becomes of a cell that is charged on the board: how long it takes, how warm the charger gets, whether it ever ends.

import { assumedIn, type Assumption, fromPart, type Stages, type Worked, type WorkedInput } from '../findings'
import { asStated, asVariable, dimensionOf, greatest, junctionOf, logarithm, number, sum } from '../sums'
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
  }
  const { ends, back, time, input, room } = found
  return { ...found, assumed: assumedIn([current, ends, back, time, input, room, heat, junction]) }
}
