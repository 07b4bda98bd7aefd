import { stockOf } from '../../circuit'
import { type Check, say } from '../../findings'
import { legSaid } from '../../legs'
import { behindTheLeg } from '../../support'

/** What is not known can’t be judged: whether the converter fills through it in the time for a reading. */
export const readingUnknown: Check = {
  id: 'pins.reading-unknown',
  stage: 'pins',
  looksFor: 'a reading of which no sheet says through how much resistance it comes',
  rule: 'a converter reads to its last bit through so much resistance and no more',
  run: ({ design, library, chip: { chip }, power: { rail, supplies }, pins: { plan, reference } }) => {
    if (!chip || !rail) return []
    const context = { design, library, chip, rail, supplies, stock: stockOf(library), reference }
    return (plan?.wires ?? [])
      .filter(
        (w) =>
          w.unit?.kind === 'converter' &&
          w.signal.ends.some((e) => e.signal.electrical.kind === 'analog') &&
          !behindTheLeg(w, context),
      )
      .map((w) => ({
        id: `pins.reading-unknown:${w.signal.id}`,
        severity: 'notes' as const,
        grade: 'typical' as const,
        ...say`Through how much resistance ${w.signal.name} is read is not stated: whether it needs a capacitor at ${legSaid(w.pin)} is not decided.`,
        because: [
          say`${w.signal.ends[0]!.instance.part.sheet} names no resistance inside it`,
          say`Through too much a reading keeps some of what was read before it`,
        ],
        fixes: [],
        about: { signal: w.signal.id, pin: w.pin.id },
      }))
  },
}
