// Loads on the outputs of a bridge: what falls in it, how warm that makes it, what arrives, and which bridges of the library would do.

import type { Design, Edit } from '../design'
import { fromPart, partOrigin, type Said, say, type Worked } from '../findings'
import { canTurn, type Drives, type Instance, type NeedsResult, ownWiring, switchedAlone } from '../needs'
import { type Device, type Library, partsOfKind, siliconJunction } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asStated, asVariable, dimensionOf, junctionOf, sum, type SumInput, type Term, total } from '../sums'
import type { LoadedSupply, OpenSupply } from '../supply'
import { arriving, givenTo } from './arriving'
import type { Fault } from './fault'

/** One load, and the bridge that it hangs on or would. */
export interface Driven {
  load: Instance
  bridge: { name: string; part: Device & { drives: Drives } }
  /** The most that the load takes: stalled, or at its start. */
  current: Worked
  /** What falls in the bridge then, V; absent: its sheet doesn’t say. */
  lost?: Worked
  heat?: Worked
  /** What feeds both; and what of that is left for the load. */
  given?: Worked
  arrives?: Worked
}

/** A bridge with all that hangs on it. */
export interface LoadedBridge {
  bridge: Instance
  loads: Driven[]
  /** With everything on it at its most at once. */
  heat?: Worked
  junction?: Worked
}

export type BridgeFault = Fault<
  'moment' | 'lasting' | 'beyond' | 'heat' | 'low' | 'coil' | 'unstated' | 'steeper' | 'supply' | 'lines'
>

const isBridge = (part: Device): part is Device & { drives: Drives } => part.drives !== undefined

/** Which of its wirings is switched alone. */
const switchedOf = (part: Device, need: Instance['need']) => {
  const own = ownWiring(part, need)
  const signal = switchedAlone(own)
  const e = signal?.electrical
  return signal && e?.kind === 'switched' ? { signal, electrical: e } : undefined
}

const currentOf = ({ name, part, need }: Pick<Instance, 'name' | 'part' | 'need'>): Worked | undefined => {
  const switched = switchedOf(part, need)
  if (!switched) return undefined
  const { signal, electrical } = switched
  return asStated(
    `${name} takes at most`,
    'I',
    'A',
    fromPart('I', `${name}, at its most`, part, `${signal.id}.current`, electrical.current, 'A'),
  )
}

/** What falls in the bridge with this much through it. */
const lostIn = (part: Device & { drives: Drives }, I: Worked): Worked | undefined => {
  const { resistance, drop } = part.drives
  const meta = { label: `Falls in ${part.name}`, symbol: 'V_bridge', unit: 'V', counts: 'max' } as const
  if (resistance)
    return sum(
      meta,
      {
        I: asVariable(I),
        R_on: fromPart('R_on', 'both switches together', part, 'drives.resistance', resistance, 'Ω'),
      },
      (i) => i.I.times(i.R_on),
    )
  return (
    drop &&
    asStated(
      meta.label,
      meta.symbol,
      'V',
      fromPart('V_bridge', 'both switches together', part, 'drives.drop', drop, 'V'),
    )
  )
}

export const drivenBy = (
  load: Instance,
  bridge: Driven['bridge'],
  given: Worked | undefined,
): Driven | undefined => {
  const current = currentOf(load)
  if (!current) return undefined
  const lost = lostIn(bridge.part, current)
  return {
    load,
    bridge,
    current,
    ...(given && { given }),
    ...(lost && {
      lost,
      heat: sum(
        { label: `Heat in ${bridge.name} from ${load.name}`, symbol: 'P', unit: 'W', counts: 'max' },
        { I: asVariable(current), V_bridge: asVariable(lost) },
        (i) => i.I.times(i.V_bridge),
      ),
    }),
    ...(lost &&
      given && {
        arrives: arriving(load.name, 'V_load', given, lost, 'With all that it draws.'),
      }),
  }
}

/** Its own current at its supply, and what falls in it for each load. */
const heatOf = (name: string, part: Device, heats: readonly Worked[], given: Worked | undefined): Worked => {
  const mode = part.modes.reduce<Device['modes'][number] | undefined>(
    (a, b) => (!a || fullRange(b.current).max > fullRange(a.current).max ? b : a),
    undefined,
  )
  const own: Record<string, SumInput> =
    mode && given
      ? {
          V: asVariable(given),
          I_own: fromPart('I_own', mode.name, part, `modes.${mode.id}.current`, mode.current, 'A'),
        }
      : {}
  const each = heats.map((h, k) => ({ ...asVariable(h), symbol: `P_${k + 1}` }))
  return sum(
    { label: `Heat in ${name}`, symbol: 'P', unit: 'W', counts: 'max' },
    { ...own, ...Object.fromEntries(each.map((e) => [e.symbol, e])) },
    (i: Record<string, Term>) =>
      total(
        [...(i.V && i.I_own ? [i.V.times(i.I_own)] : []), ...each.map((e) => i[e.symbol]!)],
        dimensionOf('W'),
      ),
  )
}

const loaded = (
  name: string,
  part: Device & { drives: Drives },
  loads: readonly Driven[],
  given: Worked | undefined,
  ambient: number,
): Pick<LoadedBridge, 'heat' | 'junction'> => {
  // What a sheet leaves open can’t be added up to anything.
  if (loads.length === 0 || loads.some((l) => !l.heat)) return {}
  const heat = heatOf(
    name,
    part,
    loads.map((l) => l.heat!),
    given,
  )
  const way = { field: 'drives.thermalResistance', value: part.drives.thermalResistance }
  const junction = junctionOf(`Junction of ${name}`, { ...part, way }, ambient, asVariable(heat))
  return { heat, ...(junction && { junction }) }
}

/** Every bridge of the project, with what hangs on it. */
export const bridgesOf = (
  { needs: { limits } }: Pick<Design, 'needs'>,
  { instances }: Pick<NeedsResult, 'instances'>,
  { rails }: Pick<LoadedSupply, 'rails'>,
  supplies: OpenSupply,
): LoadedBridge[] =>
  instances.flatMap((bridge) => {
    const { part, name, need } = bridge
    if (!isBridge(part)) return []
    const given = givenTo(need, supplies, rails)
    const loads = instances.flatMap((load) =>
      load.hung?.instance === bridge.id && load.hung.output
        ? (drivenBy(load, { name, part }, given) ?? [])
        : [],
    )
    return [{ bridge, loads, ...loaded(name, part, loads, given, limits.ambient) }]
  })

/** What is wrong with one load on a bridge. */
export const loadFaults = (
  { load, bridge, current, lost, arrives }: Driven,
  name = bridge.name,
): BridgeFault[] => {
  const { part } = bridge
  const { drives } = part
  const { electrical } = switchedOf(load.part, load.need)!
  const [usual, most] = [current.value.typ, current.value.max]
  const [lasting, moment] = [fullRange(drives.current).max, drives.peak && fullRange(drives.peak).max]
  const amps = (a: number) => formatQuantity(a, 'A', 3)
  const rated = {
    ...say`${part.sheet}: ${amps(lasting)} for as long as one likes${moment === undefined ? '' : `, ${amps(moment)} for a moment`}`,
    origin: partOrigin(part, 'drives.current', drives.current),
  }
  const draws = { ...say`${load.name} draws up to ${amps(most)}`, worked: current }
  const least = load.part.supply && fullRange(load.part.supply).min
  return [
    ...(most > (moment ?? lasting)
      ? [
          {
            kind: 'beyond' as const,
            severity: 'stops' as const,
            grade: 'impossible' as const,
            says: say`${load.name} draws up to ${amps(most)} at its start or stalled; an output of ${name} stands ${amps(moment ?? lasting)}.`,
            because: [draws, rated],
          },
        ]
      : usual > lasting
        ? [
            {
              kind: 'lasting' as const,
              severity: 'risks' as const,
              grade: 'outside the sheet' as const,
              says: say`${load.name} usually draws ${amps(usual)}; an output of ${name} is made for ${amps(lasting)}.`,
              because: [draws, rated],
            },
          ]
        : most > lasting
          ? [
              {
                kind: 'moment' as const,
                severity: 'notes' as const,
                grade: 'typical' as const,
                says: say`Stalled, ${load.name} draws up to ${amps(most)}, which an output of ${name} stands for a moment only: the program lets go of it then.`,
                because: [draws, rated],
              },
            ]
          : []),
    ...(least !== undefined && arrives && arrives.value.min < least
      ? [
          {
            kind: 'low' as const,
            severity: 'risks' as const,
            grade: 'outside the sheet' as const,
            says: say`Behind ${name} as little as ${formatQuantity(arrives.value.min, 'V', 3)} are left for ${load.name}, which runs on ${formatQuantity(least, 'V')} or more.`,
            because: [
              { ...say`Up to ${formatQuantity(lost!.value.max, 'V', 2)} fall in the bridge`, worked: lost },
            ],
          },
        ]
      : []),
    ...(electrical.inductive && !drives.clamped
      ? [
          {
            kind: 'coil' as const,
            severity: 'risks' as const,
            grade: 'outside the sheet' as const,
            says: say`The sheet of ${part.name} speaks of no diodes inside: what ${load.name} does when it is let go breaks a bridge without them.`,
            because: [say`A coil’s current goes on when it is let go, wherever it can`],
          },
        ]
      : []),
    ...(lost && !drives.resistance && most > lasting
      ? [
          {
            kind: 'steeper' as const,
            severity: 'notes' as const,
            grade: 'typical' as const,
            says: say`The sheet of ${part.name} says what falls in it up to ${amps(lasting)}; with the ${amps(most)} of ${load.name} it is more, and it gets warmer than reckoned.`,
            because: [
              draws,
              {
                ...say`${part.sheet}: what falls in it`,
                origin: partOrigin(part, 'drives.drop', drives.drop),
              },
            ],
          },
        ]
      : []),
    ...(lost
      ? []
      : [
          {
            kind: 'unstated' as const,
            severity: 'notes' as const,
            grade: 'typical' as const,
            says: say`The sheet of ${part.name} says neither its resistance nor what falls in it: how hot it gets with ${load.name}, and what is left for that, is not known.`,
            because: [say`${part.sheet} says nothing of it`],
          },
        ]),
  ]
}

/** What heat does to it. */
export const heatFaults = (
  name: string,
  { junction, heat }: Pick<LoadedBridge, 'junction' | 'heat'>,
): BridgeFault[] => {
  if (!heat) return []
  const turns = { ...say`It turns up to ${formatQuantity(heat.value.max, 'W', 2)} into heat`, worked: heat }
  if (!junction)
    return [
      {
        kind: 'unstated',
        severity: 'notes',
        grade: 'typical',
        says: say`The sheet of ${name} doesn’t say how its heat leaves it: how warm ${formatQuantity(heat.value.max, 'W', 2)} make it is not known.`,
        because: [turns],
      },
    ]
  if (junction.value.max <= siliconJunction) return []
  return [
    {
      kind: 'heat',
      severity: 'risks',
      grade: 'outside the sheet',
      says: say`${name} reaches ${formatQuantity(junction.value.max, '°C', 3)} inside with all that hangs on it at its most; ${siliconJunction} °C is what silicon is made for.`,
      because: [
        turns,
        { ...say`Its junction reaches ${formatQuantity(junction.value.max, '°C', 3)}`, worked: junction },
      ],
    },
  ]
}

export interface RankedBridge extends Pick<LoadedBridge, 'heat' | 'junction'>, Pick<Driven, 'arrives'> {
  part: Device
  chosen: boolean
  no: { text: string }[]
  unsure: { text: string }[]
  /** Lines that it asks of the chip. */
  lines: number
  price: number
  /** What chooses it. */
  edit: Edit
}
export interface RankedDriven {
  need: string
  name: string
  /** A, at its most. */
  most: number
  hung: boolean
  ranked: RankedBridge[]
}

/** Whether a bridge runs on what feeds the load, and hears the chip. */
const fedFaults = (part: Device, given: Worked | undefined, rail: Worked | undefined): BridgeFault[] => {
  const supply = part.supply && fullRange(part.supply)
  const volts = (v: number) => formatQuantity(v, 'V', 3)
  const asks = Math.max(
    0,
    ...(part.wirings[0]?.signals ?? []).map(({ electrical: e }) =>
      e.kind === 'logic-input' ? e.high.offset + e.high.factor * (given?.value.max ?? 0) : 0,
    ),
  )
  const fault = (kind: BridgeFault['kind'], says: Said): BridgeFault => ({
    kind,
    severity: 'risks',
    grade: 'outside the sheet',
    says,
    because: [say`${part.sheet}, ${part.supply?.source ?? 'supply'}`],
  })
  return [
    ...(supply && given && (given.value.min < supply.min || given.value.max > supply.max)
      ? [
          fault(
            'supply',
            say`it runs on ${volts(supply.min)} to ${volts(supply.max)}, and ${volts(given.value.min)} to ${volts(given.value.max)} feed the load`,
          ),
        ]
      : []),
    ...(rail && asks > rail.value.min
      ? [
          fault(
            'lines',
            say`its lines ask for ${volts(asks)}, and the chip’s rail may be ${volts(rail.value.min)}`,
          ),
        ]
      : []),
  ]
}

/** Every bridge of the library, for each load of the project that could hang on one; those that do first, the cheapest first among them. */
export const rankBridges = ({
  design,
  library,
  needs: { instances },
  power: { supplies, loads, rail },
}: {
  design: Design
  library: Library
  needs: Pick<NeedsResult, 'instances'>
  power: { supplies: OpenSupply; loads: Pick<LoadedSupply, 'rails'>; rail?: Worked }
}): RankedDriven[] =>
  instances.flatMap((load) => {
    const { need, part, at } = load
    if (at !== 1 || !canTurn(part, ownWiring(part, need))) return []
    const given = givenTo(need, supplies, loads.rails)
    const on = design.needs.devices.find((d) => d.id === need.drivenBy)
    return [
      {
        need: need.id,
        name: need.name,
        most: currentOf(load)!.value.max,
        hung: load.hung !== undefined,
        ranked: partsOfKind(library, 'device')
          .filter(isBridge)
          .map((bridge): RankedBridge => {
            const driven = drivenBy({ ...load, name: need.name }, { name: bridge.name, part: bridge }, given)!
            // One bridge has room for so many of them.
            const beside = Array.from(
              { length: Math.min(need.count, bridge.drives.outputs.length) },
              () => driven,
            )
            const warm = loaded(bridge.name, bridge, beside, given, design.needs.limits.ambient)
            const faults = [
              ...fedFaults(bridge, given, rail),
              ...loadFaults(driven, 'it'),
              ...heatFaults('it', warm),
            ]
            const said = (notes: boolean) =>
              faults
                .filter((f) => (f.severity === 'notes') === notes)
                .map((f) => ({ text: small(f.says.text.replace(/\.$/, '')) }))
            const free = freeBridge(design, bridge, need, instances)
            return {
              part: bridge,
              chosen: on?.part === bridge.id,
              no: [...said(false), ...tooMany(bridge, need.count)],
              unsure: said(true),
              ...warm,
              ...(driven.arrives && { arrives: driven.arrives }),
              lines: bridge.wirings[0]?.signals.length ?? 0,
              price: bridge.price,
              edit: free
                ? { kind: 'hangOn', id: need.id, bridge: free }
                : { kind: 'addBridge', id: need.id, part: bridge.id, name: bridge.name },
            }
          })
          .sort((a, b) => a.no.length - b.no.length || a.price - b.price),
      },
    ]
  })

/** Within a sentence; a load keeps the name that it has. */
const small = (text: string) => text.replace(/^(Behind|The|Stalled)\b/, (word) => word.toLowerCase())

const tooMany = (bridge: Device & { drives: Drives }, count: number) =>
  count > bridge.drives.outputs.length
    ? [
        say`${count} of them hang on ${bridge.drives.outputs.length === 1 ? 'its one output' : `its ${bridge.drives.outputs.length} outputs`}`,
      ]
    : []

/** A bridge of this kind that is there, fed as the load is, with room for it. */
const freeBridge = (
  design: Design,
  bridge: Device & { drives: Drives },
  load: Instance['need'],
  instances: readonly Instance[],
): string | undefined =>
  design.needs.devices.find(({ id, part, count, fedBy }) => {
    const taken = instances.filter((i) => i.hung?.bridge === id && i.need.id !== load.id).length
    return (
      part === bridge.id && fedBy === load.fedBy && bridge.drives.outputs.length * count - taken >= load.count
    )
  })?.id

/** Those that would do in the place of what is there: to be chosen by a fix. */
export const otherBridges = (ranked: RankedDriven | undefined): RankedBridge[] =>
  ranked?.ranked.filter((r) => !r.chosen && r.no.length === 0) ?? []
