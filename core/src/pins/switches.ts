// Transistors that switch a load, below it or in its plus: whether each is turned on by the leg and stands the load, and which others of the library would.

import { type Stock, stockOf } from '../circuit'
import { type Finding, fromPart, partOrigin, say, type Stages, unsaid, type Worked } from '../findings'
import { endsOf, type Wire } from '../legs'
import {
  type Chip,
  type Diode,
  findPart,
  type Library,
  partsOfKind,
  siliconJunction,
  type Transistor,
} from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asVariable, junctionOf, sum } from '../sums'
import { railFor, voltageFor } from '../supply'
import {
  baseEmitterOf,
  type BaseOnLeg,
  baseOnLeg,
  forced,
  type PlusOnLeg,
  plusOnLeg,
  shareOfPulse,
  switchOnLeg,
} from '../support'
import { boardLoads } from './drive'

/** What is wrong with a switched load, before it is said of which. */
export interface SwitchFault extends Pick<Finding, 'severity' | 'text' | 'says' | 'because'> {
  what:
    | 'off'
    | 'unknown'
    | 'weak'
    | 'base'
    | 'current'
    | 'heat'
    | 'drain'
    | 'diode'
    | 'reverse'
    | 'slow'
    | 'shared'
    | 'grounded'
    | 'none'
    | 'unfed'
}
type Switch = ReturnType<typeof switchOnLeg>

/** What a transistor works in. */
export interface Surroundings {
  chip: Chip
  rail: Worked
  /** °C */
  ambient: number
  stock: Stock
  library: Library
  /** The base resistor is left out. */
  bare?: boolean
}

/** Whether what its gate gets turns the transistor on. */
const gateFault = (
  name: string,
  transistor: Transistor,
  { drive }: Pick<Switch, 'drive'>,
  gives = say`The leg gives the gate of ${name}`,
): SwitchFault[] => {
  const gate = drive.value.min
  const stated = (transistor.channel ?? []).map((c) => c.gate)
  const gets = { ...say`The gate gets ${formatQuantity(gate, 'V', 3)} at the least`, worked: drive }
  const { threshold } = transistor
  if (threshold && gate < fullRange(threshold).max)
    return [
      {
        what: 'off',
        severity: 'stops',
        ...say`${gives} as little as ${formatQuantity(gate, 'V', 3)}; ${transistor.name} may need ${formatQuantity(fullRange(threshold).max, 'V')} to begin to conduct.`,
        because: [
          gets,
          { ...say`${transistor.sheet}: threshold`, origin: partOrigin(transistor, 'threshold', threshold) },
        ],
      },
    ]
  if (stated.length === 0)
    return [
      {
        what: 'unknown',
        severity: 'notes',
        ...say`The sheet of ${transistor.name} states no resistance of its channel: how far it turns on ${name}, and how hot it gets, is not known.`,
        because: [gets],
      },
    ]
  const from = Math.min(...stated)
  return gate < from
    ? [
        {
          what: 'weak',
          severity: 'risks',
          ...say`${gives} as little as ${formatQuantity(gate, 'V', 3)}; the sheet of ${transistor.name} says what its channel is from ${formatQuantity(from, 'V')} on.`,
          because: [gets],
        },
      ]
    : []
}

/** Whether the transistor stands the load, by current and by heat. */
const loadFaults = (
  name: string,
  device: string,
  most: number,
  transistor: Transistor,
  { junction, heat }: Pick<Switch, 'junction' | 'heat'>,
): SwitchFault[] => {
  const rated = fullRange(transistor.current).max
  const hottest = junction?.value.max ?? -Infinity
  return [
    ...(most > rated
      ? [
          {
            what: 'current' as const,
            severity: 'stops' as const,
            ...say`${device} draws up to ${formatQuantity(most, 'A', 3)} through ${transistor.name}, which is made for ${formatQuantity(rated, 'A')}.`,
            because: [
              {
                ...say`${transistor.sheet}: ${formatQuantity(rated, 'A')}`,
                origin: partOrigin(transistor, 'current', transistor.current),
              },
            ],
          },
        ]
      : []),
    ...(hottest > siliconJunction
      ? [
          {
            what: 'heat' as const,
            severity: 'risks' as const,
            ...say`The transistor of ${name} reaches ${formatQuantity(hottest, '°C', 3)} when it stays on; its sheet states no limit, and ${siliconJunction} °C is what silicon is made for.`,
            because: [
              ...(heat
                ? [
                    {
                      ...say`It turns up to ${formatQuantity(heat.value.max, 'W', 2)} into heat`,
                      worked: heat,
                    },
                  ]
                : []),
              { ...say`Its junction reaches ${formatQuantity(hottest, '°C', 3)}`, worked: junction },
            ],
          },
        ]
      : []),
  ]
}

/** Whether the transistor stands what is across it while the load is off: its supply, and above that what falls in a coil’s diode. */
const drainFault = (
  device: string,
  transistor: Transistor,
  diode: Diode | undefined,
  supply: Worked | undefined,
): SwitchFault[] => {
  const stands = fullRange(transistor.voltage).max
  const over = diode ? Math.max(...diode.forward.map((p) => fullRange(p.voltage).max)) : 0
  const highest = (supply?.value.max ?? -Infinity) + over
  return highest > stands
    ? [
        {
          what: 'drain',
          severity: 'stops',
          ...say`${transistor.name} stands ${formatQuantity(stands, 'V')}; while ${device} is off it has up to ${formatQuantity(highest, 'V', 3)} across it.`,
          because: [
            {
              ...say`The supply of ${device} reaches ${formatQuantity(supply!.value.max, 'V', 3)}`,
              worked: supply,
            },
            ...(diode
              ? [
                  say`When a coil is switched off, up to ${formatQuantity(over, 'V', 2)} more: what falls in ${diode.name}`,
                ]
              : []),
            {
              ...say`${transistor.sheet}: ${formatQuantity(stands, 'V')}`,
              origin: partOrigin(transistor, 'voltage', transistor.voltage),
            },
          ],
        },
      ]
    : []
}

/** Whether the diode across a coil stands its current, and the supply in reverse. */
const diodeFaults = (
  device: string,
  most: number,
  diode: Diode,
  supply: Worked | undefined,
): SwitchFault[] => {
  const [rated, stands] = [fullRange(diode.current).max, fullRange(diode.reverse).max]
  const highest = supply?.value.max ?? -Infinity
  return [
    ...(most > rated
      ? [
          {
            what: 'diode' as const,
            severity: 'risks' as const,
            ...say`When ${device} is switched off, ${formatQuantity(most, 'A', 3)} flow on through ${diode.name}, which is made for ${formatQuantity(rated, 'A')}.`,
            because: [
              {
                ...say`${diode.sheet}: ${formatQuantity(rated, 'A')}`,
                origin: partOrigin(diode, 'current', diode.current),
              },
            ],
          },
        ]
      : []),
    ...(highest > stands
      ? [
          {
            what: 'reverse' as const,
            severity: 'stops' as const,
            ...say`${diode.name} across ${device} stands ${formatQuantity(stands, 'V')} in reverse; its supply reaches ${formatQuantity(highest, 'V', 3)}.`,
            because: [{ ...say`The supply reaches ${formatQuantity(highest, 'V', 3)}`, worked: supply }],
          },
        ]
      : []),
  ]
}

/** What is asked of whatever switches one load. */
export interface SwitchedLoad {
  wire: Wire
  /** Of the device. */
  signal: string
  need: string
  device: string
  most: number
  diode?: Diode
  supply?: Worked
  /** The same with all that is drawn. */
  loaded?: Worked
  transistor: string
  /** Why its plus can’t be parted from the rest. */
  plusShared?: string
  grounded?: true
}

type Ready = Pick<Stages, 'design' | 'library' | 'chip' | 'pins' | 'power'>

/** Every load behind a transistor. */
export const switchedLoads = ({ library, pins, power: { supplies, loads: drawn } }: Ready): SwitchedLoad[] =>
  (pins.plan?.wires ?? []).flatMap((wire) => {
    const [switched] = endsOf(wire, 'switched')
    if (!switched) return []
    const { end, electrical: load } = switched
    const diode = load.inductive ? findPart(library, 'diode', load.diode) : undefined
    const { part, wiring, need } = end.instance
    const loads = wiring.signals.filter((s) => s.electrical.kind === 'switched').length
    const pluses = part.terminals.filter((t) => t.role === 'supply').length
    return [
      {
        wire,
        signal: end.signal.id,
        need: need.id,
        device: end.instance.name,
        most: fullRange(load.current).max,
        ...(diode && { diode }),
        supply: voltageFor(supplies, need),
        loaded: drawn.rails[railFor(supplies, need).id]?.voltage,
        transistor: load.transistor,
        ...(loads > 1 && { plusShared: `its plus serves ${loads} loads at once` }),
        ...(pluses !== 1 && { plusShared: 'its sheet names no one plus' }),
        ...(load.grounded && { grounded: true as const }),
      },
    ]
  })

/** A transistor at a load: what it gets, how warm that makes it, and all that is wrong with it. */
interface Judged {
  /** Between gate and source, V; or into the base, A. */
  drive: Worked
  heat?: Worked
  junction?: Worked
  /** What pulls its gate, in the plus. */
  pull?: Transistor
  /** Of what stays the same whichever it is, nothing. */
  faults: SwitchFault[]
}

/** Whether the base gets what saturates it, and the leg stands that. */
const baseFaults = (
  name: string,
  transistor: Transistor,
  wire: Wire,
  { current, ratio, asked, bare }: BaseOnLeg,
  { chip, bare: without }: Surroundings,
): SwitchFault[] => {
  const { pinRecommended, pinAbsolute } = chip.limits
  const [good, breaks] = [fullRange(pinRecommended).max, fullRange(pinAbsolute).max]
  const beside = boardLoads(chip, wire)
  const flows = without ? bare : current
  const most = flows.value.max + beside.reduce((sum, l) => sum + l.current.value.max, 0)
  const gain = transistor.gain && fullRange(transistor.gain).min
  const gets = {
    ...say`The base gets ${formatQuantity(current.value.min, 'A', 3)} at the least`,
    worked: current,
  }
  const asks = {
    ...say`Saturated it asks for ${formatQuantity(asked.value.max, 'A', 2)}, a tenth of the load’s current`,
    worked: asked,
  }
  return [
    ...(gain !== undefined && ratio.value.max > gain
      ? [
          {
            what: 'off' as const,
            severity: 'stops' as const,
            ...say`The base of ${transistor.name} gets as little as ${formatQuantity(current.value.min, 'A', 3)} for ${name}, ${formatQuantity(ratio.value.max, '', 2)} times less than its load draws; its gain may be only ${formatQuantity(gain, '')}: it is not switched on, and takes what is left of the supply as heat.`,
            because: [
              gets,
              { ...say`${transistor.sheet}: gain`, origin: partOrigin(transistor, 'gain', transistor.gain) },
            ],
          },
        ]
      : ratio.value.max > forced * (1 + 1e-9)
        ? [
            {
              what: 'weak' as const,
              severity: 'risks' as const,
              ...say`The base of ${transistor.name} gets as little as ${formatQuantity(current.value.min, 'A', 3)} for ${name}, and asks for up to ${formatQuantity(asked.value.max, 'A', 2)}, which the leg can’t give: more falls in it than its sheet says, and it gets hotter.`,
              because: [gets, asks],
            },
          ]
        : []),
    ...(most > good
      ? [
          {
            what: 'base' as const,
            severity: most > breaks ? ('stops' as const) : ('risks' as const),
            ...say`The base of ${transistor.name} takes up to ${formatQuantity(most, 'A', 3)} from the leg of ${name} all the while it is on; a leg is good for ${formatQuantity(good, 'A')}${most > breaks ? say` and breaks above ${formatQuantity(breaks, 'A')}` : unsaid}.`,
            because: [
              without
                ? {
                    ...say`Without its resistor up to ${formatQuantity(flows.value.max, 'A', 3)} flow`,
                    worked: flows,
                  }
                : {
                    ...say`With its resistor up to ${formatQuantity(flows.value.max, 'A', 3)} flow`,
                    worked: flows,
                  },
              ...beside.map((l) => ({
                ...say`On the same leg ${chip.board!.name} has ${l.onBoard!}: ${formatQuantity(l.current.value.max, 'A')} more`,
                worked: l.current,
              })),
              {
                ...say`${chip.sheet}: ${formatQuantity(good, 'A')} recommended`,
                origin: partOrigin(chip, 'limits.pinRecommended', pinRecommended),
              },
            ],
          },
        ]
      : []),
  ]
}

/** What the sheet of a bipolar one leaves open, and what that makes unsure. */
const unstated = (name: string, transistor: Transistor): SwitchFault[] => {
  const open = [
    ...(transistor.gain ? [] : ['no gain: whether it is switched on at all is not known']),
    ...(transistor.saturation ? [] : ['not what falls in it: how hot it gets is not known']),
    ...(transistor.baseEmitter ? [] : ['not what lies between base and emitter: 0.6 V to 1.2 V are assumed']),
  ]
  return open.length === 0
    ? []
    : [
        {
          what: 'unknown',
          severity: 'notes',
          ...say`The sheet of ${transistor.name}, which switches ${name}, states ${open.join('; ')}.`,
          because: [say`${transistor.sheet} says nothing of it`],
        },
      ]
}

/** Undefined where nothing can be said: no resistor in the drawer for a base, or nothing to pull a gate in the plus. */
const judge = (of: SwitchedLoad, transistor: Transistor, at: Surroundings): Judged | undefined => {
  const { ambient } = at
  const { name } = of.wire.signal
  const [switched] = endsOf(of.wire, 'switched')
  const { end, electrical } = switched!
  const drain = drainFault(of.device, transistor, of.diode, of.supply)
  if (transistor.sort === 'p-mosfet') {
    const on = plusOnLeg(of.wire, transistor, of.supply, at, of.loaded)
    if (!on) return undefined
    return {
      ...on,
      faults: [
        ...(of.plusShared ? [cantLieAbove(of, of.plusShared)] : []),
        ...aboveFaults(of, transistor, on),
        ...loadFaults(name, of.device, of.most, transistor, on),
        ...drain,
      ],
    }
  }
  const grounded = groundedFault(of)
  if (transistor.sort !== 'npn') {
    const on = switchOnLeg(of.wire, transistor, electrical.current, at)
    return {
      ...on,
      faults: [
        ...grounded,
        ...gateFault(name, transistor, on),
        ...loadFaults(name, of.device, of.most, transistor, on),
        ...drain,
      ],
    }
  }
  const on = baseOnLeg(of.wire, transistor, at)
  if (!on) return undefined
  const I_load = fromPart(
    'I_load',
    `what ${of.device} draws`,
    end.instance.part,
    `${end.signal.id}.current`,
    electrical.current,
    'A',
  )
  const heat =
    transistor.saturation &&
    sum(
      {
        label: `Heat in ${transistor.name}`,
        symbol: 'P',
        unit: 'W',
        note: 'Switched on all the time, saturated: in the collector, and in the base.',
      },
      {
        I_load,
        V_CE: fromPart(
          'V_CE',
          'falls in it, saturated',
          transistor,
          'saturation',
          transistor.saturation,
          'V',
        ),
        I_B: asVariable(on.current),
        V_BE: baseEmitterOf(transistor),
      },
      (i) => i.I_load.times(i.V_CE).plus(i.I_B.times(i.V_BE)),
    )
  const junction =
    heat && junctionOf(`Junction of the transistor of ${name}`, transistor, ambient, asVariable(heat))
  const warm = { ...(heat && { heat }), ...(junction && { junction }) }
  return {
    drive: on.current,
    ...warm,
    faults: [
      ...grounded,
      ...baseFaults(name, transistor, of.wire, on, at),
      ...unstated(name, transistor),
      ...loadFaults(name, of.device, of.most, transistor, warm),
      ...drain,
    ],
  }
}

/** In the plus of its load: what its gate gets there, whether it lets go in time, whether there is what pulls it. */
const aboveFaults = (of: SwitchedLoad, transistor: Transistor, on: PlusOnLeg): SwitchFault[] => {
  const { name } = of.wire.signal
  const { off, period, most } = on
  return [
    ...gateFault(name, transistor, on, say`The gate in the plus of ${of.device} gets`),
    ...(transistor.gateVoltage
      ? []
      : [
          {
            what: 'unknown' as const,
            severity: 'notes' as const,
            ...say`The sheet of ${transistor.name} doesn’t say what its gate stands: up to ${formatQuantity(most.value.max, 'V', 3)} lie on it while ${of.device} is on.`,
            because: [{ ...say`The whole supply of ${of.device} lies on the gate`, worked: most }],
          },
        ]),
    ...(period !== undefined && off.value.max > shareOfPulse * period
      ? [
          {
            what: 'slow' as const,
            severity: 'risks' as const,
            ...say`In the plus of ${of.device} ${transistor.name} is shut only ${formatQuantity(off.value.max, 's', 2)} after its line falls; pulses come every ${formatQuantity(period, 's', 2)}: it is half on for much of the time, gets hot, and ${of.device} gets more than the pulses say.`,
            because: [
              {
                ...say`A resistor empties its gate in up to ${formatQuantity(off.value.max, 's', 2)}`,
                worked: off,
              },
            ],
          },
        ]
      : []),
  ]
}

const cantLieAbove = (of: SwitchedLoad, why: string): SwitchFault => ({
  what: 'shared',
  severity: 'stops',
  ...say`${of.device} can’t be switched in its plus: ${why}.`,
  because: [say`What is switched off in the plus is off for all that hangs there`],
})

/** Nothing can lie in its plus yet, or at all. */
const noPull = (of: SwitchedLoad): SwitchFault =>
  of.supply
    ? noneToPull(of)
    : {
        what: 'unfed',
        severity: 'notes',
        ...say`Nothing feeds ${of.device} yet: what would lie in its plus, and what its gate gets, isn’t known, and is in no list.`,
        because: [say`Resistors at that gate are chosen by the voltage that it lies on`],
      }

const noneToPull = (of: SwitchedLoad): SwitchFault => ({
  what: 'none',
  severity: 'stops',
  ...say`Nothing in the library can pull the gate in the plus of ${of.device} low: that takes an n-channel MOSFET that the leg of ${of.wire.signal.name} turns on and that stands its supply, and resistors.`,
  because: [say`The supply of ${of.device} is on that gate, and no leg stands that`],
})

/** What lies on its housing is on, whatever a transistor below it does, as soon as that touches ground. */
const groundedFault = (of: SwitchedLoad): SwitchFault[] =>
  of.grounded
    ? [
        {
          what: 'grounded',
          severity: 'risks',
          ...say`The minus of ${of.device} lies on its housing: screwed to anything that is joined to ground it is on for good, past the transistor below it.`,
          because: [say`Its sheet joins minus and housing; in its plus a p-channel MOSFET can switch it`],
        },
      ]
    : []

const noResistors = (name: string): SwitchFault => ({
  what: 'unknown',
  severity: 'stops',
  ...say`There are no resistors in the library: the base of the transistor of ${name} can’t be driven.`,
  because: [say`A base is a diode to ground, and needs one in its line`],
})

const notJudged = (of: SwitchedLoad, transistor: Transistor): SwitchFault =>
  transistor.sort === 'p-mosfet' ? noPull(of) : noResistors(of.wire.signal.name)

/** With the faults of its diode. */
export const switchFaults = (of: SwitchedLoad, transistor: Transistor, at: Surroundings) => [
  ...(judge(of, transistor, at)?.faults ?? [notJudged(of, transistor)]),
  ...(of.diode ? diodeFaults(of.device, of.most, of.diode, of.supply) : []),
]

export interface RankedSwitch {
  part: Transistor
  /** In the plus: what pulls its gate. */
  with?: Transistor
  /** Of both, € */
  price: number
  chosen: boolean
  no: readonly { text: string }[]
  /** What speaks neither for nor against it. */
  unsure: readonly { text: string }[]
  /** Between gate and source, V; or into the base, A. Absent where there is nothing to give it that. */
  drive?: Worked
  heat?: Worked
  junction?: Worked
}

/** Whatever could switch one load. */
export interface RankedLoad {
  load: Omit<SwitchedLoad, 'wire'> & { name: string }
  ranked: RankedSwitch[]
}

/** Every transistor of the library that could lie below each load or in its plus; those that do first, the cheapest first among them. */
export const rankSwitches = (stages: Ready): RankedLoad[] => {
  const {
    design,
    library,
    chip: { chip },
    power: { rail },
  } = stages
  if (!chip || !rail) return []
  return switchedLoads(stages).map((of) => {
    const { wire, ...load } = of
    const latched = wire.signal.ends.some((e) => e.instance.part.latch)
    const at = { chip, rail, ambient: design.needs.limits.ambient, stock: stockOf(library), library }
    const ranked = partsOfKind(library, 'transistor')
      .filter((t) => t.sort !== 'pnp')
      .map((part): RankedSwitch => {
        const on: Partial<Judged> & Pick<Judged, 'faults'> = judge(of, part, at) ?? {
          faults: [notJudged(of, part)],
        }
        const said = (...severities: string[]) =>
          on.faults
            .filter((f) => severities.includes(f.severity))
            .map(({ text }) => ({ text: text.replace(/\.$/, '') }))
        // Below what its sheet knows, nobody knows what its channel is, or what falls in it.
        const known = !on.faults.some((f) => f.what === 'off' || f.what === 'weak')
        return {
          part,
          ...(on.pull && { with: on.pull }),
          price: part.price + (on.pull?.price ?? 0),
          chosen: part.id === of.transistor,
          no: [
            ...said('stops', 'risks'),
            ...(latched && part.sort !== 'n-mosfet'
              ? [say`a latch is held by an n-channel MOSFET here`]
              : []),
          ],
          unsure: said('notes'),
          ...(on.drive && { drive: on.drive }),
          ...(known && on.heat && { heat: on.heat }),
          ...(known && on.junction && { junction: on.junction }),
        }
      })
      .sort((a, b) => a.no.length - b.no.length || a.price - b.price)
    return { load: { ...load, name: wire.signal.name }, ranked }
  })
}

/** Those that would do in the place of the chosen one: below the load the cheapest first; in its plus where its minus lies on ground. */
export const otherSwitches = (of: SwitchedLoad, at: Surroundings): Transistor[] =>
  partsOfKind(at.library, 'transistor')
    .filter(
      (t) =>
        t.sort === (of.grounded ? 'p-mosfet' : 'n-mosfet') &&
        t.id !== of.transistor &&
        judge(of, t, at)?.faults.length === 0,
    )
    .sort((a, b) => a.price - b.price)
