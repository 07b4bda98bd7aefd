// What the project names, and what no sum knows: a part that is not in the library, a lead that is said by half.

import { feederName, leadField, leadNames, leadOwners } from '../../design'
import { type Check, say, type Found } from '../../findings'
import { findPart, type PartKind } from '../../parts'
import { deviceLead } from '../../supply'
import { ledCurrent } from '../device-leads'

const unknown = (what: string, id: string): Found => ({
  id: `power.not-reckoned:${what.replaceAll(' ', '-')}`,
  severity: 'stops',
  ...say`The ${what} is “${id}”, which is not in the library: nothing about it is computed.`,
  because: [say`No part file has that id`],
  fixes: [],
})

const byHalf = (name: string, what: string, missing: string, key = name): Found => ({
  id: `power.not-reckoned:${key} ${what}`.replaceAll(' ', '-'),
  severity: 'risks',
  ...say`In the ${name} the ${what} are left out of every sum: ${missing}.`,
  because: [say`What they lose and what they may carry depends on it`],
  fixes: [],
})

type Named = [what: string, kind: PartKind, id: string | undefined]

export const notReckoned: Check = {
  id: 'power.not-reckoned',
  stage: 'power',
  looksFor:
    'a source, a regulator or a part of a lead that is not in the library, and a lead that is said by half',
  rule: 'what isn’t known is left out of the sums, and said',
  run: ({ design, library, needs }) => {
    const { source, regulator, feed } = design.power
    const named: Named[] = [
      ['source', 'source', source],
      ['regulator', 'regulator', regulator],
      ['second feed', 'source', feed],
      ...(design.power.rails ?? []).map((r): Named => [
        `regulator of the ${feederName(r.id)}`,
        'regulator',
        r.regulator,
      ]),
    ]
    const halves: Found[] = []
    for (const of of leadOwners) {
      const lead = design.power[leadField[of]]
      if (!lead || !design.power[of]) continue
      const name = leadNames[of]
      named.push(
        [`wire of the ${name}`, 'wire', lead.wire],
        [`joint of the ${name}`, 'connector', lead.joint],
        [`fuse of the ${name}`, 'fuse', lead.fuse],
        [`protection in the ${name}`, 'protection', lead.protection],
      )
      if (lead.wire && !lead.length) halves.push(byHalf(name, 'wires', 'nothing says how long they are'))
      if (lead.joint && !lead.joints) halves.push(byHalf(name, 'joints', 'nothing says how many there are'))
    }
    for (const { id, name, lead } of design.needs.devices) {
      const to = `lead to ${name}`
      named.push([`wire of the ${to}`, 'wire', lead?.wire], [`joint of the ${to}`, 'connector', lead?.joint])
      if (lead?.wire && !lead.length)
        halves.push(byHalf(to, 'wires', 'nothing says how long they are', `lead to ${id}`))
      if (lead?.joint && !lead.joints)
        halves.push(byHalf(to, 'joints', 'nothing says how many there are', `lead to ${id}`))
      const instance = needs.instances.find((i) => i.need.id === id)
      if (instance && deviceLead({ lead }, design.needs.limits, library) && !ledCurrent(instance))
        halves.push(byHalf(to, 'wires and joints', 'its sheet states no currents', `lead to ${id}`))
    }
    return [
      ...named.flatMap(([what, kind, id]) =>
        id !== undefined && !findPart(library, kind, id) ? [unknown(what, id)] : [],
      ),
      ...halves,
    ]
  },
}
