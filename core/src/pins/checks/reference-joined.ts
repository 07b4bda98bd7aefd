import { type Check, say } from '../../findings'
import { legSaid } from '../../legs'

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
        ...say`The program must never choose the supply or an inner voltage as the reference: ${signal.name} drives ${legSaid(pin)} already.`,
        because: [
          say`${signal.name} is on ${legSaid(pin)}, the converter’s reference`,
          say`Most chips join the voltage that the program chooses to this leg: two sources then work against each other. See “reference” in ${chip!.sheet}`,
          say`Choose the outer reference before the first reading, and in each program that is tried on the board`,
        ],
        fixes: [],
        about: { signal: signal.id, pin: pin.id },
      })),
}
