// The circuit of a latch: a p-channel transistor in the plus whose gate a resistor holds off, and a button or the program pulls low.

import { preferred, type Stock } from '../circuit'
import { type Design, sourceOf } from '../design'
import { fromPart, type Worked, type WorkedInput } from '../findings'
import { endsOf, type Wire } from '../legs'
import { findPart, type Library, type Rated, type Resistors, type Source, type Transistor } from '../parts'
import type { PinsResult } from '../pins'
import { gateLeakageOf, largestHolding, offCurrent } from '../support'
import { latchParts, type LatchParts } from '../supply'
import { dimensionOf, sum, type Term, total } from '../sums'

export interface LatchPlan extends LatchParts {
  source: Source
  pass: Transistor
  /** The leg that holds, and the transistor by which it does; absent while there is no leg for it. */
  hold?: Wire
  pull?: Transistor
  /** The leg that reads the button, in a wiring that does. */
  key?: Wire
  /** Whether the program can read the button: then both hang on it by diodes. */
  readable: boolean
  resistors: Resistors
  pullUp: ReturnType<typeof preferred>
  /** What draws the gate down while everything is off, A. */
  leak: Worked
  /** The largest resistor that holds it off for all that, Ω. */
  largest: Worked
}

/** What no sheet of ours states: usual small parts at room temperature. */
const assumed = {
  diode: { typ: 0.1e-6, max: 5e-6, kind: 'assumed' },
} satisfies Record<string, Rated>

/** A resistor above this picks up what is near, and dirt and damp decide, Ω. */
const cleanBoard = 100e3

const leakOnGate = ({
  pass,
  pull,
  diode,
  key,
}: Pick<LatchPlan, 'pass' | 'pull' | 'diode' | 'key'>): Worked => {
  const contact = key && endsOf(key, 'contact')[0]
  const inputs: Record<string, WorkedInput> = {
    I_gate: gateLeakageOf(pass),
    ...(pull && { I_pull: offCurrent('I_pull', pull) }),
    ...(contact?.electrical.leakage && {
      I_button: fromPart(
        'I_button',
        'through the open button',
        contact.end.instance.part,
        `${contact.end.signal.id}.leakage`,
        contact.electrical.leakage,
        'A',
      ),
    }),
    ...(contact &&
      diode && {
        I_diode: fromPart(
          'I_diode',
          `through ${diode.name} into the leg of the chip that is off`,
          diode,
          'leakage',
          diode.leakage ?? assumed.diode,
          'A',
        ),
      }),
  }
  return sum(
    { label: 'Leakage on the gate', symbol: 'I_leak', unit: 'A', counts: 'max' },
    inputs,
    (i: Record<string, Term>) => total(Object.values(i), dimensionOf('A')),
  )
}

/** Undefined where there is none that can be planned: see `latchParts`. */
export const planLatch = (
  {
    design,
    library,
    stock,
  }: { design: Pick<Design, 'chip' | 'power' | 'needs'>; library: Library; stock: Stock },
  { plan }: Pick<PinsResult, 'plan'>,
): LatchPlan | undefined => {
  const parts = latchParts(design, library)
  const source = sourceOf(design, library)
  const { resistors } = stock
  if (!parts?.pass || !source || !resistors) return undefined
  const { need, button, pass, diode } = parts
  const wiring = button.wirings.find((w) => w.id === need.wiring) ?? button.wirings[0]!
  const wires = plan?.wires.filter((w) => w.signal.ends.some((e) => e.instance.need.id === need.id)) ?? []
  const hold = wires.find((w) => endsOf(w, 'switched').length > 0)
  const key = wires.find((w) => endsOf(w, 'contact').length > 0)
  const transistor = wiring.signals.flatMap(({ electrical: e }) =>
    e.kind === 'switched' ? [e.transistor] : [],
  )
  const pull = findPart(library, 'transistor', transistor[0])
  const readable = wiring.signals.some((s) => s.electrical.kind === 'contact')
  const leak = leakOnGate({ pass, pull, diode, key })
  const largest = largestHolding('Largest resistor from gate to source', pass, leak)
  const wanted = design.power.latch?.pullUp
  return {
    need,
    button,
    pass,
    diode,
    source,
    hold,
    pull,
    key,
    readable,
    resistors,
    pullUp:
      wanted === undefined
        ? preferred(resistors, Math.min(cleanBoard, largest.value.min / (1 + resistors.tolerance)), 'down')
        : preferred(resistors, wanted, 'nearest'),
    leak,
    largest,
  }
}
