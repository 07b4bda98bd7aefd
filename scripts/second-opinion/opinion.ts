// A second opinion on numbers that a builder trusts: plain formulas over the part files as they lie in the folder, by trying
// corners. It imports nothing of core, only the referee’s reading of numbers. What was decided (which leg, which value is fitted, what flows in all) it is told.

import { si } from '../../core/test/referee/files'

/* eslint-disable @typescript-eslint/no-explicit-any -- files are read as they are, without the program’s types */
type Json = any

export interface Span {
  min: number
  typ: number
  max: number
}
/** What the program decided, in plain values. */
export interface Decided {
  /** signal → leg */
  legs: Record<string, string>
  /** support key → fitted value, where it is fitted */
  fitted: Record<string, number>
  clock: { source: string; frequency: number; part?: string }
  /** Amperes through regulator and plug, from rest to work. */
  load: Span
  through: Span
  /** Amperes through each lead, with everything at work. */
  led: { source?: Span; feed?: Span }
  busSpeed: number
  /** Signals with something between the leg and the device. */
  shifted: string[]
}

const value = si
const span = (rated: Json): Span => {
  if (typeof rated !== 'object') return { min: value(rated), typ: value(rated), max: value(rated) }
  const [a, b, c] = [rated.min, rated.typ, rated.max].map((x) => (x === undefined ? undefined : value(x)))
  const min = a ?? b ?? c!
  const max = c ?? b ?? a!
  return { min, max, typ: b ?? (a !== undefined && c !== undefined ? (a + c) / 2 : (c ?? a)!) }
}
const corners = (...of: Span[]): number[][] =>
  of.reduce<number[][]>(
    (all, s) =>
      all.flatMap((p) => [
        [...p, s.min],
        [...p, s.max],
      ]),
    [[]],
  )
/** Least and greatest over all corners, and the usual. */
const over = (f: (...x: number[]) => number, ...of: Span[]): Span => {
  const at = corners(...of).map((c) => f(...c))
  return { min: Math.min(...at), typ: f(...of.map((s) => s.typ)), max: Math.max(...at) }
}
type Line = [x: number, y: number][]
const read = (line: Line, x: number): number => {
  let k = 1
  while (k < line.length - 1 && line[k]![0] < x) k++
  if (line.length === 1) return line[0]![1]
  const [[a, p], [b, q]] = [line[k - 1]!, line[k]!]
  return p + ((q - p) * (x - a)) / (b - a)
}
const lines = (points: Json[], x: string, y: string): Record<keyof Span, Line> => {
  const sorted = [...points].sort((a, b) => value(a[x]) - value(b[x]))
  const of = (key: keyof Span): Line => sorted.map((p) => [value(p[x]), span(p[y])[key]])
  return { min: of('min'), typ: of('typ'), max: of('max') }
}
/** Where a falling function meets nothing. */
const root = (f: (x: number) => number): number => {
  if (f(0) <= 0) return 0
  let [low, high] = [0, 2]
  for (let n = 0; n < 100; n++) {
    const middle = (low + high) / 2
    if (f(middle) > 0) low = middle
    else high = middle
  }
  return low
}

export const secondOpinion = (
  parts: Map<string, Json>,
  project: Json,
  decided: Decided,
): Record<string, Span> => {
  const out: Record<string, Span> = {}
  const part = (id: string | undefined): Json => (id === undefined ? undefined : parts.get(id))
  const carrier = part(project.chip.part)
  const board = carrier.kind === 'board' ? carrier : undefined
  const chip = board ? part(board.chip) : carrier
  const source = part(project.power.source)
  const regulator = part(board ? board.regulator : project.power.regulator)
  // A regulator holds its output, but gives no more than comes in where its source usually leaves it no room: at the plug, less
  // what may fall in the diode, a tenth of what the source gives as usual.
  const held = span(regulator ? regulator.output : source.voltage)
  const plug = source && span(source.voltage)
  const guard =
    regulator && source && !board && 'polarity' in decided.fitted ? part('diode-polarity') : undefined
  const drops = guard && lines(guard.forward, 'current', 'voltage')
  const gives = source && span(source.current).max
  const comes: Span | undefined = plug && {
    min: plug.min - (drops ? read(drops.max, gives) : 0),
    typ: plug.typ - (drops ? read(drops.typ, gives / 10) : 0),
    max: plug.max,
  }
  // At no load nothing need fall across it, at a small one what its sheet states first.
  const small: Span | undefined = regulator && { ...span(regulator.dropout[0].voltage), min: 0 }
  const lacks = small && comes !== undefined && comes.typ - small.typ < held.typ
  const rail: Span = lacks
    ? over((o, x, d) => Math.max(x / 10, Math.min(o, x - d)), held, comes, small)
    : held
  out.rail = rail
  const resistors = [...parts.values()].find((p) => p.kind === 'resistors')
  const loose = (ohms: number): Span => ({
    min: ohms * (1 - resistors.tolerance),
    typ: ohms,
    max: ohms * (1 + resistors.tolerance),
  })

  // The clock: off by all that can be, the crystal’s load among it.
  const { clock } = decided
  const oscillator = chip.clockSources.find((s: Json) => s.id === clock.source)
  const crystal = part(clock.part)
  let off = crystal ? value(crystal.tolerance) : value(oscillator?.tolerance ?? 0)
  if (crystal?.kind === 'crystal') {
    off += value(crystal.temperature) + value(crystal.ageing)
    const stray = span(oscillator.strayCapacitance ?? 5e-12)
    const C_L = value(crystal.loadCapacitance)
    out['load capacitor'] = over((s) => Math.max(0, 2 * (C_L - s)), stray)
    const each = decided.fitted[`load-capacitor:${oscillator.pins[0]}`]
    const ceramic = [...parts.values()]
      .filter((p) => p.kind === 'capacitors' && p.sort === 'ceramic')
      .sort((a, b) => a.price - b.price)[0]
    const C: Span =
      each === undefined
        ? { min: 0, typ: 0, max: 0 }
        : { min: each * (1 - ceramic.tolerance), typ: each, max: each * (1 + ceramic.tolerance) }
    if (crystal.motional !== undefined && crystal.shunt !== undefined) {
      const [C_1, C_0] = [value(crystal.motional), value(crystal.shunt)]
      const pull = over((c, s) => (C_1 / 2) * (1 / (C_0 + c / 2 + s) - 1 / (C_0 + C_L)), C, stray)
      off += Math.max(Math.abs(pull.min), Math.abs(pull.max))
    }
  }
  out['clock off, ppm'] = { min: off * 1e6, typ: off * 1e6, max: off * 1e6 }
  const f: Span = {
    min: clock.frequency * (1 - off),
    typ: clock.frequency,
    max: clock.frequency * (1 + off),
  }
  const permitted = [...chip.frequencyLimits]
    .map((p: Json): [number, number] => [value(p.supply), value(p.frequency)])
    .sort((a, b) => a[0] - b[0])
  const [first, last] = [permitted[0]!, permitted.at(-1)!]
  const limitAt = (v: number) => (v < first[0] ? 0 : v > last[0] ? last[1] : read(permitted, v))
  out['clock limit'] = over(limitAt, rail)

  // Currents.
  for (const kind of ['active', 'idle'] as const) {
    const mode = chip.modes.find((m: Json) => m.kind === kind)
    if (!mode || project.needs.radio) continue
    out[`chip ${kind}`] = mode.perHertz
      ? over((a, k, hz) => a + k * hz, span(mode.current), span(mode.perHertz), f)
      : span(mode.current)
  }
  for (const d of project.needs.devices) {
    const device = part(d.part)
    if (!device || device.modes.length === 0) continue
    const of = (m: Json): Span => over((i) => d.count * i, span(m.current))
    out[`${d.id} rest`] = of(device.modes[0])
    out[`${d.id} work`] = of(device.modes.at(-1))
  }

  // Leads: copper by its coefficient at 20 °C (IEC 60028), there and back, from 20 °C, or the coldest air, to what its insulation stands.
  const nothing: Span = { min: 0, typ: 0, max: 0 }
  const ohmsOf = (lead: Json): Span => {
    const [wire, joint, fuse] = [part(lead?.wire), part(lead?.joint), part(lead?.fuse)]
    const { ambient: air, coldest = 20 } = project.needs.limits
    const copper = (r: number, at: number) => 2 * (lead.length ?? 0) * r * (1 + 3.93e-3 * (at - 20))
    const r = wire ? span(wire.resistance) : nothing
    const warmest = wire ? Math.max(air, span(wire.insulation).max) : air
    const j = joint ? span(joint.resistance) : nothing
    const f = fuse ? span(fuse.resistance) : nothing
    const guard = part(lead?.protection)
    const g = guard ? span(guard.resistance) : nothing
    const n = lead?.joints ?? 0
    return {
      min: (wire ? copper(r.min, Math.min(20, air, coldest)) : 0) + n * j.min + f.min + g.min,
      typ: (wire ? copper(r.typ, air) : 0) + n * j.typ + f.typ + g.typ,
      max: (wire ? copper(r.max, warmest) : 0) + n * j.max + f.max + g.max,
    }
  }
  for (const of of ['source', 'feed'] as const) {
    const current = decided.led[of]
    if (!current) continue
    const ohms = ohmsOf(of === 'feed' ? project.power.feedLead : project.power.lead)
    out[`lost in the lead of the ${of}`] = over((i, r) => i * r, current, ohms)
    out[`heat in the lead of the ${of}`] = over((i, r) => i * i * r, current, ohms)
  }

  // From the plug to the rail.
  if (regulator && source && !board) {
    const I = decided.through
    const guarded = 'polarity' in decided.fitted
    const diode = guarded ? part('diode-polarity') : undefined
    const V_F = diode && lines(diode.forward, 'current', 'voltage')
    // Without a current nothing falls across a diode.
    if (V_F) V_F.min = [[0, 0], ...V_F.min]
    const [inside, led] = [source.resistance ? span(source.resistance) : nothing, ohmsOf(project.power.lead)]
    const R_i = { min: inside.min + led.min, typ: inside.typ + led.typ, max: inside.max + led.max }
    const V = span(source.voltage)
    const q = span(regulator.quiescent)
    const front = (key: keyof Span) => Math.max(0, I[key] - decided.load[key] - q[key])
    const beside: Span = { min: front('min'), typ: front('typ'), max: front('max') }
    const keys = ['min', 'typ', 'max'] as const
    // The same current drops in the cells and in the diode as is turned into heat: at every corner, the load in ten steps.
    const into = (v: number, r: number, band: number, i: number) =>
      v - i * r - (V_F ? read(V_F[keys[band]!], i) : 0)
    const V_DO = lines(regulator.dropout, 'current', 'voltage')
    const ends = { min: 0, typ: 1, max: 2 }
    const specimen: Span = V_F ? ends : { min: 1, typ: 1, max: 1 }
    out['into the regulator'] = over(into, V, R_i, specimen, I)
    out['drop-out margin'] = over(
      (v, r, band, i, own, more, o, d) => into(v, r, band, i + own + more) - o - read(V_DO[keys[d]!], i),
      V,
      R_i,
      specimen,
      decided.load,
      q,
      beside,
      held,
      ends,
    )
    // Heat: what is dropped times what flows, and its own current; without room it is its drop-out voltage that is dropped.
    const steps = Array.from(
      { length: 11 },
      (_, n) => decided.load.min + (n / 10) * (decided.load.max - decided.load.min),
    )
    const heats = steps.map((load) =>
      over(
        (v, r, band, own, more, o, d) => {
          const x = into(v, r, band, load + own + more)
          return Math.max(x - o, Math.min(x, read(V_DO[keys[d]!], load))) * load + x * own
        },
        V,
        R_i,
        specimen,
        q,
        beside,
        held,
        ends,
      ),
    )
    const usual = into(V.typ, R_i.typ, 1, I.typ)
    out['heat of the regulator'] = {
      min: Math.min(...heats.map((h) => h.min)),
      typ:
        Math.max(usual - held.typ, Math.min(usual, read(V_DO.typ, decided.load.typ))) * decided.load.typ +
        usual * q.typ,
      max: Math.max(...heats.map((h) => h.max)),
    }
    out['junction of the regulator'] = over(
      (p, k) => project.needs.limits.ambient + p * k,
      out['heat of the regulator'],
      span(regulator.package.thermalResistance ?? 100),
    )
  }

  // LEDs, by bisection, at every corner of supply, resistor, LED and leg.
  const wiringOf = (d: Json): Json => {
    const device = part(d.part)
    return device?.wirings.find((w: Json) => w.id === d.wiring) ?? device?.wirings[0]
  }
  const pinOf = (id: string): Json => chip.pins.find((p: Json) => p.id === id)
  const buses: Json[] = []
  for (const d of project.needs.devices)
    for (let n = 1; n <= d.count; n++)
      for (const s of wiringOf(d)?.signals ?? []) {
        const id = `${d.id}.${n}.${s.id}`
        const e = s.electrical
        if (e.kind === 'open-drain' && s.bus === 'i2c') buses.push({ d, s, e })
        const leg = decided.legs[id]
        if (leg === undefined || pinOf(leg)?.driver) continue
        const key = `led:${id}`
        if (e.kind === 'led' && decided.fitted[key] !== undefined) {
          const led = lines(part(e.led).forward, 'current', 'voltage')
          const points = e.to === 'ground' ? chip.io.outputHigh : chip.io.outputLow
          const drive = lines([{ current: 0, drop: 0 }, ...points], 'current', 'drop')
          const R = loose(decided.fitted[key])
          const at = (v: number, r: number, l: Line, g: Line) =>
            root((i) => v - i * r - read(l, i) - read(g, i))
          out[`LED ${id}`] = {
            min: at(rail.min, R.max, led.max, drive.max),
            typ: at(rail.typ, R.typ, led.typ, drive.typ),
            max: at(rail.max, R.min, led.min, drive.min),
          }
        }
      }

  // Levels of lines without anything between, of devices on the rail: V on a grid, since a corner may lie inside.
  const grid = (f: (v: number, x: number) => number, x: Span): Span => {
    const at = Array.from({ length: 401 }, (_, n) => rail.min + ((rail.max - rail.min) * n) / 400).flatMap(
      (v) => [x.min, x.max].map((y) => f(v, y)),
    )
    return { min: Math.min(...at), typ: f(rail.typ, x.typ), max: Math.max(...at) }
  }
  for (const d of project.needs.devices) {
    const device = part(d.part)
    const fed = device?.terminals.some((t: Json) => t.role === 'supply')
    if (!device || d.fedBy) continue
    for (let n = 1; n <= d.count; n++)
      for (const s of wiringOf(d).signals) {
        const id = `${d.id}.${n}.${s.id}`
        const e = s.electrical
        if (decided.legs[id] === undefined || pinOf(decided.legs[id])?.driver || decided.shifted.includes(id))
          continue
        if (e.kind === 'contact' && decided.fitted[`pull:${id}`] !== undefined) {
          out[`pull-up ${id}`] = over((v) => v / 0.5e-3, rail)
          const { inputHigh: H, leakage } = chip.io
          // The contact's own leakage beside the leg's.
          out[`largest pull-up ${id}`] = over(
            (v, i, j) => (v * (1 - H.factor) - (H.offset ?? 0)) / (i + j),
            rail,
            span(leakage),
            span(e.leakage ?? 0),
          )
        }
        if (!fed) continue
        if (e.kind === 'logic-output' && !e.openDrain) {
          const { inputHigh: H, inputLow: L } = chip.io
          const high = e.high ? span(e.high) : { min: 1e9, typ: 1e9, max: 1e9 }
          out[`high at the leg ${id}`] = grid((v, x) => Math.min(x, v) - H.factor * v - (H.offset ?? 0), high)
          out[`low at the leg ${id}`] = grid((v, x) => L.factor * v + (L.offset ?? 0) - x, {
            min: 0,
            typ: 0.2,
            max: 0.4,
          })
        }
        if (e.kind === 'logic-input' && !e.pullResistance && !e.leakage) {
          out[`high at the device ${id}`] = grid(
            (v) => v - e.high.factor * v - value(e.high.offset ?? 0),
            nothing,
          )
          out[`low at the device ${id}`] = grid((v) => e.low.factor * v + value(e.low.offset ?? 0), nothing)
        }
      }
  }

  // The window of an I2C line, with everything on the first bus.
  const first_ = buses.filter((b) => (b.d.bus ?? 1) === 1 && b.s.line === 'SDA' && !b.d.fedBy)
  if (first_.length > 0 && buses.every((b) => !b.d.fedBy)) {
    const C = first_.reduce((sum, b) => sum + span(b.e.capacitance).max, span(chip.io.capacitance).max)
    const rise = decided.busSpeed <= 100e3 ? 1000e-9 : decided.busSpeed <= 400e3 ? 300e-9 : 120e-9
    // Most is asked of who pulls it low where the supply is highest; a fifth of it, and never above 0.4 V.
    const low = Math.min(0.4, 0.2 * rail.max)
    const weakest = Math.min(...first_.map((b) => span(b.e.sinkCurrent).min))
    const R_min = (rail.max - low) / weakest
    out['SDA, smallest'] = { min: R_min, typ: R_min, max: R_min }
    const R_max = rise / (0.8473 * C)
    out['SDA, largest'] = { min: R_max, typ: R_max, max: R_max }
  }
  return out
}
