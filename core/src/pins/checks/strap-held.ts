import { type Check, type Fact, type Fix, fromPart, type Stages, type Worked, say } from '../../findings'
import type { PinAttribute } from '../../parts'
import { formatQuantity } from '../../quantity'
import { type End, heldLevel, type Hold, holdsOf, ownPull } from '../holds'
import { legName, legSaid, type Wire, attributeOf } from '../../legs'
import { moveToBest } from './cannot-serve'
import { doWithout, swapFix } from './fixes'

type Strap = PinAttribute & { kind: 'strap' }

/** The voltage that the chip samples: everything that holds the line, and the leg's own pull. */
const sampled = (holds: Hold[], { chip, power }: Stages, strap: Strap): Worked | undefined => {
  const { rail } = power
  if (!rail || !chip.chip) return undefined
  const own = ownPull(chip.chip, strap)
  return heldLevel(
    rail,
    holds,
    own && {
      to: own.to,
      input: fromPart('R_own', `the leg’s own pull-${strap.pull}`, chip.chip, 'io', own.rated, 'Ω'),
    },
  )
}

/** “main.3 of the display deck is its Q2, the board’s D02, the chip’s P03”. */
const nameChain = (wire: Wire, end: End): Fact[] => {
  const seat = wire.signal.at?.find((s) => s.instance.id === end.instance.id)
  const place = seat && wire.pin.places!.indexOf(seat.place)
  return seat
    ? [
        say`On ${seat.instance.name} that line is ${seat.label}`,
        say`${seat.label} sits on the header’s ${wire.pin.labels![place!]!}`,
        say`${wire.pin.labels![place!]!} is ${wire.pin.id} of the chip`,
      ]
    : [say`It is wired to ${legSaid(wire.pin)}`]
}

const waysOut = (stages: Stages, wire: Wire, blamed: { end?: End; support?: Hold['support'] }): Fix[] => {
  const { end, support } = blamed
  return [
    ...(wire.signal.at ? [] : moveToBest(stages, wire)),
    ...(support
      ? [
          {
            label: `Leave out the ${support.name}`,
            edits: [{ kind: 'leaveOut' as const, support: support.key, name: support.name }],
          },
        ]
      : []),
    ...(end ? deviceWaysOut(stages, end) : []),
  ]
}

const deviceWaysOut = (stages: Stages, end: End): Fix[] => {
  const { need, part } = end.instance
  const other = stages.fitting()
  return [
    ...(need.variant !== undefined
      ? [
          {
            label: `Use ${need.name} as in the sheet`,
            edits: [{ kind: 'setVariant' as const, id: need.id, variant: null }],
          },
        ]
      : []),
    ...(part.wirings.length > 1
      ? part.wirings
          .filter((w) => w.id !== end.instance.wiring.id)
          .map((w) => ({
            label: `Wire ${need.name} by ${w.name}`,
            edits: [{ kind: 'setWiring' as const, id: need.id, wiring: w.id }],
          }))
      : []),
    ...(other ? [swapFix(stages, other)] : []),
    doWithout(need),
  ]
}

export const strapHeld: Check = {
  id: 'pins.strap-held',
  stage: 'pins',
  looksFor: 'a line that a device holds at the wrong level while the chip samples it at reset',
  rule: 'the chip’s straps, its own pull against what the device holds, input thresholds',
  run: (stages) =>
    (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const strap = attributeOf(wire.pin, 'strap')
      const { chip } = stages.chip
      const supply = stages.power.rail?.value
      if (!strap || !chip || !supply || wire.impossible) return []
      const { holds, drivers } = holdsOf(wire, chip, stages.pins.support, stages.library)
      const place = legName(wire.pin)
      const sampledFact = (to: 'low' | 'high') =>
        say`${wire.pin.id} is sampled at reset and must be ${strap.needs}; ${to} means: ${to === 'low' ? strap.low : strap.high} (${chip.sheet}, ${strap.source ?? 'straps'})`
      const wrongSide = strap.needs === 'high' ? 'low' : 'high'
      const about = { signal: wire.signal.id, pin: wire.pin.id }
      const [driver] = drivers
      if (driver)
        return [
          {
            id: `pins.strap-held:${wire.signal.id}`,
            severity: 'risks' as const,
            grade: 'outside the sheet' as const,
            ...say`${driver.end.instance.name} drives ${place} while it is sampled at reset: the chip starts only when it happens to be ${strap.needs}.`,
            because: [
              { text: driver.text, says: driver.says },
              ...nameChain(wire, driver.end),
              sampledFact(wrongSide),
            ],
            fixes: waysOut(stages, wire, driver),
            about,
          },
        ]
      const level = holds.length > 0 ? sampled(holds, stages, strap) : undefined
      if (!level) return []
      const high = chip.io.inputHigh.factor * supply.max + (chip.io.inputHigh.offset ?? 0)
      const low = chip.io.inputLow.factor * supply.min + (chip.io.inputLow.offset ?? 0)
      const right = strap.needs === 'high' ? level.value.min >= high : level.value.max <= low
      if (right) return []
      const wrong = strap.needs === 'high' ? level.value.max <= low : level.value.min >= high
      const against = holds.filter((h) => h.to === wrongSide)
      // Without anything against it, what holds it right is too weak, or nothing is.
      const hold =
        against.reduce<Hold | undefined>(
          (a, b) => (a && a.resistance.typ <= b.resistance.typ ? a : b),
          undefined,
        ) ?? holds[0]!
      const who = hold.end?.instance.name ?? (hold.support ? `The ${hold.support.name}` : chip.name)
      return [
        {
          id: `pins.strap-held:${wire.signal.id}`,
          severity: wrong ? ('stops' as const) : ('risks' as const),
          grade: wrong ? ('impossible' as const) : ('outside the sheet' as const),
          ...(wrong
            ? say`${who} holds ${place} ${hold.to} at reset: the chip then ${asVerb(hold.to === 'low' ? strap.low : strap.high)}.`
            : say`${who} pulls ${place} to ${formatQuantity(level.value.typ, 'V', 2)} at reset, neither high nor low: what the chip starts with is left to chance.`),
          because: [
            ...holds.map((h) => ({ text: h.text, says: h.says })),
            ...(hold.end ? nameChain(wire, hold.end) : [say`${wire.signal.name} is on ${place}`]),
            sampledFact(hold.to),
            {
              ...say`It is ${formatQuantity(level.value.min, 'V', 2)} to ${formatQuantity(level.value.max, 'V', 2)} then; low is up to ${formatQuantity(low, 'V', 3)}, high from ${formatQuantity(high, 'V', 3)}`,
              worked: level,
            },
          ],
          fixes: waysOut(stages, wire, hold),
          about,
        },
      ]
    }),
}

/** Strap outcomes are written as verbs or as states; both read well after “the chip then”. */
const asVerb = (outcome: string): string => (/^[a-z]+s\b/.test(outcome) ? outcome : `has ${outcome}`)
