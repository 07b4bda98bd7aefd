// Fixes that have been tried: each is applied to a copy and everything computed anew. What does not clear its finding,
// or brings a worse one, is not offered, and the preview is what was computed.

import { applyEdits, libraryFor } from '../design'
import { type Finding, type Fix, severities } from '../findings'
import type { Library } from '../parts'
import type { Patience } from '../patience'
import { type Analysis, analyse, proposalsFor } from './analyse'
import { compareAnalyses, type Preview } from './preview'

export interface Offer {
  fix: Fix
  preview: Preview
}

export interface Offers {
  offers: Offer[]
  /** Proposals that could not be tried in the time given. */
  untried: string[]
}

const rank = ({ severity }: Pick<Finding, 'severity'>) => severities.indexOf(severity)

/** Whether a change clears a finding and brings none that is as bad: none at all that stops or risks, after a note. */
export const isBetter = (finding: Finding, { cleared, appearing }: Preview): boolean =>
  cleared.some((f) => f.id === finding.id) &&
  appearing.every((f) => rank(f) > rank(finding) || (finding.severity === 'notes' && f.severity === 'notes'))

/**
 * What helps against a finding, of what was proposed. Two proposals that come to the same design are one.
 * `library`: everything there is; each design is analysed with the facts it keeps.
 */
export const offersFor = (
  before: Analysis,
  library: Library,
  finding: Finding,
  patience?: Patience,
): Offers => {
  const offers: Offer[] = []
  const untried: string[] = []
  const seen = new Set<string>([JSON.stringify(before.design)])
  for (const fix of proposalsFor(before, library, finding, patience)) {
    const after = applyEdits(before.design, fix.edits)
    const key = JSON.stringify(after)
    if (seen.has(key)) continue
    seen.add(key)
    if (patience?.spent()) {
      untried.push(fix.label)
      continue
    }
    const analysis = analyse(after, libraryFor(after, library), patience, before)
    // What was given up on the way says nothing for sure.
    if (patience?.spent() || analysis.pins.plan?.status === 'undecided') {
      untried.push(fix.label)
      continue
    }
    const preview = compareAnalyses(before, analysis)
    if (isBetter(finding, preview)) offers.push({ fix, preview })
  }
  return { offers, untried }
}
