import { type Check, type Finding, partOrigin, type Worked, say } from '../../findings'
import { type Diode, findPart, siliconJunction, type Transistor } from '../../parts'
import { endsOf } from '../../legs'
import { formatQuantity, fullRange } from '../../quantity'
import { voltageFor } from '../../supply'
import { switchOnLeg } from '../../support'

/** What is wrong with a switched load, before it is said of which. */
interface Fault extends Pick<Finding, 'severity' | 'text' | 'says' | 'because'> {
  what: 'off' | 'unknown' | 'weak' | 'current' | 'heat' | 'drain' | 'diode' | 'reverse'
}
type Switch = ReturnType<typeof switchOnLeg>

/** Whether the leg turns the transistor on. */
const gateFault = (name: string, transistor: Transistor, { drive }: Switch): Fault[] => {
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
): Fault[] => {
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
): Fault[] => {
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
const diodeFaults = (device: string, most: number, diode: Diode, supply: Worked | undefined): Fault[] => {
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

const grades = { stops: 'impossible', risks: 'outside the sheet', notes: 'typical' } as const

/** The transistor and the diode of a switched load: whether the leg turns it on, and whether each stands the load. */
export const switchRating: Check = {
  id: 'pins.switch-rating',
  stage: 'pins',
  looksFor:
    'a load whose transistor is not turned on by its leg, or whose transistor or diode does not stand it',
  rule: 'gate voltages of the channel, recommended current, absolute voltage, heat at the project’s ambient',
  run: ({ design, library, chip: { chip }, pins, power: { rail, supplies } }) => {
    if (!chip || !rail) return []
    return (pins.plan?.wires ?? []).flatMap((wire) => {
      const { id, name } = wire.signal
      const [switched] = endsOf(wire, 'switched')
      if (!switched) return []
      const { end, electrical: load } = switched
      const transistor = findPart(library, 'transistor', load.transistor)
      if (!transistor) return []
      const on = switchOnLeg(wire, transistor, load.current, {
        chip,
        rail,
        ambient: design.needs.limits.ambient,
      })
      const most = fullRange(load.current).max
      const device = end.instance.name
      const diode = load.inductive ? findPart(library, 'diode', load.diode) : undefined
      const supply = voltageFor(supplies, end.instance.need)
      return [
        ...gateFault(name, transistor, on),
        ...loadFaults(name, device, most, transistor, on),
        ...drainFault(device, transistor, diode, supply),
        ...(diode ? diodeFaults(device, most, diode, supply) : []),
      ].map(({ what, ...fault }) => ({
        ...fault,
        id: `pins.switch-rating:${what}:${id}`,
        grade: grades[fault.severity],
        fixes: [],
        about: { signal: id, pin: wire.pin.id, device: end.instance.need.id },
      }))
    })
  },
}
