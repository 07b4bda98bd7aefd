// The budget: what is used of each limit, and what could be given up to get back inside, each tried on the whole project.

import { applyEdits, type Design, type Edit, feederName, libraryFor, type LimitName } from '../design'
import type { Finding, Fix, Results, Worked } from '../findings'
import type { Library } from '../parts'
import type { Patience } from '../patience'
import { hottestOf } from '../power'
import { capital, formatQuantity, timeWords } from '../quantity'
import { isAtRest, modesOf, type State } from '../states'
import { type Analysis, analyse, regulatorsOf, sourcesOf } from './analyse'
import { compareAnalyses } from './preview'

export const budgets = [
  'current',
  'energy',
  'runtime',
  'heat',
  'price',
  'parts',
  'area',
] as const satisfies LimitName[]
export type BudgetName = (typeof budgets)[number]

export interface BudgetLine {
  name: BudgetName
  /** Absent: there is nothing to compute, or no end of it. */
  used?: Worked
  /** Which of its values counts. */
  corner: 'min' | 'max'
  /** In the unit of the value. */
  limit?: number
  /** What should be in it and is not, since nobody knows how much it is. */
  missing: readonly string[]
}

type Used = Pick<Results, 'power' | 'build' | 'charging' | 'latch'>
const usedOf: Record<BudgetName, (a: Used) => Worked | undefined> = {
  current: ({ power }) => (power.consumers.length > 0 ? power.fromSource : undefined),
  energy: ({ power }) => power.energy,
  runtime: ({ power }) => power.runtime,
  heat: hottestOf,
  price: ({ build }) => (build.parts.length > 0 ? build.price : undefined),
  parts: ({ build }) => (build.parts.length > 0 ? build.pieces : undefined),
  area: ({ build }) => (build.parts.length > 0 ? build.area : undefined),
}
/** A runtime must be long, all else little. */
const cornerOf = (name: BudgetName) => (name === 'runtime' ? 'min' : 'max')

export const budgetOf = (analysis: Used & { design: Pick<Design, 'needs'> }): BudgetLine[] =>
  budgets.map((name) => ({
    name,
    used: usedOf[name](analysis),
    corner: cornerOf(name),
    limit: analysis.design.needs.limits[name],
    missing: name === 'area' ? analysis.build.unsized : [],
  }))

/** How much it takes from what the project does: nothing; it does the same more slowly, dimmer or less often; it does less; it does without. */
export const harms = ['none', 'weaker', 'less', 'without'] as const
export type Harm = (typeof harms)[number]

interface Candidate extends Fix {
  harm: Harm
  /** Two about the same thing are not done together. */
  about: string
}

export interface GiveUp extends Candidate {
  /** What the limit’s value would be; absent: no end, where a runtime is asked for. */
  becomes?: number
  /** By how much nearer, in the unit of the value. */
  gain: number
  /** Back inside with this alone. */
  enough: boolean
  /** Found then, and not now. */
  brings: Finding[]
}

export interface GivingUp {
  name: BudgetName
  /** So many were tried to the end. */
  tried: number
  ways: GiveUp[]
  /** Several that are enough where none alone is, the least harm first; what was tried and is enough, not the best that there is. */
  together?: Fix & { becomes: number }
  /** Those that would bring what stops the project. */
  spoiling: number
  /** Not tried in the time given. */
  untried: number
  /** Nothing is enough, alone or several together as they were tried; absent where no limit is exceeded. */
  none?: true
}

/** Half of it, to two digits. */
const half = (x: number) => Number((x / 2).toPrecision(2))

const ofSupply = (analysis: Analysis, library: Library): Candidate[] => [
  ...regulatorsOf(analysis, library)
    .filter((r) => !r.chosen && r.no.length === 0)
    .map(({ regulator: { id, name } }) => ({
      label: `Regulate with ${name}`,
      edits: [{ kind: 'chooseRegulator', part: id, name } satisfies Edit],
      harm: 'none' as const,
      about: 'regulator',
    })),
  ...(analysis.design.power.rails ?? []).flatMap(({ id: rail }) =>
    regulatorsOf(analysis, library, rail)
      .filter((r) => !r.chosen && r.no.length === 0)
      .map(({ regulator: { id, name } }) => ({
        label: `Regulate the ${feederName(rail)} with ${name}`,
        edits: [{ kind: 'changeRail', id: rail, change: { regulator: id }, what: name } satisfies Edit],
        harm: 'none' as const,
        about: rail,
      })),
  ),
  ...sourcesOf(analysis, library)
    // A plug in the place of cells would make another thing of it.
    .filter((s) => !s.chosen && s.no.length === 0 && s.source.sort === analysis.power.source?.sort)
    .map(({ source: { name }, edits }) => ({
      label: `Feed it from ${name}`,
      edits,
      harm: 'none' as const,
      about: 'source',
    })),
]

const ofSupport = ({ build }: Analysis): Candidate[] =>
  build.support
    .filter((s) => s.present && s.risk.severity !== 'stops')
    .map(({ key, name, risk }) => ({
      label: `Leave out the ${name}`,
      edits: [{ kind: 'leaveOut', support: key, name } satisfies Edit],
      harm: risk.severity === 'notes' ? ('none' as const) : ('weaker' as const),
      about: key,
    }))

const ofDevices = ({ design, needs }: Analysis): Candidate[] =>
  design.needs.devices.flatMap(({ id, name, count, settings }): Candidate[] => {
    const instance = needs.instances.find((i) => i.need.id === id)
    const lamps = instance?.wiring.signals.filter((s) => s.electrical.kind === 'led') ?? []
    return [
      ...lamps.flatMap(({ id: signal, electrical }): Candidate[] => {
        const setting = `${signal}.current`
        const now = settings?.[setting] ?? (electrical as { current: number }).current
        const dimmer = half(now)
        return now > 0.5e-3
          ? [
              {
                label: `${name} at ${formatQuantity(dimmer, 'A')} instead of ${formatQuantity(now, 'A')}`,
                edits: [{ kind: 'setSetting', id, setting, value: dimmer }],
                harm: 'weaker',
                about: id,
              },
            ]
          : []
      }),
      ...(count > 1
        ? [
            {
              label: `${count - 1} of ${name} instead of ${count}`,
              edits: [{ kind: 'setCount', id, count: count - 1 } satisfies Edit],
              harm: 'less' as const,
              about: id,
            },
          ]
        : []),
      {
        label: `Do without ${name}`,
        edits: [{ kind: 'removeDevice', id }],
        harm: 'without',
        about: id,
      },
    ]
  })

const inState = ({ design, needs, chip }: Analysis, state: State): Candidate[] => {
  const { id, name } = state
  const choice = design.needs.states!.find((s) => s.id === id)!
  const change = (label: string, harm: Harm, by: Extract<Edit, { kind: 'changeState' }>['change']) => ({
    label,
    edits: [{ kind: 'changeState', id, change: by } satisfies Edit],
    harm,
    about: `${id} ${Object.keys(by).join()}`,
  })
  // While it has nothing to do but wait.
  const waits = choice.lasts === undefined || state.asleep
  const others = (chip.chip?.modes ?? []).filter((m) => m.kind !== 'active' && m.id !== choice.chip)
  return [
    ...(choice.every !== undefined
      ? [
          change(`${capital(name)} every ${timeWords(2 * choice.every)}`, 'weaker', {
            every: 2 * choice.every,
          }),
        ]
      : []),
    ...(choice.perDay !== undefined
      ? [
          change(`${capital(name)} ${half(choice.perDay)} times a day`, 'weaker', {
            perDay: half(choice.perDay),
          }),
        ]
      : []),
    ...(choice.lasts !== undefined
      ? [
          change(`${capital(name)} for ${timeWords(half(choice.lasts))}`, 'weaker', {
            lasts: half(choice.lasts),
          }),
        ]
      : []),
    ...(waits ? others.map((m) => change(`The chip in ${m.name}, ${name}`, 'none', { chip: m.id })) : []),
    ...(state.radio ? [change(`The radio off, ${name}`, 'less', { radio: false })] : []),
    ...needs.instances
      .filter((i, n, all) => all.findIndex((o) => o.need.id === i.need.id) === n)
      .flatMap(({ part, need }) => {
        const [rest] = modesOf(part)
        const now = choice.modes?.[need.id]
        return rest && now !== undefined && !isAtRest(part, now)
          ? [
              {
                ...change(`${need.name} ${rest.name}, ${name}`, 'less', {
                  modes: { ...choice.modes, [need.id]: rest.id },
                }),
                about: `${id} ${need.id}`,
              },
            ]
          : []
      }),
  ]
}

const ofTime = (analysis: Analysis): Candidate[] => {
  const { design, power } = analysis
  const { awake } = design.needs.limits
  if (design.needs.states) return power.states.flatMap((s) => inState(analysis, s))
  return awake !== undefined && awake > 0
    ? [
        {
          label: `Awake for ${Number((half(awake) * 100).toPrecision(2))} % of the time`,
          edits: [{ kind: 'setLimit', limit: 'awake', value: half(awake) }],
          harm: 'weaker',
          about: 'awake',
        },
      ]
    : []
}

/** The next slower of its own source. */
const ofClock = ({ design, chip }: Analysis): Candidate[] => {
  const { clock } = design.chip
  const source = chip.chip?.clockSources.find((s) => s.id === clock?.source)
  const slower = source?.frequencies?.filter((f) => f < (clock?.frequency ?? 0)).sort((a, b) => b - a)[0]
  if (!clock || slower === undefined || clock.part !== undefined) return []
  return [
    {
      label: `The chip at ${formatQuantity(slower, 'Hz')}`,
      edits: [
        { kind: 'chooseClock', clock: { ...clock, frequency: slower }, name: formatQuantity(slower, 'Hz') },
      ],
      harm: 'weaker',
      about: 'clock',
    },
  ]
}

/** No nearer by less than this share is told. */
const noticed = 1e-3
/** More than so many things at once are no answer. */
const several = 8

/** Tries everything that could be given up, and several together where nothing alone is enough. */
export const giveUps = (
  before: Analysis,
  library: Library,
  name: BudgetName,
  patience: Patience,
): GivingUp => {
  const corner = cornerOf(name)
  const limit = before.design.needs.limits[name]
  // An end that there is not is as far away as can be.
  const valueOf = (a: Used) => usedOf[name](a)?.value[corner] ?? (name === 'runtime' ? Infinity : 0)
  const isInside = (value: number) =>
    limit !== undefined && (name === 'runtime' ? value >= limit : value <= limit)
  const now = valueOf(before)
  const nearer = (value: number, than: number) => (name === 'runtime' ? value - than : than - value)
  const tryOn = (of: Analysis, edits: readonly Edit[]): Analysis | undefined => {
    if (patience.spent()) return undefined
    const design = applyEdits(of.design, [...edits])
    const after = analyse(design, libraryFor(design, library), patience, of)
    return patience.spent() || after.pins.plan?.status === 'undecided' ? undefined : after
  }
  const candidates = [
    ...ofSupply(before, library),
    ...ofSupport(before),
    ...ofTime(before),
    ...ofClock(before),
    ...ofDevices(before),
  ]
  const ways: GiveUp[] = []
  let [spoiling, untried] = [0, 0]
  for (const candidate of candidates) {
    const after = tryOn(before, candidate.edits)
    if (!after) {
      untried++
      continue
    }
    const value = valueOf(after)
    const gain = nearer(value, now)
    if (!(gain > noticed * Math.abs(now))) continue
    const { appearing } = compareAnalyses(before, after)
    const brings = appearing.filter((f) => f.severity !== 'notes')
    if (brings.some((f) => f.severity === 'stops')) {
      spoiling++
      continue
    }
    ways.push({
      ...candidate,
      ...(Number.isFinite(value) && { becomes: value }),
      gain,
      enough: isInside(value),
      brings,
    })
  }
  // The least harm first; among the same harm those that bring nothing, then those that bring one thing.
  const rank = ({ harm, brings }: GiveUp) => 3 * harms.indexOf(harm) + Math.min(2, brings.length)
  ways.sort((a, b) => rank(a) - rank(b) || Number(b.enough) - Number(a.enough) || b.gain - a.gain)
  const alone = isInside(now) || limit === undefined || ways.some((w) => w.enough)
  // With the least harm; where that would be too many things, with those that bring the most.
  const together = alone ? undefined : (addUp(ways) ?? addUp([...ways].sort((a, b) => b.gain - a.gain)))
  return {
    name,
    tried: candidates.length - untried,
    ways,
    ...(together ? { together } : !alone && { none: true as const }),
    spoiling,
    untried,
  }

  /** One after the other, each that still brings it nearer, until it is inside; then without each that is not needed for that, the most harm first. */
  function addUp(of: readonly GiveUp[]): GivingUp['together'] {
    let at = before
    let taken: GiveUp[] = []
    for (const way of of) {
      if (taken.some((t) => t.about === way.about)) continue
      const after = tryOn(at, way.edits)
      if (!after || !(nearer(valueOf(after), valueOf(at)) > noticed * Math.abs(now))) continue
      if (stopped(after)) continue
      taken.push(way)
      at = after
      if (isInside(valueOf(at))) break
    }
    if (!isInside(valueOf(at))) return undefined
    for (const way of taken.slice(0, -1).reverse()) {
      const left = taken.filter((t) => t !== way)
      const after = tryOn(
        before,
        left.flatMap((t) => t.edits),
      )
      if (!after || stopped(after) || !isInside(valueOf(after))) continue
      taken = left
      at = after
    }
    if (taken.length > several) return undefined
    return {
      label: taken.map((t) => t.label).join('; '),
      edits: taken.flatMap((t) => t.edits),
      becomes: valueOf(at),
    }
  }
  function stopped(after: Analysis): boolean {
    return compareAnalyses(before, after).appearing.some((f) => f.severity === 'stops')
  }
}
