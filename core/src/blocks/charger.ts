import { type SupportPart, twoLegs } from '../circuit'
import { planCharging, setKey } from '../charging'
import { everyStance, supportChoice } from '../design'
import { fromPart, type Said, say } from '../findings'
import type { Charger } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asStated } from '../sums'
import { jackOf } from '../supply'
import { askedCapacitor } from './asked-capacitor'
import type { BlockContext, StepContext, SupportBlock } from './block'
import { sourceCautions } from './cautions'
import { sourceTerminal } from './entry'
import { askingChecks, askingParts, jackLegs } from './jack'
import { type BoardPart, bridge, volts } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    charger: true
    'charge entry': true
    'charge resistor': true
    'charger capacitor': true
  }
}

const [inNet, setNet] = ['VCHARGE', 'CHARGE_SET']

const planIn = ({ design, library, stock }: BlockContext) => planCharging({ design, library, stock })

const parts = (context: BlockContext): SupportPart[] => {
  const plan = planIn(context)
  if (!plan) return []
  const { design, library, supplies } = context
  const { charger, cell, from, resistors, set, current } = plan
  const cellNet = sourceTerminal(supplies)
  const nets: Record<Charger['legs'][number]['role'], string> = {
    in: inNet,
    out: cellNet,
    ground: 'GND',
    set: setNet,
    none: '',
  }
  const needed = (key: string, risk: Said) => ({
    ...supportChoice(design, key, everyStance),
    risk: {
      severity: 'stops' as const,
      grade: 'impossible' as const,
      ...risk,
      facts: [say`${cell.name} is charged through it`],
    },
  })
  const jack = from && jackOf(library, from)
  return [
    ...(jack
      ? [
          {
            key: 'charger-entry',
            role: 'charge entry' as const,
            name: `jack for charging, ${from.name}`,
            part: jack,
            legs: jackLegs(jack, from, inNet),
            why: `${from.plug}, ${from.polarity}; its plus goes to the charger alone`,
            worked: [],
            ...needed('charger-entry', say`Nothing brings ${from.name} to the charger.`),
          },
          ...askingParts(jack, from, inNet, context),
        ]
      : []),
    {
      key: 'charger',
      role: 'charger',
      name: 'charger',
      part: charger,
      legs: charger.legs
        .filter((l) => l.role !== 'none')
        .map((l) => ({ name: `${l.leg} ${l.name}`, net: nets[l.role] })),
      why: `brings ${cell.name} to ${formatQuantity(fullRange(charger.voltage).typ, 'V')}`,
      worked: [],
      draws: asStated(
        `Out of the cell into ${charger.name}`,
        'I_back',
        'A',
        fromPart('I_back', charger.name, charger, 'back', charger.back, 'A'),
      ),
      drawsFrom: 'source',
      ...needed('charger', say`Nothing charges ${cell.name}.`),
    },
    {
      key: setKey,
      role: 'charge resistor',
      name: 'resistor that sets the charger’s current',
      part: resistors,
      value: set,
      legs: twoLegs(setNet, 'GND'),
      why: `sets ${formatQuantity(current.value.typ, 'A', 3)}`,
      worked: [current],
      ...needed(setKey, say`Without it the charger gives nothing.`),
    },
    ...(['input', 'output'] as const).flatMap((side) => {
      const [field, net] =
        side === 'input' ? (['inputCapacitor', inNet] as const) : (['outputCapacitor', cellNet] as const)
      const least = charger[field]
      return askedCapacitor(
        charger,
        {
          key: side === 'input' ? 'charger-in' : 'charger-out',
          role: 'charger capacitor',
          name: `capacitor at the charger’s ${side}`,
          net,
          least,
          evenWeakest: true,
          field,
          risk: say`The charger may oscillate with less than ${formatQuantity(least, 'F')} at its ${side}.`,
        },
        context,
      )
    }),
  ]
}

/** Measured with the cell in: without one a charger’s output jumps between full and nothing. */
const step = (own: BoardPart[], { power, charging }: StepContext) => {
  const resistor = own.find((p) => p.support?.role === 'charge resistor')?.support
  const { from, current, cell } = charging ?? {}
  const V_from =
    from &&
    asStated(
      `Voltage of ${from.name}`,
      'V_from',
      'V',
      fromPart('V_from', from.name, from, 'voltage', from.voltage, 'V'),
    )
  return {
    title: 'Charger',
    checks: [
      ...askingChecks(own),
      ...(resistor
        ? [
            bridge(
              `between ${setNet} and GND, unplugged`,
              resistor,
              'another value: the charger is set to another current',
            ),
          ]
        : []),
      ...(V_from
        ? [
            volts(
              `between ${inNet} and GND, ${from.name} plugged in`,
              V_from,
              'nothing, or negative: the plug is the other way round',
            ),
          ]
        : []),
      ...(current && cell && from
        ? [
            {
              where: `in the plus of ${cell.name}, half empty, ${from.name} plugged in`,
              powered: true,
              expect: { min: current.value.min, max: current.value.max, unit: 'A' as const },
              worked: current,
              otherwise:
                'less: the cell is nearly full, or the port gives no more; more: take it out at once, another resistor is fitted',
            },
          ]
        : []),
    ],
    cautions: [
      'iron' as const,
      'eyes' as const,
      'charging' as const,
      'heat' as const,
      'meter' as const,
      ...sourceCautions(power.source),
    ],
  }
}

export const charger: SupportBlock = { name: 'charger', parts, step }
