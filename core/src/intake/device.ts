// From the table of its terminals and that of its characteristics to a device’s file: its terminals’ names tell how it is
// wired, and what they don’t tell is asked.

import { partFormat } from '../parts'
import { bareName } from './functions'
import { addressOf, type FoundFact, withFacts } from './limits'
import type { Answers, Question } from './questions'
import type { PartFrom } from './told'
import type { FoundLeg, Understood } from './understood'

type Json = Record<string, unknown>
export interface DeviceHead {
  id: string
  name: string
  sheet: string
  maker?: string
  price?: number
  /** "sensor", "display". */
  group?: string
}

/** What the chip does with a terminal. */
const uses = [
  { id: 'digital-out', label: 'the chip sets it high or low' },
  { id: 'digital-in', label: 'the chip reads whether it is high or low' },
  { id: 'interrupt', label: 'it calls the chip: an edge that must not be missed' },
  { id: 'analog-in', label: 'a voltage that the chip measures' },
  { id: 'none', label: 'no line to the chip: tied or left as its sheet says' },
] as const
type Use = (typeof uses)[number]['id']
type Line = { bus: 'i2c' | 'spi' | 'uart'; line: string } | { select: true }

const lines: readonly (readonly [RegExp, Line])[] = [
  [/^SDA\d?$/, { bus: 'i2c', line: 'SDA' }],
  [/^SCL\d?$/, { bus: 'i2c', line: 'SCL' }],
  [/^(?:SCK|SCLK|SPC|SPI_?(?:CLK|SCK)|CLK)$/, { bus: 'spi', line: 'SCK' }],
  [/^(?:MOSI|SDI|DIN|DI|SI|COPI)$/, { bus: 'spi', line: 'MOSI' }],
  [/^(?:MISO|SDO|DOUT|DO|SO|CIPO)$/, { bus: 'spi', line: 'MISO' }],
  [/^N?(?:CS|SS|SEL|NSS)[NB]?$/, { select: true }],
  // The chip’s receiver hears what the device sends.
  [/^TXD?\d?$/, { bus: 'uart', line: 'RX' }],
  [/^RXD?\d?$/, { bus: 'uart', line: 'TX' }],
]
const calls = /^N?(?:INT\d?|IRQ|DRDY|RDY|ALERT|ALM)N?$/

const namesOf = (leg: FoundLeg): string[] => [
  ...new Set([leg.id, ...leg.functions.map((f) => bareName(f.text).toUpperCase())]),
]
const linesOf = (leg: FoundLeg): Line[] =>
  namesOf(leg).flatMap((n) => lines.flatMap(([p, line]) => (p.test(n) ? [line] : [])))
const isOn = (bus: string, name?: string) => (l: Line) =>
  'bus' in l && l.bus === bus && (name === undefined || l.line === name)

const guessOf = (leg: FoundLeg, said: string): Use => {
  if (/\banalog/i.test(said)) return 'analog-in'
  if (/^(?:A|V)?OUT\d?$|^AO$|^SIG(?:NAL)?$/.test(leg.id))
    return /^[AV]/.test(leg.id) ? 'analog-in' : 'digital-in'
  if (/^A(?:DDR?)?\d?$/.test(leg.id)) return 'none'
  if (leg.type === 'input') return 'digital-out'
  return leg.type === 'output' ? 'digital-in' : 'none'
}

const assumed = (value: Json, why: string) => ({ ...value, kind: 'assumed', source: `assumed: ${why}` })
/** I2C asks each part for 3 mA and allows it 10 pF (its specification’s table of static values). */
const byBus = 'what the bus’s specification asks'

/** One for writing and the next for reading are one address and a bit, however small they are. */
const addressesIn = (text: string): number[] => {
  const found = text.split('\n').flatMap((line) => {
    if (!/address/i.test(line)) return []
    const told = [...line.matchAll(/\b0x([0-9a-f]{1,2})\b/gi)].map((m) => parseInt(m[1]!, 16))
    const [a, b] = told
    const parted = told.length === 2 && a! % 2 === 0 && b === a! + 1 && /writ|read|R\/W/i.test(line)
    return parted ? [a! >> 1] : told.flatMap((n) => addressOf(hex(n)) ?? [])
  })
  return [...new Set(found)]
}
const hex = (n: number) => `0x${n.toString(16)}`

const mean = (mode: Json): number => {
  const { typ, max, min } = mode.current as { typ?: number; max?: number; min?: number }
  return typ ?? max ?? min ?? 0
}
/** From rest to full work, each with a name of its own. */
const modesFrom = (facts: FoundFact[]): Json[] => {
  const modes = facts.flatMap((f) => (f.path === 'modes[]' ? [f.value as Json] : []))
  const seen = new Map<string, number>()
  return [...modes]
    .sort((a, b) => mean(a) - mean(b))
    .map((m) => {
      const n = (seen.get(m.id as string) ?? 0) + 1
      seen.set(m.id as string, n)
      return n === 1 ? m : { ...m, id: `${m.id as string}-${n}`, name: `${m.name as string} ${n}` }
    })
}

/** The second terminal of a name is `OUT/2`. */
const toldApart = (legs: FoundLeg[]): FoundLeg[] => {
  const times = new Map<string, number>()
  return legs.map((leg) => {
    const n = (times.get(leg.id) ?? 0) + 1
    times.set(leg.id, n)
    return n === 1 ? leg : { ...leg, id: `${leg.id}/${n}` }
  })
}

type Bus = 'i2c' | 'spi' | 'uart'
const busWords: Record<Bus, { id: string; name: string }> = {
  i2c: { id: 'i2c', name: 'two-wire bus' },
  spi: { id: 'spi', name: 'SPI bus' },
  uart: { id: 'serial', name: 'serial lines' },
}
/** Buses whose lines are all there, by the names of its terminals. */
const busesOf = (signals: FoundLeg[]): Bus[] => {
  const all = signals.flatMap(linesOf)
  const has = (bus: Bus, name?: string) => all.some(isOn(bus, name))
  return [
    ...(has('i2c', 'SDA') && has('i2c', 'SCL') ? ['i2c' as const] : []),
    ...(has('spi', 'SCK') && (has('spi', 'MOSI') || has('spi', 'MISO')) ? ['spi' as const] : []),
    ...(has('uart') ? ['uart' as const] : []),
  ]
}

/** Its rows in the table, in words. */
const saidOf = (leg: FoundLeg, lines: string[]): string =>
  leg.places.map((p) => lines[p.line - 1] ?? '').join(' ')

/** What sits at the device’s end of a line. */
const endsFrom = (fact: (path: string) => Json | undefined) => {
  const level = (path: string, factor: number) => {
    const stated = fact(path)
    return stated ? { factor: stated.factor, offset: stated.offset } : { factor, offset: 0 }
  }
  const sinks = fact('io.outputLow[]')?.current
  return {
    listens: {
      kind: 'logic-input',
      high: level('io.inputHigh', 0.7),
      low: level('io.inputLow', 0.3),
      ...(fact('io.leakage') ? { leakage: fact('io.leakage') } : {}),
    },
    shared: {
      kind: 'open-drain',
      sinkCurrent:
        typeof sinks === 'number' ? { min: sinks, kind: 'guaranteed' } : assumed({ min: 3e-3 }, byBus),
      capacitance: fact('io.capacitance') ?? assumed({ max: 10e-12 }, byBus),
    },
    drives: { kind: 'logic-output' },
    measured: { kind: 'analog' },
  }
}
type Ends = ReturnType<typeof endsFrom>
type Signal = Json & { terminal: string; kind: string }

/** The lines of a terminal on one bus. */
const onBus = (leg: FoundLeg, bus: Bus, ends: Ends): Signal[] => {
  const line = linesOf(leg).find((l) => ('bus' in l ? l.bus === bus : bus === 'spi'))
  if (!line) return []
  const of = { id: leg.id, terminal: leg.id }
  // Not selected by chance while the program doesn’t run yet.
  if (!('bus' in line)) return [{ ...of, kind: 'digital-out', quiet: true, electrical: ends.listens }]
  const sends = line.line === 'MISO' || line.line === 'RX'
  const electrical = bus === 'i2c' ? ends.shared : sends ? ends.drives : ends.listens
  return [{ ...of, kind: 'bus', bus, line: line.line, electrical }]
}

/** A terminal that is on no bus: by name, by what was answered, else asked. */
const besideBuses = (
  leg: FoundLeg,
  ends: Ends,
  answers: Answers,
  { questions, notes }: Pick<PartFrom, 'questions' | 'notes'>,
  said: string,
): Signal[] => {
  const open = /open[- ]?(?:drain|collector)/i.test(said)
  const told = uses.find((u) => u.id === answers[`use:${leg.id}`])?.id
  const sure = namesOf(leg).some((n) => calls.test(n)) ? 'interrupt' : undefined
  const use = told ?? sure ?? guessOf(leg, said)
  if (told === undefined && sure === undefined)
    questions.push({
      id: `use:${leg.id}`,
      text: `What does the chip do with ${leg.id}?`,
      guess: use,
      choices: [...uses],
      value: 1,
      places: leg.places,
    })
  if (use === 'none') {
    notes.push(`${leg.id} has no line to the chip: tie it as its sheet says.`)
    return []
  }
  if (!open && (use === 'digital-in' || use === 'interrupt'))
    notes.push(
      `${leg.id} is taken to drive its line high and low. One with an open drain needs a pull-up: say so beside it in the table.`,
    )
  const drives = open ? { ...ends.drives, openDrain: true } : ends.drives
  const electrical = use === 'digital-out' ? ends.listens : use === 'analog-in' ? ends.measured : drives
  return [{ id: leg.id, terminal: leg.id, kind: use, electrical }]
}

/** Its address: told, or what its text speaks of until then. */
const addressFrom = (
  facts: FoundFact[],
  text: string,
  answers: Answers,
  questions: Question[],
): number | undefined => {
  const answer = answers.address
  if (answer === 'unknown') return undefined
  const told = answer === undefined ? undefined : addressOf(answer)
  if (told !== undefined) return told
  const stated = facts.flatMap((f) => (f.path === 'address' ? [f.value as number] : []))
  const found = [...new Set([...stated, ...addressesIn(text)])]
  questions.push({
    id: 'address',
    text: 'At which address is it on the bus?',
    why:
      answer !== undefined
        ? `“${answer}” is no address; 0x44 is.`
        : found.length > 0
          ? 'Its text speaks of it. Without the read and write bit it is at most 0x7f.'
          : 'No line of its text says.',
    guess: found[0] === undefined ? 'unknown' : hex(found[0]),
    choices: [
      ...found.map((a) => ({ id: hex(a), label: hex(a) })),
      { id: 'unknown', label: 'not known: two parts at one address can’t be seen' },
    ],
    free: '0x44',
    value: 2,
    places: [],
  })
  return answer === undefined ? found[0] : undefined
}

/** The file of a device, what is still to be asked for it, and what was taken without having been read. */
export const deviceFrom = (
  table: Understood,
  facts: FoundFact[],
  head: DeviceHead,
  answers: Answers,
  text: string,
): PartFrom => {
  const asked: Pick<PartFrom, 'questions' | 'notes' | 'missing'> = { questions: [], notes: [], missing: [] }
  const { notes } = asked
  const fact = (path: string) => facts.find((f) => f.path === path)?.value as Json | undefined
  const ends = endsFrom(fact)
  const legs = toldApart(table.legs.filter((l) => l.type !== 'none'))
  const signals = legs.filter((l) => l.type !== 'supply' && l.type !== 'ground')
  const buses = busesOf(signals)
  const ofBus = new Map(buses.map((bus) => [bus, signals.flatMap((leg) => onBus(leg, bus, ends))]))
  const joined = new Set([...ofBus.values()].flatMap((all) => all.map((s) => s.terminal)))
  const rest = signals
    .filter((leg) => !joined.has(leg.id))
    .flatMap((leg) => besideBuses(leg, ends, answers, asked, saidOf(leg, text.split('\n'))))
  const address = buses.includes('i2c') ? addressFrom(facts, text, answers, asked.questions) : undefined
  const speed = fact('busSpeed')
  const wirings: Json[] = buses.map((bus) => ({
    ...busWords[bus],
    signals: [...ofBus.get(bus)!, ...rest],
    ...(bus === 'i2c' && address !== undefined ? { address } : {}),
    ...(bus === 'i2c' && speed ? { busSpeed: speed } : {}),
  }))
  if (wirings.length === 0) wirings.push({ id: 'lines', name: 'its own lines', signals: rest })
  for (const [bus, here] of ofBus) {
    const idle = [...joined].filter((id) => !here.some((s) => s.terminal === id))
    if (idle.length > 0)
      notes.push(
        `On the ${busWords[bus].name} ${idle.join(', ')} ${idle.length === 1 ? 'has no line: tie it' : 'have no line: tie them'} as its sheet says.`,
      )
  }
  const memory = buses.length > 0 ? { program: 2000, data: 100 } : { program: 300, data: 10 }
  notes.push(
    `Its driver is taken to need ${memory.program} bytes of program and ${memory.data} of data: no sheet says.`,
  )
  const all = [...ofBus.values(), rest].flat()
  if (!fact('io.inputHigh') && all.some((s) => s.electrical === ends.listens))
    notes.push('Its inputs are taken to need 0.7 and 0.3 of its supply: no row says.')
  if (buses.includes('i2c') && !fact('io.outputLow[]'))
    notes.push(`Its bus lines are taken to sink 3 mA and to have at most 10 pF: ${byBus}.`)
  const roleOf = ({ type, id }: FoundLeg) =>
    type === 'supply' || type === 'ground' ? type : all.some((s) => s.terminal === id) ? 'signal' : 'passive'
  const begun: Json = {
    format: partFormat,
    kind: 'device',
    id: head.id,
    name: head.name,
    group: head.group || 'device',
    ...(head.maker ? { maker: head.maker } : {}),
    sheet: head.sheet,
    price: head.price ?? 0,
    terminals: legs.map((leg) => ({ id: leg.id, role: roleOf(leg) })),
    modes: modesFrom(facts),
    wirings,
    memory,
  }
  const own = facts.filter((f) => f.path === 'supply' || f.path === 'supplyAbsolute')
  const says = Object.fromEntries(
    signals.map(({ id }) => {
      const on = buses.filter((b) => ofBus.get(b)!.some((s) => s.terminal === id))
      const use = rest.find((s) => s.terminal === id)?.kind ?? 'none'
      const words = on.map((b) => busWords[b].name).join(', ')
      return [id, words || uses.find((u) => u.id === use)!.label]
    }),
  )
  return { file: withFacts(begun, own), ...asked, says }
}
