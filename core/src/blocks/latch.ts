import { type Leg, type SupportPart, twoLegs } from '../circuit'
import { everyStance, supportChoice } from '../design'
import { fromPart, type Said, say } from '../findings'
import { latchStandby, latchHolding, planLatch, type LatchPlan } from '../latch'
import type { Transistor } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { type BlockContext, sourceNet, type StepContext, type SupportBlock } from './block'
import { sourceCautions } from './cautions'
import { apart, type BoardPart, volts } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    'latch transistor': true
    'latch pull-up': true
    'latch diode': true
  }
}

/** Where the source comes in before the latch. */
export const latchNet = 'VCELL'

const planIn = ({ design, library, stock, pins }: BlockContext) => planLatch({ design, library, stock }, pins)

const legsOf = ({ legs }: Transistor, nets: Partial<Record<string, string>>): Leg[] =>
  legs.map(({ leg, role }) => ({ name: `${leg} ${role}`, net: nets[role] ?? '' }))

const netsOf = ({
  hold,
  key,
}: LatchPlan): Record<'gate', string> & Partial<Record<'key' | 'button', string>> => ({
  gate: hold ? `${hold.signal.net}_LOW` : 'LATCH_GATE',
  key: key?.signal.net,
  button: key ? `${key.signal.net}_BUTTON` : undefined,
})

const parts = (context: BlockContext): SupportPart[] => {
  const plan = planIn(context)
  if (!plan) return []
  const { design } = context
  const { need, pass, resistors, pullUp, leak, largest, diode, source } = plan
  const nets = netsOf(plan)
  const part = (
    key: string,
    of: Pick<SupportPart, 'role' | 'name' | 'part' | 'legs' | 'why' | 'worked'> & Partial<SupportPart>,
    risk: Said,
    ...facts: SupportPart['risk']['facts']
  ): SupportPart => ({
    key,
    ...of,
    ...supportChoice(design, key, everyStance),
    risk: { severity: 'stops', grade: 'impossible', ...risk, facts },
  })
  const least = formatQuantity(fullRange(pass.threshold ?? { typ: 1 }).min, 'V')
  return [
    part(
      'latch-transistor',
      {
        role: 'latch transistor',
        name: 'transistor of the latch',
        part: pass,
        legs: legsOf(pass, { gate: nets.gate, drain: sourceNet(context.supplies), source: latchNet }),
        why: `lies in the plus of ${source.name}; ${need.name} and the program switch it`,
        worked: [],
      },
      say`Without it nothing comes from ${source.name} to the board.`,
      say`The plus of ${source.name} ends at it`,
    ),
    part(
      'latch-pull-up',
      {
        role: 'latch pull-up',
        name: 'resistor that holds the latch off',
        part: resistors,
        value: pullUp,
        legs: twoLegs(latchNet, nets.gate),
        why: `holds the gate at the source, so that the transistor is off until the button or the program pulls it down`,
        worked: [largest, leak],
        draws: latchHolding(plan),
        drawsFrom: 'source',
      },
      say`Without it the gate floats: leakage switches the project on, or keeps it on for ever.`,
      { ...say`Up to ${formatQuantity(leak.value.max, 'A', 2)} leak off the gate`, worked: leak },
      say`${pass.name} begins to carry from ${least}`,
    ),
    ...(nets.key && nets.button && diode
      ? (
          [
            [
              'latch-diode-gate',
              'diode from the gate to the button',
              nets.gate,
              'lets the button pull the gate down, and not the program’s hold the leg that reads the button',
              say`Without it the button doesn’t reach the gate: nothing switches the project on.`,
              say`The button pulls the gate down through it`,
            ],
            [
              'latch-diode-key',
              'diode from the leg to the button',
              nets.key,
              'lets the button pull the leg low, and keeps the source’s voltage at the gate off a chip that is off',
              say`Without it the leg that is to read the button is joined to nothing.`,
              say`The button pulls the leg low through it`,
            ],
          ] as const
        ).map(([key, name, anode, why, risk, fact]) =>
          part(
            key,
            {
              role: 'latch diode',
              name,
              part: diode,
              legs: [
                { name: 'anode', net: anode },
                { name: 'cathode', net: nets.button! },
              ],
              why,
              worked: [],
            },
            risk,
            fact,
          ),
        )
      : []),
  ]
}

/** It is fitted when all the rest works: until then a wire is in its place. */
const step = (own: BoardPart[], { power, rail, latch, charging }: StepContext) => {
  const transistor = own.find((p) => p.support?.role === 'latch transistor')
  const net = (role: string) => transistor?.legs.find((l) => l.name.endsWith(role))?.net
  const [from, to] = [net('source') ?? latchNet, net('drain') ?? 'VCC']
  const source = power.source?.name ?? 'the source'
  // What guards the cell draws in front of the meter, and isn’t seen by it.
  const charger = charging?.charger
  const standby =
    latch &&
    latchStandby(
      latch,
      charger && { I_back: fromPart('I_back', charger.name, charger, 'back', charger.back, 'A') },
    )
  return {
    title: 'Latch',
    then: [
      'The program that holds comes first: without it the project goes off as soon as the button is let go.',
      `Unplug ${source} and the programmer, and take the wire between ${from} and ${to} out.`,
    ],
    checks: [
      {
        where: `between ${from} and ${to}, red lead on ${from}, unplugged`,
        powered: false,
        ...apart,
        otherwise: 'the wire is still in, or drain and source are exchanged: the diode inside carries',
      },
      ...(standby
        ? [
            {
              where: `in the plus of ${source}, button not pressed yet`,
              powered: true,
              expect: { max: standby.value.max, unit: 'A' as const },
              worked: standby,
              otherwise:
                'it is on by itself: the gate is not held at the source, or the transistor is turned round',
            },
          ]
        : []),
      volts(
        'between VCC and GND, button pressed',
        rail,
        'nothing: the gate isn’t pulled low; too low: the transistor is not fully on',
      ),
      volts(
        'between VCC and GND, button let go again, the program holding',
        rail,
        'it goes off with the button: the program doesn’t hold yet, or not soon enough',
      ),
    ],
    cautions: ['iron' as const, 'two-supplies' as const, 'meter' as const, ...sourceCautions(power.source)],
  }
}

export const latch: SupportBlock = { name: 'latch', parts, step, last: true }
