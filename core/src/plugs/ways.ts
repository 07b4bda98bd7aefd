// Ways by which current can flow into what is not plugged in: backwards through a regulator or a latch, into a source, and through the legs
// of a line whose two ends hang on different supplies.

import type { ChargingResult } from '../charging'
import { fittedFor, fittedResistor, type SupportPart } from '../circuit'
import { fromPart, say, type Said, type Worked, type WorkedInput } from '../findings'
import { leastInDiode, programmerGives, safeInDiode } from '../levels'
import { attributeOf, type Plan, type Wire, type WireEnd } from '../legs'
import type { Chip, Regulator } from '../parts'
import { fullRange, type Range } from '../quantity'
import { asVariable, dimensionOf, greatest, number, parallel, sum, type Term, total } from '../sums'
import { convertsUp, type OpenSupply, railFor, type RailId } from '../supply'
import type { Standing } from './standing'

export interface BackWay {
  id: string
  /** What flows where, in a clause: “from the rail through BL33 to its input”. */
  words: Said
  /** Whether it can in this standing. */
  open: (standing: Standing) => boolean
  /** At the most, A; absent where only what hangs there limits it. */
  current?: Worked
  /** What drives it, V. */
  feeds?: Worked
  /** What is left of the voltage where it arrives, V. */
  voltage?: Worked
  /** What keeps it from flowing; absent: nothing does. */
  stopped?: Said
  /** What it reaches and what it is: for what is made of it. */
  kind: 'converter' | 'joined' | 'usb' | 'latch' | 'out' | 'in' | 'no cell'
  /** Of a line: its name, and the devices at its far end. */
  line?: { id: string; shifted: boolean; signal: string; devices: readonly string[]; rail: RailId }
}

/** What falls in a diode of silicon that nobody chose: inside a transistor or an input. */
const insideDiode: WorkedInput = {
  symbol: 'V_F',
  label: 'falls in a diode inside a chip or transistor',
  value: { min: leastInDiode, typ: 0.6, max: 0.9 },
  unit: 'V',
  origin: { kind: 'rule', source: 'assumed: silicon, from microamperes to tens of milliamperes' },
  variable: 'diodes inside',
}

/** Of an output that drives high and whose sheet says nothing of it, Ω. */
const usualOutput: WorkedInput = {
  symbol: 'R_out',
  label: 'output that drives the line high',
  value: { min: 20, typ: 50, max: 200 },
  unit: 'Ω',
  origin: { kind: 'rule', source: 'assumed: usual for outputs that drive both ways' },
  variable: 'output that drives',
}

const outputOf = (chip: Chip): WorkedInput => {
  const { current, drop, source } = chip.io.outputHigh[0]!
  const { min, typ, max } = fullRange(drop)
  const per = (v: number) => v / current
  // A drop of which only the most is stated may be half of that.
  const least = drop.min === undefined ? Math.min(min, max / 2) : min
  return {
    symbol: 'R_out',
    label: `output of ${chip.name}, driving high`,
    value: { min: per(least), typ: per(Math.max(typ, least)), max: per(max) },
    unit: 'Ω',
    origin: { kind: 'rule', source: `drop over current, ${source ?? chip.sheet}` },
    variable: 'output that drives',
  }
}

const behindDiode = (label: string, V: Worked): Worked =>
  sum({ label, symbol: 'V_back', unit: 'V', counts: 'max' }, { V: asVariable(V), V_F: insideDiode }, (i) =>
    greatest(number(0, dimensionOf('V')), i.V.minus(i.V_F)),
  )

/** Through a diode and these resistances, in a row or beside one another, into a rail at nothing, A. */
const intoNothing = (label: string, V: Worked, R: readonly WorkedInput[], beside: boolean): Worked =>
  sum(
    {
      label,
      symbol: 'I_back',
      unit: 'A',
      counts: 'max',
      note: 'Into a rail that is held at nothing by all that hangs on it, and as if the output’s drop went on as it begins: beyond some tens of milliamperes real ones give less.',
    },
    {
      V: asVariable(V),
      V_F: insideDiode,
      ...Object.fromEntries(R.map((r, k) => [`R_${k + 1}`, { ...r, symbol: `R_${k + 1}` }])),
    },
    (i: Record<string, Term>) => {
      const all = R.map((_, k) => i[`R_${k + 1}`]!)
      return greatest(number(0, dimensionOf('V')), i.V!.minus(i.V_F!)).over(
        beside ? parallel(...all) : total(all, dimensionOf('Ω')),
      )
    },
  )

interface Ready {
  supplies: OpenSupply
  chip: Chip
  plan: Plan | undefined
  support: readonly SupportPart[]
  charging?: ChargingResult
  /** Whether a programmer can feed the rail. */
  programmer: boolean
}

/** What lets nothing from a converter’s output to its input; undefined where it may. */
const blocked = (part: Regulator): Said | undefined => {
  if (part.backwards === 'blocks') return say`${part.name} lets nothing back`
  return convertsUp(part) ? say`the diode of ${part.name} lies the other way round` : undefined
}

/** Open only where a programmer alone, or a board’s USB plug, feeds the rail: all else feeds it through the converter. */
const throughConverters = ({ supplies, chip }: Ready): BackWay[] =>
  supplies.converters.flatMap(({ id, part, from, to }): BackWay[] => {
    const rail = supplies.open[to]
    const V = rail && programmerGives(chip, rail)
    const stopped = blocked(part)
    return V
      ? [
          {
            id: `converter:${id}`,
            kind: 'converter',
            words: say`from the rail backwards through ${part.name} to its input`,
            open: ({ fed }) => fed.includes(to) && !fed.includes(from),
            ...(stopped ? { stopped } : { voltage: behindDiode(`Left at the input of ${part.name}`, V) }),
          },
        ]
      : []
  })

/** A programmer on the chip’s rail and the source on its way to it: two that feed one rail. */
const joined = ({ supplies, chip }: Ready): BackWay[] => {
  const source = supplies.sources.find((s) => s.id === 'source')
  const rail = supplies.open[supplies.own]
  if (!source || !rail) return []
  const V = programmerGives(chip, rail)
  const { part, lead } = source
  const guard = supplies.guards.find((g) => g.from === source.to && g.diode.present)
  const converter = supplies.converters.find((c) => c.to === supplies.own)
  const least = fullRange(part.voltage).min
  const between =
    (guard && say`${guard.diode.diode.name} lets nothing back`) ??
    (converter && blocked(converter.part)) ??
    (converter && least >= V.value.max - insideDiode.value.min
      ? say`${part.name} never has less than a programmer and a diode leave, and ${converter.part.name} lies between`
      : undefined)
  const pass = lead?.pass
  // Backwards through a converter and the transistor two diodes are in the way.
  const lost = (converter ? 2 : 1) * insideDiode.value.min
  return [
    {
      id: 'joined',
      kind: 'joined',
      words: say`from the programmer into ${part.name}`,
      open: ({ in: ids, off }) => !off && ids.includes('source') && ids.includes('programmer'),
      ...(between ? { stopped: between } : { feeds: V }),
    },
    ...(pass
      ? [
          {
            id: 'latch',
            kind: 'latch' as const,
            words: say`from the programmer through the diode inside ${pass.name} into ${part.name}`,
            open: ({ in: ids, off }: Standing) => off === true && ids.includes('programmer'),
            ...(between
              ? { stopped: between }
              : V.value.max - lost < least
                ? { stopped: say`what the diodes leave is less than ${part.name} has` }
                : {}),
          },
        ]
      : []),
  ]
}

const ownPull = ({ support }: Ready, { signal }: Wire): WorkedInput | undefined => {
  const s = fittedFor(support, 'line pull-up', signal.id) ?? fittedFor(support, 'shift near', signal.id)
  return s?.part.kind === 'resistors' && s.value
    ? fittedResistor('R', s.name, s.part, s.value, s.key)
    : undefined
}

/** What lies in the line itself: resistors, or a part that lets nothing through while one of its sides is off. */
const inLine = (
  { support }: Ready,
  { signal }: Wire,
): { ohms: WorkedInput[]; buffer?: string; mosfet?: string } => {
  const ohms = (['shift series', 'shift upper'] as const).flatMap((role) => {
    const s = fittedFor(support, role, signal.id)
    return s?.part.kind === 'resistors' && s.value
      ? [fittedResistor('R', s.name, s.part, s.value, s.key)]
      : []
  })
  return {
    ohms,
    buffer: fittedFor(support, 'shift buffer', signal.id)?.part.name,
    mosfet: fittedFor(support, 'shift transistor', signal.id)?.part.name,
  }
}

/** One line between the chip and devices on another supply: both directions. */
const throughLine = (ready: Ready, wire: Wire, rail: RailId): BackWay[] => {
  const { supplies, chip } = ready
  const own = supplies.open[supplies.own]
  const there = supplies.open[rail]
  const far = wire.signal.ends.filter((e) => railFor(supplies, e.instance.need).id === rail)
  if (rail === supplies.own || far.length === 0 || !own || !there) return []
  const devices = [...new Set(far.map((e) => e.instance.name))]
  const of = (kind: WireEnd['signal']['electrical']['kind']) =>
    far.filter((e) => e.signal.electrical.kind === kind)
  // As the rail is fed, or as a programmer may feed it.
  const driven = ready.programmer
    ? sum(
        { label: 'What drives the leg', symbol: 'V_leg', unit: 'V', counts: 'max' },
        { V_DD: own, V_prog: programmerGives(chip, own) },
        (i) => greatest(i.V_DD, i.V_prog),
      )
    : own
  const { ohms, buffer, mosfet } = inLine(ready, wire)
  const line = {
    id: wire.signal.id,
    shifted: ohms.length > 0 || buffer !== undefined || mosfet !== undefined,
    signal: wire.signal.name,
    devices,
    rail,
  }
  // Its transistor carries backwards from its source, which is on the lower side, and not into it.
  const lower = there.value.min >= own.value.min ? 'in' : 'out'
  const off = (kind: 'out' | 'in') =>
    mosfet && kind === lower ? say`${mosfet} in the line is off while the lower side is` : undefined
  const outwards = ({ fed }: Standing) => fed.includes(supplies.own) && !fed.includes(rail)
  const inwards = ({ fed }: Standing) => fed.includes(rail) && !fed.includes(supplies.own)
  const name = wire.signal.name
  const pull = ownPull(ready, wire)
  const bus = of('open-drain').length > 0
  const ways: BackWay[] = []
  const add = (
    kind: 'out' | 'in',
    words: Said,
    open: BackWay['open'],
    V: Worked,
    R: readonly WorkedInput[],
    stopped: Said | undefined,
    beside = false,
  ) =>
    ways.push({
      id: `${kind}:${wire.signal.id}:${rail}`,
      kind,
      words,
      open,
      line,
      ...(stopped ? { stopped } : { feeds: V, current: intoNothing(`Through ${name}`, V, R, beside) }),
    })
  const shut = buffer ? say`${buffer} in the line takes nothing while its own supply is off` : undefined
  if (of('logic-input').length > 0 || (bus && pull))
    add(
      'out',
      say`from the leg of ${name} into ${devices.join(', ')}`,
      outwards,
      driven,
      bus ? [pull!] : [outputOf(chip), ...ohms],
      shut ?? off('out'),
    )
  const drives = of('logic-output').filter(
    (e) => e.signal.electrical.kind === 'logic-output' && !e.signal.electrical.openDrain,
  )
  const fitted = of('open-drain').flatMap((e): WorkedInput[] =>
    e.signal.electrical.kind === 'open-drain' && e.signal.electrical.fitted
      ? [
          {
            symbol: 'R',
            label: `pull-up on ${e.instance.name}`,
            value: fullRange(e.signal.electrical.fitted),
            unit: 'Ω',
            origin: { kind: 'rule', source: e.instance.part.sheet },
            variable: `${e.instance.id} pull-up`,
          },
        ]
      : [],
  )
  // A voltage that is measured, or measured against, comes from the far side’s supply, and is no higher.
  const measured = [...of('analog'), ...of('reference')].flatMap(
    ({ instance, signal: { electrical: e, id } }) => {
      if (e.kind === 'reference') return [usualOutput]
      if (e.kind !== 'analog' || e.dividerTo === 'supply') return []
      return e.sourceResistance
        ? [
            {
              ...fromPart(
                'R',
                `inside ${instance.name}`,
                instance.part,
                `${id}.sourceResistance`,
                e.sourceResistance,
                'Ω',
              ),
              variable: `${instance.id} ${id}.sourceResistance`,
            },
          ]
        : [usualOutput]
    },
  )
  const tolerant = attributeOf(wire.pin, 'tolerant')
  const source = drives.length > 0 ? usualOutput : measured[0]
  if (source || fitted.length > 0)
    add(
      'in',
      say`from ${devices.join(', ')} into the leg of ${name}`,
      inwards,
      there,
      source ? [source, ...ohms] : fitted,
      shut ?? off('in') ?? (tolerant ? say`leg ${wire.pin.id} has no diode to its supply` : undefined),
      !source,
    )
  return ways
}

/** The board’s own USB plug beside the source: where nothing lies between, the higher drives current into the other. */
const throughUsb = ({ supplies, chip }: Ready): BackWay[] => {
  const board = chip.board
  const source = supplies.sources.find((s) => s.id === 'source')
  if (!board?.usb || !source) return []
  return [
    {
      id: 'usb',
      kind: 'usb',
      words: say`between ${source.part.name} and the computer at the USB plug of ${board.name}`,
      open: ({ in: ids }) => ids.includes('source') && ids.includes('board'),
      ...(board.usb.backwards === 'blocks' && {
        stopped: say`a diode or switch on ${board.name} lets nothing back`,
      }),
    },
  ]
}

const withoutCell = ({ charging }: Ready): BackWay[] =>
  charging?.from
    ? [
        {
          id: 'no cell',
          kind: 'no cell',
          words: say`from ${charging.charger.name} into the project, without ${charging.cell.name}`,
          open: ({ in: ids }) => ids.includes('charging') && !ids.includes('source'),
        },
        {
          id: 'charger',
          kind: 'joined',
          words: say`from ${charging.cell.name} backwards through ${charging.charger.name}`,
          open: ({ in: ids }) => ids.includes('source') && !ids.includes('charging'),
          stopped: say`${charging.charger.name} lets no more than its leakage back, and that is counted with what the project draws`,
        },
      ]
    : []

export const waysBack = (ready: Ready): BackWay[] => [
  ...throughConverters(ready),
  ...joined(ready),
  ...(ready.plan?.wires ?? []).flatMap((w) =>
    ready.supplies.rails.flatMap((r) => throughLine(ready, w, r.id)),
  ),
  ...throughUsb(ready),
  ...withoutCell(ready),
]

/** The least that keeps a diode’s current safe, Ω. */
export const safeResistor = (V: Range): number => Math.max(0, V.max - insideDiode.value.min) / safeInDiode
