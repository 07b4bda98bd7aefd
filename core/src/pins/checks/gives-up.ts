import { type Check, type Fact, say, type Sentence } from '../../findings'
import { legSaid, type Wire, attributeOf } from '../../legs'
import { moveToBest } from './cannot-serve'
import { driverOf } from './programming-fight'
import { strapHeld } from './strap-held'

interface Loss {
  severity: 'risks' | 'notes'
  text: string
  says: Sentence
  facts: Fact[]
}

/** What a wire takes from the legs by which the chip is debugged, started or loaded. */
const lossOf = (wire: Wire, sheet: string, contacts: readonly string[]): Loss | undefined => {
  const { pin, signal } = wire
  const debug = attributeOf(pin, 'debug')
  if (debug) {
    const only = contacts.includes(pin.id)
    return {
      severity: only ? 'risks' : 'notes',
      ...(only
        ? say`${signal.name} takes ${legSaid(pin)}, by which the chip is programmed and debugged.`
        : say`${signal.name} takes ${legSaid(pin)}: the debugger loses its ${debug.signal}.`),
      facts: [
        say`${pin.id} is the debugger’s ${debug.signal} (${sheet}, ${debug.source ?? 'debug'})`,
        ...(only
          ? [
              say`The programming header has it too: while a program is loaded, the device follows the programmer`,
            ]
          : []),
        say`A program that uses the leg shuts the debugger out until the chip is held in reset`,
      ],
    }
  }
  const link = attributeOf(pin, 'download-link')
  if (link && !driverOf(wire))
    return {
      severity: 'notes',
      ...say`${signal.name} shares ${legSaid(pin)} with the line that programs are loaded over.`,
      facts: [
        say`${pin.id}: ${link.reason ?? 'the download link'} (${sheet}, ${link.source ?? 'programming'})`,
        say`Whatever hangs there moves while a program is loaded, and the program’s own messages are gone`,
      ],
    }
  const strap = attributeOf(pin, 'strap')
  if (strap)
    return {
      severity: 'notes',
      ...say`${signal.name} hangs on ${legSaid(pin)}, which is sampled at reset and must then be ${strap.needs}.`,
      facts: [
        say`Low at reset: ${strap.low}; high: ${strap.high} (${sheet}, ${strap.source ?? 'straps'})`,
        say`What is on the line today leaves it right; a device put there later may not`,
      ],
    }
  return undefined
}

export const givesUp: Check = {
  id: 'pins.gives-up',
  stage: 'pins',
  looksFor: 'a debug leg, a strap or a line of the download link that a signal takes',
  rule: 'what the legs are for before the program runs, in the chip’s part file',
  run: (stages) => {
    const { chip } = stages.chip
    if (!chip) return []
    const contacts = chip.programming.flatMap((p) => p.contacts.map((c) => c.at))
    // A strap that is held wrong is told by its own check.
    const held = new Set(strapHeld.run(stages).map((f) => f.about?.signal))
    return (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const isTold = attributeOf(wire.pin, 'strap') && held.has(wire.signal.id)
      const loss = wire.impossible || isTold ? undefined : lossOf(wire, chip.sheet, contacts)
      return loss
        ? [
            {
              id: `pins.gives-up:${wire.signal.id}`,
              severity: loss.severity,
              text: loss.text,
              says: loss.says,
              because: [say`${wire.signal.name} is on ${legSaid(wire.pin)}`, ...loss.facts],
              fixes: wire.signal.at ? [] : moveToBest(stages, wire),
              about: { signal: wire.signal.id, pin: wire.pin.id },
            },
          ]
        : []
    })
  },
}
