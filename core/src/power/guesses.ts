// What can be otherwise than planned in a state of the machine, one thing at a time, and what would then draw.

import { blocksCurrent } from '../chip'
import { fromDecision, say, type Said, type Stages, type Worked } from '../findings'
import { fullRange } from '../quantity'
import { modesOf, type State } from '../states'
import { asStated, asVariable, sum } from '../sums'
import { type Consumer, consumersOf, heldPulls } from './consumers'
import { consumer } from './consumers/consumer'

export type Asked = Pick<Stages, 'design' | 'needs' | 'chip' | 'clock' | 'pins' | 'power' | 'build'>

/**
 * The project as something that draws, in one state: all parts that are fitted, or could be, are those of the build. Whoever measures
 * presses nothing, and lines are as they rest: what flows through pull-ups is no more than what is usual.
 */
export const drawnIn = (
  { design, needs, chip, clock, pins, power, build }: Asked,
  state: State,
): Consumer[] =>
  consumersOf({
    design,
    needs,
    chip: chip.chip,
    clock,
    pins: { ...pins, support: build.support },
    supplies: power.supplies,
    around: [],
    states: [state],
  }).map((c) => {
    const current = c.cycle[state.id]!
    if (!/^pull-ups(\.|$)/.test(c.id)) return c
    const { typ } = current.value
    const resting = asStated(`${c.name}, while nothing is pressed`, 'I', 'A', {
      ...asVariable(current),
      value: { min: 0, typ, max: typ },
    })
    return { ...c, cycle: { [state.id]: resting } }
  })

export interface Guess {
  id: string
  what: Said
  /** How likely before anything was measured. */
  before: number
  consumers: () => Consumer[]
  /** How it is told from the others, once it is known what the meter says then. */
  test: (then: string) => Said
}

/** Every single thing that could be otherwise in a state. */
export const guesses = (
  asked: Asked,
  state: State,
  base: readonly Consumer[],
  /** Measured less predicted, A. */
  missing: number,
): Guess[] => {
  const {
    needs,
    chip: { chip },
    pins,
    power: { supplies },
    build,
  } = asked
  const with_ = (change: Partial<State>) => (): Consumer[] => drawnIn(asked, { ...state, ...change })
  const more = (id: string, name: string, from: string, current: Worked) => (): Consumer[] => [
    ...base,
    consumer({ id: `guess ${id}`, name, count: 1, from, work: current, rest: current }, [state]),
  ]
  const mode = state.mode
  const seen = new Set<string>()
  const devices = needs.instances.flatMap(({ need, part }): Guess[] => {
    if (seen.has(need.id)) return []
    seen.add(need.id)
    const modes = modesOf(part)
    const now = state.modes[need.id]
    const others = modes.length > 1 ? modes.filter((m) => m.id !== now) : []
    const off = (then: string) =>
      say`Take ${need.name} off its supply, and its lines off the legs: if it is this, the meter goes to about ${then}.`
    return [
      ...others.map((m): Guess => ({
        id: `mode ${need.id} ${m.id}`,
        what: say`${need.name} is ${m.name}`,
        before: 1,
        consumers: with_({ modes: { ...state.modes, [need.id]: m.id } }),
        test: off,
      })),
      ...(base.some((c) => c.id.split('.')[0] === need.id)
        ? [
            {
              id: `absent ${need.id}`,
              what: say`${need.name} takes nothing: it is not fed, or not there`,
              before: 0.5,
              consumers: () => base.filter((c) => c.id.split('.')[0] !== need.id),
              test: () => say`Measure the voltage at the supply of ${need.name}, at the device itself.`,
            },
          ]
        : []),
    ]
  })
  const ownModes = (chip?.modes ?? [])
    .filter((m) => m.id !== mode?.id)
    .map((m): Guess => ({
      id: `chip ${m.id}`,
      what: mode ? say`The chip is in “${m.name}”, not in “${mode.name}”` : say`The chip is in “${m.name}”`,
      before: 1,
      consumers: with_({ mode: m, asleep: m.kind === 'sleep' }),
      test: (then) =>
        state.asleep
          ? say`Load a program that does nothing but go to “${mode?.name ?? 'sleep'}”: if it is this, the meter goes to about ${then}.`
          : say`Load a program that stays in “${mode?.name ?? 'work'}” without a pause: if it is this, the meter goes to about ${then}.`,
    }))
  const radio: Guess[] = chip?.radio
    ? [
        {
          id: 'radio',
          what: state.radio ? say`The radio is off` : say`The radio is on`,
          before: 0.7,
          consumers: with_({ radio: !state.radio }),
          test: (then) =>
            say`Load a program that never starts the radio: if it is this, the meter says about ${then}.`,
        },
      ]
    : []
  const pulls = heldPulls(chip, pins, supplies).map((p, n): Guess => ({
    id: `pull ${n}`,
    what: say`The ${p.name} draws all the time: its line is held ${p.held}`,
    before: 0.4,
    consumers: more(`pull ${n}`, p.name, p.from, p.current),
    test: () =>
      p.held === 'low'
        ? say`Measure the voltage of that line against ground: near 0 V if it is this, else near the rail’s.`
        : say`Measure the voltage of that line against ground: near the rail’s if it is this, else near 0 V.`,
  }))
  const parts = build.support.flatMap((part): Guess[] => {
    if (!part.draws) return []
    const { draws, key, name } = part
    return part.present
      ? [
          {
            id: `without ${key}`,
            what: say`The ${name} takes nothing: it is not fitted, or the wrong way round`,
            before: 0.3,
            consumers: () => base.filter((c) => c.support !== key),
            test: () => say`Look whether the ${name} is fitted, and which way round.`,
          },
        ]
      : [
          {
            id: `with ${key}`,
            what: say`The ${name} is fitted after all`,
            before: 0.5,
            consumers: more(key, name, supplies.own, draws),
            test: (then) => say`Lift one leg of the ${name}: if it is this, the meter goes to about ${then}.`,
          },
        ]
  })
  const blocks = (chip?.board && state.asleep ? chip.board.blocks : [])
    .filter((b) => b.part === undefined || b.part !== chip!.board!.regulator)
    .filter((b) => fullRange(b.awake).typ > fullRange(b.asleep).typ)
    .map((b): Guess => {
      const awake = blocksCurrent(chip!.board!, [b], 'awake', `${b.name}, awake`, 'I_b')
      const asleep = blocksCurrent(chip!.board!, [b], 'asleep', `${b.name}, asleep`, 'I_a')
      const extra = sum(
        { label: `${b.name}, awake instead of asleep`, symbol: 'I', unit: 'A' },
        { I_b: awake, I_a: asleep },
        (i) => i.I_b.minus(i.I_a),
      )
      return {
        id: `block ${b.id}`,
        what: say`${b.name} of the board does not sleep`,
        before: 0.8,
        consumers: more(`block ${b.id}`, b.name, supplies.own, extra),
        test: (then) =>
          say`Feed the board behind its regulator, with its plug out: if it is this, the meter goes to about ${then}.`,
      }
    })
  // A sheet that says what is typical, and nothing of the most.
  const vague = base.flatMap((c): Guess[] => {
    const { value } = c.cycle[state.id]!
    const times = (value.typ + missing) / value.typ
    return value.typ > 0 && value.max === value.typ && times > 1 && times <= 3
      ? [
          {
            id: `vague ${c.id}`,
            what: say`${c.name}: ${Number(times.toPrecision(2))} times what the sheet calls typical, which states no most`,
            before: 0.15,
            consumers: more(
              `vague ${c.id}`,
              c.name,
              c.from,
              asStated(
                `${c.name}, more than typical`,
                'I',
                'A',
                fromDecision('I', 'as much as is missing', missing, 'A', 'measured'),
              ),
            ),
            test: () => say`Swap ${c.name} for another of its kind, and measure again.`,
          },
        ]
      : []
  })
  return [...devices, ...ownModes, ...radio, ...parts, ...blocks, ...pulls, ...vague]
}
