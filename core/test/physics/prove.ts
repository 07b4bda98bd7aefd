// What must hold of a board in which nothing is turned round: its rail, what its lamps and loads draw, where its lines rest, which way its
// capacitors lie, what a reversed plug does, and that a programmer reaches the chip. Each in volts and amperes, solved.

import type { Analysis } from '../../src/analysis'
import type { Part } from '../../src/parts'
import { fullRange } from '../../src/quantity'
import { railOf, voltageFor } from '../../src/supply'
import { loadOhms, ohmsInside, ohmsOf, type Placed, solveBoard, type State } from './board'

const typ = (r: Parameters<typeof fullRange>[0]) => fullRange(r).typ
const v = (u: number) => `${u.toFixed(3)} V`

/** What does not hold, in words; empty for a sound board. `held` counts what was looked at, by its sort. */
export const prove = (
  a: Analysis,
  library: (id: string) => Part | undefined,
  placed: readonly Placed[] = a.build.placed,
  held: Record<string, number> = {},
): string[] => {
  const wrong: string[] = []
  const { rail, polarity, source } = a.power
  if (!rail || !a.pins.plan || !a.chip.chip) return wrong
  const chip = a.chip.chip
  const wires = a.pins.plan.wires
  // What can’t be on its leg, and two on one leg, is told, and need not work.
  const alone = wires.filter(
    (w) => !w.impossible && wires.every((other) => other === w || other.pin !== w.pin || other.impossible),
  )
  const solve = (state: Partial<State>) => solveBoard(a, library, placed, { drives: {}, ...state })
  const must = (what: string, ok: boolean, told: () => string) => {
    held[what] = (held[what] ?? 0) + 1
    if (!ok) wrong.push(`${what}: ${told()}`)
  }
  /** A gate that gets too little for its transistor is told. */
  const isWeak = (signal: string) =>
    a.findings.some((f) => ['off', 'weak'].some((what) => f.id === `pins.switch-rating:${what}:${signal}`))
  // A ready-made board's regulator is on it, and not in our netlist: what it holds is put onto the rail.
  const onBoard = chip.board !== undefined

  // A switching regulator that its source can't feed: at no voltage do all agree, or nothing comes out. That is told.
  const { regulation, loads } = a.power
  if (
    !onBoard &&
    regulation?.regulator.topology === 'switching' &&
    (loads.collapsing.length > 0 || regulation.margin.value.min < 0)
  ) {
    must(
      'a switching regulator that is not fed is told',
      a.findings.some((f) => ['power.collapses', 'power.dropout'].includes(f.check)),
      () => `${regulation.regulator.name} on ${source?.name}`,
    )
    return wrong
  }

  // A transistor in the plus that its source doesn't turn on is told.
  const inPlus = a.power.supplies.sources.find((s) => s.id === 'source')?.lead?.guard
  if (inPlus?.threshold && source && fullRange(source.voltage).min < fullRange(inPlus.threshold).max) {
    must(
      'a transistor in the plus that is not on is told',
      a.findings.some((f) => f.id === 'power.guard-transistor:off'),
      () => `${inPlus.name} on ${source.name}`,
    )
    return wrong
  }

  // A further rail that can't hold its volts, or that nothing reaches, is told; what hangs on it need not work.
  const further = a.power.regulations.filter(({ converter: c }) => c.to !== a.power.supplies.own)
  const short = further.some(
    ({ converter: { part }, regulation: { margin, input } }) =>
      margin.value.typ <= 0 || (part.converts === 'up' && input.value.max > fullRange(part.output).min),
  )
  const behindShort = further.length > 0 && (a.power.regulation?.margin.value.typ ?? 1) <= 0
  const untapped = a.findings.some((f) => f.check === 'power.untapped')
  if (further.length > 0 && (short || behindShort || loads.collapsing.length > 0 || untapped)) {
    const told = [
      'power.collapses',
      'power.dropout',
      'power.untapped',
      'power.regulator-input',
      'power.device-supply',
    ]
    must(
      'a further rail that fails is told',
      a.findings.some((f) => told.includes(f.check)),
      () => 'nothing is told',
    )
    return wrong
  }

  const rest = solve({})
  const supply = rest.has('VCC') ? rest.voltage('VCC') : 0
  // In drop-out the rail is what the power stage says about drop-out, and no fixed number.
  const inTheWay =
    ohmsInside(source, a.design.needs.limits) +
    ohmsOf(a.design.power.lead, library, a.design.needs.limits.ambient)
  const regulated = a.power.regulator ? (a.power.regulation?.margin.value.typ ?? 0) > 0 : inTheWay === 0
  const stated = a.power.regulator ? typ(a.power.regulator.output) : source && typ(source.voltage)
  // Only where a line brings more than its leg stands, or a device is fed more than it stands, and that is told, may current flow
  // on into the rail and lift it.
  const mayLift = a.findings.some(
    (f) => ['pins.level', 'power.device-supply'].includes(f.check) && f.severity === 'stops',
  )
  const isLifted = mayLift && supply > rail.value.typ * 1.01
  // Without room: no less than what the power stage says is left with everything at work, which here it isn't; at rest
  // between what is told for a small load and for none.
  const left = a.power.railLoaded?.value.typ
  if (
    !onBoard &&
    a.power.regulator &&
    !regulated &&
    !isLifted &&
    stated !== undefined &&
    left !== undefined
  ) {
    const loaded = solve({ loads: true }).voltage('VCC')
    // Of a guard whose channel its sheet doesn’t know at this little, nobody knows how much falls in it: that is told.
    const unknown = a.findings.some(
      (f) => f.check === 'power.guard-transistor' && f.text.includes('says what its channel is from'),
    )
    must(
      'rail without room',
      (unknown || loaded > left - 0.01 * stated) &&
        loaded < supply + 1e-6 &&
        supply > rail.value.typ - 0.01 * stated &&
        supply < rail.value.max + 0.01 * stated,
      () => `${v(loaded)} under load, ${v(supply)} at rest, instead of ${v(left)} and ${v(rail.value.typ)}`,
    )
  }
  // One that steps up lets an input above its output through: less the diode's drop, at whatever flows.
  const passed =
    regulation?.regulator.converts === 'up' && rail.value.typ > typ(regulation.regulator.output) + 1e-9
  if (!onBoard && passed)
    must(
      'rail that comes straight through',
      supply > rail.value.min - 0.05 && supply < (source ? fullRange(source.voltage).max : 0) + 0.05,
      () => `${v(supply)}, not ${v(rail.value.min)} or more`,
    )
  else if (!onBoard && regulated && !isLifted && stated !== undefined) {
    must(
      'rail at rest',
      Math.abs(supply - rail.value.typ) < 0.01 * stated,
      () => `${v(supply)} instead of ${v(rail.value.typ)}`,
    )
    const loaded = solve({ loads: true }).voltage('VCC')
    must(
      'rail under load',
      Math.abs(loaded - rail.value.typ) < 0.02 * stated,
      () => `${v(loaded)} instead of ${v(rail.value.typ)}`,
    )
  }
  // Rails beside that, all of which have room here. Where a line brings too much, or no plan is found that could be looked at for that,
  // which is told, pull-ups of another rail may lift one on which nothing draws.
  const unplanned = a.findings.some((f) => f.check === 'pins.clash')
  for (const { converter } of a.power.regulations) {
    const { to, part } = converter
    const { net } = railOf(a.power.supplies, to)
    if (to === a.power.supplies.own || isLifted || !rest.has(net)) continue
    for (const state of [{}, { loads: true }]) {
      const held = solve(state).voltage(net)
      must(
        'a further rail',
        Math.abs(held - typ(part.output)) < 0.02 * typ(part.output) ||
          ((mayLift || unplanned) && held > typ(part.output)),
        () => `${v(held)} on ${net} instead of ${v(typ(part.output))}`,
      )
    }
  }
  if (!onBoard && !a.power.regulator && source && inTheWay > 0) {
    const sags = solve({ loads: true })
    const drawn = -sags.current(sourceOf(sags), '+')
    // A source that states no resistance has a milliohm in the circuit.
    const left = typ(source.voltage) - drawn * (inTheWay + (source.resistance ? 0 : 1e-3))
    // What falls in a latch, or a transistor against a turned source, beside that: no more than in its channel at its worst.
    const guard = a.power.supplies.sources.find((s) => s.id === 'source')?.lead?.guard
    const turn = Math.max(0, ...(guard?.channel ?? []).map((p) => fullRange(p.resistance).max))
    const latched = drawn * ((a.latch.latch?.channel?.value.max ?? 0) + turn)
    const fallen = left - sags.voltage('VCC')
    must(
      'rail straight from cells',
      drawn > 0 && fallen > -1e-3 && fallen < latched + 1e-3 && supply > 0.9 * rail.value.typ,
      () => v(supply),
    )
  }
  if (supply < 0.5) return wrong

  // The chip's own supply legs, all of them, against its ground legs.
  for (const p of placed)
    if (p.part.kind === 'chip')
      for (const { name, net } of p.legs) {
        const pin = p.part.pins.find((x) => x.legs.includes(Number(name.split(' ')[0])))
        if (pin?.type === 'supply')
          must(
            'supply legs',
            Math.abs(rest.voltage(net) - supply) < 0.1,
            () => `${name} at ${v(rest.voltage(net))}`,
          )
        if (pin?.type === 'ground')
          must('ground legs', Math.abs(rest.voltage(net)) < 0.1, () => `${name} at ${v(rest.voltage(net))}`)
      }
  for (const p of placed)
    if (p.part.kind === 'device')
      for (const { name, net } of p.legs) {
        const role = p.part.terminals.find((t) => t.id === name.split(' ').at(-1))?.role
        if (role === 'ground')
          must(
            'devices',
            Math.abs(rest.voltage(net)) < 0.1,
            () => `${p.name} ${name} at ${v(rest.voltage(net))}`,
          )
        // Switched in its plus it is off at rest, which is looked at below.
        // What hangs on a bridge has it from there.
        if (role === 'supply' && !net.endsWith('_HIGH') && !p.instance!.hung)
          must(
            'devices',
            rest.voltage(net) >
              0.5 * (voltageFor(a.power.supplies, p.instance!.need)?.value.typ ?? rail.value.typ),
            () => `${p.name} ${name} at ${v(rest.voltage(net))}`,
          )
      }

  // Capacitors with a plus lie with it at the higher voltage, and stand it; all have something to smooth or nothing across.
  for (const p of placed)
    if (p.part.kind === 'capacitors' && !p.bridged) {
      const at = (name: string) => p.legs.find((l) => l.name === name)?.net
      const [plus, minus] = [at('+'), at('−')]
      if (plus === undefined || minus === undefined) continue
      const u = rest.voltage(plus) - rest.voltage(minus)
      must(
        'capacitors',
        u > -0.01 && u <= (p.part as { voltage: number }).voltage,
        () => `${p.name} has ${v(u)} across`,
      )
    }

  // Every lamp, alone: as much as the page says, where the rail is what the page says it is.
  const steady = onBoard || regulated || Math.abs(supply - rail.value.typ) < 0.01 * rail.value.typ
  for (const wire of alone) {
    const led = a.pins.leds[wire.signal.id]
    if (!led || !steady) continue
    // Where not everything finds a leg, the other side of a digit’s lamps hangs in the air.
    const other = wire.signal.ends[0]!.instance.wiring.signals.filter((s) => s.electrical.kind === 'switched')
    const found = alone.flatMap((w) =>
      w.signal.ends.filter((e) => e.instance === wire.signal.ends[0]!.instance),
    )
    if (other.some((s) => !found.some((e) => e.signal.id === s.id))) continue
    const digits = wires.filter((w) =>
      w.signal.ends.some(
        (e) => e.signal.electrical.kind === 'switched' && e.instance === wire.signal.ends[0]!.instance,
      ),
    )
    const on = solve({
      drives: {
        ...Object.fromEntries(digits.map((d) => [d.signal.id, 'high' as const])),
        [wire.signal.id]: led.side,
      },
    })
    const end = wire.signal.ends[0]!
    const lamp = placed.find((p) => p.instance?.id === end.instance.id)
    const id = lamp && `${lamp.ref}.${end.signal.id}`
    if (!id || !on.elements.some((e) => e.id === id)) continue
    const i = on.current(id, 'anode')
    const foretold = led.current.value.typ
    // Behind a transistor that is told not to be fully on it is less than that, and never more.
    const faint = digits.some((d) => isWeak(d.signal.id))
    must(
      'lamps',
      i - foretold < 0.03 * foretold + 2e-5 && (faint || foretold - i < 0.03 * foretold + 2e-5),
      () => `${wire.signal.name} ${(i * 1e3).toFixed(3)} mA instead of ${(foretold * 1e3).toFixed(3)} mA`,
    )
    const off = solve({ drives: { [wire.signal.id]: led.side === 'high' ? 'low' : 'high' } })
    must('lamps go out', Math.abs(off.current(id, 'anode')) < 0.01 * foretold + 1e-9, () => wire.signal.name)
  }
  // Every part of the board that draws all the time.
  for (const { ref, name, legs, support, bridged } of placed) {
    const foretold = support?.draws?.value.typ
    if (foretold === undefined || bridged) continue
    const i = Math.abs(rest.current(ref, support?.role === 'charger' ? '+' : legs[0]!.name))
    must(
      'drawn by the board',
      Math.abs(i - foretold) < 0.03 * foretold,
      () => `${name}: ${(i * 1e3).toFixed(3)} mA instead of ${(foretold * 1e3).toFixed(3)} mA`,
    )
  }

  // Loads behind a transistor: off while nobody drives the gate, on while the program does.
  for (const wire of alone) {
    const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'switched')
    const load = end && placed.find((p) => p.instance?.id === end.instance.id)
    const electrical = end?.signal.electrical
    if (!end || !load || electrical?.kind !== 'switched') continue
    const id = `${load.ref}.${end.signal.id}`
    if (!rest.elements.some((e) => e.id === id)) continue
    // Nothing in the library pulls its gate: told, and nothing is fitted.
    if (a.findings.some((f) => f.id === `pins.switch-rating:none:${wire.signal.id}`)) continue
    const [off, low, on] = [
      {},
      { [wire.signal.id]: 'low' as const },
      { [wire.signal.id]: 'high' as const },
    ].map((drives) => solve({ drives }))
    // What is there for the load: at its plus, or in front of what switches that.
    const above = placed.find(
      (p) =>
        p.support?.role === 'transistor' &&
        p.support.signal === wire.signal.id &&
        p.part.kind === 'transistor' &&
        p.part.sort === 'p-mosfet',
    )
    const plus =
      above?.legs.find((l) => / source$/.test(l.name)) ??
      load.legs.find((l) => l.name === '+' || /V/.test(l.name))
    const nominal = on!.voltage(plus?.net ?? 'VCC')
    const through = (p: typeof on) => Math.abs(p!.power(id))
    const whole = nominal ** 2 / loadOhms(load.instance!.part, electrical.current)
    must(
      'loads rest',
      through(off) < 1e-3 * whole && through(low) < 1e-3 * whole,
      () => `${wire.signal.name} draws without being asked`,
    )
    // Into a base what is foretold: a diode of about 0.75 V there, where its sheet gives a range.
    const base = a.pins.bases[wire.signal.id]?.current.value
    const limiting = placed.find(
      (p) => p.support?.role === 'base resistor' && p.support.signal === wire.signal.id && !p.bridged,
    )
    if (base && limiting && steady) {
      const i = Math.abs(on!.current(limiting.ref, '1'))
      must(
        'bases',
        i > 0.95 * base.min && i < 1.05 * base.max,
        () =>
          `${wire.signal.name} ${(i * 1e3).toFixed(3)} mA instead of ${(base.min * 1e3).toFixed(3)} to ${(base.max * 1e3).toFixed(3)} mA`,
      )
    }
    const weak = isWeak(wire.signal.id)
    must(
      'loads work',
      through(on) > 0.8 * whole || weak,
      () => `${wire.signal.name} gets ${through(on).toFixed(4)} W of ${whole.toFixed(4)} W`,
    )
    const given = Math.abs(on!.power(sourceOf(on!)))
    must('nothing else burns', given < 3 * whole + 1, () => `${given.toFixed(2)} W from the source`)
    // Nor does more flow than is foretold with everything at work, unless something gets more than it stands, and that is told.
    const most = a.power.fromSource.value.max * (a.power.source ? fullRange(a.power.source.voltage).max : 0)
    must(
      'no more than foretold',
      mayLift || given < 1.03 * most + 1e-3,
      () => `${given.toFixed(3)} W from the source, of ${most.toFixed(3)} W at most`,
    )
  }

  // Contacts: high while open, low while closed.
  for (const wire of alone)
    for (const end of wire.signal.ends) {
      if (end.signal.electrical.kind !== 'contact') continue
      const behind = end.signal.electrical.behindDiode === true
      // Behind a diode it is the leg that is read; of several latches one is joined, on a board none, and that is told.
      if (behind && a.latch.latch?.key?.signal.id !== wire.signal.id) {
        must(
          'latches that are none',
          a.findings.some((f) => f.check === 'power.latch-fits' && f.severity === 'stops'),
          () => `${wire.signal.name} is joined to nothing, and nobody says so`,
        )
        continue
      }
      const leg = placed
        .find((p) => p.kind === 'chip')
        ?.legs.find((l) => wire.pin.legs.includes(Number(l.name.split(' ')[0])))?.net
      const net = behind
        ? leg
        : placed
            .find((p) => p.instance?.id === end.instance.id)
            ?.legs.find((l) => l.name.endsWith(end.signal.terminal))?.net
      if (!net) continue
      const open = rest.voltage(net)
      const pressed = solve({ closed: [`${end.instance.id}.${end.signal.terminal}`] }).voltage(net)
      const pulled =
        placed.some((p) => p.part.kind === 'resistors' && p.legs.some((l) => l.net === net)) ||
        (chip.io.pullUp && !wire.pin.attributes?.some((x) => x.kind === 'no-pull-up'))
      if (!pulled) continue
      must('contacts open', open > 0.9 * supply, () => `${wire.signal.name} rests at ${v(open)}`)
      const low = behind ? (a.latch.latch?.low?.value.max ?? 0) + 0.02 : 0.1 * supply
      must('contacts closed', pressed < low, () => `${wire.signal.name} goes to ${v(pressed)}`)
    }

  // Lines that only pull down rest high, and a leg that pulls low gets there.
  for (const wire of alone) {
    if (!wire.signal.ends.some((e) => e.signal.electrical.kind === 'open-drain')) continue
    const leg = placed
      .find((p) => p.part.kind === 'chip')
      ?.legs.find((l) => wire.pin.legs.includes(Number(l.name.split(' ')[0])))
    if (!leg) continue
    const high = rest.voltage(leg.net)
    // As high as what pulls it up: a device's own pull-ups go to what feeds the device, ours to the rail.
    const pulls = rest.elements.filter(
      (e) =>
        e.model.kind === 'resistor' &&
        e.model.resistance < 1e6 &&
        Object.values(e.terminals).includes(leg.net),
    )
    const ends = pulls
      .flatMap((e) => Object.values(e.terminals))
      .filter((net) => net !== leg.net && net !== 'GND')
    const pulledTo = ends.length > 0 ? Math.min(...ends.map((net) => rest.voltage(net))) : supply
    must('lines rest high', high > 0.9 * pulledTo, () => `${wire.signal.name} rests at ${v(high)}`)
    const low = solve({ drives: { [wire.signal.id]: 'low' } }).voltage(leg.net)
    must('lines go low', low < 0.3 * supply, () => `${wire.signal.name} only goes to ${v(low)}`)
  }

  // Where two voltages meet in a line, the leg gets no more than it stands, and still both levels.
  for (const wire of wires) {
    const shift = placed.some(
      (p) =>
        p.support?.key.startsWith('shift-') &&
        p.support.signal === wire.signal.id &&
        p.part.kind !== 'buffer',
    )
    const leg = placed
      .find((p) => p.part.kind === 'chip')
      ?.legs.find((l) => wire.pin.legs.includes(Number(l.name.split(' ')[0])))
    const end = wire.signal.ends.find((e) =>
      ['logic-output', 'open-drain'].includes(e.signal.electrical.kind),
    )
    if (!shift || !leg || !end) continue
    const [high, low] = (['high', 'low'] as const).map((to) =>
      solve({ device: { [`${end.instance.id}.${end.signal.terminal}`]: to } }).voltage(leg.net),
    )
    must(
      'shifts high',
      high! > 0.7 * supply && high! < supply + 0.6,
      () => `${wire.signal.name} at ${v(high!)}`,
    )
    must('shifts low', low! < 0.3 * supply && low! > -0.1, () => `${wire.signal.name} at ${v(low!)}`)
  }

  // A sensor and its divider: between both ends.
  for (const p of placed)
    if (p.support?.key.startsWith('divider:') && !p.bridged) {
      const between = p.legs.map((l) => rest.voltage(l.net))
      const at = Math.max(...between)
      // One that is fed from more than the chip stands is told.
      const told = a.findings.some(
        (f) => f.check === 'pins.level' && f.severity === 'stops' && f.id.includes(p.support!.signal!),
      )
      must('dividers', at > 0.02 * supply && (at < 0.98 * supply || told), () => `${p.name} at ${v(at)}`)
    }

  // Reset: high, low while its button is pressed.
  if (rest.has('RESET')) {
    const button = placed.some((p) => p.part.kind === 'switch' && !p.bridged)
    const pull = placed.some((p) => p.support?.key === 'reset-pull-up' && !p.bridged)
    if (pull) must('reset rests high', rest.voltage('RESET') > 0.9 * supply, () => v(rest.voltage('RESET')))
    if (button) {
      const pressed = solve({ reset: true })
      must(
        'reset pressed',
        pressed.voltage('RESET') < 0.1 * supply && pressed.voltage('VCC') > 0.9 * supply,
        () => v(pressed.voltage('RESET')),
      )
    }
  }

  // A plug of the other polarity.
  const guard = a.power.supplies.sources.find((s) => s.id === 'source')?.lead?.guard
  if ((polarity?.present || guard) && source) {
    const reversed = solve({ reversed: true, loads: true })
    const taken = Math.abs(reversed.current(sourceOf(reversed), '+'))
    // The resistor of a latch lies before the diode: what flows through it the right way round flows the wrong way round too.
    const beside = a.latch.latch ? 1.02 * a.latch.latch.holding.value.max : 0
    must(
      'reversed plug',
      taken < 1e-6 + beside && reversed.voltage('VCC') > -0.3,
      () => `${taken.toExponential(1)} A, ${v(reversed.voltage('VCC'))} on the rail`,
    )
  }

  // A programmer on the header: what it puts on each contact comes to the leg that the chip's sheet names for it. Without a plug.
  const header = placed.find((p) => p.support?.key === 'programming-header' && !p.bridged)
  const method = chip.programming[0]
  const seat = placed.find((p) => p.part.kind === 'chip')
  if (header && method && seat) {
    const legOf = (pin: string) =>
      seat.legs.find((l) => chip.pins.find((x) => x.id === pin)?.legs.includes(Number(l.name.split(' ')[0])))
    // Each contact at a voltage of its own, between nothing and the rail.
    method.contacts.forEach((contact, k) => {
      const want = contact.at === 'supply' ? supply : contact.at === 'ground' ? 0 : undefined
      const leg = header.legs.find((l) => Number(l.name.split(' ')[0]) === k + 1)
      if (want !== undefined) {
        must(
          'header',
          leg !== undefined && Math.abs(rest.voltage(leg.net) - want) < 0.1,
          () => `contact ${k + 1} ${contact.signal} is at ${leg ? v(rest.voltage(leg.net)) : 'nothing'}`,
        )
        return
      }
      const at = legOf(contact.at)
      if (!leg || !at) return
      for (const u of [0.3 * supply, 0.7 * supply]) {
        const driven = solve({ programmer: { [k + 1]: u } })
        must(
          'header',
          Math.abs(driven.voltage(at.net) - u) < 0.1 * supply,
          () => `contact ${k + 1} ${contact.signal} does not reach ${contact.at}`,
        )
      }
    })
  }
  return wrong
}

const sourceOf = (p: { elements: { id: string; model: { kind: string } }[] }) =>
  p.elements.find((e) => e.model.kind === 'source')!.id
