import type { Check, Fix } from '../../findings'
import type { Instance } from '../../needs'

/** Addresses that the I2C-bus specification keeps for itself: 0000xxx and 1111xxx. */
export const isReserved = (address: number): boolean => address < 0x08 || address > 0x77

const hex = (address: number) => `0x${address.toString(16).toUpperCase().padStart(2, '0')}`
const offered = ({ wiring }: Instance): number[] => [
  ...(wiring.address === undefined ? [] : [wiring.address]),
  ...(wiring.addresses ?? []).map((a) => a.address),
]

export const addressClash: Check = {
  id: 'pins.address-clash',
  stage: 'pins',
  looksFor: 'two devices that answer to one address on a bus',
  rule: 'I2C-bus specification: every device on a bus has an address of its own',
  run: ({ needs, chip, pins }) => {
    const bus = pins.plan?.wires.find((w) => w.signal.bus?.kind === 'i2c')?.unit?.id
    const onBus = needs.instances.filter((i) => i.wiring.signals.some((s) => s.bus === 'i2c'))
    const owners = new Map<number, { name: string; instance?: Instance }[]>()
    for (const fixed of chip.chip?.board?.addresses ?? [])
      if (fixed.unit === bus) owners.set(fixed.address, [{ name: `${fixed.what}, on the board` }])
    for (const instance of onBus)
      if (instance.wiring.address !== undefined)
        owners.set(instance.wiring.address, [
          ...(owners.get(instance.wiring.address) ?? []),
          { name: instance.name, instance },
        ])
    return [...owners]
      .filter(([, list]) => list.length > 1)
      .map(([address, list]) => {
        const names = list.map((o) => o.name)
        const fixes = list.flatMap(({ instance }): Fix[] => {
          if (!instance) return []
          const { need } = instance
          const free = offered(instance).find((a) => !owners.has(a) && !isReserved(a))
          const variant = instance.part.variants?.find(
            (v) => v.address !== undefined && !owners.has(v.address) && v.id !== need.variant,
          )
          const other = instance.part.wirings.find((w) => !w.signals.some((s) => s.bus === 'i2c'))
          return [
            ...(free === undefined
              ? []
              : [
                  {
                    label: `Give ${need.name} address ${hex(free)}`,
                    edits: [{ kind: 'setAddress' as const, id: need.id, address: free }],
                  },
                ]),
            ...(variant
              ? [
                  {
                    label: `Take ${variant.name} of ${need.name}, which answers to ${hex(variant.address!)}`,
                    edits: [{ kind: 'setVariant' as const, id: need.id, variant: variant.id }],
                  },
                ]
              : []),
            ...(other
              ? [
                  {
                    label: `Wire ${need.name} by ${other.name}`,
                    edits: [{ kind: 'setWiring' as const, id: need.id, wiring: other.id }],
                  },
                ]
              : []),
          ]
        })
        return {
          id: `pins.address-clash:${address}`,
          severity: 'stops',
          grade: 'impossible',
          text: `${names.slice(0, -1).join(', ')} and ${names.at(-1)} all answer to ${hex(address)} on the I2C bus.`.replace(
            names.length === 2 ? ' all answer' : ' no such words',
            ' both answer',
          ),
          because: [
            ...list.map((o) => ({
              text: `${o.name} answers to ${hex(address)}${o.instance ? ` (${o.instance.part.sheet})` : ` (${chip.chip!.board!.sheet})`}`,
            })),
            { text: 'They share SDA and SCL: both answer at once, and neither is understood' },
          ],
          fixes,
          about: { device: list.find((o) => o.instance)?.instance?.need.id },
        }
      })
  },
}
