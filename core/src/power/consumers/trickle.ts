// What flows through the resistors and inputs of the lines: pull-ups of ours and on boards, pulls inside inputs, dividers,
// gates and leakage. Each way from a supply to ground is counted once.

import { fittedResistor, type SupportPart, type SupportRole, fittedFor } from '../../circuit'
import { type OpenSupply, railFor, type RailId } from '../../supply'
import { fromPart, type Worked, type WorkedInput } from '../../findings'
import type { Chip } from '../../parts'
import type { PinsResult } from '../../pins'
import { asVariable, dimensionOf, sum, type SumInput, type Term, total } from '../../sums'
import type { State } from '../../states'
import { consumer, type Consumer } from './consumer'

/** When it flows: while a contact is closed, a line low or high, or always. */
type When = 'closed' | 'low' | 'high' | 'always'

interface Way {
  from: RailId
  when: When
  name: string
  /** Through these resistances in a row; or a current as the sheet states it. */
  ohms?: WorkedInput[]
  amperes?: WorkedInput
  /** Into the base of a transistor that the line switches on. */
  base?: true
  /** On a bus that rests high while the chip, which alone begins a transfer, sleeps. */
  bus?: boolean
}

/** How much of the time, where nobody has said: a rule, with room on the careful side. */
const shares: Record<Exclude<When, 'always'>, WorkedInput> = {
  closed: share('s_closed', 'share of the time that a contact is closed', 0.01),
  low: share('s_low', 'share of the time that a bus line is low', 0.05),
  high: share('s_high', 'share of the time that a driven line is high', 0.5),
}
function share(symbol: string, label: string, typ: number): WorkedInput {
  return {
    symbol,
    label,
    value: { min: 0, typ, max: 1 },
    unit: '',
    origin: { kind: 'rule', source: 'nobody has said: usual, and anything from never to always' },
    variable: symbol,
  }
}

const resistorOf = (s: SupportPart): WorkedInput | undefined =>
  s.part.kind === 'resistors' && s.value ? fittedResistor('R', s.name, s.part, s.value, s.key) : undefined

const waysOf = (chip: Chip | undefined, pins: PinsResult, supplies: OpenSupply): Way[] => {
  const { own: rail } = supplies
  const find = (role: SupportRole, signal: string) => {
    const s = fittedFor(pins.support, role, signal)
    return s && resistorOf(s)
  }
  const ways: Way[] = []
  for (const { signal, pin } of pins.plan?.wires ?? []) {
    const bus = signal.bus !== undefined
    const add = (from: RailId, when: When, name: string, ...ohms: (WorkedInput | undefined)[]) => {
      const known = ohms.filter((r): r is WorkedInput => r !== undefined)
      if (known.length === ohms.length) ways.push({ from, when, name, ohms: known, bus })
    }
    const ends = signal.ends.map((e) => railFor(supplies, e.instance.need).id)
    const far = ends.find((id) => id !== rail) ?? rail
    add(rail, bus ? 'low' : 'closed', `pull-up of ${signal.name}`, find('line pull-up', signal.id))
    add(rail, 'low', `select of ${signal.name}`, find('select pull-up', signal.id))
    add(rail, 'high', `gate of ${signal.name}`, find('gate pull-down', signal.id))
    const above = find('gate pull-up', signal.id)
    const spare = find('gate divider', signal.id)
    if (above) add(far, 'high', `gate in the plus of ${signal.name}`, above, ...(spare ? [spare] : []))
    const base = pins.bases[signal.id]
    if (base) {
      const limited = fittedFor(pins.support, 'base resistor', signal.id)
      ways.push({
        from: rail,
        when: 'high',
        name: `base of ${signal.name}`,
        base: true,
        amperes: { ...asVariable(limited ? base.current : base.bare), symbol: 'I' },
      })
    }
    if (!bus) add(rail, 'low', `shift in ${signal.name}`, find('shift near', signal.id))
    add(far, 'low', `shift in ${signal.name}`, find('shift far', signal.id))
    const isAnalog = signal.kind === 'analog-in'
    add(
      far,
      isAnalog ? 'always' : 'high',
      `divider in ${signal.name}`,
      find('shift upper', signal.id),
      find('shift lower', signal.id),
    )
    for (const load of chip?.board?.loads ?? [])
      if (load.pin === pin.id && load.resistance && load.pull)
        add(
          rail,
          load.pull === 'up' ? (bus ? 'low' : 'closed') : 'high',
          load.what,
          fromPart('R', load.what, chip!.board!, `loads.${load.pin}.resistance`, load.resistance, 'Ω'),
        )
    for (const { instance, signal: end } of signal.ends) {
      const { electrical: e, id } = end
      const { part, name, need } = instance
      const own = (field: string, rated: Parameters<typeof fromPart>[4]): WorkedInput => ({
        ...fromPart('R', `${name}, ${field}`, part, `${id}.${field}`, rated, 'Ω'),
        variable: `${instance.id} ${id}.${field}`,
      })
      const feed = railFor(supplies, need).id
      switch (e.kind) {
        case 'open-drain':
          if (e.fitted) add(feed, 'low', `pull-up of ${signal.name} on ${name}`, own('fitted', e.fitted))
          break
        case 'logic-input':
          if (e.pullResistance)
            add(
              e.pull === 'up' ? feed : rail,
              e.pull === 'up' ? 'low' : 'high',
              `pull in ${name}`,
              own('pullResistance', e.pullResistance),
            )
          if (e.leakage)
            ways.push({
              from: rail,
              when: 'high',
              name: `input of ${name}`,
              amperes: {
                ...fromPart('I', `leakage into ${name}`, part, `${id}.leakage`, e.leakage, 'A'),
                variable: `${instance.id} ${id}.leakage`,
              },
            })
          break
        case 'analog':
          // Where a sensor’s sheet gives currents, they are those of its divider.
          if (e.sourceResistance && part.modes.length === 0)
            add(
              rail,
              'always',
              `divider of ${name}`,
              find('sensor divider', signal.id),
              own('sourceResistance', e.sourceResistance),
            )
      }
    }
  }
  return ways
}

const currentOf = (label: string, supply: Worked, ways: Way[], weighted: boolean): Worked => {
  const inputs: Record<string, SumInput> = {}
  const build: ((i: Record<string, Term>) => Term)[] = []
  for (const [k, way] of ways.entries()) {
    const symbols = (way.ohms ?? []).map((r, n) => {
      const symbol = way.ohms!.length > 1 ? `R_${k + 1},${n + 1}` : `R_${k + 1}`
      inputs[symbol] = { ...r, symbol, label: way.name }
      return symbol
    })
    const own = `I_${k + 1}`
    if (way.amperes) inputs[own] = { ...way.amperes, symbol: own, label: way.name }
    else inputs[supply.symbol] = supply
    const part = weighted && way.when !== 'always' ? shares[way.when] : undefined
    if (part) inputs[part.symbol] = part
    build.push((i) => {
      const [first, ...more] = symbols.map((s) => i[s]!)
      const current = way.amperes ? i[own]! : i[supply.symbol]!.over(more.reduce((a, b) => a.plus(b), first!))
      return part ? i[part.symbol]!.times(current) : current
    })
  }
  return sum({ label, symbol: 'I', unit: 'A' }, inputs, (i: Record<string, Term>) =>
    total(
      build.map((b) => b(i)),
      dimensionOf('A'),
    ),
  )
}

/** A resistor of a line and what flows through it while its line is held against it. */
export interface HeldPull {
  name: string
  from: RailId
  held: 'low' | 'high'
  current: Worked
}

/** Every resistor of a line that draws while its line rests the wrong way, all the time. */
export const heldPulls = (chip: Chip | undefined, pins: PinsResult, supplies: OpenSupply): HeldPull[] =>
  waysOf(chip, pins, supplies).flatMap((way): HeldPull[] => {
    const supply = supplies.open[way.from]
    return supply && way.ohms && way.when !== 'always'
      ? [
          {
            name: way.name,
            from: way.from,
            held: way.when === 'high' ? 'high' : 'low',
            current: currentOf(`${way.name}, all the time`, supply, [way], false),
          },
        ]
      : []
  })

/** One consumer for the pull-ups, one for the bases and one for the rest, for each supply that feeds any. */
export const trickle = (
  chip: Chip | undefined,
  pins: PinsResult,
  supplies: OpenSupply,
  states: readonly State[],
): Consumer[] => {
  const ways = waysOf(chip, pins, supplies)
  return supplies.rails.flatMap(({ id: from, name: rail }) => {
    const supply = supplies.open[from]
    if (!supply) return []
    const isOwn = from === supplies.own
    const groups: [id: string, name: string, of: Way[]][] = [
      ['pull-ups', 'Pull-ups', []],
      ['inputs', 'Inputs and dividers', []],
      ['bases', 'Bases of transistors', []],
    ]
    for (const way of ways.filter((w) => w.from === from))
      groups[way.base ? 2 : way.when === 'closed' || way.when === 'low' ? 0 : 1]![2].push(way)
    return groups.flatMap(([id, name, of]): Consumer[] => {
      if (of.length === 0) return []
      const title = isOwn ? name : `${name}, from the ${rail}`
      const average = currentOf(`${title}, on average`, supply, of, true)
      const others = of.filter((w) => !w.bus)
      const still =
        others.length < of.length
          ? currentOf(`${title}, while the buses rest`, supply, others, true)
          : undefined
      return [
        consumer(
          {
            id: isOwn ? id : `${id}.${from}`,
            name,
            count: of.length,
            from,
            rest: currentOf(
              `${title}, at rest`,
              supply,
              of.filter((w) => w.when === 'always'),
              false,
            ),
            work: currentOf(`${title}, all at once`, supply, of, false),
          },
          states,
          ({ asleep }) => (asleep && still ? still : average),
        ),
      ]
    })
  })
}
