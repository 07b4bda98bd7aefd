// What is wrong with a lead: too thin, a fuse that opens for nothing, one that guards nothing, or none.

import { type Lead, leadNames, type LeadOwner } from '../../design'
import { type Check, type Fix, say, type Stages, type Found } from '../../findings'
import { capital } from '../../quantity'
import { faultsInLeads, type LeadFaultKind, rankLeads } from '../leads'

/** Another wire, or another fuse: of those that nothing speaks against the cheapest. */
const others = (stages: Stages, of: LeadOwner, field: 'wire' | 'fuse'): Fix[] => {
  if (!stages.proposing) return []
  const { sources } = stages.power.loads
  const ranked = rankLeads({
    design: stages.design,
    library: stages.library,
    sources,
    // An offer is computed anew as a whole before it is made.
    tried: (owner) => ({ current: sources.find((s) => s.source.id === owner)!.work, suffers: [] }),
  }).find((r) => r.of === of)
  const able =
    field === 'wire'
      ? (ranked?.wires ?? []).map(({ wire: part, no, chosen }) => ({ part, no, chosen }))
      : (ranked?.fuses ?? []).map(({ fuse: part, no, chosen }) => ({ part, no, chosen }))
  return able
    .filter((x) => x.no.length === 0 && !x.chosen)
    .slice(0, 3)
    .map(({ part }) => {
      const change: Lead = { [field]: part.id }
      return {
        label: `${capital(field)} of the ${leadNames[of]}: ${part.name}`,
        edits: [{ kind: 'changeLead', of, change, what: part.name }],
      }
    })
}

export const otherWires = (stages: Stages, of: LeadOwner): Fix[] => others(stages, of, 'wire')

const leadCheck = (
  id: string,
  looksFor: string,
  rule: string,
  kinds: readonly LeadFaultKind[],
  fields: readonly ('wire' | 'fuse')[],
): Check => ({
  id,
  stage: 'power',
  looksFor,
  rule,
  run: (stages) =>
    faultsInLeads(stages.power.loads).flatMap(({ of, faults }) =>
      faults
        .filter((f) => kinds.includes(f.kind))
        .map(({ kind, severity, grade, says, because }): Found => ({
          id: `${id}:${of}:${kind.replaceAll(' ', '-')}`,
          severity,
          grade,
          ...say`In the ${leadNames[of]}: ${says}.`,
          because,
          fixes: fields.flatMap((field) => others(stages, of, field)),
        })),
    ),
})

export const wireTooThin = leadCheck(
  'power.wire-too-thin',
  'a wire or a joint that gets hotter than it stands',
  'its rated current, less in warmer air as the square root of what is left to its insulation’s limit (IEC 60364-5-52)',
  ['wire carries', 'joint carries'],
  ['wire'],
)
export const fuseTrips = leadCheck(
  'power.fuse-trips',
  'a fuse that opens though nothing is wrong',
  'what it holds in the project’s warmest air, by the curve of its sheet',
  ['fuse trips', 'fuse curve'],
  ['fuse'],
)
export const fuseGuards = leadCheck(
  'power.fuse-guards',
  'a fuse that doesn’t guard its wire, can’t interrupt a short, or isn’t opened by one',
  'what surely opens it is at most 1.45 times what the wire may carry (IEC 60364-4-43); its voltage and breaking capacity; what flows into a short',
  ['fuse too big', 'fuse voltage', 'fuse breaks', 'fuse stays'],
  ['fuse', 'wire'],
)
export const noFuse = leadCheck(
  'power.no-fuse',
  'a wire that its source can burn, or a source that melts wires, without a fuse',
  'what flows into a short, or the source’s rating where no sheet tells, against what the wire may carry',
  ['no fuse'],
  ['fuse', 'wire'],
)
