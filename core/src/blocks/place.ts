import type { SupportBlock } from './block'
import { bulk } from './bulk'
import { decoupling } from './decoupling'
import { socket } from './socket'
import { joined, volts } from './step'

/** Where the chip will be: its socket, and the capacitors that hold its supply. */
export const place: SupportBlock = {
  name: 'chip’s place',
  parts: (context) => [...socket(context), ...decoupling(context)],
  loadedParts: bulk,
  evenWithoutParts: true,
  step: (_, { chip, rail }) => {
    const on = (net: string) => chip.legs.filter((l) => l.net === net)
    const words = (net: string) =>
      on(net)
        .map((l) => `leg ${l.name.split(' ')[0]}`)
        .join(', ')
    return {
      title: 'Chip’s place, decoupling and rails',
      then: [`Wire ${words('VCC')} to VCC and ${words('GND')} to GND. The chip stays out.`],
      checks: [
        ...on('VCC').map((l) =>
          volts(
            `leg ${l.name.replace(' ', ' (')}) against GND, before the chip goes in`,
            rail,
            'nothing: this leg is not joined to the rail; count the legs again from the notch',
          ),
        ),
        ...on('GND').map((l) => ({
          where: `leg ${l.name.replace(' ', ' (')}) to the plug’s negative`,
          powered: false,
          ...joined,
          otherwise: 'ground is on the leg beside it: count again from the notch',
        })),
      ],
      cautions: ['iron', 'eyes'],
    }
  },
}
