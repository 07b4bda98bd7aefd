import { say } from '../findings'
import { formatQuantity, fullRange } from '../quantity'
import { polarityKey } from '../supply'
import { everyStance, supportChoice } from '../design'
import { type LoadedContext, sourceNet, type Undrawn } from './block'
import { guardedNet } from './entry'

declare module '../circuit/support' {
  interface SupportRoles {
    'polarity diode': true
    'polarity transistor': true
  }
}

export const guardKey = 'polarity-transistor'

/** A transistor in the plus against a source the wrong way round: drain towards the source, gate at ground. */
const transistor = ({ power, chip, supplies, design }: LoadedContext): Undrawn[] => {
  const lead = supplies.sources.find((s) => s.id === 'source')?.lead
  if (!lead?.guard || !power.source) return []
  const nets = { gate: 'GND', drain: guardedNet, source: sourceNet(supplies) }
  const volts = formatQuantity(fullRange(power.source.voltage).typ, 'V')
  return [
    {
      key: guardKey,
      role: 'polarity transistor',
      name: 'transistor against a source the wrong way round',
      part: lead.guard,
      legs: lead.guard.legs.map(({ leg, role }) => ({
        name: `${leg} ${role}`,
        net: nets[role as keyof typeof nets],
      })),
      series: true,
      why: 'is on by the source’s own voltage, and off when that is the wrong way round: its drain lies at the source',
      worked: power.input ? [power.input] : [],
      ...supportChoice(design, guardKey, everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Nothing joins ${power.source.name} to the board: the transistor lies in its plus.`,
        facts: [
          say`${power.source.name} the wrong way round puts −${volts} on the board, and ${chip.name} stands no less than ${formatQuantity(fullRange(chip.supply.absolute).min, 'V')}`,
        ],
      },
    },
  ]
}

/** What stops a source of the other polarity: a transistor, or a diode in series with its plug. */
export const polarity = (context: LoadedContext): Undrawn[] => {
  const { power, chip } = context
  if (!power.polarity || !power.source) return transistor(context)
  const { diode, present, asked, forced } = power.polarity
  const absolute = fullRange(chip.supply.absolute)
  return [
    {
      key: polarityKey,
      role: 'polarity diode',
      name: 'polarity diode',
      part: diode,
      legs: [
        { name: 'anode', net: 'VPLUG' },
        { name: 'cathode', net: power.regulator ? 'VIN' : 'VCC' },
      ],
      series: true,
      why: 'lets current in one way only, should a plug of the other polarity be put in',
      worked: power.input ? [power.input] : [],
      present,
      asked,
      forced,
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`A plug of the other polarity puts −${formatQuantity(fullRange(power.source.voltage).typ, 'V')} on a board that stands ${formatQuantity(absolute.min, 'V')}.`,
        facts: [
          say`${power.source.name} is ${power.source.polarity}; others with the same plug are not`,
          say`${chip.name} stands no less than ${formatQuantity(absolute.min, 'V')} at its supply (${chip.sheet}, ${chip.supply.absolute.source ?? 'absolute maximum'})`,
        ],
      },
    },
  ]
}
