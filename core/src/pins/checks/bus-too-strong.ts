import { fittedResistor, fittedFor } from '../../circuit'
import { type Check, type Fix, fromWorked, say, unsaid } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { boardPulls, busWindow, together } from '../../support'
import { doWithout } from './fixes'

export const busTooStrong: Check = {
  id: 'pins.bus-too-strong',
  stage: 'pins',
  looksFor: 'pull-ups on the devices’ own boards that are together too small for a bus',
  rule: 'I2C-bus specification, section 7.1: R = (V_DD − V_OL) / I_OL at least',
  run: ({ chip: { chip }, pins, power }) =>
    (chip && power.rail ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const window = busWindow(wire, chip!, power.rail!)
      const smallest = window?.smallest.value.max ?? 0
      const ours = fittedFor(pins.support, 'line pull-up', wire.signal.id)
      if (!window?.fitted) return []
      const all =
        ours?.value && ours.part.kind === 'resistors'
          ? together(`All pull-ups on ${wire.signal.name}`, [
              { ...fromWorked(window.fitted), symbol: 'R_boards' },
              fittedResistor('R', ours.name, ours.part, ours.value, ours.key),
            ])
          : window.fitted
      if (all.value.min >= smallest) return []
      const pulling = wire.signal.ends.filter(
        (e) => e.signal.electrical.kind === 'open-drain' && e.signal.electrical.fitted,
      )
      const own = boardPulls(wire, chip!)
      const fixes = pulling.map(({ instance }): Fix => {
        const other = instance.part.wirings.find((w) => !w.signals.some((s) => s.bus === 'i2c'))
        return other
          ? {
              label: `Wire ${instance.need.name} by ${other.name}`,
              edits: [{ kind: 'setWiring', id: instance.need.id, wiring: other.id }],
            }
          : doWithout(instance.need)
      })
      return [
        {
          id: `pins.bus-too-strong:${wire.signal.id}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          ...say`The pull-ups of ${pulling.length + own.length} boards${ours ? say` and ours` : unsaid} on ${wire.signal.name} come to ${formatQuantity(all.value.min, 'Ω', 3)}; below ${formatQuantity(smallest, 'Ω', 3)} not every device can pull it low.`,
          because: [
            ...pulling.map(
              ({ instance }) => say`${instance.name} has a pull-up on its own board (${instance.part.sheet})`,
            ),
            ...own.map(
              (l) =>
                say`${chip!.name}: ${l.what}, ${formatQuantity(fullRange(l.resistance!).typ, 'Ω', 3)} (${l.source ?? chip!.sheet})`,
            ),
            { ...say`Together down to ${formatQuantity(all.value.min, 'Ω', 3)}`, worked: all },
            { ...say`At least ${formatQuantity(smallest, 'Ω', 3)}`, worked: window.smallest },
          ],
          fixes,
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}
