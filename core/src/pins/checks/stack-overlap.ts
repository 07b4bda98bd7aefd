import { type Check, type Fix, type Stages, say } from '../../findings'
import { resolveNeeds, type Seat, type SignalNeed, withWirings } from '../../needs'
import { planPins, questionOf } from '../../planner'
import { isPlanned, legSaid } from '../../legs'
import { doWithout } from './fixes'
import { share } from '../../patience'

interface Claim {
  signal: SignalNeed
  seat: Seat
}

/** Positions that two lines of expansion boards sit on. A shared bus line is one line. */
export const overlapsOf = (signals: SignalNeed[]): { place: string; a: Claim; b: Claim }[] => {
  const claims = signals.flatMap((signal) => (signal.at ?? []).map((seat) => ({ signal, seat })))
  return claims.flatMap((a, i) =>
    claims
      .slice(i + 1)
      .filter((b) => b.seat.place === a.seat.place && b.signal.id !== a.signal.id)
      .map((b) => ({ place: a.seat.place, a, b })),
  )
}

/** Settings of links that clear the overlap: each other wiring of a board in it under which everything finds a leg. */
const otherLinks = (stages: Stages, claims: Claim[]): Fix[] => {
  const { design, library, patience } = stages
  if (!stages.proposing) return []
  return claims.flatMap(({ seat: { instance } }) =>
    instance.part.wirings
      .filter((w) => w.id !== instance.wiring.id)
      .filter((w) => {
        const needs = resolveNeeds(withWirings(design, { [instance.need.id]: w.id }), library)
        return isPlanned(
          planPins(
            { ...questionOf(stages)!, needs: needs.open },
            {
              tidied: false,
              patience: share(patience, 300),
            },
          ),
        )
      })
      .map((w) => ({
        label: `Set ${instance.name}: ${w.name}`,
        edits: [{ kind: 'setWiring' as const, id: instance.need.id, wiring: w.id }],
      })),
  )
}

export const stackOverlap: Check = {
  id: 'pins.stack-overlap',
  stage: 'pins',
  looksFor: 'two expansion boards that use the same position of the header',
  rule: 'the positions of the expansion boards and their links',
  run: (stages) => {
    const { chip } = stages.chip
    const { plan } = stages.pins
    if (!chip?.board || plan?.status !== 'clash') return []
    // Links left to the plan are no overlap, unless no setting of theirs helps.
    const open = stages.needs.open.choices.filter((c) => !plan.clashChoices.includes(c)).map((c) => c.need.id)
    const settled = (claim: Claim) => !open.includes(claim.seat.instance.need.id)
    const seen = new Set<string>()
    return overlapsOf(stages.needs.signals)
      .filter(({ a, b }) => settled(a) && settled(b))
      .flatMap(({ place, a, b }) => {
        const pair = [a.seat.instance, b.seat.instance]
        const key = pair.map((i) => i.id).join(' ')
        const pin = chip.pins.find((p) => p.places?.includes(place))
        if (!pin || seen.has(key)) return []
        seen.add(key)
        return [
          {
            id: `pins.stack-overlap:${key}`,
            severity: 'stops' as const,
            grade: 'impossible' as const,
            ...say`${pair[0]!.name} and ${pair[1]!.name} both use ${legSaid(pin)}.`,
            because: [
              ...[a, b].map(
                ({ signal, seat }) =>
                  say`${signal.name} is at ${seat.label} of ${seat.instance.name}, which sits on ${legSaid(pin)} (${seat.instance.part.sheet}, ${seat.instance.wiring.name})`,
              ),
              say`One position can carry one line`,
            ],
            fixes: [...otherLinks(stages, [a, b]), ...pair.map((i) => doWithout(i.need))],
            about: { device: pair[1]!.need.id, pin: pin.id },
          },
        ]
      })
  },
}
