// Transistors that switch a load: whether each is turned on by the leg and stands the load, and which others of the library would.

import { type Finding, fromPart, fromRule, partOrigin, say, type Stages, type Worked } from '../findings'
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
import { sum } from '../sums'
import { voltageFor } from '../supply'
import { switchOnLeg } from '../support'

/** What is wrong with a switched load, before it is said of which. */
export interface SwitchFault extends Pick<Finding, 'severity' | 'text' | 'says' | 'because'> {
  what: 'off' | 'unknown' | 'weak' | 'current' | 'heat' | 'drain' | 'diode' | 'reverse'
}
type Switch = ReturnType<typeof switchOnLeg>

/** Whether the leg turns the transistor on. */
const gateFault = (name: string, transistor: Transistor, { drive }: Switch): SwitchFault[] => {
  const gate = drive.value.min
  const stated = (transistor.channel ?? []).map((c) => c.gate)
  const gets = { ...say`The gate gets ${formatQuantity(gate, 'V', 3)} at the least`, worked: drive }
  const { threshold } = transistor
  if (threshold && gate < fullRange(threshold).max)
    return [
      {
        what: 'off',
        severity: 'stops',
        ...say`The leg gives the gate of ${name} as little as ${formatQuantity(gate, 'V', 3)}; ${transistor.name} may need ${formatQuantity(fullRange(threshold).max, 'V')} to begin to conduct.`,
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
          ...say`The leg gives the gate of ${name} as little as ${formatQuantity(gate, 'V', 3)}; the sheet of ${transistor.name} says what its channel is from ${formatQuantity(from, 'V')} on.`,
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
  { junction, heat }: Switch,
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
  transistor: string
}

type Ready = Pick<Stages, 'design' | 'library' | 'chip' | 'pins' | 'power'>

/** Every load behind a transistor. */
export const switchedLoads = ({ library, pins, power: { supplies } }: Ready): SwitchedLoad[] =>
  (pins.plan?.wires ?? []).flatMap((wire) => {
    const [switched] = endsOf(wire, 'switched')
    if (!switched) return []
    const { end, electrical: load } = switched
    const diode = load.inductive ? findPart(library, 'diode', load.diode) : undefined
    return [
      {
        wire,
        signal: end.signal.id,
        need: end.instance.need.id,
        device: end.instance.name,
        most: fullRange(load.current).max,
        ...(diode && { diode }),
        supply: voltageFor(supplies, end.instance.need),
        transistor: load.transistor,
      },
    ]
  })

const onLeg = (of: SwitchedLoad, transistor: Transistor, chip: Chip, rail: Worked, ambient: number) => {
  const [switched] = endsOf(of.wire, 'switched')
  return switchOnLeg(of.wire, transistor, switched!.electrical.current, { chip, rail, ambient })
}

/** All that is wrong with this transistor at this load; of what stays the same whichever it is, nothing. */
const transistorFaults = (of: SwitchedLoad, transistor: Transistor, on: Switch): SwitchFault[] => {
  const { name } = of.wire.signal
  return [
    ...gateFault(name, transistor, on),
    ...loadFaults(name, of.device, of.most, transistor, on),
    ...drainFault(of.device, transistor, of.diode, of.supply),
  ]
}

/** With the faults of its diode. */
export const switchFaults = (
  of: SwitchedLoad,
  transistor: Transistor,
  chip: Chip,
  rail: Worked,
  ambient: number,
) => [
  ...transistorFaults(of, transistor, onLeg(of, transistor, chip, rail, ambient)),
  ...(of.diode ? diodeFaults(of.device, of.most, of.diode, of.supply) : []),
]

export interface RankedSwitch {
  part: Transistor
  chosen: boolean
  no: readonly { text: string }[]
  /** What speaks neither for nor against it. */
  unsure: readonly { text: string }[]
  /** Between gate and source, V; or into the base, A. */
  drive: Worked
  heat?: Worked
  junction?: Worked
}

/** Whatever could switch one load. */
export interface RankedLoad {
  load: Omit<SwitchedLoad, 'wire'> & { name: string }
  ranked: RankedSwitch[]
}

/** A bipolar one is saturated with a tenth of its load’s current in its base: its sheet says what falls in it then. */
const forced = 10

const bipolar = (of: SwitchedLoad, part: Transistor, chip: Chip): Omit<RankedSwitch, 'part' | 'chosen'> => {
  const [{ end, electrical }] = endsOf(of.wire, 'switched') as [ReturnType<typeof endsOf<'switched'>>[number]]
  const I_load = fromPart(
    'I_load',
    `what ${of.device} draws`,
    end.instance.part,
    `${end.signal.id}.current`,
    electrical.current,
    'A',
  )
  const drive = sum(
    { label: `Into the base of ${part.name}`, symbol: 'I_B', unit: 'A', counts: 'max' },
    {
      I_load,
      β: fromRule(
        'β',
        'collector over base, saturated',
        forced,
        '',
        'usual: its sheet states what falls in it at this',
      ),
    },
    (i) => i.I_load.over(i.β),
  )
  const heat =
    part.saturation &&
    sum(
      { label: `Heat in ${part.name}`, symbol: 'P', unit: 'W', note: 'Switched on all the time.' },
      { I_load, V_CE: fromPart('V_CE', 'falls in it, saturated', part, 'saturation', part.saturation, 'V') },
      (i) => i.I_load.times(i.V_CE),
    )
  const gives = fullRange(chip.limits.pinRecommended).max
  return {
    drive,
    ...(heat && { heat }),
    no: [
      ...(drive.value.max > gives
        ? [
            say`its base takes up to ${formatQuantity(drive.value.max, 'A', 2)} all the while, and a leg is good for ${formatQuantity(gives, 'A')}`,
          ]
        : []),
      ...(of.most > fullRange(part.current).max
        ? [
            say`${of.device} draws up to ${formatQuantity(of.most, 'A', 3)}, and it is made for ${formatQuantity(fullRange(part.current).max, 'A')}`,
          ]
        : []),
      say`what is fitted here drives a gate, not a base`,
    ],
    unsure: [],
  }
}

/** Every transistor of the library that could lie below each load; those that do first, the cheapest first among them. */
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
    const ranked = partsOfKind(library, 'transistor')
      .filter((t) => t.sort === 'n-mosfet' || t.sort === 'npn')
      .map((part): RankedSwitch => {
        const chosen = part.id === of.transistor
        if (part.sort === 'npn') return { part, chosen, ...bipolar(of, part, chip) }
        const on = onLeg(of, part, chip, rail, design.needs.limits.ambient)
        const faults = transistorFaults(of, part, on)
        const said = (...severities: string[]) =>
          faults
            .filter((f) => severities.includes(f.severity))
            .map(({ text }) => ({ text: text.replace(/\.$/, '') }))
        // Below what its sheet knows, nobody knows what its channel is.
        const known = !faults.some((f) => f.what === 'off' || f.what === 'weak')
        return {
          part,
          chosen,
          no: said('stops', 'risks'),
          unsure: said('notes'),
          drive: on.drive,
          ...(known && on.heat && { heat: on.heat }),
          ...(known && on.junction && { junction: on.junction }),
        }
      })
      .sort((a, b) => a.no.length - b.no.length || a.part.price - b.part.price)
    return { load: { ...load, name: wire.signal.name }, ranked }
  })
}

/** Those that would do in the place of the chosen one, the cheapest first. */
export const otherSwitches = (
  of: SwitchedLoad,
  library: Library,
  chip: Chip,
  rail: Worked,
  ambient: number,
): Transistor[] =>
  partsOfKind(library, 'transistor')
    .filter(
      (t) =>
        t.sort === 'n-mosfet' &&
        t.id !== of.transistor &&
        transistorFaults(of, t, onLeg(of, t, chip, rail, ambient)).length === 0,
    )
    .sort((a, b) => a.price - b.price)
