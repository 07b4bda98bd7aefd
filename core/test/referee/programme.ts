// The pin planner’s question as an integer programme, made from a project file and part files by the rules and costs
// that docs/formulas.md states, and by nothing of the program’s own.

import { lpText } from '../lp'
import { functionOf, highest, type Json, si, unitNeeded } from './files'

interface Leg {
  id: string
  type: string
  functions: { unit: string; signal: string }[]
  attributes: Json[]
  places: string[]
  fromMatrix: { unit: string; signal: string }[]
}
interface Carrier {
  id: string
  chip: Json
  legs: Leg[]
  kindOf: Map<string, string>
  unitOf: Map<string, Json>
  clock: number
  taken: Set<string>
}

/** The chip’s legs, or the positions of the board’s headers that lead to one. */
const carrierOf = (parts: Map<string, Json>, id: string, chosen?: Json, resetAsPort = false): Carrier => {
  const part = parts.get(id)!
  const board = part.kind === 'board' ? part : undefined
  const chip = board ? parts.get(board.chip)! : part
  const clock = board ? board.clock : chosen
  const source = chip.clockSources.find((s: Json) => s.id === clock.source)
  const places = new Map<string, string[]>()
  for (const header of board?.headers ?? [])
    header.positions.forEach((p: Json, n: number) => {
      if (p.pin)
        places.set(p.pin, [
          ...(places.get(p.pin) ?? []),
          `${header.footprint ?? board.id} ${header.id}.${n + 1}`,
        ])
    })
  const matrixOf = (pin: string) =>
    (chip.matrix ?? [])
      .filter((m: Json) => m.pins.includes(pin))
      .flatMap((m: Json) => m.units)
      .flatMap((u: string) =>
        (chip.units.find((x: Json) => x.id === u)?.signals ?? []).map((signal: string) => ({
          unit: u,
          signal,
        })),
      )
  const legs = (chip.pins as Json[])
    .filter((p) => !board || places.has(p.id))
    .map((p): Leg => ({
      id: p.id,
      type: p.type,
      functions: (p.functions ?? []).map(functionOf),
      fromMatrix: matrixOf(p.id),
      places: places.get(p.id) ?? [],
      attributes: [
        ...(p.attributes ?? []).filter((a: Json) => !board || a.kind !== 'oscillator'),
        ...(board?.loads ?? [])
          .filter((l: Json) => l.pin === p.id && !l.pull)
          .map(() => ({ kind: 'on-board-lamp' })),
      ],
    }))
  return {
    id,
    chip,
    legs,
    kindOf: new Map(chip.units.map((u: Json) => [u.id, u.kind])),
    unitOf: new Map(chip.units.map((u: Json) => [u.id, u])),
    clock: si(clock.frequency),
    taken: new Set([
      ...(source.kind === 'internal' ? [] : (source.pins ?? [])),
      ...(chip.pins as Json[])
        .filter((p) =>
          (p.attributes ?? []).some(
            (a: Json) => a.kind === 'reset' && !(resetAsPort && a.asPort !== undefined),
          ),
        )
        .map((p) => p.id as string),
    ]),
  }
}

interface End {
  device: Json
  wiring: string
  signal: Json
}
interface Signal {
  id: string
  key: string
  kind: string
  bus?: string
  line?: string
  group?: string
  frequency?: number
  /** What all signals on one timer must have in common. */
  rate?: string
  /** Volts that come from a device on another supply. */
  reaches?: number
  quiet: boolean
  mayPause: boolean
  /** `device=wiring` of which one must be chosen; undefined: always wanted. */
  when?: string[]
  seats: string[]
  ends: End[]
}

const shared = new Set(['i2c', 'spi', 'can'])

/** Devices one by one, shared bus lines once; those whose wiring is left open with every wiring. */
const signalsOf = (parts: Map<string, Json>, project: Json) => {
  const signals = new Map<string, Signal>()
  const open: { device: Json; part: Json }[] = []
  const bytes: { signals: string[]; when?: string }[] = []
  const asked: { device: Json; part: Json; wiring: Json; free: boolean }[] = []
  for (const device of project.needs.devices) {
    const part = parts.get(device.part)!
    const said = part.wirings.find((w: Json) => w.id === device.wiring)
    const free = part.planChooses && part.wirings.length > 1 && !said
    if (free) open.push({ device, part })
    for (const wiring of free ? part.wirings : [said ?? part.wirings[0]])
      asked.push({ device, part, wiring, free })
  }
  for (const { device, part, wiring, free } of asked)
    for (let n = 1; n <= device.count; n++) {
      const when = free ? `${device.id}=${wiring.id}` : undefined
      if (wiring.byte) bytes.push({ signals: wiring.byte.map((b: string) => `${device.id}.${n}.${b}`), when })
      const chain = device.count > 1 ? wiring.chain : undefined
      for (const s of wiring.signals) {
        // A chain: into the first, out of the last, all other lines common.
        if (chain && s.id === chain.in && n > 1) continue
        if (chain && s.id !== chain.in && s.terminal === chain.out && n < device.count) continue
        const common = s.bus !== undefined && shared.has(s.bus)
        const line = s.bus === undefined ? undefined : `${s.bus}${device.bus ?? ''}`
        const id = common ? `${line}.${s.line}` : `${device.id}.${chain ? 1 : n}.${s.id}`
        const key = common || !when ? id : `${id} ${when}`
        const seat =
          part.expansion && s.at && part.expansion.positions.some((p: Json) => p.at === s.at)
            ? [`${part.expansion.fits} ${s.at}`]
            : []
        const end = { device, wiring: wiring.id, signal: s }
        const known = signals.get(key)
        if (known) {
          known.ends.push(end)
          known.seats.push(...seat)
          if (!when) known.when = undefined
          else if (known.when && !known.when.includes(when)) known.when.push(when)
          continue
        }
        const frequency =
          device.settings?.[`${s.id}.frequency`] ?? (s.frequency === undefined ? undefined : si(s.frequency))
        signals.set(key, {
          id,
          key,
          kind: s.kind,
          bus: s.bus,
          line: s.line,
          group:
            s.kind === 'quadrature'
              ? `encoder ${device.id} ${n} ${wiring.id}`
              : s.bus
                ? common
                  ? line
                  : `${device.id}.${n} ${wiring.id} ${line}`
                : undefined,
          // A timer that measures runs free, one that counts an encoder does nothing else.
          rate:
            s.kind === 'pwm'
              ? `${frequency}`
              : s.kind === 'capture'
                ? 'free'
                : s.kind === 'quadrature'
                  ? `counts ${device.id} ${n}`
                  : undefined,
          frequency: s.kind === 'pwm' ? frequency : undefined,
          quiet: s.quiet ?? false,
          mayPause: s.mayPauseRadio ?? false,
          when: when === undefined ? undefined : [when],
          seats: [...seat],
          ends: [end],
        })
      }
    }
  return { signals: [...signals.values()], open, bytes }
}

const listens = ['digital-in', 'analog-in', 'interrupt', 'touch', 'wake', 'capture', 'quadrature']
const abilities = (s: Signal): string[] =>
  s.bus
    ? [s.bus]
    : s.kind === 'wake'
      ? ['wake', 'interrupt']
      : unitNeeded[s.kind]
        ? [unitNeeded[s.kind]!]
        : []

const stops = (c: Carrier, unit: string | undefined) =>
  unit !== undefined && (c.unitOf.get(unit).disabledBy ?? []).includes('radio')

interface Way {
  unit?: string
  line?: string
}
const waysOf = (
  c: Carrier,
  leg: Leg,
  s: Signal,
  radio: boolean,
  answers: Json,
  taken: Set<string>,
): Way[] => {
  if (!s.seats.every((seat) => leg.places.includes(seat))) return []
  if (s.kind === 'reference') return leg.type === 'reference' ? [{}] : []
  if (!['io', 'input', 'output'].includes(leg.type) || taken.has(leg.id)) return []
  const has = (kind: string) => leg.attributes.some((a) => a.kind === kind)
  if (has('flash')) return []
  const out = !listens.includes(s.kind) && !(s.bus === 'uart' && s.line === 'RX')
  if (out && (leg.type === 'input' || has('input-only'))) return []
  if (!out && leg.type === 'output') return []
  const kind = s.bus ?? unitNeeded[s.kind]
  if (!kind) return [{}]
  return [...leg.functions, ...leg.fromMatrix]
    .filter((f) => c.kindOf.get(f.unit) === kind && (!s.bus || f.signal === s.line))
    .filter((f) => {
      const { also = [], signals } = c.unitOf.get(f.unit)
      if (s.kind === 'capture') return also.includes('capture')
      if (s.kind === 'quadrature')
        return also.includes('quadrature') && f.signal === signals[s.line === 'A' ? 0 : 1]
      return true
    })
    .filter((f) => !(radio && stops(c, f.unit) && !s.mayPause && answers?.[s.id] === undefined))
    .map((f) => ({ unit: f.unit, line: f.signal }))
}

/** Timer: the least division that brings the count within its bits; 0 none, 1 few steps, 2 good. */
const timerGrade = (unit: Json, clock: number, s: Signal): 0 | 1 | 2 => {
  if (!s.frequency || !unit.resolution) return 2
  const top = 2 ** unit.resolution
  const divisions: number[] =
    unit.prescalers ?? Array.from({ length: unit.prescalerUpTo ?? 1 }, (_, i) => i + 1)
  for (const p of [...divisions].sort((a, b) => a - b)) {
    const count = Math.round(clock / p / s.frequency)
    if (clock / p / s.frequency > top + 0.5 || count > top) continue
    if (count < 2) return 0
    const pulse = s.ends.map((e) => e.signal.pulse).find(Boolean)
    const steps = pulse ? Math.floor(((si(pulse.longest) - si(pulse.shortest)) * clock) / p + 1e-9) : count
    return steps < 32 ? 1 : 2
  }
  return 0
}

/** The most that a device on another supply puts on the line, where that is more than 0.3 V above the lowest rail. */
const reachesOf = (parts: Map<string, Json>, { power }: Json, s: Signal): number | undefined => {
  // So many cells in a row have so many times the volts of one, where they may be joined.
  const inRow = (id: string | undefined): number =>
    id !== undefined && parts.get(id)?.joins
      ? ((id === power.source ? power.cells : power.feedCells)?.series ?? 1)
      : 1
  const times = (v: Json, n: number): Json =>
    n === 1
      ? v
      : Object.fromEntries(
          Object.entries(v).map(([k, x]) => [k, ['min', 'typ', 'max'].includes(k) ? si(x) * n : x]),
        )
  const volts = (id: string | undefined): Json =>
    id ? (parts.get(id)!.output ?? times(parts.get(id)!.voltage, inRow(id))) : undefined
  const rail = volts(power.regulator ?? power.source)
  if (!rail) return undefined
  // A regulator that its source usually leaves no room for gives what comes in, less its drop-out voltage at a small load.
  const regulator = parts.get(power.regulator)
  const one = parts.get(power.source)
  const source = one && { ...one, voltage: times(one.voltage, inRow(power.source)) }
  const held = si(rail.min ?? rail.typ ?? rail.max)
  let least = held
  if (regulator && source) {
    const gives = highest(source.current)
    const guards = [...parts.values()]
      .filter(
        (p) =>
          p.kind === 'diode' && p.sort === 'schottky' && highest(p.reverse) >= 2 * highest(source.voltage),
      )
      .sort((a, b) => highest(b.current) - highest(a.current))
    const strong = guards.filter((p) => highest(p.current) >= gives).sort((a, b) => a.price - b.price)
    // A transistor in the plus takes the place of the diode.
    const guard =
      source.sort === 'adapter' && power.guard === undefined ? (strong[0] ?? guards[0]) : undefined
    const falls = (key: 'typ' | 'max', amperes: number): number => {
      const at = guard?.forward.map((f: Json) => [si(f.current), si(f.voltage[key])])
      if (!at) return 0
      const k = Math.max(
        1,
        at.findIndex(([x]: [number]) => x >= amperes),
      )
      const [p, q] = amperes > at.at(-1)[0] ? at.slice(-2) : [at[k - 1], at[k]]
      return amperes < at[0][0] ? at[0][1] : p[1] + ((q[1] - p[1]) * (amperes - p[0])) / (q[0] - p[0])
    }
    const drop = regulator.dropout[0].voltage
    const usual = si(source.voltage.typ) - falls('typ', gives / 10) - si(drop.typ)
    const comes = si(source.voltage.min) - falls('max', gives)
    // One that steps up gives what it is made for, or what comes in, where that is more.
    if (regulator.converts === 'up') least = Math.max(held, comes)
    else if (usual < si(rail.typ)) least = Math.min(held, Math.max(comes / 10, comes - si(drop.max)))
  }
  const most = s.ends.map(({ device, signal: { electrical: e } }) => {
    const fed = device.fedBy && volts(power[device.fedBy])
    if (!fed) return 0
    if (e.kind === 'logic-output' && !e.openDrain)
      return e.high ? Math.min(highest(e.high), highest(fed)) : highest(fed)
    return e.kind === 'open-drain' && e.fitted ? highest(fed) : 0
  })
  const top = Math.max(...most)
  return top > least + 0.3 ? top : undefined
}

const few = ['converter', 'timer', 'i2c', 'spi', 'uart', 'interrupt', 'touch', 'wake', 'dac']
const spareOf = (c: Carrier, signals: Signal[]): Map<string, number> => {
  const spare = new Map<string, number>()
  for (const leg of c.legs)
    for (const kind of new Set(leg.functions.map((f) => c.kindOf.get(f.unit)!)))
      spare.set(kind, (spare.get(kind) ?? 0) + 1)
  for (const s of signals)
    if (!s.when && abilities(s)[0]) spare.set(abilities(s)[0]!, (spare.get(abilities(s)[0]!) ?? 0) - 1)
  return spare
}

/** Points of one signal on one leg by one way, rule by rule as docs/formulas.md lists them. */
const points = (
  c: Carrier,
  leg: Leg,
  s: Signal,
  way: Way,
  spare: Map<string, number>,
  radio: boolean,
  answers: Json,
  kept: Json,
): number => {
  const of = (kind: string) => leg.attributes.find((a) => a.kind === kind)
  const ends = s.ends.map((e) => e.signal.electrical)
  let sum = 0
  if (of('programming'))
    sum += ends.some((e) => e.kind === 'logic-output' && !e.openDrain)
      ? 60
      : ends.some((e) => ['led', 'switched', 'contact'].includes(e.kind))
        ? 9
        : 6
  if (of('debug')) sum += 30
  if (of('strap')) sum += 25
  if (of('download-link')) sum += 20
  if (s.quiet && ['pulled-up', 'driven-high', 'chatter'].includes(of('startup')?.state)) sum += 20
  if (s.reaches !== undefined && !(si(of('tolerant')?.voltage ?? 0) >= s.reaches)) sum += 15
  if (radio && stops(c, way.unit)) sum += answers?.[s.id] === 'accept' ? 8 : 12
  if (of('on-board-lamp')) sum += 5
  if (of('oscillator')) sum += 4
  if (s.kind === 'pwm') sum += [40, 10, 0][timerGrade(c.unitOf.get(way.unit!), c.clock, s)]!
  const kinds = new Set(leg.functions.map((f) => c.kindOf.get(f.unit)!))
  if (kinds.has('interrupt')) kinds.delete('wake')
  for (const kind of kinds)
    if (few.includes(kind) && (spare.get(kind) ?? Infinity) <= 6 && !abilities(s).includes(kind)) sum += 1
  if (kept[s.id] && kept[s.id] !== leg.id) sum += 4
  return sum
}

/** The programme in CPLEX-LP text. */
export const programmeOf = (project: Json, parts: Map<string, Json>): string => {
  const carrier = carrierOf(parts, project.chip.part, project.chip.clock, project.pins.resetAsPort)
  const others = (project.chip.also ?? []).map((id: string) => carrierOf(parts, id)) as Carrier[]
  const { signals, open, bytes } = signalsOf(parts, project)
  for (const s of signals) s.reaches = reachesOf(parts, project, s)
  const { excluded, kept, radio: answers } = project.pins
  const locks = { ...project.pins.locks, ...project.pins.soldered }
  const radio = project.needs.radio ?? false
  const spare = [carrier, ...others].map((c) => spareOf(c, signals))
  const objective: string[] = []
  const rows: string[] = []
  const binaries = new Set<string>()
  const atMostOne = new Map<string, string[]>()
  const uses = (what: string, x: string) => atMostOne.set(what, [...(atMostOne.get(what) ?? []), x])
  const name = (x: string) => {
    binaries.add(x)
    return x
  }
  /** A switch variable that is on when any of some variables is. */
  const behind = new Map<string, string[]>()
  const needs = (sw: string, x: string) => behind.set(name(sw), [...(behind.get(sw) ?? []), x])

  const optionName = new Map<string, string>()
  open.forEach(({ device, part }, d) => {
    const names = part.wirings.map((w: Json, i: number) => {
      const x = name(`w${d}_${i}`)
      optionName.set(`${device.id}=${w.id}`, x)
      const set = Object.entries(w.links ?? {}).filter(([link, to]) => {
        const l = (part.links ?? []).find((k: Json) => k.id === link)
        return l && l.factory !== to && l.positions.some((p: Json) => p.id === to)
      })
      const cost = 3 * set.length + (i > 0 ? 1 : 0)
      if (cost > 0) objective.push(`${cost} ${x}`)
      return x
    })
    rows.push(`${names.join(' + ')} = 1`)
  })

  const place = (s: Signal, leg: Leg): Way[] => {
    const ways = waysOf(carrier, leg, s, radio, answers, carrier.taken)
    return ways
  }
  /** On the other boards: for each position of the leg every combination of a way on each. */
  const elsewhere = (s: Signal, leg: Leg): { leg: Leg; way: Way; place: string }[][] => {
    if (others.length === 0) return [[]]
    return leg.places
      .filter((p) => s.seats.length === 0 || s.seats.includes(p))
      .flatMap((p) =>
        others.reduce<{ leg: Leg; way: Way; place: string }[][]>(
          (before, c) => {
            const there = c.legs.find((l) => l.places.includes(p))
            const reset = new Set(
              [...c.taken].filter((t) =>
                c.legs.find((l) => l.id === t)?.attributes.some((a) => a.kind === 'reset'),
              ),
            )
            const ways = there ? waysOf(c, there, s, radio, answers, reset) : []
            return before.flatMap((b) => ways.map((way) => [...b, { leg: there!, way, place: p }]))
          },
          [[]],
        ),
      )
  }
  const canBe = (s: Signal, leg: Leg) => place(s, leg).length > 0 && elsewhere(s, leg).length > 0

  // A lock where the signal can’t work leaves it out of the plan, and its leg to nobody.
  const byId = new Map(carrier.legs.map((l) => [l.id, l]))
  const owner = new Map<string, string>()
  const out = new Set<string>()
  const blocked = new Map<string, string>()
  // What is soldered was there before what is locked.
  const soldered = project.pins.soldered ?? {}
  const names = [...new Set(signals.map((s) => s.id))]
  for (const id of [...names.filter((i) => i in soldered), ...names.filter((i) => !(i in soldered))]) {
    const leg = byId.get(locks[id] ?? '')
    if (!leg) continue
    if (owner.has(leg.id)) {
      out.add(id)
      continue
    }
    owner.set(leg.id, id)
    // A line may go by one name under several wirings of its device: one that can be there is enough.
    if (!signals.some((s) => s.id === id && canBe(s, leg))) out.add(id)
  }
  for (const [leg, id] of owner) if (out.has(id)) blocked.set(leg, id)
  const wanted = signals.filter((s) => !out.has(s.id))

  const at = new Map<string, { x: string; leg: string }[]>()
  wanted.forEach((s, i) => {
    const mine: { x: string; leg: string }[] = []
    for (const leg of carrier.legs) {
      if (blocked.has(leg.id)) continue
      const lock = byId.has(locks[s.id] ?? '') ? locks[s.id] : undefined
      if (lock !== undefined && lock !== leg.id) continue
      if (excluded.includes(leg.id) && lock !== leg.id) continue
      let n = 0
      for (const way of place(s, leg))
        for (const there of elsewhere(s, leg)) {
          const x = name(`x${i}_${leg.id}_${n++}`.replace(/[^\w]/g, '_'))
          let cost = points(carrier, leg, s, way, spare[0]!, radio, answers, kept)
          there.forEach(
            (o, k) => (cost += points(others[k]!, o.leg, s, o.way, spare[k + 1]!, radio, answers, {})),
          )
          if (cost > 0) objective.push(`${cost} ${x}`)
          mine.push({ x, leg: leg.id })
          uses(`leg ${leg.id}`, x)
          ;[{ leg, way }, ...there].forEach((o, t) => {
            if (t > 0) uses(`leg ${t} ${o.leg.id}`, x)
            if (o.way.unit === undefined) return
            uses(`line ${t} ${o.way.unit}.${o.way.line}`, x)
            if (s.group) needs(`g${t}_${s.group}_${o.way.unit}`.replace(/[^\w]/g, '_'), x)
            if (s.rate !== undefined) needs(`f${t}_${o.way.unit}_${s.rate}`.replace(/[^\w]/g, '_'), x)
          })
        }
    }
    at.set(s.key, mine)
    const sum = mine.length > 0 ? mine.map((m) => m.x).join(' + ') : `0 ${name('nowhere')}`
    if (!s.when) rows.push(`${sum} = 1`)
    else {
      for (const w of s.when) rows.push(`${sum} - ${optionName.get(w)} >= 0`)
      rows.push(`${sum} <= 1`, `${sum} - ${s.when.map((w) => optionName.get(w)).join(' - ')} <= 0`)
    }
  })
  for (const [sw, list] of behind) for (const x of list) rows.push(`${x} - ${sw} <= 0`)
  const switches = [...behind.keys()]
  for (let t = 0; t <= others.length; t++) {
    // One unit a bus, one bus a unit; one frequency a timer.
    const c = t === 0 ? carrier : others[t - 1]!
    for (const group of new Set(wanted.flatMap((s) => s.group ?? []))) {
      const own = switches.filter((x) =>
        c.chip.units.some((u: Json) => x === `g${t}_${group}_${u.id}`.replace(/[^\w]/g, '_')),
      )
      if (own.length > 1) rows.push(`${own.join(' + ')} <= 1`)
    }
    for (const unit of c.chip.units as Json[]) {
      const end = `_${unit.id}`.replace(/[^\w]/g, '_')
      const groups = [...new Set(wanted.flatMap((s) => s.group ?? []))]
        .map((g) => `g${t}_${g}${end}`.replace(/[^\w]/g, '_'))
        .filter((x) => behind.has(x))
      if (groups.length > 1) rows.push(`${groups.join(' + ')} <= 1`)
      const rates = [...new Set(wanted.flatMap((s) => s.rate ?? []))]
        .map((f) => `f${t}_${unit.id}_${f}`.replace(/[^\w]/g, '_'))
        .filter((x) => behind.has(x))
      if (rates.length > 1) rows.push(`${rates.join(' + ')} <= 1`)
    }
  }
  for (const list of atMostOne.values()) if (list.length > 1) rows.push(`${list.join(' + ')} <= 1`)

  // A byte in order on a port, or 8 points.
  const ids = new Set(carrier.legs.map((l) => l.id))
  bytes.forEach(({ signals: bits, when }, b) => {
    const lists = bits.map((id) => at.get(when ? `${id} ${when}` : id))
    if (lists.some((l) => l === undefined)) return
    const scattered = name(`b${b}_scattered`)
    objective.push(`8 ${scattered}`)
    const runs: string[] = []
    for (const first of ids) {
      const m = /^(.*?)(\d+)$/.exec(first)
      if (!m) continue
      const run = bits.map((_, i) => `${m[1]}${Number(m[2]) + i}`)
      if (!run.every((p) => ids.has(p))) continue
      const y = name(`b${b}_${first}`)
      runs.push(y)
      lists.forEach((list, i) => {
        const here = list!.filter((e) => e.leg === run[i]).map((e) => e.x)
        rows.push(here.length > 0 ? `${here.join(' + ')} - ${y} >= 0` : `${y} = 0`)
      })
    }
    const chosen = when ? optionName.get(when)! : undefined
    rows.push(`${[...runs, scattered].join(' + ')}${chosen ? ` - ${chosen} >= 0` : ' >= 1'}`)
  })

  for (const group of carrier.chip.limits.groups ?? []) {
    const limit = Math.round(1e6 * highest(group.recommended ?? group.absolute))
    const loads = wanted.flatMap((s) => {
      const load = s.ends.reduce(
        (sum, e) =>
          sum +
          (e.signal.electrical.kind === 'led'
            ? (e.device.settings?.[`${e.signal.id}.current`] ?? si(e.signal.electrical.current))
            : 0),
        0,
      )
      return load > 0
        ? at
            .get(s.key)!
            .filter((e) => group.pins.includes(e.leg))
            .map((e) => `${Math.round(1e6 * load)} ${e.x}`)
        : []
    })
    if (loads.length > 0) rows.push(`${loads.join(' + ')} <= ${limit}`)
  }
  return lpText(objective, rows, binaries)
}
