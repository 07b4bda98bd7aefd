import { type Check, type Fix, type Stages, say, type Found } from '../../findings'
import type { Instance } from '../../needs'
import { listWords } from '../../quantity'

/** Addresses that the I2C-bus specification keeps for itself: 0000xxx and 1111xxx. */
const isReserved = (address: number): boolean => address < 0x08 || address > 0x77

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
  run: (stages) => {
    const { needs } = stages
    const onI2c = needs.instances.filter((i) => i.wiring.signals.some((s) => s.bus === 'i2c'))
    const buses = [...new Set(onI2c.map((i) => i.need.bus ?? 1))].sort((a, b) => a - b)
    return buses.flatMap((bus) =>
      clashesOn(
        stages,
        bus,
        onI2c.filter((i) => (i.need.bus ?? 1) === bus),
      ),
    )
  },
}

/** The number of a further I2C bus, where the chip has a unit that serves none yet. */
export const nextBus = ({ chip: { chip }, needs }: Stages, bus: number): number | undefined => {
  const units = chip?.units.filter((u) => u.kind === 'i2c').length ?? 0
  const used = new Set(needs.signals.flatMap((s) => (s.bus?.kind === 'i2c' ? [s.bus.group] : []))).size
  const next = Math.max(...needs.instances.map((i) => i.need.bus ?? 1), bus) + 1
  return used >= units || next > 4 ? undefined : next
}

const otherBus = (stages: Stages, bus: number, { need }: Instance): Fix[] => {
  const next = nextBus(stages, bus)
  return next === undefined
    ? []
    : [
        {
          label: `Put ${need.name} on ${next === 2 ? 'a second bus' : `bus ${next}`}`,
          edits: [{ kind: 'setBus', id: need.id, bus: next }],
        },
      ]
}

const clashesOn = (stages: Stages, bus: number, onBus: Instance[]): Found[] => {
  const { chip, pins } = stages
  const group = `i2c${bus > 1 ? bus : ''}`
  const unit = pins.plan?.wires.find((w) => w.signal.bus?.group === group)?.unit?.id
  const owners = new Map<number, { name: string; instance?: Instance }[]>()
  for (const fixed of chip.chip?.board?.addresses ?? [])
    if (fixed.unit === unit) owners.set(fixed.address, [{ name: `${fixed.what}, on the board` }])
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
          // Several of one device go to buses of their own one by one.
          ...(need.count === 1
            ? otherBus(stages, bus, instance)
            : [
                {
                  label: `Treat ${need.name} one by one`,
                  edits: [{ kind: 'splitDevice' as const, id: need.id }],
                },
              ]),
        ]
      })
      const both = names.length === 2
      return {
        id: `pins.address-clash:${bus > 1 ? `${bus}:` : ''}${address}`,
        severity: 'stops' as const,
        grade: 'impossible' as const,
        ...say`${listWords(names)} ${both ? say`both` : say`all`} answer to ${hex(address)} on the ${bus > 1 ? say`I2C bus ${bus}` : say`I2C bus`}.`,
        because: [
          ...list.map(
            (o) =>
              say`${o.name} answers to ${hex(address)}${o.instance ? ` (${o.instance.part.sheet})` : ` (${chip.chip!.board!.sheet})`}`,
          ),
          say`They share SDA and SCL: both answer at once, and neither is understood`,
        ],
        fixes: fixes.filter((f, i) => fixes.findIndex((g) => g.label === f.label) === i),
        about: { device: list.find((o) => o.instance)?.instance?.need.id },
      }
    })
}
