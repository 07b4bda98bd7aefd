// What server and page say to one another, written once for both.

import type { Design } from '../design'
import type { Fault, Part } from '../parts'

export interface ProjectLine {
  id: string
  name: string
  chip?: string
  devices: number
  /** What the builder wrote about it. */
  notes?: string
  sample: boolean
  changedAt: string
  /** Its row can’t be read; what is left of it can be fetched as it is. */
  damaged?: true
}
export interface StoredProject {
  id: string
  design: Design
  version: number
  sample: boolean
  changedAt: string
}

export interface StoredPart {
  id: string
  /** As it was written, before assumptions are put in. */
  file: unknown
  part: Part
  version: number
  changedAt: string
}
/** A part that an earlier or later version of the program wrote may not be readable: it is kept, and shown with its faults. */
export interface UnreadablePart {
  id: string
  file: unknown
  faults: Fault[]
}
export interface OwnParts {
  parts: StoredPart[]
  unreadable: UnreadablePart[]
}
export interface Uses {
  projects: { id: string; name: string }[]
  parts: { id: string; name: string }[]
}
export interface DrawerLine {
  part: string
  count: number
  place: string
  since: string
}
export const takes = ['mine', 'theirs', 'both'] as const
/** What is done with a part of a brought library whose id one of the builder’s own has. */
export type Take = (typeof takes)[number]

/** A copy of everything, made by the database. */
export interface CopyLine {
  /** Its file’s name in the folder of copies. */
  name: string
  made: string
  /** In bytes. */
  size: number
}
export interface CopyList {
  copies: CopyLine[]
  /** Why the last one that was due could not be made; absent: it was. */
  failed?: string
}
/** What a copy has, beside what is stored now: before it is brought back. */
export interface CopyContent extends CopyLine {
  projects: { id: string; name: string; changedAt: string; now: 'same' | 'other' | 'none' }[]
  parts: { id: string; now: 'same' | 'other' | 'none' }[]
  /** Lines of the drawer that are another now, or on one side alone. */
  drawer: number
  /** Names of what is stored now, at hand or put away, and not in the copy. */
  newer: { projects: string[]; parts: string[] }
}

/** Everything that is stored, as one file. */
export interface Everything {
  format: 1
  kind: 'everything'
  projects: { id: string; design: unknown; sample: boolean; changedAt: string; away: boolean }[]
  parts: { file: unknown; changedAt: string; away: boolean }[]
  drawer: DrawerLine[]
  /** Ids of what can’t be read as a project or a part, and so could not be brought in again: it is not in the file. */
  damaged: string[]
}
/** What became of a file of everything that was brought: nothing that was there is changed by it. */
export interface Brought {
  /** Names of projects that came in. */
  projects: string[]
  parts: string[]
  drawer: number
  /** How many were there already, in the same words. */
  there: number
  /** How many were left out, since they could not be read when the file was made. */
  damaged: number
}

/** RFC 9457. */
export interface ProblemBody {
  title: string
  status: number
  detail?: string
  faults?: Fault[]
  /** What stands instead of what was sent. */
  stored?: StoredProject | StoredPart
  clashes?: StoredPart[]
  /** Who has the id: a part that was put away, or one that can’t be read. */
  held?: { id: string; away: boolean }
  [more: string]: unknown
}
