import { type Check, type Fix, type Stages, say } from '../../findings'
import { stockOf } from '../../circuit'
import { onOwnRail, voltageFor } from '../../supply'
import { formatQuantity, fullRange } from '../../quantity'
import { type LineLevel, levelsOf, isFar, passes, type Shift, shiftsFor } from '../../levels'
import { doWithout } from './fixes'
import { legSaid, type Wire } from '../../legs'

const shiftWords = (shift: Shift): string => {
  const values = shift.resistors.map((r) => r.value.marking)
  const up = `up to ${formatQuantity(shift.rate.value.min, 'Hz', 2)}`
  switch (shift.kind) {
    case 'divider':
      return `a divider of ${values.join(' over ')}, ${up}`
    case 'clamp':
      return `${values[0]} and a clamp diode to the rail, ${up}`
    case 'mosfet':
      return `a MOSFET with a ${values[0]} pull-up on each side, both ways, ${up}`
    case 'buffer':
      return `a buffer, one way, ${up}`
    case 'resistor':
      return `a resistor of ${values[0]} alone, ${up}`
  }
}

/** The line as it would be with this device on the rail. */
const fromRail = (wire: Wire, need: string): Wire => ({
  ...wire,
  signal: {
    ...wire.signal,
    ends: wire.signal.ends.map((e) =>
      e.instance.need.id === need
        ? { ...e, instance: { ...e.instance, need: { ...e.instance.need, fedBy: undefined } } }
        : e,
    ),
  },
})

/** What is read against a reference of one’s own may fit the range there is without it. */
const withoutReference = ({ pins }: Stages, { signal: { electrical } }: LineLevel['end']): Fix[] =>
  (electrical.kind === 'analog' ? (pins.plan?.wires ?? []) : [])
    .filter((w) => w.signal.kind === 'reference')
    .flatMap((w) => w.signal.ends.map((e) => doWithout(e.instance.need)))

/** Parts in the lines, and feeding the device so that both ends have one voltage. */
const joins = (stages: Stages, { wire, end, direction }: LineLevel, wires: Wire[]): Fix[] => {
  const { design, library, power, chip } = stages
  if (!power.rail || !chip.chip) return []
  const { rail, supplies } = power
  const { reference } = stages.pins
  const context = { design, library, chip: chip.chip, rail, supplies, stock: stockOf(library), reference }
  const { need, part } = end.instance
  const supply = part.supply && fullRange(part.supply)
  const holds = (line: Wire, shift: Shift | undefined) =>
    levelsOf([line], { ...context, shiftOf: (_, e) => (isFar(line, e) ? shift : undefined) })
      .filter((l) => l.end.instance.id === end.instance.id)
      .every((l) => !l.severity || l.severity === 'notes')
  const fit = (shift: Shift['kind'] | null) =>
    wires.map((w) => ({ kind: 'fitShift' as const, signal: w.signal.id, name: w.signal.name, shift }))
  const names = wires.map((w) => w.signal.name).join(' and ')
  return [
    ...(need.fedBy &&
    (!supply || (rail.value.min >= supply.min && rail.value.max <= supply.max)) &&
    wires.every((w) => holds(fromRail(w, need.id), undefined))
      ? [
          {
            label: `Feed ${need.name} from the rail`,
            edits: [{ kind: 'setFedBy' as const, id: need.id, by: 'rail' as const }],
          },
        ]
      : []),
    ...shiftsFor(wire, end, direction, context)
      .filter((s) => passes(s) && holds(wire, s))
      .map((s) => ({
        label: `Fit into ${names}: ${shiftWords(s)}`,
        edits: fit(s.kind),
      })),
    ...withoutReference(stages, end),
    ...(wires.some((w) => design.pins.shifts?.[w.signal.id])
      ? [{ label: `Make ${names} plain again`, edits: fit(null) }]
      : []),
  ]
}

/** The lines of one bus that go wrong at one device are one finding. */
const grouped = (levels: LineLevel[]): LineLevel[][] => {
  const groups = new Map<string, LineLevel[]>()
  for (const l of levels) {
    const key = `${l.wire.signal.bus?.group ?? l.wire.signal.id} ${l.end.instance.id} ${l.direction}`
    groups.set(key, [...(groups.get(key) ?? []), l])
  }
  return [...groups.values()]
}

export const level: Check = {
  id: 'pins.level',
  stage: 'pins',
  looksFor: 'a line whose levels the other end can’t read, or doesn’t stand, in either direction',
  rule: 'thresholds and absolute maxima of both ends over the range of their supplies',
  run: (stages) =>
    grouped(stages.pins.levels.filter((l) => l.severity)).map((lines) => {
      const { supplies, rail } = stages.power
      const worst = lines.find((l) => l.severity === 'stops') ?? lines[0]!
      const { wire, end } = worst
      const supply = voltageFor(supplies, end.instance.need)
      const names = lines.map((l) => l.wire.signal.name).join(' and ')
      return {
        id: `pins.level:${wire.signal.id}:${end.instance.id}${worst.severity === 'notes' ? ':range' : ''}`,
        severity: worst.severity!,
        grade: worst.grade,
        ...say`${names}${names === end.instance.name ? '' : `, ${end.instance.name}`}: ${worst}.`,
        because: [
          ...(supply && rail && !onOwnRail(supplies, end.instance.need)
            ? [
                {
                  ...say`${end.instance.name} runs on ${formatQuantity(supply.value.min, 'V', 3)} to ${formatQuantity(supply.value.max, 'V', 3)}, the chip on ${formatQuantity(rail.value.typ, 'V', 3)}`,
                  worked: supply,
                },
              ]
            : []),
          say`${wire.signal.name} is on ${legSaid(wire.pin)}`,
          ...worst.facts,
          ...worst.margins.map((m) => ({
            ...say`${m.label}: ${formatQuantity(m.value.min, 'V', 3)} at the worst`,
            worked: m,
          })),
        ],
        fixes: joins(
          stages,
          worst,
          lines.map((l) => l.wire),
        ),
        about: { signal: wire.signal.id, pin: wire.pin.id },
      }
    }),
}
