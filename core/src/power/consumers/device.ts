// What the devices draw: by themselves, through the LEDs that a leg lights, and from the chip's analog outputs.

import { fittedFor } from '../../circuit'
import type { NeedDevice } from '../../design'
import { fromPart, fromRule, type Worked } from '../../findings'
import type { Instance } from '../../needs'
import type { Device } from '../../parts'
import type { PinsResult } from '../../pins'
import { fullRange } from '../../quantity'
import { isAtRest, type State } from '../../states'
import { dimensionOf, sum, type SumInput, type Term, total } from '../../sums'
import type { RailId } from '../../supply'
import { consumer, type Consumer, nothing, numbered, together } from './consumer'

type Mode = Device['modes'][number]
const amperes = dimensionOf('A')

const count = (n: number) => fromRule('n', 'how many', n, '', 'Needs page')
const inMode = (part: Device, { id, name, current }: Mode, symbol: string) =>
  fromPart(symbol, name, part, `modes.${id}.current`, current, 'A')

/** The average over the cycle that the device itself decides; undefined where its sheet doesn't say. */
const ownCycle = (name: string, part: Device, many: number): Worked | undefined => {
  const { modes } = part
  if (!modes.every((m) => m.share !== undefined)) return undefined
  const inputs: Record<string, SumInput> = many > 1 ? { n: count(many) } : {}
  modes.forEach((m, k) => {
    inputs[`s_${k + 1}`] = fromRule(`s_${k + 1}`, `share of the time in ${m.name}`, m.share!, '', part.sheet)
    inputs[`I_${k + 1}`] = inMode(part, m, `I_${k + 1}`)
  })
  return sum({ label: `${name}, average`, symbol: 'I', unit: 'A' }, inputs, (i: Record<string, Term>) => {
    const shares = total(
      modes.map((_, k) => i[`s_${k + 1}`]!.times(i[`I_${k + 1}`]!)),
      amperes,
    )
    return i.n ? i.n.times(shares) : shares
  })
}

/** What the devices of one need take at their supply; undefined where the sheet gives no currents. */
export const deviceConsumer = (
  { id, name }: NeedDevice,
  from: RailId,
  part: Device,
  many: number,
  states: readonly State[],
): Consumer | undefined => {
  const [first] = part.modes
  if (!first) return undefined
  // At work it does what takes most, wherever its sheet lists that.
  const most = part.modes.reduce((a, b) => (fullRange(b.current).max < fullRange(a.current).max ? a : b))
  const of = (mode: Mode): Worked => {
    const I_mode = inMode(part, mode, 'I_mode')
    const meta = { label: `${name}, ${mode.name}`, symbol: 'I', unit: 'A' as const }
    return many > 1
      ? sum(meta, { n: count(many), I_mode }, (i) => i.n.times(i.I_mode))
      : sum(meta, { I_mode }, (i) => i.I_mode)
  }
  const work = of(most)
  const unsaid = ownCycle(name, part, many) ?? work
  return consumer({ id, name, count: many, from, rest: of(first), work }, states, ({ modes }) => {
    const mode = part.modes.find((m) => m.id === modes[id])
    return mode ? of(mode) : unsaid
  })
}

/** The LEDs of a need that are lit by a leg. */
export const lightConsumer = (
  { id, name }: NeedDevice,
  from: RailId,
  instances: readonly Instance[],
  pins: PinsResult,
  states: readonly State[],
): Consumer | undefined => {
  const leds = instances.flatMap((i) =>
    i.wiring.signals.flatMap((s) => {
      const on = pins.leds[`${i.id}.${s.id}`]
      const fitted = on && fittedFor(pins.support, 'lamp resistor', `${i.id}.${s.id}`)
      return on ? [fitted ? on.current : on.bare] : []
    }),
  )
  if (leds.length === 0) return undefined
  const lit = numbered(leds.map((current) => ({ current, label: current.label })))
  const work = together(`${name}, lit`, 'I', lit)
  return consumer(
    { id: `${id}.light`, name, count: leds.length, from, work },
    states,
    unlessOff(id, instances, work),
  )
}

/** What the legs drive is off in the states that say so, or have its device at rest. */
const unlessOff = (id: string, instances: readonly Instance[], work: Worked) => {
  const part = instances[0]?.part
  return ({ modes }: State): Worked =>
    part && isAtRest(part, modes[id]) ? nothing(`${instances[0]!.need.name}, off`) : work
}

/** The resistances that a voltage of the chip’s works into. */
export const loadConsumer = (
  { id, name }: NeedDevice,
  from: RailId,
  instances: readonly Instance[],
  V_DD: Worked | undefined,
  states: readonly State[],
): Consumer | undefined => {
  const loads = instances.flatMap((instance) =>
    instance.wiring.signals.flatMap(({ id: signal, electrical: e }) =>
      e.kind === 'analog-load' ? [{ instance, field: `${signal}.resistance`, resistance: e.resistance }] : [],
    ),
  )
  if (!V_DD || loads.length === 0) return undefined
  const resistances = loads.map(({ instance, field, resistance }, i) => ({
    ...fromPart(`R_${i + 1}`, `resistance of ${instance.name}`, instance.part, field, resistance, 'Ω'),
    variable: `${instance.name} ${field}`,
  }))
  const work = sum(
    { label: `${name}, at full scale`, symbol: 'I', unit: 'A' },
    { V_DD, ...Object.fromEntries(resistances.map((r) => [r.symbol, r])) },
    (i: Record<string, Term>) =>
      total(
        resistances.map((r) => i.V_DD!.over(i[r.symbol]!)),
        amperes,
      ),
  )
  return consumer(
    { id: `${id}.load`, name, count: loads.length, from, work },
    states,
    unlessOff(id, instances, work),
  )
}
