import { type Check, say } from '../../findings'
import { legName, legSaid, attributeOf } from '../../legs'
import { moveToBest } from './cannot-serve'

const does = {
  chatter: 'carries pulses',
  'driven-high': 'is driven high',
  'pulled-up': 'is pulled high',
} as const

export const startupTwitch: Check = {
  id: 'pins.startup-twitch',
  stage: 'pins',
  looksFor: 'a load or select that must stay quiet, on a leg that moves before the program runs',
  rule: 'what the legs do at start-up, in the chip’s part file',
  run: (stages) =>
    (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const startup = attributeOf(wire.pin, 'startup')
      if (!wire.signal.quiet || wire.impossible || !startup) return []
      if (startup.state === 'floating' || startup.state === 'pulled-down' || startup.state === 'driven-low')
        return []
      return [
        {
          id: `pins.startup-twitch:${wire.signal.id}`,
          severity: startup.state === 'chatter' ? 'stops' : 'risks',
          ...say`${legName(wire.pin).replace(/^l/, 'L')} ${does[startup.state]} before the program runs, and ${wire.signal.name} follows it.`,
          because: [
            say`${wire.signal.name} is on ${legSaid(wire.pin)}, and must stay quiet until the program runs`,
            say`At start-up the leg ${does[startup.state]}${startup.reason ? `: ${startup.reason}` : ''} (${stages.chip.chip!.sheet}, ${startup.source ?? 'start-up'})`,
          ],
          fixes: moveToBest(stages, wire),
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}
