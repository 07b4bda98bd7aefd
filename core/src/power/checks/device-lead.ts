// What leads to a device: too thin, or too long for what must arrive there.

import { type Check, type Fix, type Found, say, type Stages } from '../../findings'
import { partsOfKind } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { type LedDevice, ledDevice } from '../device-leads'
import { carrying } from '../leads'

/** A shift of its ground by more than this shows in what its lines say, V: a tenth of what a logic level has to spare, many steps of a converter. */
const seen = 0.05

/** Also where there is too little at the board already: less still arrives. */
const tooLittle = ({ part, arrives }: LedDevice): boolean => {
  const least = part.supply && fullRange(part.supply).min
  return least !== undefined && arrives !== undefined && arrives.value.min < least
}

/** Wires that carry it and lose no more than it can spare, the cheapest first. */
const otherWires = ({ proposing, library, needs }: Stages, led: LedDevice): Fix[] => {
  const instance = needs.instances.find((i) => i.need.id === led.need)
  const { wire, ...rest } = led.parts
  if (!proposing || !instance || !wire) return []
  return partsOfKind(library, 'wire')
    .filter((part) => {
      const other = ledDevice(instance, { ...rest, wire: { ...wire, part } }, led.given)
      return part.id !== wire.part.id && other && carrying(other).length === 0 && !tooLittle(other)
    })
    .sort((a, b) => a.price - b.price)
    .slice(0, 2)
    .map((part) => ({
      label: `Wire to ${led.name}: ${part.name}`,
      edits: [{ kind: 'changeDeviceLead', id: led.need, change: { wire: part.id }, what: part.name }],
    }))
}

const hears = new Set(['logic-input', 'logic-output', 'open-drain', 'analog', 'analog-load', 'reference'])

export const deviceLeadCheck: Check = {
  id: 'power.device-lead',
  stage: 'power',
  looksFor: 'a lead to a device that is too thin, or loses more than the device can spare',
  rule: 'what wire and joints may carry in this air; the device’s own supply range at the far end; what falls in its minus, against 50 mV',
  run: (stages) =>
    stages.power.deviceLeads.flatMap((led): Found[] => {
      const { need, name, part, drop, given, arrives, current } = led
      const about = { device: need }
      const volts = (v: number) => formatQuantity(v, 'V', 3)
      const lost = {
        ...say`Up to ${formatQuantity(drop.value.max, 'V', 2)} are lost on the way`,
        worked: drop,
      }
      const instance = stages.needs.instances.find((i) => i.need.id === need)
      const lines = instance?.wiring.signals.filter((s) => hears.has(s.electrical.kind)) ?? []
      const shift = drop.value.max / 2
      return [
        ...carrying(led).map(({ kind, severity, grade, says, because }): Found => ({
          id: `power.device-lead:${kind.replaceAll(' ', '-')}:${need}`,
          severity,
          grade,
          ...say`In the lead to ${name}: ${says}.`,
          because,
          fixes: otherWires(stages, led),
          about,
        })),
        ...(tooLittle(led)
          ? [
              {
                id: `power.device-lead:low:${need}`,
                severity: 'risks' as const,
                grade: 'outside the sheet' as const,
                ...say`At the end of its lead ${name} gets as little as ${volts(arrives!.value.min)}; it runs on ${formatQuantity(fullRange(part.supply!).min, 'V')} or more.`,
                because: [
                  { ...say`At the board ${volts(given!.value.min)} are left`, worked: given },
                  lost,
                  { ...say`With ${formatQuantity(current.value.max, 'A', 3)} through it`, worked: current },
                ],
                fixes: otherWires(stages, led),
                about,
              },
            ]
          : []),
        ...(lines.length > 0 && shift > seen
          ? [
              {
                id: `power.device-lead:ground:${need}`,
                severity: 'notes' as const,
                grade: 'typical' as const,
                ...say`The minus of ${name} lies up to ${formatQuantity(shift, 'V', 2)} above the board’s while it draws its most: its lines read and drive that much off, which is not in what is said of them.`,
                because: [lost, say`Half of its lead is its minus`],
                fixes: otherWires(stages, led),
                about,
              },
            ]
          : []),
      ]
    }),
}
