// What hangs on a bridge: more than it stands, too little left behind it, too warm; or nothing hangs where something should.

import { feederName } from '../../design'
import { type Check, type Fix, type Found, say, type Stages } from '../../findings'
import { bridgeFor, canTurn, ownWiring } from '../../needs'
import { type BridgeFault, heatFaults, loadFaults, otherBridges, rankBridges } from '../bridges'

/** Bridges that would do for this load, the cheapest first; and doing without one. */
const otherWays = (stages: Stages, need: string): Fix[] => {
  if (!stages.proposing) return []
  const of = rankBridges(stages).find((r) => r.need === need)
  return [
    ...otherBridges(of)
      .slice(0, 2)
      .map((r) => ({ label: `Hang ${of!.name} on ${r.part.name}`, edits: [r.edit] })),
    {
      label: `Switch ${of?.name ?? 'it'} by a transistor`,
      edits: [{ kind: 'hangOn', id: need, bridge: null }],
    },
  ]
}

const found = (
  stages: Stages,
  { kind, severity, grade, says, because }: BridgeFault,
  need: string,
): Found => ({
  id: `power.bridge:${kind}:${need}`,
  severity,
  grade,
  ...says,
  because,
  fixes: severity === 'notes' ? [] : otherWays(stages, need),
  about: { device: need },
})

export const bridgeCheck: Check = {
  id: 'power.bridge',
  stage: 'power',
  looksFor: 'a load on a bridge that doesn’t stand it, or leaves it too little; a bridge with nothing on it',
  rule: 'current of an output, lasting and for a moment; what falls in both switches; heat at the project’s ambient; the load’s own supply range',
  run: (stages) => {
    const { design, library, needs, power } = stages
    const hung = needs.instances.filter((i) => i.hung)
    return [
      ...power.bridges.flatMap((b): Found[] => [
        // Several of a kind are the same: said once.
        ...b.loads
          .filter((l) => l.load.at === 1)
          .flatMap((l) => loadFaults(l).map((f) => found(stages, f, l.load.need.id))),
        ...heatFaults(b.bridge.name, b).map((f) => ({
          ...found(stages, f, b.loads[0]!.load.need.id),
          id: `power.bridge:heat:${b.bridge.id}`,
          about: { device: b.bridge.need.id },
        })),
      ]),
      ...design.needs.devices.flatMap((need): Found[] => {
        const all = needs.instances.filter((i) => i.need.id === need.id)
        const [first] = all
        if (!first) return []
        const about = { device: need.id }
        const bridge = bridgeFor(design, need, first.part, ownWiring(first.part, need), library)
        if (bridge && 'why' in bridge)
          return [
            {
              id: `power.bridge:unable:${need.id}`,
              severity: 'stops',
              grade: 'impossible',
              ...say`${need.name} can’t hang on a bridge as the project says: ${bridge.why}. It is reckoned as switched by its transistor.`,
              because: [say`A bridge switches what has two terminals, and nothing else at them`],
              fixes: [
                {
                  label: `Switch ${need.name} by a transistor`,
                  edits: [{ kind: 'hangOn', id: need.id, bridge: null }],
                },
              ],
              about,
            },
          ]
        const without = all.filter((i) => i.hung && !i.hung.output)
        if (without.length > 0 && bridge)
          return [
            {
              id: `power.bridge:full:${need.id}`,
              severity: 'stops',
              grade: 'impossible',
              ...say`${bridge.need.name} has no output left for ${without.map((i) => i.name).join(', ')}: ${hung.filter((i) => i.hung!.bridge === bridge.need.id).length} hang on ${bridge.drives.outputs.length * bridge.need.count}.`,
              because: [
                say`${bridge.part.sheet}: ${bridge.drives.outputs.length} outputs`,
                say`${bridge.need.count} of it in the project`,
              ],
              fixes: otherWays(stages, need.id),
              about,
            },
          ]
        if (bridge && (need.fedBy ?? 'rail') !== (bridge.need.fedBy ?? 'rail'))
          return [
            {
              id: `power.bridge:fed:${need.id}`,
              severity: 'risks',
              grade: 'impossible',
              ...say`What ${need.name} draws is counted where the project feeds it, and not where ${bridge.need.name} is fed, on which it hangs.`,
              because: [
                say`${bridge.need.name} is fed from the ${feederName(bridge.need.fedBy ?? 'rail')}`,
                say`${need.name} is fed from the ${feederName(need.fedBy ?? 'rail')}`,
              ],
              fixes: [
                {
                  label: `Feed ${need.name} as ${bridge.need.name}`,
                  edits: [{ kind: 'hangOn', id: need.id, bridge: bridge.need.id }],
                },
              ],
              about,
            },
          ]
        if (!first.part.drives || hung.some((i) => i.hung!.bridge === need.id)) return []
        const able = needs.instances.filter(
          (i) => i.at === 1 && !i.hung && canTurn(i.part, ownWiring(i.part, i.need)),
        )
        return [
          {
            id: `power.bridge:idle:${need.id}`,
            severity: 'notes',
            grade: 'typical',
            ...say`Nothing of this project hangs on ${need.name}: what its motors draw is in no sum.`,
            because: [say`${first.part.sheet}: its own current is without what hangs on it`],
            fixes: able.slice(0, 2).map((i) => ({
              label: `Hang ${i.need.name} on it`,
              edits: [{ kind: 'hangOn', id: i.need.id, bridge: need.id }],
            })),
            about,
          },
        ]
      }),
    ]
  },
}
