// What hangs on a bridge: more than it stands, too little left behind it, too warm; or nothing hangs where something should.

import { feederName, type NeedDevice } from '../../design'
import { type Check, type Fix, type Found, say, type Stages } from '../../findings'
import { bridgeFor, canTurn, type Instance, ownWiring } from '../../needs'
import { type BridgeFault, heatFaults, loadFaults, otherBridges, rankBridges } from '../bridges'

const byTransistor = (id: string, name: string): Fix => ({
  label: `Switch ${name} by a transistor`,
  edits: [{ kind: 'hangOn', id, bridge: null }],
})

/** Bridges that would do for this load, the cheapest first; and doing without one. */
const otherWays = (stages: Stages, need: string): Fix[] => {
  if (!stages.proposing) return []
  const of = rankBridges(stages).find((r) => r.need === need)
  return [
    ...otherBridges(of)
      .slice(0, 2)
      .map((r) => ({ label: `Hang ${of!.name} on ${r.part.name}`, edits: [r.edit] })),
    byTransistor(need, of?.name ?? 'it'),
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

/** Of what hangs where it can. */
const loaded = (stages: Stages): Found[] =>
  stages.power.bridges.flatMap((b): Found[] => [
    // Several of a kind are the same: said once.
    ...b.loads
      .filter((l) => l.load.at === 1)
      .map((l) => ({ ...l, load: { ...l.load, name: l.load.need.name } }))
      .flatMap((l) => loadFaults(l).map((f) => found(stages, f, l.load.need.id))),
    ...heatFaults(b.bridge.name, b).map((f) => ({
      ...found(stages, f, b.loads[0]!.load.need.id),
      id: `power.bridge:${f.kind}:${b.bridge.id}`,
      about: { device: b.bridge.need.id },
    })),
  ])

type Bridge = Extract<ReturnType<typeof bridgeFor>, { need: NeedDevice }>

const unable = ({ id, name }: NeedDevice, why: string): Found => ({
  id: `power.bridge:unable:${id}`,
  severity: 'stops',
  grade: 'impossible',
  ...say`${name} can’t hang on a bridge as the project says: ${why}. It is reckoned as switched by its transistor.`,
  because: [say`A bridge switches what has two terminals, and nothing else at them`],
  fixes: [byTransistor(id, name)],
  about: { device: id },
})

const full = (stages: Stages, { id }: NeedDevice, bridge: Bridge, without: readonly Instance[]): Found => {
  const hung = stages.needs.instances.filter((i) => i.hung?.bridge === bridge.need.id)
  const { outputs } = bridge.drives
  return {
    id: `power.bridge:full:${id}`,
    severity: 'stops',
    grade: 'impossible',
    ...say`${bridge.need.name} has no output left for ${without.map((i) => i.name).join(', ')}: ${hung.length} hang on ${outputs.length * bridge.need.count}.`,
    because: [
      say`${bridge.part.sheet}: ${outputs.length} outputs`,
      say`${bridge.need.count} of it in the project`,
    ],
    fixes: otherWays(stages, id),
    about: { device: id },
  }
}

const fedElsewhere = ({ id, name, fedBy }: NeedDevice, { need }: Bridge): Found => ({
  id: `power.bridge:fed:${id}`,
  severity: 'risks',
  grade: 'impossible',
  ...say`What ${name} draws is counted where the project feeds it, and not where ${need.name} is fed, on which it hangs.`,
  because: [
    say`${need.name} is fed from the ${feederName(need.fedBy ?? 'rail')}`,
    say`${name} is fed from the ${feederName(fedBy ?? 'rail')}`,
  ],
  fixes: [{ label: `Feed ${name} as ${need.name}`, edits: [{ kind: 'hangOn', id, bridge: need.id }] }],
  about: { device: id },
})

const idle = ({ needs }: Stages, { id, name }: NeedDevice, sheet: string): Found => ({
  id: `power.bridge:idle:${id}`,
  severity: 'notes',
  grade: 'typical',
  ...say`Nothing of this project hangs on ${name}: what its motors draw is in no sum.`,
  because: [say`${sheet}: its own current is without what hangs on it`],
  fixes: [
    ...needs.instances
      .filter((i) => i.at === 1 && !i.hung && canTurn(i.part, ownWiring(i.part, i.need)))
      .slice(0, 2)
      .map((i): Fix => ({
        label: `Hang ${i.need.name} on it`,
        edits: [{ kind: 'hangOn', id: i.need.id, bridge: id }],
      })),
    { label: `Do without ${name}`, edits: [{ kind: 'removeDevice', id }] },
  ],
  about: { device: id },
})

export const bridgeCheck: Check = {
  id: 'power.bridge',
  stage: 'power',
  looksFor: 'a load on a bridge that doesn’t stand it, or leaves it too little; a bridge with nothing on it',
  rule: 'current of an output, lasting and for a moment; what falls in both switches; heat at the project’s ambient; the load’s own supply range',
  run: (stages) => {
    const { design, library, needs } = stages
    return [
      ...loaded(stages),
      ...design.needs.devices.flatMap((need): Found[] => {
        const all = needs.instances.filter((i) => i.need.id === need.id)
        const part = all[0]?.part
        if (!part) return []
        const bridge = bridgeFor(design, need, part, ownWiring(part, need), library)
        if (!bridge)
          return part.drives && !needs.instances.some((i) => i.hung?.bridge === need.id)
            ? [idle(stages, need, part.sheet)]
            : []
        if ('why' in bridge) return [unable(need, bridge.why)]
        const without = all.filter((i) => i.hung && !i.hung.output)
        if (without.length > 0) return [full(stages, need, bridge, without)]
        return (need.fedBy ?? 'rail') === (bridge.need.fedBy ?? 'rail') ? [] : [fedElsewhere(need, bridge)]
      }),
    ]
  },
}
