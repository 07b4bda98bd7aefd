// What will go wrong, why, and what to do about it.

import type { Edit, StageName } from '../design'
import type { Sentence } from './say'
import type { Origin, Worked } from './worked'

/** One line of evidence. */
export interface Fact {
  text: string
  /** The same in its parts, for another language. */
  says: Sentence
  origin?: Origin
  worked?: Worked
}

/** `stops`: can't work, or does damage. `risks`: works until it doesn't. `notes`: worth knowing. */
export type Severity = 'stops' | 'risks' | 'notes'
export const severities: readonly Severity[] = ['stops', 'risks', 'notes']

/** How sure a verdict is. */
export type Grade = 'guaranteed' | 'typical' | 'outside the sheet' | 'impossible'

export interface Fix {
  label: string
  edits: Edit[]
}

export interface Finding {
  id: string
  check: string
  stage: StageName
  severity: Severity
  grade?: Grade
  text: string
  /** The same in its parts, for another language. */
  says: Sentence
  /** From cause to effect. */
  because: Fact[]
  /** Proposals that are cheap to make; `proposalsFor` has all of them, `offersFor` those that were tried and help. */
  fixes: Fix[]
  /** Looking longer may settle it. */
  longer?: true
  /** What to show when the finding is opened. */
  about?: { signal?: string; pin?: string; device?: string; support?: string }
}

/** The worst first, then by stage in working order, then by id. */
export const inOrder = (findings: Finding[], stages: readonly StageName[]): Finding[] =>
  [...findings].sort(
    (a, b) =>
      severities.indexOf(a.severity) - severities.indexOf(b.severity) ||
      stages.indexOf(a.stage) - stages.indexOf(b.stage) ||
      a.id.localeCompare(b.id),
  )
