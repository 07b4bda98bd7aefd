import { voltageFor } from '../supply'
import { askingChecks } from './jack'
import { sourceNet, type SupportBlock } from './block'
import { sourceCautions } from './cautions'
import { latchNet } from './latch'
import { polarity } from './polarity'
import { regulator } from './regulator'
import { entry, guardedNet } from './entry'
import { innerDiode, notShorted, volts } from './step'

/** A junction above this burns fingers at its case, °C. */
export const burns = 60

/** How the supply comes in: its jack, the diode that guards it, the regulator with its capacitors. */
export const supply: SupportBlock = {
  name: 'supply',
  loadedParts: (context) => [...entry(context), ...polarity(context), ...regulator(context)],
  step: (own, { power, rail, latch }) => {
    const before = voltageFor(power.supplies, { fedBy: 'source' })
    const hot = (power.regulation?.junction.value.max ?? 0) > burns
    const guard = power.supplies.sources.find((s) => s.id === 'source')?.lead?.guard
    const behind = sourceNet(power.supplies)
    return {
      title: power.regulator ? 'Supply and regulator' : 'Supply',
      then: latch
        ? [
            `A wire from ${latchNet} to ${sourceNet(power.supplies)} for now, in the place of the latch: that is fitted last.`,
          ]
        : [],
      checks: [
        ...askingChecks(own),
        ...(power.regulation
          ? [
              {
                where: 'between VCC and GND, red lead on VCC',
                powered: false,
                ...notShorted,
                otherwise:
                  'a reading near 0 Ω is a short: look for a bridge of solder at the regulator; do not plug in',
              },
            ]
          : []),
        // Turned round it would let all current through, of either polarity: only its inner diode tells.
        ...(guard
          ? [
              {
                where: `between ${guardedNet} and ${behind}, red lead on ${guardedNet}, the meter set to diodes`,
                powered: false,
                ...innerDiode,
                otherwise: `nothing, and a reading the other way: drain and source of ${guard.name} are exchanged, and a plug of the other polarity would go through; do not plug in`,
              },
            ]
          : []),
        // Nothing hangs on it yet: what falls in the diode is what falls at next to no current.
        ...(before && power.regulator
          ? [
              volts(
                'between VIN and GND',
                before,
                guard
                  ? `nothing: the gate of ${guard.name} isn’t at GND, or the plug has the other polarity`
                  : power.polarity?.present
                    ? 'nothing: the polarity diode is the wrong way round, or the plug has the other polarity'
                    : 'nothing, or negative: the plug has the other polarity',
              ),
            ]
          : []),
        volts(
          'between VCC and GND',
          rail,
          power.regulator
            ? 'too low: regulator turned round or its input sags; too high: ground leg of the regulator is open'
            : 'nothing, or negative: the source is the other way round; too high: it is another source than planned. The chip stays out',
        ),
      ],
      cautions: ['iron', 'eyes', ...sourceCautions(power.source), ...(hot ? (['heat'] as const) : [])],
    }
  },
}
