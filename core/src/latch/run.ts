// What a latch does over time: pressed, started, held, let go, off; or left alone while its source is put in.

import { type Element, type Model, transconductanceOf, transient } from '../circuit'
import type { Diode, Rated, Regulator, Transistor } from '../parts'
import { fullRange } from '../quantity'
import type { Patience } from '../patience'

const typ = (r: Rated): number => fullRange(r).typ

/** All that the simulation knows, as numbers at their usual values. */
export interface LatchFacts {
  source: { voltage: number; resistance: number }
  pass: { threshold: number; transconductance: number; gate: number; drain: number }
  pull: { threshold: number; transconductance: number; gate: number; drain: number }
  pullUp: number
  /** From the gate to ground, F. */
  stray: number
  /** From gate to button, and from the button to the leg that reads it; absent: the button is on the gate. */
  diode?: readonly (readonly [current: number, voltage: number])[]
  /** Holds the leg that reads the button high, Ω. */
  keyPullUp: number
  /** From the leg to the gate of the transistor that pulls, and from there to ground, Ω. */
  gateResistor: number
  gatePullDown: number
  /** Of the leg’s driver, Ω. */
  driver: number
  polarity?: readonly (readonly [current: number, voltage: number])[]
  regulator?: Extract<Model, { kind: 'limited regulator' }>
  /** In front of a regulator, and on the rail, F. */
  input: number
  rail: number
  load: { current: number; full: number }
  /** The chip’s lowest supply, V: below it starts anew. */
  least: number
  /** From there to its program, at its slowest, and to the line that holds, s. */
  startUp: number
  setUp: number
}

export interface LatchTry {
  /** Somebody presses the button, or nobody does and the source is put in. */
  does: 'press' | 'plug'
  /** For so long, s. */
  press: number
  /** The program lets go so long after the press began, s. */
  letGo: number
}

export const latchEvents = {
  plugged: 'the source is put in',
  pressed: 'the button is pressed',
  'rail up': 'the rail is enough for the chip',
  runs: 'the program begins',
  holds: 'the program holds',
  released: 'the button is let go',
  'lets go': 'the program lets go',
  off: 'the rail is below what the chip works with',
} as const
export interface LatchEvent {
  at: number
  what: keyof typeof latchEvents
}

export interface LatchRun {
  /** s, rising. */
  times: number[]
  /** V against ground at each: of the source, of the gate, of the rail, of the legs that hold and read. */
  source: number[]
  gate: number[]
  rail: number[]
  hold: number[]
  key?: number[]
  events: LatchEvent[]
  /** Whether it was on by itself, with the button let go. */
  held: boolean
  /** The rail had gone before the program held, or never was enough; not where that is not known. */
  tooShort: boolean
  /** Given up before its end: what comes after is not known. */
  stopped?: true
}

const part = (of: Transistor, least: { gate: number; drain: number }): LatchFacts['pass'] => {
  const threshold = of.threshold ? typ(of.threshold) : 1
  const point = [...(of.channel ?? [])].sort((a, b) => a.gate - b.gate)[0]
  const whole = of.gateCapacitance ? typ(of.gateCapacitance) : least.gate
  const drain = of.drainCapacitance ? typ(of.drainCapacitance) : least.drain
  return {
    threshold,
    transconductance:
      point && point.gate > threshold
        ? transconductanceOf(typ(point.resistance), point.gate, threshold)
        : transconductanceOf(1, threshold + 1, threshold),
    gate: Math.max(0, whole - drain),
    drain,
  }
}
export const passFacts = (of: Transistor) => part(of, { gate: 500e-12, drain: 80e-12 })

export const curvePoints = ({ forward }: Diode) =>
  [...forward].sort((a, b) => a.current - b.current).map((p) => [p.current, typ(p.voltage)] as const)

export const regulatorModel = (r: Regulator): NonNullable<LatchFacts['regulator']> => {
  const hardest = [...r.dropout].sort((a, b) => a.current - b.current).at(-1)!
  return {
    kind: 'limited regulator',
    output: typ(r.output),
    most: fullRange(r.current).max,
    quiescent: typ(r.quiescent),
    ...(r.topology === 'linear'
      ? { dropout: hardest.current > 0 ? typ(hardest.voltage) / hardest.current : 1, least: 0 }
      : {
          efficiency: r.efficiency?.[0]?.share ?? 0.85,
          least: fullRange(r.inputRecommended).min,
          up: r.converts === 'up',
        }),
  }
}

type When = readonly (readonly [from: number, closed: boolean])[]

/** When the contacts are closed, by time. */
interface Course {
  voltage: number | readonly (readonly [number, number])[]
  button: When
  high: When
  low: When
}

const never: When = [[0, false]]

/** The circuit, element by element. */
export const latchElements = (f: LatchFacts, course: Course): Element[] => {
  const elements: Element[] = []
  const add = (id: string, model: Model, terminals: Record<string, string>) =>
    elements.push({ id, role: '', model, terminals })
  const two = (id: string, model: Model, a: string, b: string) => add(id, model, { 1: a, 2: b })
  const capacitor = (id: string, capacitance: number, a: string, b: string) => {
    if (capacitance > 0) add(id, { kind: 'capacitor', capacitance }, { '+': a, '−': b })
  }
  const resistor = (id: string, resistance: number, a: string, b: string) =>
    two(id, { kind: 'resistor', resistance }, a, b)
  const mosfet = (
    id: string,
    of: LatchFacts['pass'],
    polarity: 'n' | 'p',
    nets: [string, string, string],
  ) => {
    const [gate, drain, source] = nets
    const { threshold, transconductance } = of
    add(id, { kind: 'mosfet', polarity, threshold, transconductance }, { gate, drain, source })
    capacitor(`${id} gate`, of.gate, gate, source)
    capacitor(`${id} drain`, of.drain, gate, drain)
  }
  const behind = f.polarity ? 'OUT' : f.regulator ? 'IN' : 'VCC'
  add('source', { kind: 'source', ...f.source, voltage: course.voltage }, { '+': 'CELL', '−': 'GND' })
  mosfet('pass', f.pass, 'p', ['GATE', behind, 'CELL'])
  resistor('pull-up', f.pullUp, 'GATE', 'CELL')
  capacitor('stray', f.stray, 'GATE', 'GND')
  mosfet('pull', f.pull, 'n', ['DRIVE', 'GATE', 'GND'])
  resistor('gate resistor', f.gateResistor, 'HOLD', 'DRIVE')
  resistor('gate pull-down', f.gatePullDown, 'DRIVE', 'GND')
  two('high', { kind: 'contact', closed: course.high, resistance: f.driver }, 'VCC', 'HOLD')
  two('low', { kind: 'contact', closed: course.low, resistance: f.driver }, 'HOLD', 'GND')
  if (f.diode) {
    const model: Model = { kind: 'curve', points: f.diode }
    add('gate diode', model, { anode: 'GATE', cathode: 'BUTTON' })
    add('key diode', model, { anode: 'KEY', cathode: 'BUTTON' })
    resistor('key pull-up', f.keyPullUp, 'VCC', 'KEY')
  }
  two('button', { kind: 'contact', closed: course.button }, f.diode ? 'BUTTON' : 'GATE', 'GND')
  if (f.polarity) {
    const to = f.regulator ? 'IN' : 'VCC'
    add('polarity', { kind: 'curve', points: f.polarity }, { anode: 'OUT', cathode: to })
  }
  if (f.regulator) {
    add('regulator', f.regulator, { in: 'IN', out: 'VCC', ground: 'GND' })
    capacitor('input', f.input, 'IN', 'GND')
  }
  // A rail without any capacitor has that of its tracks and of the chip itself.
  capacitor('rail', Math.max(f.rail, 1e-9), 'VCC', 'GND')
  add('load', { kind: 'load', ...f.load }, { '+': 'VCC', '−': 'GND' })
  return elements
}

/** Before the button is pressed, or the source put in, all is at rest, s. */
const before = 1e-3

/** When a voltage first crosses a level from `from` on, between two points by a straight line. */
const crossing = (
  times: readonly number[],
  voltage: readonly number[],
  level: number,
  up: boolean,
  from: number,
): number | undefined => {
  for (let k = 1; k < times.length; k++) {
    const [a, b] = [voltage[k - 1]!, voltage[k]!]
    if (times[k]! <= from || !(up ? a < level && b >= level : a >= level && b < level)) continue
    return times[k - 1]! + ((times[k]! - times[k - 1]!) * (level - a)) / (b - a)
  }
  return undefined
}

/** Throws what the solver throws: NotFound, FloatingNet, Contradiction. `patience` is asked at every step. */
export const runLatch = (f: LatchFacts, { does, press, letGo }: LatchTry, patience: Patience): LatchRun => {
  const plugs = does === 'plug'
  const tail = 20e-3
  const start = (plugs ? 0 : press) + f.startUp + f.setUp
  const until = before + Math.max(start, letGo) * 1.25 + tail
  const voltage = plugs
    ? ([
        [0, 0],
        [before, 0],
        [before * 1.001, f.source.voltage],
      ] as const)
    : f.source.voltage
  const button: When = plugs ? never : [...never, [before, true], [before + press, false]]
  const simulate = (high: When, low: When, end: number) =>
    transient(latchElements(f, { voltage, button, high, low }), {
      until: end,
      precision: 1e-4,
      nothing: 1e-6,
      stop: () => patience.spent(),
    })
  const started = (run: ReturnType<typeof simulate>) => {
    const rail = run.voltage('VCC')
    const up = crossing(run.times, rail, f.least, true, 0)
    const gone = up === undefined ? undefined : crossing(run.times, rail, f.least, false, up)
    return { up, gone }
  }
  // Without a program: whether it gets as far as to hold.
  let run = simulate(never, never, before + start + tail)
  const first = started(run)
  const runs = first.up === undefined ? undefined : first.up + f.startUp
  const holds = runs === undefined ? undefined : runs + f.setUp
  const inTime =
    holds !== undefined && holds < run.times.at(-1)! && (first.gone === undefined || holds < first.gone)
  const lets = before + letGo
  if (inTime && !run.stopped) {
    const high: When = lets > holds ? [...never, [holds, true], [lets, false]] : never
    run = simulate(high, [...never, [Math.max(holds, lets), true]], until)
  }
  const { up, gone } = started(run)
  const events: LatchEvent[] = []
  const note = (what: LatchEvent['what'], at: number | undefined) => {
    if (at !== undefined && at <= run.times.at(-1)!) events.push({ at, what })
  }
  note(plugs ? 'plugged' : 'pressed', before)
  note('rail up', up)
  if (runs !== undefined && (gone === undefined || runs < gone)) note('runs', runs)
  const held = inTime && lets > holds
  if (held) note('holds', holds)
  if (!plugs) note('released', before + press)
  if (inTime) note('lets go', Math.max(lets, holds))
  note('off', gone)
  const traced = thinned(run.times, f.diode ? tracesOf(run, true) : tracesOf(run, false))
  return {
    ...traced,
    events: events.sort((a, b) => a.at - b.at),
    held,
    tooShort: !plugs && !inTime && !run.stopped,
    ...(run.stopped && { stopped: true }),
  }
}

type Traces = Pick<LatchRun, 'source' | 'gate' | 'rail' | 'hold' | 'key'>
const tracesOf = ({ voltage }: ReturnType<typeof transient>, read: boolean): Traces => ({
  source: voltage('CELL'),
  gate: voltage('GATE'),
  rail: voltage('VCC'),
  hold: voltage('HOLD'),
  ...(read && { key: voltage('KEY') }),
})

/** At most so many points are drawn. */
const drawn = 800
/** Every point whose neighbours a straight line doesn’t tell, and some between. */
const thinned = (times: readonly number[], traces: Traces): Traces & { times: number[] } => {
  const all = Object.values(traces).filter((t) => t !== undefined)
  const until = times.at(-1)!
  const kept = times.flatMap((t, k) => {
    const last = k === 0 || k === times.length - 1
    const jumps = all.some((v) => Math.abs(v[k]! - (v[k - 1] ?? v[k]!)) > 0.02)
    const slot = Math.floor((t / until) * drawn) !== Math.floor(((times[k - 1] ?? -1) / until) * drawn)
    return last || jumps || slot ? [k] : []
  })
  const at = (v: readonly number[]) => kept.map((k) => v[k]!)
  return {
    times: at(times),
    source: at(traces.source),
    gate: at(traces.gate),
    rail: at(traces.rail),
    hold: at(traces.hold),
    ...(traces.key && { key: at(traces.key) }),
  }
}
