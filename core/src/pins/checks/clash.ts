import { type Check, type Fact, type Fix, type Stages, type Said, say, unsaid } from '../../findings'
import type { NeedDevice } from '../../design'
import type { DeviceSignal } from '../../parts'
import { formatQuantity, fullRange, nextDown } from '../../quantity'
import { linksToSet } from '../../planner'
import type { ClashRule, Plan } from '../../legs'
import { doWithout, swapFix } from './fixes'
import { overlapsOf, stackOverlap } from './stack-overlap'

interface Easing {
  fact: Said
  fixes: (stages: Stages, plan: Plan) => Fix[]
}

/** What a rule that decides says, and the ways to ease it. */
const easings: Record<ClashRule, Easing> = {
  radio: {
    fact: say`Without the radio they would fit: it stops a converter while it is on`,
    fixes: ({ design }, { clash }) => {
      const readings = clash.filter((s) => s.kind === 'analog-in' && !design.pins.radio?.[s.id])
      return [
        {
          label: `Pause the radio to read ${readings.map((s) => s.name).join(', ')}`,
          edits: readings.map((s) => ({
            kind: 'answerRadio' as const,
            signal: s.id,
            name: s.name,
            answer: 'pause' as const,
          })),
        },
        { label: 'Do without the radio', edits: [{ kind: 'setRadio', radio: false }] },
      ]
    },
  },
  boards: {
    fact: say`On the first board alone they would fit: no positions serve them on the other as well`,
    fixes: ({ chip: { chip } }) =>
      (chip?.alsoOn ?? []).map((other) => ({
        label: `Plan without ${other.name}`,
        edits: [{ kind: 'setAlso' as const, part: other.board?.id ?? other.id, name: other.name, on: false }],
      })),
  },
  currents: {
    fact: say`Legs are enough: it is the current of groups of legs that is not`,
    fixes: ({ chip: { chip } }, { clash }) => {
      const limit = Math.min(
        ...(chip?.limits.groups ?? []).map((g) => fullRange((g.recommended ?? g.absolute)!).max),
      )
      const lamps = clash.flatMap((s) => s.ends.filter((e) => e.signal.electrical.kind === 'led'))
      const groups = Math.max(1, chip?.limits.groups?.length ?? 1)
      // No more than a leg carries either, with room for what varies.
      const leg = chip ? nextDown(fullRange(chip.limits.pinRecommended).max * 0.8, 'E6') : Infinity
      const each = Math.min(leg, Number((limit / Math.ceil(lamps.length / groups)).toPrecision(2)))
      return [
        {
          label: `Ask for ${formatQuantity(each, 'A', 2)} for each of them`,
          edits: lamps.map(({ instance, signal }) => ({
            kind: 'setSetting' as const,
            id: instance.need.id,
            setting: `${signal.id}.current`,
            value: each,
          })),
        },
      ]
    },
  },
  frequencies: {
    fact: say`At one frequency they would fit: a timer runs at one frequency for all its outputs`,
    fixes: commonFrequency,
  },
  locks: {
    fact: say`Without the locks they would fit`,
    fixes: ({ design, needs }) => [
      {
        label: 'Release all locks',
        edits: Object.keys(design.pins.locks).map((signal) => ({
          kind: 'unlockSignal' as const,
          signal,
          name: needs.signals.find((s) => s.id === signal)?.name ?? signal,
        })),
      },
    ],
  },
  'kept-free': {
    fact: say`With the legs that you keep free they would fit`,
    fixes: ({ design }) => [
      {
        label: 'Allow the legs kept free',
        edits: design.pins.excluded.map((pin) => ({ kind: 'includePin' as const, pin })),
      },
    ],
  },
}

const within = (signal: DeviceSignal, frequency: number): boolean => {
  if (!signal.frequencyRange) return false
  const range = fullRange(signal.frequencyRange)
  return frequency >= range.min && frequency <= range.max
}

/** A frequency of one of them at which others do as well. */
function commonFrequency(_: Stages, { clash }: Plan): Fix[] {
  const ends = clash.flatMap((s) =>
    s.kind === 'pwm' ? s.ends.map((e) => ({ ...e, frequency: s.frequency! })) : [],
  )
  return [...new Set(ends.map((e) => e.frequency))].flatMap((f) => {
    const moved = ends.filter((e) => e.frequency !== f && within(e.signal, f))
    const names = [...new Set(moved.map((e) => e.instance.need.name))]
    const settings = new Map(moved.map((e) => [`${e.instance.need.id} ${e.signal.id}`, e]))
    return moved.length > 0
      ? [
          {
            label: `Run ${names.join(', ')} at ${formatQuantity(f, 'Hz')} as well`,
            edits: [...settings.values()].map((e) => ({
              kind: 'setSetting' as const,
              id: e.instance.need.id,
              setting: `${e.signal.id}.frequency`,
              value: f,
            })),
          },
        ]
      : []
  })
}

/** A device’s wirings with the links that each needs, by their positions. */
const wiringFacts = ({ clashChoices }: Plan): Fact[] =>
  clashChoices.map(
    (c) =>
      say`${c.need.name} can be wired by ${c.wirings
        .map((w) => {
          const links = linksToSet(c.part, w)
          return links.length > 0
            ? `${w.name} (${links.map((l) => `${l.link}: ${l.to}`).join(', ')})`
            : w.name
        })
        .join(' or ')}`,
  )

export const clash: Check = {
  id: 'pins.clash',
  stage: 'pins',
  looksFor: 'signals that the chip can’t serve all at once',
  rule: 'the chip’s functions, one signal a leg',
  run: (stages) => {
    const { chip, design } = stages
    const { plan } = stages.pins
    if (!chip.chip || !plan || plan.status !== 'clash') return []
    // Told by its own check, with the links that clear it.
    if (overlapsOf(plan.clash).length > 0 && stackOverlap.run(stages).length > 0) return []
    const locks = { ...design.pins.locks, ...design.pins.soldered }
    const other = stages.fitting()
    const devices = new Map<string, NeedDevice>(
      [
        ...plan.clash.flatMap((s) => s.ends.map((e) => e.instance.need)),
        ...plan.clashChoices.map((c) => c.need),
      ].map((need) => [need.id, need]),
    )
    return [
      {
        id: 'pins.clash',
        severity: 'stops',
        grade: 'impossible',
        ...say`${chip.chip.name} can’t serve everything: ${plan.clashText!}.`,
        because: [
          ...plan.clash.map(
            (s) =>
              say`${s.name} needs a leg of its own${locks[s.id] ? say`, ${design.pins.soldered?.[s.id] ? say`soldered to` : say`locked on`} ${locks[s.id]!}` : unsaid}`,
          ),
          ...wiringFacts(plan),
          ...plan.clashRules.map((rule) => easings[rule].fact),
          plan.clashUnsure
            ? say`Some of these may not matter: the clash was not narrowed down in the time given`
            : say`Without any one of these the others would fit`,
        ],
        fixes: [
          ...plan.clashRules.flatMap((rule) => easings[rule].fixes(stages, plan)),
          ...(other ? [swapFix(stages, other)] : []),
          ...[...devices.values()].slice(0, 3).map(doWithout),
        ],
        ...(plan.clashUnsure ? { longer: true as const } : {}),
      },
    ]
  },
}
