// What stands across the resistors and capacitors that are fitted, against what they are made for.

import { fittedResistor, type SupportPart } from '../../circuit'
import {
  type Check,
  type Found,
  fromPart,
  partOrigin,
  say,
  type Stages,
  type Worked,
  type WorkedInput,
} from '../../findings'
import { formatQuantity } from '../../quantity'
import { asVariable, sum } from '../../sums'
import { railFor, voltageFor } from '../../supply'

/** These have sums of their own: an LED takes its share of the voltage, a gate is a capacitor, a charger holds a volt of its own. */
const elsewhere = new Set<SupportPart['role']>(['lamp resistor', 'gate resistor', 'charge resistor'])

/** The highest voltage that can stand across it: that of the rail it is on, or of those that its line’s ends are on; else of any source. */
const across = (
  { signal, legs }: SupportPart,
  { pins, power: { supplies, loads } }: Stages,
): WorkedInput | undefined => {
  const found: WorkedInput[] = []
  const add = (of: WorkedInput | undefined) => of && found.push(of)
  for (const { id, net } of supplies.rails) {
    const open = supplies.open[id]
    if (open && legs.some((l) => l.net === net)) add(asVariable(open))
  }
  if (signal !== undefined) {
    const own = supplies.open[supplies.own]
    add(own && asVariable(own))
    const wire = pins.plan?.wires.find((w) => w.signal.id === signal)
    for (const { instance } of wire?.signal.ends ?? []) {
      const far = voltageFor(supplies, instance.need)
      // A line doesn’t reach what feeds a load behind its transistor.
      const switched = instance.wiring.signals.some((s) => s.electrical.kind === 'switched')
      if (!switched && railFor(supplies, instance.need).id !== supplies.own) add(far && asVariable(far))
    }
  }
  if (found.length === 0)
    for (const { source } of loads.sources)
      add(fromPart('V', source.part.name, source.part, 'voltage', source.part.voltage, 'V'))
  return found.reduce<WorkedInput | undefined>(
    (most, v) => (most && most.value.max >= v.value.max ? most : v),
    undefined,
  )
}

/** What flows in it, where that is known better than by what is across. */
const throughIt = ({ role, signal = '' }: SupportPart, { build, pins }: Stages): Worked | undefined => {
  if (role === 'power lamp resistor') return build.support.find((s) => s.role === 'power lamp')?.draws
  if (role === 'base resistor') return pins.bases[signal]?.current
  return role === 'gate pull-up' || role === 'gate divider' ? pins.pluses[signal]?.through : undefined
}

/** `through`: see above. */
const resistorTooHot = (of: SupportPart, V: WorkedInput, through: Worked | undefined): Found[] => {
  if (of.part.kind !== 'resistors' || !of.value) return []
  const { part, value, name, key, signal } = of
  const meta = {
    label: `Most heat in the ${name}`,
    symbol: 'P_R',
    unit: 'W' as const,
    counts: 'max' as const,
  }
  const R = fittedResistor('R', name, part, value, key)
  const heat = through
    ? sum(meta, { I: through, R }, (i) => i.I.times(i.I).times(i.R))
    : sum(
        { ...meta, note: 'With all that its line or its rail can have across it.' },
        { V: { ...V, symbol: 'V' }, R },
        (i) => i.V.times(i.V).over(i.R),
      )
  if (heat.value.max <= part.power) return []
  return [
    {
      id: `build.fitted-rating:${key}`,
      severity: 'risks',
      grade: 'outside the sheet',
      ...say`The ${name}, ${value.marking}, may turn ${formatQuantity(heat.value.max, 'W', 2)} into heat${through ? say` with ${formatQuantity(through.value.max, 'A', 3)} through it` : say` with up to ${formatQuantity(V.value.max, 'V', 3)} across it`}; it is made for ${formatQuantity(part.power, 'W')}.`,
      because: [
        { ...say`Up to ${formatQuantity(heat.value.max, 'W', 2)} in it`, worked: heat },
        say`${part.sheet}: ${formatQuantity(part.power, 'W')}`,
      ],
      fixes: [],
      about: { support: key, signal },
    },
  ]
}

const capacitorBreaks = (of: SupportPart, V: WorkedInput): Found[] => {
  if (of.part.kind !== 'capacitors') return []
  const { part, name, key, signal } = of
  if (V.value.max <= part.voltage) return []
  return [
    {
      id: `build.fitted-rating:${key}`,
      severity: 'stops',
      grade: 'impossible',
      ...say`The ${name} may have ${formatQuantity(V.value.max, 'V', 3)} across it, and is made for ${formatQuantity(part.voltage, 'V')}: it breaks down, and an electrolytic one can burst.`,
      because: [
        { ...say`${V.label}: up to ${formatQuantity(V.value.max, 'V', 3)}`, origin: V.origin },
        {
          ...say`${part.sheet}: ${formatQuantity(part.voltage, 'V')}`,
          origin: partOrigin(part, 'voltage', { kind: 'absolute' }),
        },
      ],
      fixes: [],
      about: { support: key, signal },
    },
  ]
}

export const fittedRating: Check = {
  id: 'build.fitted-rating',
  stage: 'build',
  looksFor: 'a resistor or capacitor that is fitted where more stands across it than it is made for',
  rule: 'V²/R at the highest voltage of its rail or line against the power of its sheet; that voltage against a capacitor’s',
  run: (stages) =>
    stages.build.support
      .filter((s) => s.present && !elsewhere.has(s.role))
      .flatMap((s) => {
        const V = across(s, stages)
        return V ? [...resistorTooHot(s, V, throughIt(s, stages)), ...capacitorBreaks(s, V)] : []
      }),
}
