import { type SupportPart, fittedFor } from '../../circuit'
import { type Check, type Fix, type Stages, say, type Found } from '../../findings'
import { isDrivenByDevice, legSaid, type Wire, attributeOf } from '../../legs'
import { moveToBest } from './cannot-serve'

/** Who drives a leg while a program is loaded, and in which words. */
export const driverOf = (wire: Wire): { who: string; as: string; source?: string } | undefined => {
  if (!isDrivenByDevice(wire.signal)) return undefined
  const use = attributeOf(wire.pin, 'programming')
  if (use)
    return {
      who: use.drivenBy === 'programmer' ? 'the programmer drives' : 'the chip drives while it is programmed',
      as: use.signal,
      source: use.source,
    }
  const link = attributeOf(wire.pin, 'download-link')
  return (
    link && { who: 'programs are loaded over', as: link.reason ?? 'the download link', source: link.source }
  )
}

/** The select of an SPI device, which lets go of its output while that is high. */
const selectOf = (wire: Wire, stages: Stages): Wire | undefined => {
  const { bus, ends } = wire.signal
  if (bus?.kind !== 'spi') return undefined
  const drivers = ends.filter((e) => e.signal.electrical.kind === 'logic-output')
  return stages.pins.plan?.wires.find(
    (w) =>
      w.signal.kind === 'digital-out' &&
      w.signal.quiet &&
      drivers.some((d) => w.signal.ends.some((e) => e.instance.id === d.instance.id)),
  )
}

/** Whether something holds a select high while nothing drives it. */
const isHeldHigh = (select: Wire, support: SupportPart[]): boolean =>
  fittedFor(support, 'select pull-up', select.signal.id) !== undefined ||
  select.signal.ends.some(({ signal: { electrical: e } }) => e.kind === 'logic-input' && e.pull === 'up')

/** Legs where a fight like this one would be: kept free together, or the fight only moves on. */
const offThese = (stages: Stages, wire: Wire): Fix[] => {
  const { chip } = stages.chip
  const { assignment } = stages.pins
  const legs = chip!.pins.filter(
    (p) =>
      (attributeOf(p, 'programming') ?? attributeOf(p, 'download-link')) &&
      (p.id === wire.pin.id || !Object.values(assignment).includes(p.id)) &&
      !stages.design.pins.excluded.includes(p.id),
  )
  return [
    {
      label:
        legs.length > 1
          ? `Keep ${wire.pin.id} and the free legs of that kind free`
          : `Keep ${wire.pin.id} free`,
      edits: legs.map((p) => ({ kind: 'excludePin' as const, pin: p.id, kept: assignment })),
    },
  ]
}

export const programmingFight: Check = {
  id: 'pins.programming-fight',
  stage: 'pins',
  looksFor: 'a device that drives a line which is driven while a program is loaded',
  rule: 'two outputs on one line fight; which of them wins is not defined',
  run: (stages) =>
    (stages.pins.plan?.wires ?? []).flatMap((wire): Found[] => {
      const driver = driverOf(wire)
      if (!driver || wire.impossible) return []
      const end = wire.signal.ends.find(
        ({ signal: { electrical: e } }) => e.kind === 'logic-output' && !e.openDrain,
      )!
      const device = end.instance
      const select = selectOf(wire, stages)
      if (select && isHeldHigh(select, stages.pins.support)) return []
      if (select)
        return [
          {
            id: `pins.programming-fight:${wire.signal.id}`,
            severity: 'risks' as const,
            grade: 'outside the sheet' as const,
            ...say`${device.name} shares ${legSaid(wire.pin)}, which ${driver.who} as ${driver.as}, and nothing holds its select high meanwhile.`,
            because: [
              say`${wire.signal.name} is on ${legSaid(wire.pin)}`,
              say`${device.name} lets go of its ${end.signal.terminal} while ${select.signal.name} is high (${device.part.sheet})`,
              say`While a program is loaded ${legSaid(select.pin)} is an input, and floats`,
            ],
            fixes: [
              {
                label: `Put in the pull-up of ${select.signal.name}`,
                edits: [
                  {
                    kind: 'putIn' as const,
                    support: `select:${select.signal.id}`,
                    name: `pull-up of ${select.signal.name}`,
                  },
                ],
              },
              ...(wire.signal.at ? [] : moveToBest(stages, wire)),
            ],
            about: { signal: wire.signal.id, pin: wire.pin.id },
          },
        ]
      return [
        {
          id: `pins.programming-fight:${wire.signal.id}`,
          severity: 'stops' as const,
          grade: 'impossible' as const,
          ...say`${device.name} drives ${legSaid(wire.pin)}, which ${driver.who} as ${driver.as}: the chip can’t be programmed on the board.`,
          because: [
            say`${wire.signal.name} is on ${legSaid(wire.pin)}`,
            say`${wire.pin.id}: ${driver.who} it as ${driver.as} (${stages.chip.chip!.sheet}, ${driver.source ?? 'programming'})`,
            say`${device.name} drives its ${end.signal.terminal} all the time (${device.part.sheet})`,
            say`Two outputs on one line: each pulls its way, and neither level is sure`,
          ],
          fixes: [...(wire.signal.at ? [] : [...moveToBest(stages, wire), ...offThese(stages, wire)])],
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}
