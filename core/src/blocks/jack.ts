import { fittedResistor, preferred, type Stock, type SupportPart, twoLegs } from '../circuit'
import { type Design, everyStance, supportChoice } from '../design'
import { fromPart, say } from '../findings'
import type { Connector, Source } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asStated } from '../sums'
import type { Undrawn } from './block'
import { type BoardPart, bridge, type StepCheck } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    /** What a plug that gives nothing by itself waits for. */
    'asking resistor': true
  }
}

/** Its contacts: of a jack for hollow plugs leg 1 is the pin, which is the plug’s centre, and leg 2 the sleeve. */
export const jackLegs = (jack: Connector, source: Source, plus: string): SupportPart['legs'] => {
  const { polarity } = source
  const [p, m] = [
    { sign: '+', net: plus },
    { sign: '−', net: 'GND' },
  ]
  if (jack.sort !== 'barrel jack')
    return [
      ...[p, m].map(({ sign, net }) => ({ name: sign, net })),
      ...(source.waits && !jack.asks ? asking.map((n) => ({ name: `CC${n}`, net: askNet(plus, n) })) : []),
    ]
  const [centre, outside] = polarity === 'centre negative' ? [m, p] : [p, m]
  return [
    { name: `pin ${centre.sign}`, net: centre.net },
    { name: `sleeve ${outside.sign}`, net: outside.net },
  ]
}

/** Whichever way round the plug is in, one of its two contacts finds its resistor. */
const asking = [1, 2] as const
/** Each plug’s plus has a net of its own, and so have its asking contacts. */
const askNet = (plus: string, n: (typeof asking)[number]) => `${plus}_ASK${n}`

/** The two resistors for which a source waits, where they are not on its jack; none where the drawer has no resistors. */
export const askingParts = (
  jack: Connector,
  source: Source,
  plus: string,
  { design, stock }: { design: Design; stock: Stock },
): Undrawn[] => {
  const { waits } = source
  const { resistors } = stock
  if (!waits || jack.asks || !resistors) return []
  return asking.map((n): Undrawn => {
    const key = `ask:${plus}:${n}`
    const name = `asking resistor ${n} of ${source.name}`
    const value = preferred(resistors, fullRange(waits).typ, 'nearest')
    return {
      key,
      role: 'asking resistor',
      name,
      part: resistors,
      value: { ...value, unit: 'Ω' },
      legs: twoLegs(askNet(plus, n), 'GND'),
      why: `${source.name} gives nothing until it finds about ${formatQuantity(fullRange(waits).typ, 'Ω')} here; one for each way round its plug goes in, never one for both`,
      worked: [
        asStated(`Between CC${n} and GND`, 'R_d', 'Ω', fittedResistor('R_d', name, resistors, value, key)),
        asStated(
          `${source.name} waits for`,
          'R_w',
          'Ω',
          fromPart('R_w', source.name, source, 'waits', waits, 'Ω'),
        ),
      ],
      ...supportChoice(design, key, everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Without it ${source.name} gives nothing, one way round its plug or the other.`,
        facts: [
          say`${source.sheet}: it waits for ${formatQuantity(fullRange(waits).typ, 'Ω')} at each of two contacts`,
        ],
      },
    }
  })
}

/** What a meter says of them, plug out: with both on one contact, or the contacts joined, one reads half or nothing. */
export const askingChecks = (own: readonly BoardPart[]): StepCheck[] =>
  own.flatMap(({ ref, legs, support }) =>
    support?.role === 'asking resistor' && support.present
      ? [
          bridge(
            `${ref}: between ${legs[0]!.net} and GND, nothing plugged in`,
            support,
            'half of it: both resistors are on one contact; nothing: the plug gives nothing one way round',
          ),
        ]
      : [],
  )
