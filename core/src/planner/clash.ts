// Why there is no plan: the rule that decides, and the words for it.

import { askedWord, type SignalNeed, withArticle, type WiringChoice } from '../needs'
import { formatQuantity, fullRange, listWords } from '../quantity'
import { type Demand, makeDemand, type PinQuestion } from './demand'
import { legName, waysToServe, type ClashRule } from '../legs'
import { type Patience, share } from '../patience'
import { solvePlan } from '../solve'

const without: Record<ClashRule, (q: PinQuestion) => PinQuestion | undefined> = {
  radio: (q) => (q.needs.radio ? { ...q, needs: { ...q.needs, radio: false } } : undefined),
  boards: (q) => (q.chip.alsoOn?.length ? { ...q, chip: { ...q.chip, alsoOn: undefined } } : undefined),
  currents: (q) =>
    q.chip.limits.groups?.length
      ? { ...q, chip: { ...q.chip, limits: { ...q.chip.limits, groups: [] } } }
      : undefined,
  frequencies: (q) =>
    new Set(q.needs.signals.flatMap((s) => (s.kind === 'pwm' ? (s.frequency ?? []) : []))).size > 1
      ? {
          ...q,
          needs: { ...q.needs, signals: q.needs.signals.map((s) => ({ ...s, frequency: undefined })) },
        }
      : undefined,
  locks: (q) =>
    Object.keys(q.choices.locks).length > 0 ? { ...q, choices: { ...q.choices, locks: {} } } : undefined,
  'kept-free': (q) =>
    q.choices.excluded.length > 0 ? { ...q, choices: { ...q.choices, excluded: [] } } : undefined,
}

/** The rules without any one of which the needs of a clash could be met together. Undecided ones are not among them. */
export const deciding = (
  question: PinQuestion,
  clash: SignalNeed[],
  choices: WiringChoice[],
  patience: Patience,
): ClashRule[] => {
  const ids = new Set(clash.map((s) => s.id))
  const open = new Set(choices.map((c) => c.need.id))
  const needs = {
    ...question.needs,
    choices,
    signals: question.needs.signals.flatMap((s) => {
      if (!s.when) return ids.has(s.id) ? [s] : []
      const when = s.when.filter((key) => open.has(key.split('=')[0]!))
      return when.length > 0 ? [{ ...s, when }] : []
    }),
    bytes: [],
  }
  return (Object.keys(without) as ClashRule[]).filter((rule) => {
    const eased = patience.spent() ? undefined : without[rule]({ ...question, needs })
    if (!eased) return false
    const demand = makeDemand(eased)
    const { status } = solvePlan(demand.problem, { patience: share(patience, 200), first: true })
    return demand.impossible.length === 0 && (status === 'found' || status === 'proven')
  })
}

/** Currents as the builder set them: “7 × 36 mA”. */
const loadWords = (clash: SignalNeed[]): string => {
  const counts = new Map<string, number>()
  for (const s of clash)
    for (const { instance, signal } of s.ends) {
      if (signal.electrical.kind !== 'led') continue
      const current = instance.need.settings?.[`${signal.id}.current`] ?? signal.electrical.current
      const word = formatQuantity(current, 'A')
      counts.set(word, (counts.get(word) ?? 0) + 1)
    }
  return listWords([...counts].map(([word, n]) => (n > 1 ? `${n} × ${word}` : word)))
}

const ruleWords = ({ chip }: Demand, clash: SignalNeed[], rules: ClashRule[]): string => {
  const words = rules.flatMap((rule): string[] => {
    switch (rule) {
      case 'radio':
        return ['while the radio is on']
      case 'boards':
        return [
          `on ${listWords([chip.name, ...(chip.alsoOn ?? []).map((c) => c.name)])} at the same positions`,
        ]
      case 'currents':
        return [
          `within what groups of legs may carry (${loadWords(clash)}; ${listWords(
            (chip.limits.groups ?? []).map(
              (g) => `${g.name} ${formatQuantity(fullRange((g.recommended ?? g.absolute)!).max, 'A')}`,
            ),
          )})`,
        ]
      case 'locks':
        return ['with the locks as they are']
      case 'kept-free':
        return ['with the legs kept free']
      case 'frequencies':
        return []
    }
  })
  return words.length > 0 ? ` ${words.join(', or ')}` : ''
}

/** What is wrong where expansion boards sit: no such header, a position twice, a position that can’t do the work. */
const seatWords = ({ chip }: Demand, clash: SignalNeed[]): string | undefined => {
  const seats = clash.flatMap((signal) => (signal.at ?? []).map((seat) => ({ signal, seat })))
  for (const { signal, seat } of seats) {
    const footprint = seat.place.split(' ')[0]!
    if (!chip.board?.headers.some((h) => h.footprint === footprint))
      return `${seat.instance.name} needs a ${footprint} header, and there is none`
    const rival = seats.find((s) => s.seat.place === seat.place && s.signal.id !== signal.id)
    if (rival) return `${signal.name} and ${rival.signal.name} sit on the same position`
    const pin = chip.pins.find((p) => p.places?.includes(seat.place))
    if (clash.length === 1 && pin) {
      const served = waysToServe(chip, pin, signal, {})
      return `${signal.name} sits on ${legName(pin)}${'reason' in served ? `: ${served.reason}` : ''}`
    }
  }
  return undefined
}

/** “5 analog inputs are asked for, and 4 legs can serve them”. */
export const clashWords = (
  demand: Demand,
  clash: SignalNeed[],
  choices: WiringChoice[],
  rules: ClashRule[],
): string => {
  const because = ruleWords(demand, clash, rules)
  const seated = seatWords(demand, clash)
  if (seated) return seated
  if (choices.length > 0) {
    const names = [...choices.map((c) => `${c.need.name} in any of its wirings`), ...clash.map((s) => s.name)]
    const all = listWords(names)
    return `${all} can’t be served ${names.length > 1 ? 'together' : 'at all'}${because}`
  }
  const kinds = new Map<string, number>()
  for (const s of clash) kinds.set(askedWord(s), (kinds.get(askedWord(s)) ?? 0) + 1)
  const asked = [...kinds].map(([word, n]) => `${n} ${word}${n > 1 ? 's' : ''}`)
  const listed = listWords(asked)
  const indices = clash.map((s) => demand.signals.indexOf(s))
  const legs = new Set(indices.flatMap((i) => demand.problem.signals[i]!.candidates.map((c) => c.pin)))
  if (legs.size === 0) {
    const reasons = demand.reasons[indices[0]!]!
    const yours = reasons.find((r) => r?.yours)
    const word = withArticle(askedWord(clash[0]!))
    return `no leg can be ${word} for ${clash[0]!.name}${yours ? ` (${yours.words})` : because}`
  }
  const are = clash.length > 1 ? 'are' : 'is'
  if (legs.size < clash.length)
    return `${listed} ${are} asked for, and only ${legs.size} ${legs.size > 1 ? 'legs' : 'leg'} can serve them${because}`
  const frequencies = new Set(clash.map((s) => s.frequency).filter((f) => f !== undefined))
  if (frequencies.size > 1)
    return `${listed} need ${frequencies.size} frequencies, and too few timers reach their legs`
  return because
    ? `${listed} can’t be served ${clash.length > 1 ? 'together' : 'at all'}${because}`
    : `${listed} ${are} asked for together, and no unit and legs serve them all at once`
}
