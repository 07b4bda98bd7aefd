// A load switched in its plus: a p-channel MOSFET whose gate a resistor holds at the plus, and an n-channel one, its gate on the leg, that
// pulls it low. So the line is high while the load is on, whatever the load’s supply is.

import { fittedResistor, preferred, type Stock } from '../circuit'
import { fromPart, type Worked, type WorkedInput } from '../findings'
import { endsOf, type Wire } from '../legs'
import { type Chip, type Library, partsOfKind, type Rated, type Transistor } from '../parts'
import { fullRange } from '../quantity'
import { asVariable, greatest, logarithm, number, sum, type SumInput, type Term } from '../sums'
import { gateLeakageOf, largestHolding, offCurrent, thresholdOf } from './mosfet'
import { type SwitchOnLeg, switchOnLeg, warmth } from './switch'

export interface PlusOnLeg extends SwitchOnLeg {
  /** N-channel, its gate on the leg. */
  pull: Transistor
  /** From the plus to the p-channel one’s gate. */
  pullUp: Value
  /** Between that gate and the n-channel one; absent where the gate stands the whole supply, or nothing says what it stands. */
  divider?: Value
  /** Most that lies between gate and source, V. */
  most: Worked
  /** Largest resistor that holds the gate off, Ω. */
  largest: Worked
  /** Through both resistors while it is on, A. */
  through: Worked
  /** From the line’s falling edge until the channel is shut, s. */
  off: Worked
  /** Pulses of the line, s apart; absent where it has none. */
  period?: number
}
type Value = ReturnType<typeof preferred>

/** What no sheet of ours states: usual small parts at room temperature. */
const assumed = {
  gate: { typ: 500e-12, kind: 'assumed' },
  drain: { typ: 50e-12, kind: 'assumed' },
} satisfies Record<string, Rated>

/** Usual between a gate and its plus, Ω; the least that is fitted there. */
const usual = 10e3
const least = 1e3
/** A gate that lets go is through with it in this share of the time between two pulses. */
export const shareOfPulse = 0.05

const gateOf = (t: Transistor): WorkedInput =>
  fromPart('C_gate', 'gate capacitance', t, 'gateCapacitance', t.gateCapacitance ?? assumed.gate, 'F')
const drainOf = (t: Transistor): WorkedInput =>
  fromPart(
    'C_GD',
    'between gate and drain, in that',
    t,
    'drainCapacitance',
    t.drainCapacitance ?? assumed.drain,
    'F',
  )

/** Between gate and source: two resistors divide the supply, and what the n-channel one lacks to ground counts to the lower. */
const dividedOf = (label: string, symbol: string, inputs: Record<string, SumInput>) =>
  sum({ label, symbol, unit: 'V' }, inputs, (i: Record<string, Term>) => {
    const below = [i.R_pull, i.R_down].filter((r) => r !== undefined)
    return i.V_S!.times(i.R_up!).over(below.reduce((all, r) => all.plus(r), i.R_up!))
  })

/** The cheapest n-channel one that the leg turns on and that stands the load’s supply. */
const pullFor = (
  wire: Wire,
  supply: Worked,
  { chip, rail, library }: { chip: Chip; rail: Worked; library: Library },
): { part: Transistor; on: SwitchOnLeg } | undefined =>
  partsOfKind(library, 'transistor')
    .filter((t) => t.sort === 'n-mosfet' && t.channel?.length && fullRange(t.voltage).max >= supply.value.max)
    .sort((a, b) => a.price - b.price)
    .map((part) => ({
      part,
      on: switchOnLeg(wire, part, { max: 0, kind: 'assumed' }, { chip, rail, ambient: 25 }),
    }))
    .find(({ part, on }) => on.drive.value.min >= Math.min(...part.channel!.map((c) => c.gate)))

/**
 * Undefined where there are no resistors in the drawer, nothing that the leg can turn on, or nothing says what feeds the load. `supply`
 * in V: of the load, with nothing drawn, by which the parts are chosen; `loaded` is it with all that is drawn, which the gate gets then.
 */
export const plusOnLeg = (
  wire: Wire,
  pass: Transistor,
  supply: Worked | undefined,
  {
    ambient,
    ...of
  }: { chip: Chip; rail: Worked; ambient: number; library: Library; stock: Pick<Stock, 'resistors'> },
  loaded = supply,
): PlusOnLeg | undefined => {
  const [found] = endsOf(wire, 'switched')
  const series = of.stock.resistors
  const pulled = supply && pullFor(wire, supply, of)
  if (!found || !series || !pulled) return undefined
  const { name, id, frequency } = wire.signal
  const pull = pulled.part
  const V_th = thresholdOf(pass)
  const leak = sum(
    { label: `Leakage onto the gate in the plus of ${name}`, symbol: 'I_leak', unit: 'A', counts: 'max' },
    { I_gate: gateLeakageOf(pass), I_pull: offCurrent('I_pull', pull) },
    (i) => i.I_gate.plus(i.I_pull),
  )
  const largest = largestHolding(`Largest resistor from the plus to the gate of ${name}`, pass, leak)
  // Pulses ask for a gate that lets go soon: the time constant of resistor and gate is a hundredth of what lies between two.
  const quick = frequency ? 1 / (100 * frequency * gateOf(pass).value.max) : Infinity
  const wanted = Math.min(largest.value.min / (1 + series.tolerance), Math.max(least, Math.min(usual, quick)))
  const pullUp = preferred(series, wanted, 'down')
  const R_up = fittedResistor('R_up', 'from the plus to the gate', series, pullUp, `gate-pull-up:${id}`)
  const stands = pass.gateVoltage && fullRange(pass.gateVoltage).max
  const V_S: SumInput = { ...asVariable(supply), symbol: 'V_S' }
  const over = stands === undefined ? 0 : supply.value.max / stands - 1
  const divider =
    over > 0
      ? preferred(series, (pullUp.value * over * (1 + series.tolerance)) / (1 - series.tolerance), 'up')
      : undefined
  const R_down =
    divider &&
    fittedResistor('R_down', 'from the gate to what pulls it', series, divider, `gate-divider:${id}`)
  const resistors: Record<string, SumInput> = { V_S, R_up, ...(R_down && { R_down }) }
  const drive = dividedOf(`Gate of ${name} while it is on, below its plus`, 'V_GS', {
    ...resistors,
    V_S: loaded ? { ...asVariable(loaded), symbol: 'V_S' } : V_S,
    R_pull: pulled.on.channel!,
  })
  const most = dividedOf(`Most between gate and source of ${name}`, 'V_most', resistors)
  return {
    pull,
    pullUp,
    ...(divider && { divider }),
    drive,
    most,
    largest,
    through: sum(
      {
        label: `Through the resistors at the gate of ${name}`,
        symbol: 'I_R',
        unit: 'A',
        note: 'While it is on.',
      },
      resistors,
      (i: Record<string, Term>) => i.V_S!.over(i.R_down ? i.R_up!.plus(i.R_down) : i.R_up!),
    ),
    off: sum(
      {
        label: `Until the channel of ${name} is shut`,
        symbol: 't_off',
        unit: 's',
        counts: 'max',
        note: 'The resistor alone empties the gate, down to its threshold; and carries what lies between gate and drain through the whole supply.',
      },
      { R_up, C_gate: gateOf(pass), C_GD: drainOf(pass), V_GS: drive, V_S, V_th },
      (i) =>
        i.R_up.times(
          i.C_gate.times(logarithm(greatest(number(1), i.V_GS.over(i.V_th)))).plus(
            i.C_GD.times(i.V_S).over(i.V_th),
          ),
        ),
    ),
    ...(frequency && { period: 1 / frequency }),
    ...warmth(wire, pass, found.electrical.current, drive, ambient),
  }
}
