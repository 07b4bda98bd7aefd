// A button that switches the project’s supply on: the transistor that it puts into the plus, and what that takes away.

import type { Design, NeedDevice } from '../design'
import { fromPart, type Worked } from '../findings'
import { type Device, type Diode, findPart, type Library, type Source, type Transistor } from '../parts'
import { readCurve } from '../sums'

/** What the builder chose, or the button’s file proposes; absent where the library has no such part. */
export interface LatchParts {
  need: NeedDevice
  button: Device
  pass?: Transistor
  diode?: Diode
}

/** Devices that switch the project’s supply. One can; more are told. */
export const latchButtons = (
  { needs }: { needs: Pick<Design['needs'], 'devices'> },
  library: Library,
): { need: NeedDevice; button: Device }[] =>
  needs.devices.flatMap((need) => {
    const button = findPart(library, 'device', need.part)
    return button?.latch ? [{ need, button }] : []
  })

/** Undefined where nothing can lie in the plus: without such a button, without a source, and before a board, which has its own plug. */
export const latchParts = (
  design: Pick<Design, 'chip' | 'power'> & { needs: Pick<Design['needs'], 'devices'> },
  library: Library,
): LatchParts | undefined => {
  const { latch, source } = design.power
  const [first] = latchButtons(design, library)
  if (!first || !findPart(library, 'source', source) || findPart(library, 'board', design.chip.part))
    return undefined
  const { button } = first
  const pass = findPart(library, 'transistor', latch?.pass ?? button.latch!.pass)
  return {
    ...first,
    ...(pass?.sort === 'p-mosfet' ? { pass } : {}),
    diode: findPart(library, 'diode', latch?.diode ?? button.latch!.diode),
  }
}

/** Of its channel, with the gate pulled to ground; undefined where its sheet states none. */
export const passResistance = (pass: Transistor, source: Source): Worked | undefined =>
  pass.channel?.length
    ? readCurve(
        {
          label: `Channel of ${pass.name} in the plus`,
          symbol: 'R_DS',
          unit: 'Ω',
          note: 'Its gate is at ground, so all of the source’s voltage is between gate and source. Beyond the sheet’s gate voltages as at the nearest.',
        },
        {
          part: pass,
          field: 'channel',
          points: pass.channel.map((p) => ({ x: p.gate, y: { source: p.source, ...p.resistance } })),
          held: true,
        },
        ['V_source', fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')],
      )
    : undefined
