// Laws that every number obeys, whatever the project: random designs over the whole library, each law with the smallest
// project that breaks it. A law says what it found wrong, 'not here' where it has nothing to say, or nothing.

import { join } from 'node:path'
import { numbersIn } from '../../test/numbers'
import { shippedLibrary } from '../../test/files'
import { ohmsInside, ohmsOf, ohmsOfGuard } from '../../test/physics/board'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { withBridges, withOtherSwitches, withRails } from '../../test/rails'
import { deep, firstSeed } from '../../test/share'
import { applyEdits, type Design, type Lead, readDesign } from '../design'
import { inWords } from '../findings'
import { findPart, type Library, partsOfKind, type Regulator, type Source } from '../parts'
import { fullRange } from '../quantity'
import { outputNet, ownNets } from '../needs'
import { netOf } from '../circuit'
import { steps } from '../patience'
import { regulate } from '../power'
import { type Converter, wayTo } from '../supply'
import { type Analysis, analyse } from '.'

const library = shippedLibrary()
type Told = string | undefined
interface Law {
  name: string
  /** What is wrong, in words; `not here` where the law has nothing to say. */
  of: (a: Analysis, d: Design) => Told
}

/** So many steps for a plan: a law is about numbers, and a project that can’t be planned still has them. */
const look = (d: Design, from: Library = library) => analyse(d, from, steps(3000))
const near = (a: number, b: number, scale = Math.max(Math.abs(a), Math.abs(b))) =>
  Math.abs(a - b) <= 1e-9 * scale + 1e-12
/** Seconds. */
const day = 86400
/** η of the sheet between two of its points, by hand. */
const shareAt = ({ efficiency }: Regulator, I: number) => {
  const above = efficiency!.findIndex((p) => p.current >= I)
  const [p, q] = [efficiency![above - 1] ?? efficiency![0]!, efficiency!.at(above)!]
  return p.current === q.current || above === -1
    ? q.share
    : p.share + ((q.share - p.share) * (I - p.current)) / (q.current - p.current)
}

/**
 * What a switching regulator takes in a day, as a balance of power state by state: V · x = V · (its own + beside) + V_out · I / η, with
 * V = V_source − R · x straight from a source and its lead; behind a diode between the input at full work and that without a load.
 */
const switchedCharge = (
  power: Analysis['power'],
  converter: Converter,
  on: Analysis['power']['consumers'],
  rail: { rail: { name: string }; average: { value: { typ: number } } },
  lasts: readonly number[],
  /** Inside the source and of its lead. */
  ohms: number,
): string | undefined => {
  const { supplies, loads, consumers, states, source } = power
  const { part } = converter
  if (loads.collapsing.length > 0 || !power.input || !source) return undefined
  const at = (of: typeof on, state: string) => of.reduce((sum, c) => sum + c.cycle[state]!.value.typ, 0)
  const q = fullRange(part.quiescent).typ
  const taken = (state: string, V: (x: number) => number) => {
    const I = at(
      consumers.filter((c) => c.from === converter.to),
      state,
    )
    const fixed = at(on, state) + q
    let x = fixed
    for (let n = 0; n < 500; n++) x = fixed + (fullRange(part.output).typ * I) / (shareAt(part, I) * V(x))
    return x
  }
  const charge = (V: (x: number) => number) =>
    states.reduce((sum, s, n) => sum + taken(s.id, V) * lasts[n]!, 0)
  const got = rail.average.value.typ * day
  if (supplies.guards.length === 0) {
    const R = ohms
    const all = charge((x) => fullRange(source.voltage).typ - R * x)
    return Math.abs(got / all - 1) < 1e-4 ? undefined : `${rail.rail.name}: ${got} As a day and ${all}`
  }
  // Its usual voltage before loads are known is with a tenth of what the source gives in the diode: that may be more than flows.
  const ends = [power.input.value.typ, supplies.open[converter.from]!.value.typ].map((V) => charge(() => V))
  const [least, most] = [Math.min(...ends), Math.max(...ends)]
  return got <= most * (1 + 1e-6) && got >= least * (1 - 1e-6)
    ? undefined
    : `${rail.rail.name}: ${got} As a day, not between ${least} and ${most}`
}

/** All converters behind a rail, through others too. */
const behindIt = ({ supplies }: Analysis['power'], rail: string): Converter[] =>
  supplies.converters
    .filter((c) => c.from === rail)
    .flatMap((c) => [c, ...behindIt({ supplies } as Analysis['power'], c.to)])

/** A at full work, by hand: a linear one what flows out and its own, a switching one the power that it gives over its efficiency, and its own. */
const takenBy = ({ loads }: Analysis['power'], { part, from, to }: Converter): number => {
  const I = loads.rails[to]!.work.value.typ
  const q = fullRange(part.quiescent).typ
  return part.topology === 'linear'
    ? I + q
    : (fullRange(part.output).typ * I) / (shareAt(part, I) * loads.rails[from]!.voltage!.value.typ) + q
}

const fitted = (a: Analysis) =>
  a.build.support
    .filter((s) => s.present)
    .map((s) => `${s.key} ${s.value?.marking ?? ''}`)
    .sort()
/** Everything that was fitted is still fitted, with the same values, and every wire lies where it did. */
const heldIn = (before: Analysis, after: Analysis): boolean => {
  const now = new Set(fitted(after))
  return (
    fitted(before).every((s) => now.has(s)) &&
    Object.entries(before.pins.assignment).every(([s, pin]) => after.pins.assignment[s] === pin)
  )
}
const withDevice = (d: Design, part: string): Design =>
  applyEdits(d, [{ kind: 'addDevices', devices: [{ part, name: 'One more', count: 1 }] }])
/** What is added: something of everything that draws current by itself. */
const others = [
  'motion-sensor',
  'humidity-two-wire',
  'buzzer-magnetic',
  'lamp-red',
  'relay-module',
  'light-resistor',
]

/** What a lead is not made for, and by which check it is told: from the part files, by hand. */
const overInLead = (
  d: Design,
  lead: Lead | undefined,
  source: Source | undefined,
  I: number,
): [boolean, string][] => {
  const air = d.needs.limits.ambient
  const [wire, joint, fuse] = [
    findPart(library, 'wire', lead?.length ? lead.wire : undefined),
    findPart(library, 'connector', lead?.joint),
    findPart(library, 'fuse', lead?.fuse),
  ]
  const stands = wire ? fullRange(wire.insulation).max : 0
  // IEC 60364-5-52: with the square root of what is left to what its insulation stands.
  const carries = wire ? fullRange(wire.current).max * Math.sqrt((stands - air) / (stands - wire.ratedAt)) : 0
  const above = fuse?.derating.findIndex((p) => p.air >= air) ?? 0
  const [p, q] = [fuse?.derating[above - 1], fuse?.derating[above]]
  const share = p && q ? p.share + ((q.share - p.share) * (air - p.air)) / (q.air - p.air) : 1
  return [
    [wire !== undefined && I > carries * (1 + 1e-9), 'power.wire-too-thin'],
    [joint?.current !== undefined && I > fullRange(joint.current).max, 'power.wire-too-thin'],
    [fuse !== undefined && I > fullRange(fuse.current).max * share * (1 + 1e-9), 'power.fuse-trips'],
    [
      wire !== undefined &&
        !fuse &&
        source !== undefined &&
        !source.resistance &&
        fullRange(source.current).max > carries,
      'power.no-fuse',
    ],
  ]
}

const laws: Law[] = [
  {
    name: 'whatever is told is kept in its parts too, which say the same, of things that are there',
    of: (a) => {
      for (const finding of a.findings)
        for (const { text, says } of [finding, ...finding.because]) {
          if (!says || inWords(says) !== text) return `${finding.id}: ${text}`
          if (/undefined|NaN|null|\[object|Infinity|\{\d/.test(text)) return text
        }
      return undefined
    },
  },
  {
    name: 'least, usual, greatest, all finite',
    of: (a) => {
      for (const { label, value } of numbersIn(a)) {
        const { min, typ, max } = value
        if (!(min <= typ && typ <= max)) return `${label}: ${min} ${typ} ${max}`
        if (![min, typ, max].every(Number.isFinite)) return `${label} is not finite`
      }
      return undefined
    },
  },
  {
    name: 'no source pulls below ground, no part takes heat in, no current flows back',
    of: ({ power }) => {
      const rails = Object.values(power.loads.rails)
      const all = [
        ...rails.flatMap((r) => [r.voltage, r.loaded, r.average]),
        ...power.regulations.map((r) => r.regulation.dissipation),
      ]
      const below = all.find((w) => w && w.value.min < 0)
      return below && `${below.label}: ${below.value.min} ${below.unit}`
    },
  },
  {
    name: 'the rail’s current is its consumers’, at every corner',
    of: ({ power }) => {
      // With what other regulators take of it: below.
      if (power.supplies.converters.some((c) => c.from === 'rail')) return 'not here'
      const on = power.consumers.filter((c) => c.from === 'rail')
      for (const which of ['rest', 'work', 'average'] as const)
        for (const corner of ['min', 'typ', 'max'] as const) {
          const parts = on.reduce((sum, c) => sum + c[which].value[corner], 0)
          const total = which === 'average' ? undefined : power[which].value[corner]
          // Corners of one sum can be more moderate than all of its parts’ own: they share the rail.
          if (total !== undefined && corner === 'typ' && !near(total, parts))
            return `${which}: ${total} and ${parts}`
          if (total !== undefined && corner === 'max' && total > parts * (1 + 1e-9))
            return `${which}: too much`
          if (total !== undefined && corner === 'min' && total < parts * (1 - 1e-9))
            return `${which}: too little`
        }
      return undefined
    },
  },
  {
    name: 'the charge of a day is what each state takes times its length',
    of: (a, d) => {
      const modes = (of: 'first' | 'last') =>
        Object.fromEntries(
          a.needs.instances.flatMap(({ need, part }) =>
            part.modes.length > 0 ? [[need.id, part.modes.at(of === 'first' ? 0 : -1)!.id]] : [],
          ),
        )
      const { power, latch } = look(
        applyEdits(d, [
          {
            kind: 'setStates',
            states: [
              { id: 'busy', name: 'busy', lasts: 7, every: 90, modes: modes('last') },
              { id: 'still', name: 'still', lasts: 600, perDay: 20, radio: false, modes: modes('first') },
              { id: 'else', name: 'else', chip: a.chip.chip?.modes.at(-1)?.id },
            ],
          },
        ]),
      )
      const lengths = { busy: (day / 90) * 7, still: 600 * 20 }
      const lasts = [lengths.busy, lengths.still, day - lengths.busy - lengths.still]
      for (const c of power.consumers)
        for (const { id, name } of power.states)
          if (c.cycle[id]!.value.max > c.work.value.max * (1 + 1e-9) + 1e-12)
            return `${c.name} takes more ${name} than at work`
      for (const rail of Object.values(power.loads.rails)) {
        const on = power.consumers.filter((c) => c.from === rail.rail.id)
        // A linear regulator passes on what flows out of it, and takes its own.
        const behind = behindIt(power, rail.rail.id)
        const [own] = behind
        if (power.supplies.guards.some((g) => g.from === rail.rail.id)) continue
        const charge = (of: (typeof power)['consumers']) =>
          of.reduce(
            (sum, c) => sum + power.states.reduce((q, s, n) => q + c.cycle[s.id]!.value.typ * lasts[n]!, 0),
            0,
          )
        if (behind.some((c) => c.part.topology === 'switching')) {
          // One by itself on the way from the source: of several each changes what the others get.
          const alone = own && behind.length === 1 && own.id === 'regulator'
          if (!alone) continue
          const ohms =
            ohmsInside(power.source, d.needs.limits) +
            ohmsOfGuard(power.supplies.sources[0]?.lead?.guard, power.source) +
            ohmsOf(d.power.lead, (id) => library.parts[id], d.needs.limits.ambient) +
            (latch.latch?.channel?.value.typ ?? 0)
          const told = switchedCharge(power, own, on, rail, lasts, ohms)
          if (told) return told
          continue
        }
        const all = behind.reduce(
          (sum, c) =>
            sum +
            charge(power.consumers.filter((x) => x.from === c.to)) +
            fullRange(c.part.quiescent).typ * day,
          charge(on),
        )
        if (!near(rail.average.value.typ * day, all))
          return `${rail.rail.name}: ${rail.average.value.typ * day} As a day and ${all}`
      }
      return undefined
    },
  },
  {
    name: 'what a rail gives is what hangs on it, and what each converter on it takes',
    of: ({ power }) => {
      const { supplies, loads, consumers } = power
      if (supplies.converters.length === 0 || loads.collapsing.length > 0) return 'not here'
      for (const { rail, work } of Object.values(loads.rails)) {
        if (supplies.guards.some((g) => g.from === rail.id)) continue
        const on = supplies.converters.filter((c) => c.from === rail.id)
        if (on.some((c) => c.part.topology === 'switching' && !supplies.open[rail.id])) continue
        const all = on.reduce(
          (sum, c) => sum + takenBy(power, c),
          consumers.filter((c) => c.from === rail.id).reduce((sum, c) => sum + c.work.value.typ, 0),
        )
        // The input of a switching one is gone round to 0.1 mV.
        const scale = on.some((c) => c.part.topology === 'switching') ? 1e5 * all : undefined
        if (!near(work.value.typ, all, scale)) return `${rail.name}: ${work.value.typ} A and ${all} A`
      }
      const { head } = wayTo(supplies, supplies.own)
      return power.source && !near(power.fromSource.value.typ, loads.rails[head]!.work.value.typ)
        ? 'the source gives something else'
        : undefined
    },
  },
  {
    name: 'power in = power delivered + heat, as usual',
    of: ({ power }) => {
      const switching = power.regulations.filter((r) => r.converter.part.topology === 'switching')
      // What flows into one that can't hold its output is taken as if it did, through what is in front of it too.
      if (power.regulations.length === 0 || switching.some((r) => r.regulation.margin.value.typ < 0))
        return 'not here'
      for (const { converter, regulation } of power.regulations) {
        const { part, to } = converter
        const { voltage: rail, loaded } = power.loads.rails[to]!
        const isSwitching = part.topology === 'switching'
        if (!rail || power.loads.collapsing.length > 0) continue
        const [V, U, I] = [
          regulation.input.value.typ,
          isSwitching ? fullRange(part.output).typ : rail.value.typ,
          loaded.value.typ,
        ]
        const heat = V * takenBy(power, converter) - U * I
        // What the input of one is, and what flows then, is gone round until it changes by 0.1 mV no more.
        const roundabout =
          power.supplies.converters.length > 1 &&
          power.supplies.converters.some((c) => c.part.topology === 'switching')
        if (!near(regulation.dissipation.value.typ, heat, V * I * (roundabout ? 5e5 : isSwitching ? 1e3 : 1)))
          return `${part.name}: ${regulation.dissipation.value.typ} and ${heat}`
      }
      return undefined
    },
  },
  {
    name: 'one device more never lowers a current, never raises a margin, never lengthens runtime',
    of: (a, d) => {
      if (!a.chip.chip) return 'not here'
      const after = look(withDevice(d, others[d.needs.devices.length % others.length]!))
      if (!heldIn(a, after)) return 'not here'
      const [p, q] = [a.power, after.power]
      for (const which of ['rest', 'work', 'fromSource', 'through'] as const)
        if (q[which].value.max < p[which].value.max * (1 - 1e-9))
          return `${which} ${p[which].value.max} → ${q[which].value.max}`
      const [m, n] = [p.regulation?.margin.value.min, q.regulation?.margin.value.min]
      if (m !== undefined && n !== undefined && n > m + 1e-9) return `margin ${m} → ${n}`
      const [t, u] = [p.runtime?.value.min, q.runtime?.value.min]
      if (t !== undefined && u !== undefined && u > t * (1 + 1e-9)) return `runtime ${t} → ${u}`
      return undefined
    },
  },
  {
    // (V − V_F(I) − V_out)·I grows with I as long as what is left exceeds I·dV_F/dI, which for a diode’s curve is below V_F: 1.1 V is
    // more than any of them drops. Nearly out of regulation the diode takes the heat over.
    name: 'with a source that doesn’t sag, and no lead, one device more never lowers the worst heat of the regulator',
    of: (led, whole) => {
      // Of the same project without its lead, on an adapter where its source sags; a latch is in the way of any.
      const { lead, source } = whole.power
      const sags = findPart(library, 'source', source)?.resistance !== undefined
      const d: Design = {
        ...whole,
        power: { ...whole.power, lead: undefined, ...(sags ? { source: 'adapter-9v' } : {}) },
      }
      const a = lead || sags ? look(d) : led
      if (!a.power.regulation || a.power.source?.resistance) return 'not here'
      if (a.power.leads.some((l) => l.of === 'source')) return 'not here'
      const given = (symbol: string) =>
        a.power.regulation!.dissipation.inputs.find((i) => i.symbol === symbol)?.value
      if (a.power.polarity && !(given('V_in')!.max - given('V_out')!.min > 1.1)) return 'not here'
      const after = look(withDevice(d, others[d.needs.devices.length % others.length]!))
      if (!heldIn(a, after) || !after.power.regulation) return 'not here'
      const [p, q] = [a.power.regulation, after.power.regulation]
      // What a switching one takes is gone round until its input moves by less than 0.1 mV.
      return q.dissipation.value.max < p.dissipation.value.max * (1 - 1e-5)
        ? `${p.dissipation.value.max} → ${q.dissipation.value.max}`
        : undefined
    },
  },
  {
    name: 'two of a thing draw twice one of it',
    of: (a, d) => {
      const one = d.needs.devices.find((x) => x.count === 1 && a.power.consumers.some((c) => c.id === x.id))
      if (!one) return 'not here'
      const after = look(applyEdits(d, [{ kind: 'setCount', id: one.id, count: 2 }]))
      const of = (x: Analysis) => x.power.consumers.find((c) => c.id === one.id)?.work.value.max
      const [p, q] = [of(a), of(after)]
      if (p === undefined || q === undefined) return 'not here'
      return near(q, 2 * p) ? undefined : `${p} → ${q}`
    },
  },
  {
    name: 'warmer air never cools a part',
    of: (a, d) => {
      if (!a.power.hottest) return 'not here'
      const warm = look({
        ...d,
        needs: { ...d.needs, limits: { ...d.needs.limits, ambient: d.needs.limits.ambient + 15 } },
      })
      if (!warm.power.hottest) return 'it is gone'
      return warm.power.hottest.value.max < a.power.hottest.value.max + 15 - 1e-6 ? 'cooler' : undefined
    },
  },
  {
    name: 'colder air, and cells charged more often, never lengthen what cells last at the worst, and never raise what a rail has at its lowest',
    of: (a, d) => {
      const { source, cells, railLoaded } = a.power
      if (source?.sort !== 'cells') return 'not here'
      const { coldest = 20, charges = 0 } = d.needs.limits
      for (const change of [{ coldest: coldest - 15 }, { charges: charges + 150 }]) {
        const { power } = look({
          ...d,
          needs: { ...d.needs, limits: { ...d.needs.limits, ...change } },
        })
        const t = power.cells?.runtime.value.min ?? Infinity
        if (cells && t > cells.runtime.value.min * (1 + 1e-4))
          return `${JSON.stringify(change)}: ${t} s after ${cells.runtime.value.min} s`
        if (railLoaded && power.railLoaded!.value.min > railLoaded.value.min + 1e-4)
          return `${JSON.stringify(change)}: ${power.railLoaded!.value.min} V after ${railLoaded.value.min} V`
      }
      return undefined
    },
  },
  {
    name: 'a higher input never cools a linear regulator',
    of: (a, d) => {
      const { source, regulation } = a.power
      if (!source || regulation?.regulator.topology !== 'linear') return 'not here'
      // A switching one behind it takes the less the more it gets.
      if (behindIt(a.power, 'source').some((c) => c.part.topology === 'switching')) return 'not here'
      const raise = (v: number | undefined) => (v === undefined ? undefined : v + 1)
      const { voltage } = source
      const higher = {
        ...source,
        voltage: { ...voltage, min: raise(voltage.min), typ: raise(voltage.typ), max: raise(voltage.max) },
      }
      const own = { ...d, parts: { ...d.parts, [source.id]: higher } } as Design
      const raised = look(own, { parts: { ...library.parts, [source.id]: higher } })
      const { input } = raised.power
      if (!raised.power.regulation || !input) return 'not here'
      // A regulator that now has room gives more, and other resistors are chosen for that: then at the load that it had.
      const after = heldIn(a, raised)
        ? raised.power.regulation
        : regulate(regulation.regulator, a.power.loaded, input, d.needs.limits.ambient)
      // Where the box of tolerances was searched, which ends in its middle, a sum is within 0.01 % of its greatest; else exact.
      const searched = [after, regulation].some((r) => r.dissipation.corners!.max.where.includes('a middle'))
      return after.dissipation.value.max < regulation.dissipation.value.max * (1 - (searched ? 1e-4 : 1e-9))
        ? 'cooler'
        : undefined
    },
  },
  {
    name: 'a resistor chosen for a current never gives more of it, as usual',
    of: ({ pins }) => {
      const on = Object.values(pins.leds)
      if (on.length === 0) return 'not here'
      // Where the rail is too low for the LED the smallest resistor there is says nothing.
      for (const l of on)
        if (l.resistance.value.typ > 1 && l.current.value.typ > l.wanted * (1 + 1e-9))
          return `${l.current.label}: ${l.current.value.typ} for ${l.wanted}`
      return undefined
    },
  },
  {
    name: 'all pull-ups of a bus together stay in its window, or it is told',
    of: (a) => {
      const lines = a.pins.windows.filter((w) => w.used && w.wire.signal.bus?.kind === 'i2c' && w.fitted)
      if (lines.length === 0) return 'not here'
      for (const w of lines) {
        const told = a.findings.some(
          (f) => f.id.endsWith(w.wire.signal.id) && /bus-(window|too-strong)/.test(f.check),
        )
        const shifted = a.pins.levels.some((l) => l.wire.signal.id === w.wire.signal.id && l.shift)
        if (told || shifted) continue
        const all = (ours: number, boards: number | undefined) => 1 / (1 / ours + (boards ? 1 / boards : 0))
        const strongest = all(w.fitted! * 0.95, w.onBoards?.value.min)
        const weakest = all(w.fitted! * 1.05, w.onBoards?.value.max)
        if (strongest < w.smallest.value.max * (1 - 1e-9))
          return `${w.wire.signal.name}: ${strongest} is too strong`
        if (weakest > w.largest.value.min * (1 + 1e-9)) return `${w.wire.signal.name}: ${weakest} is too weak`
      }
      return undefined
    },
  },
  {
    name: 'a faster clock never needs less supply, and never draws less',
    of: (a, d) => {
      const { choices } = a.clock
      const own = choices.filter((c) => c.source.id === a.clock.source?.id && !c.part)
      if (own.length < 2 || a.chip.chip?.board) return 'not here'
      const sorted = [...own].sort((x, y) => x.frequency - y.frequency)
      const of = (c: (typeof own)[number]) =>
        look({ ...d, chip: { ...d.chip, clock: { source: c.source.id, frequency: c.frequency } } })
      const [slow, fast] = [of(sorted[0]!), of(sorted.at(-1)!)]
      const [v, w] = [slow.clock.lowestSupply?.value.max, fast.clock.lowestSupply?.value.max]
      if (v !== undefined && w !== undefined && w < v - 1e-9) return `${v} V → ${w} V`
      const draw = (x: Analysis) => x.power.consumers.find((c) => c.id === 'chip')!.work.value.max
      return draw(fast) < draw(slow) * (1 - 1e-9) ? 'draws less' : undefined
    },
  },
  {
    name: 'a locked choice never makes a plan cheaper, and one that is locked where it lies costs nothing',
    of: (a, d) => {
      const { plan } = a.pins
      const wire = plan?.status === 'proven' ? plan.wires.find((w) => !w.locked) : undefined
      if (!plan || !wire) return 'not here'
      const lockedOn = (pin: string) =>
        look(applyEdits(d, [{ kind: 'lockSignal', signal: wire.signal.id, name: '', pin }])).pins.plan!
      // A leg that was to be kept free is so no longer when something is locked on it.
      const elsewhere = plan.free.find((p) => !d.pins.excluded.includes(p.id))
      const [same, other] = [wire.pin, elsewhere].map((p) => p && lockedOn(p.id))
      if (same?.status === 'proven' && same.cost !== plan.cost)
        return `locked on ${wire.pin.id}: ${plan.cost} → ${same.cost}`
      const served = other?.status === 'proven' && other.wires.every((w) => !w.impossible)
      return served && other.cost < plan.cost
        ? `locked on ${elsewhere!.id}: ${plan.cost} → ${other.cost}`
        : undefined
    },
  },
  {
    name: 'a smaller bus capacitance never shrinks the window',
    of: (a, d) => {
      const chip = a.chip.chip
      const windows = a.pins.windows.filter((w) => w.what !== 'contact')
      if (!chip || windows.length === 0) return 'not here'
      const id = chip.board?.chip ?? chip.id
      const part = findPart(library, 'chip', id)!
      const { min, typ, max } = part.io.capacitance
      const half = (x: number | undefined) => (x === undefined ? undefined : x / 2)
      const capacitance = { ...part.io.capacitance, min: half(min), typ: half(typ), max: half(max) }
      const lighter = { ...part, io: { ...part.io, capacitance } }
      const own = { ...d, parts: { ...d.parts, [id]: lighter } } as Design
      const after = look(own, { parts: { ...library.parts, [id]: lighter } })
      if (!heldIn(a, after)) return 'not here'
      for (const w of windows) {
        const now = after.pins.windows.find(
          (x) => x.what === w.what && x.wire.signal.id === w.wire.signal.id,
        )!
        if (now.largest.value.min < w.largest.value.min * (1 - 1e-9)) return `${w.what}: shrinks`
        if (now.smallest.value.max > w.smallest.value.max * (1 + 1e-9)) return `${w.what}: rises`
      }
      return undefined
    },
  },
  {
    name: 'another order of the devices changes neither what a plan costs nor what flows',
    of: (a, d) => {
      const { plan } = a.pins
      // Of two locks on one leg the second is the mistake: which one that is, the order says.
      if (plan?.status !== 'proven' || plan.wires.some((w) => w.impossible)) return 'not here'
      const turned = look({ ...d, needs: { ...d.needs, devices: [...d.needs.devices].reverse() } })
      if (turned.pins.plan?.status !== 'proven') return 'not here'
      if (turned.pins.plan.cost !== plan.cost) return `cost ${plan.cost} → ${turned.pins.plan.cost}`
      const drawn = (x: Analysis) =>
        a.needs.instances.map((i) => x.power.consumers.find((c) => c.id === i.need.id))
      return drawn(a).every((c, k) => !c || near(c.work.value.max, drawn(turned)[k]!.work.value.max))
        ? undefined
        : 'another current'
    },
  },
  {
    name: 'other names change no number',
    of: (a, d) => {
      const named = {
        ...d,
        needs: { ...d.needs, devices: d.needs.devices.map((x, k) => ({ ...x, name: `Other ${k}` })) },
      }
      const after = look(named)
      const values = (x: Analysis) => x.gauges.map((g) => (g.worked ? JSON.stringify(g.worked.value) : ''))
      const [p, q] = [values(a), values(after)]
      return p.every((v, k) => v === q[k]) ? undefined : `${p.join()} → ${q.join()}`
    },
  },
  {
    name: 'every net is the board’s own, a leg’s or a line’s: no other name is left to be given twice',
    of: (a) => {
      if (a.build.nets.length === 0) return 'not here'
      const known = new Set([...ownNets, ...(a.chip.chip?.pins.map((p) => p.id) ?? [])])
      const lines = [...a.needs.signals.map((s) => s.net), ...a.needs.netNames.values()].map((n) => netOf(n))
      lines.push(
        ...a.power.bridges.flatMap((b) =>
          b.bridge.part.drives!.outputs.flatMap(({ one, other }) =>
            [one, other].map((t) =>
              outputNet(a.needs.netNames.get(b.bridge.need.id)!, t, {
                count: b.bridge.need.count,
                at: b.bridge.at,
              }),
            ),
          ),
        ),
      )
      const tail = /^(?:_(?:LED|LOW|GATE|BASE|FAR|BUTTON|HIGH|PASS|PULL|LINK_\d+))?$/
      return a.build.nets.find(
        ({ name }) =>
          !known.has(name) && !lines.some((l) => name.startsWith(l) && tail.test(name.slice(l.length))),
      )?.name
    },
  },
  {
    name: 'what hangs on a bridge lies at its outputs alone, asks for no leg, and draws what it draws elsewhere',
    of: (a, d) => {
      const hung = a.needs.instances.filter((i) => i.hung)
      if (hung.length === 0 || a.build.placed.length === 0) return 'not here'
      const legs = (id: string) => a.build.placed.find((p) => p.instance?.id === id)?.legs ?? []
      const alone = look({
        ...d,
        needs: { ...d.needs, devices: d.needs.devices.map((n) => ({ ...n, drivenBy: undefined })) },
      })
      const drawn = (of: Analysis, id: string) =>
        of.power.consumers.find((c) => c.id === id)?.work.value.max ?? 0
      return hung
        .map(({ id, need, hung: on, name }) => {
          if (a.needs.signals.some((s) => s.id.startsWith(`${id}.`))) return `${name} asks for a leg`
          if (drawn(a, need.id) !== drawn(alone, need.id)) return `${name} draws otherwise`
          const own = legs(id)
          if (!on!.output) return own.length > 0 ? `${name} is joined` : undefined
          const at = legs(on!.instance)
          const nets = [on!.output.one, on!.output.other].map((t) => at.find((l) => l.name === t)?.net)
          const ends = own.map((l) => l.net)
          // Two legs on each net: the bridge’s and its own.
          const met = ends.map((n) => a.build.nets.find((x) => x.name === n)?.nodes.length)
          return ends.join() === nets.join() && ends[0] !== ends[1] && met.join() === '2,2'
            ? undefined
            : `${name} at ${ends.join()}, where ${met.join()} legs meet; the output at ${nets.join()}`
        })
        .find((x) => x !== undefined)
    },
  },
  {
    name: 'a lead to a device changes nothing but what arrives there; twice as long it loses twice as much',
    of: (a, d) => {
      if (d.needs.devices.length === 0) return 'not here'
      const led = (length: number) =>
        look({
          ...d,
          needs: {
            ...d.needs,
            devices: d.needs.devices.map((n) => ({ ...n, lead: { wire: 'wire-0-5', length } })),
          },
        })
      const [short, long] = [led(1.5), led(3)]
      // A lead to what states no currents is said to be in no sum.
      const itsOwn = /^In the lead to .* its sheet states no currents\.$/
      const others = (of: Analysis) =>
        of.findings
          .filter((f) => f.check !== 'power.device-lead' && !itsOwn.test(f.text))
          .map((f) => `${f.id} ${f.text}`)
      if (others(a).join() !== others(short).join()) return 'something else is said'
      if (a.power.fromSource.value.max !== short.power.fromSource.value.max) return 'more is drawn'
      return short.power.deviceLeads
        .map((s) => {
          const l = long.power.deviceLeads.find((x) => x.need === s.need)
          if (!l || Math.abs(l.drop.value.max - 2 * s.drop.value.max) > 1e-9 * l.drop.value.max)
            return `${s.name}: ${s.drop.value.max} V, and ${l?.drop.value.max} V of twice as much`
          const given = s.given?.value.min
          return given !== undefined && s.arrives!.value.min > Math.max(0, given - s.drop.value.max) + 1e-9
            ? `${s.name} gets ${s.arrives!.value.min} V of ${given} V`
            : undefined
        })
        .find((x) => x !== undefined)
    },
  },
  {
    name: 'whatever the builder calls his things, the same legs meet',
    of: (a, d) => {
      if (a.build.nets.length === 0) return 'not here'
      // What the board has itself, what a chip’s legs and the nets behind parts are called, names without a letter that a net could have,
      // and names that only differ in what no net can.
      const hostile = (k: number) =>
        [
          'Reset',
          'GND',
          'vcc',
          'Lamp',
          'Лампа',
          'Кнопка',
          'Lamp LED',
          'Lamp-LED',
          'Vin',
          'PA0',
          'lamp_low',
          'I2C SDA',
          '7',
          'A',
          'Ä',
          'A 1',
        ][k % 16]! + (k < 16 ? '' : ` ${k}`)
      const after = look({
        ...d,
        needs: { ...d.needs, devices: d.needs.devices.map((x, k) => ({ ...x, name: hostile(k) })) },
      })
      const meeting = (x: Analysis) =>
        x.build.nets
          .map(({ nodes }) =>
            nodes
              .map((n) => `${n.ref}.${n.terminal}`)
              .sort()
              .join(' '),
          )
          .sort()
      const [p, q] = [meeting(a), meeting(after)]
      const other = q.find((net) => !p.includes(net)) ?? p.find((net) => !q.includes(net))
      return other && `${other} in one of them`
    },
  },
  {
    name: 'what is told of a level is what its margins are',
    of: ({ pins }) => {
      if (pins.levels.length === 0) return 'not here'
      for (const l of pins.levels) {
        const least = Math.min(...l.margins.map((m) => m.value.min))
        if (!l.severity && least < -1e-9) return `${l.wire.signal.name}: ${least} V and nothing told`
        if (l.severity === 'stops' && least >= 0)
          return `${l.wire.signal.name} stops, and ${least} V are left`
      }
      return undefined
    },
  },
  {
    name: 'every part in the path is within its rating, or it is told',
    of: ({ power, findings }, d) => {
      if (!power.source) return 'not here'
      const checks = new Set(findings.flatMap((f) => [f.check, f.id]))
      const { polarity, regulator, regulation, through, work, input } = power
      const over: [boolean, string][] = [
        [power.fromSource.value.max > fullRange(power.source.current).max, 'power.source-too-weak'],
        [
          polarity?.present === true && through.value.max > fullRange(polarity.diode.current).max,
          'power.diode-rating',
        ],
        [!!regulator && work.value.max > fullRange(regulator.current).max, 'power.regulator-overloaded'],
        [
          !!regulator && !!input && input.value.max > fullRange(regulator.inputRecommended).max,
          'power.regulator-input',
        ],
        [
          !!regulation && regulation.junction.value.max > fullRange(regulator!.junctionMax).max,
          'power.regulator-too-hot',
        ],
        [!!regulation && regulation.margin.value.min < 0, 'power.dropout'],
        ...power.regulations.flatMap(
          ({ converter: { id, part, to }, regulation: of }): [boolean, string][] => {
            if (to === power.supplies.own) return []
            const tail = `:${id.replace(' ', '-')}`
            return [
              [
                power.loads.rails[to]!.work.value.max > fullRange(part.current).max,
                `power.regulator-overloaded${tail}`,
              ],
              [of.input.value.max > fullRange(part.inputRecommended).max, `power.regulator-input${tail}`],
              [of.junction.value.max > fullRange(part.junctionMax).max, `power.regulator-too-hot${tail}`],
              [of.margin.value.min < 0, `power.dropout${tail}`],
            ]
          },
        ),
        ...overInLead(d, d.power.lead, power.source, power.fromSource.value.max),
        ...overInLead(d, d.power.feedLead, power.feed?.source, power.feed?.current.value.max ?? 0),
      ]
      // A board’s own regulator is judged by its board’s input.
      const board = checks.has('power.board-input')
      for (const [is, check] of over)
        if (is && !checks.has(check) && (!board || check.includes(':'))) return `${check} is not told`
      return undefined
    },
  },
]

/** With what is not needed to break the law taken out. */
const smallest = (d: Design, broken: (d: Design) => boolean): Design => {
  for (const device of d.needs.devices) {
    const without = applyEdits(d, [{ kind: 'removeDevice', id: device.id }])
    if (broken(without)) return smallest(without, broken)
  }
  return d
}
const words = (d: Design) =>
  `${d.chip.part} on ${d.power.source} ${JSON.stringify(d.power.lead ?? {})}, ${d.power.regulator} ${JSON.stringify(d.power.rails ?? [])}: ${d.needs.devices.map((x) => `${x.count} ${x.part} ${x.wiring ?? ''} ${x.fedBy ?? ''} ${JSON.stringify(x.settings ?? {})}`).join('; ')}`

test('laws hold over random designs', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('laws')
  const sources = partsOfKind(library, 'source').map((s) => s.id)
  const regulators = [...partsOfKind(library, 'regulator').map((r) => r.id), undefined]
  const held = new Map(laws.map((l) => [l.name, 0]))
  const designs = deep ? 600 : 90
  for (let n = 0; n < designs; n++) {
    const project = randomProject(files, seed + n, { signals: [2, 16] }) as { power: object }
    const power = {
      source: sources[n % sources.length],
      regulator: regulators[(n * 7 + 3) % regulators.length],
    }
    const read = readDesign({ ...project, power: { ...project.power, ...power } }, 'random')
    const plain =
      n % 3 === 2 ? read : (n % 3 === 0 ? withOtherSwitches : withBridges)(read, seed + n, library)
    const design = n % 2 === 0 ? plain : withRails(plain, seed + n, library)
    const analysis = look(design)
    for (const law of laws) {
      // Those that compute another analysis are asked in turn.
      if (!deep && law.of.length > 1 && (n + laws.indexOf(law)) % 4 !== 0) continue
      const told = law.of(analysis, design)
      if (told === 'not here') continue
      held.set(law.name, held.get(law.name)! + 1)
      if (told === undefined) continue
      const broken = (d: Design) => ![undefined, 'not here'].includes(law.of(look(d), d))
      const small = smallest(design, broken)
      throw new Error(`seed ${seed + n}: ${law.name}: ${law.of(look(small), small)}\n${words(small)}`)
    }
  }
  console.info([...held].map(([name, count]) => `${count} of ${designs}: ${name}`).join('\n'))
  // A law that never has anything to say is none.
  for (const [name, count] of held) expect([name, count > 0]).toEqual([name, true])
}, 600_000)
