// What guards a lithium cell: what sits on it by its file, or a board between it and all else.

import { type Design, type Edit, joinCells, leadField, type LeadOwner } from '../design'
import { fromPart, type Worked, type WorkedInput } from '../findings'
import { findPart, type Library, type Protection, type Source } from '../parts'
import { fullRange } from '../quantity'
import { asStated } from '../sums'
import { usualCells } from './joined'
import type { LeadParts } from './lead'

/** A lithium cell that is charged again and again. */
export const needsProtection = ({ sort, rechargeable, cautions }: Source): boolean =>
  sort === 'cells' && rechargeable === true && (cautions?.includes('lithium') ?? false)

/** One that nothing keeps from being emptied too far, or opens when it is shorted. */
export const unprotected = (source: Source, lead?: Pick<LeadParts, 'protection'>): boolean =>
  needsProtection(source) && !source.protection && !lead?.protection

export interface CellGuard {
  /** Whose sheet says it. */
  part: Source | Protection
  /** In a sentence. */
  name: string
  /** Below which nothing comes out. */
  cut: WorkedInput
  /** Above which nothing comes out, A. */
  opens: Worked
}

const guardOf = (part: Source | Protection, nth: string): CellGuard | undefined => {
  const within = part.kind === 'source' ? part.protection : part
  if (!within) return undefined
  const field = (name: string) => (part.kind === 'source' ? `protection.${name}` : name)
  const name = part.kind === 'source' ? `the protection of ${part.name}` : part.name
  return {
    part,
    name,
    cut: fromPart(
      `V_cut${nth}`,
      part.kind === 'source'
        ? 'below which its protection lets nothing out'
        : `below which ${part.name} lets nothing out`,
      part,
      field('voltage'),
      within.voltage,
      'V',
    ),
    opens: asStated(
      `Current at which ${name} opens`,
      'I_open',
      'A',
      fromPart('I_open', name, part, field('current'), within.current, 'A'),
    ),
  }
}

/** All that guard a cell, each by itself: the one on it first. */
export const cellGuards = (source: Source, lead?: Pick<LeadParts, 'protection'>): CellGuard[] => [
  ...[guardOf(source, '')].filter((g) => g !== undefined),
  ...[lead?.protection && guardOf(lead.protection, source.protection ? ',2' : '')].filter(
    (g) => g !== undefined,
  ),
]

/** Why a board doesn’t go with a cell; nothing where it does. */
export type Misfit = 'no cell' | 'ends charging early' | 'lets it be overcharged' | 'opens early'

/** So much above what a cell stands is as near as boards are made, V. */
const near = 0.1

/** What of a board doesn’t go with its source, by the sheets of both. */
export const misfits = (source: Source, { full, voltage }: Protection): Misfit[] => {
  if (!needsProtection(source)) return ['no cell']
  const empty = fullRange(source.voltage).min
  const stands = source.charging && fullRange(source.charging.voltage)
  return [
    ...(stands && fullRange(full).min < stands.min ? ['ends charging early' as const] : []),
    ...(stands && fullRange(full).max > stands.max + near ? ['lets it be overcharged' as const] : []),
    ...(fullRange(voltage).max > empty ? ['opens early' as const] : []),
  ]
}

/** The board in a lead that guards nothing once this source is chosen. */
export const needless = (
  of: LeadOwner,
  source: Source,
  { power }: Pick<Design, 'power'>,
  library: Library,
): Protection | undefined =>
  needsProtection(source) ? undefined : findPart(library, 'protection', power[leadField[of]]?.protection)

/** What choosing a source does: a board that guarded the cell before goes with that. */
export const choosing = (
  of: LeadOwner,
  source: Source,
  design: Pick<Design, 'chip' | 'power'>,
  library: Library,
): Edit[] => {
  const goes = needless(of, source, design, library)
  // As many as whoever offers it has reckoned with.
  const cells = source.joined ?? usualCells(of, source, design, library)
  const { id: part, name } = cells && !source.joined ? joinCells(source, cells) : source
  const chosen = { part, name, ...(cells && { cells }) }
  return [
    of === 'feed' ? { kind: 'chooseFeed', ...chosen } : { kind: 'chooseSource', ...chosen },
    ...(goes
      ? [{ kind: 'changeLead' as const, of, change: { protection: undefined }, what: `no ${goes.name}` }]
      : []),
  ]
}
