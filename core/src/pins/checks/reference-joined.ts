import type { Check } from '../../findings'
import { legName } from '../../legs'

export const referenceJoined: Check = {
  id: 'pins.reference-joined',
  stage: 'pins',
  looksFor: 'a reference of one’s own on a leg that the program can join to the supply',
  rule: 'the reference leg’s inner switch; caution where the sheet is silent',
  run: ({ pins, chip: { chip } }) =>
    (chip ? (pins.plan?.wires ?? []) : [])
      .filter((w) => w.signal.kind === 'reference' && !w.impossible)
      .map(({ signal, pin }) => ({
        id: `pins.reference-joined:${signal.id}`,
        severity: 'notes' as const,
        text: `The program must never choose the supply or an inner voltage as the reference: ${signal.name} drives ${legName(pin)} already.`,
        because: [
          { text: `${signal.name} is on ${legName(pin)}, the converter’s reference` },
          {
            text: `Most chips join the voltage that the program chooses to this leg: two sources then work against each other. See “reference” in ${chip!.sheet}`,
          },
          {
            text: 'Choose the outer reference before the first reading, and in each program that is tried on the board',
          },
        ],
        fixes: [],
        about: { signal: signal.id, pin: pin.id },
      })),
}
