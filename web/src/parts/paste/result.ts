// The part that the pasted tables make so far, read as the library would read it.

import {
  type Answers,
  boardFileFrom,
  chipFileFrom,
  deviceFrom,
  joinBoard,
  joinStarts,
  type PartFrom,
  type Question,
  regulatorFrom,
  type Understood,
  type UnderstoodBoard,
  type UnderstoodLimits,
  type Start,
  withDrivers,
  withFacts,
  withStart,
} from '@root-board/core/intake'
import { findPart, FaultyFile, type Fault, type Library, type Part, readPart } from '@root-board/core/parts'
import { parseQuantity } from '@root-board/core/quantity'
import type { PasteDraft } from './draft'
import { headFaults, headNames } from './head'

export interface Result {
  file?: Record<string, unknown>
  part?: Part
  faults: Fault[]
  /** Questions about joining a board with its chip, about terminals, and about what no table says. */
  questions: Question[]
  /** What was taken without having been read. */
  notes: string[]
  /** What each leg of a regulator or a device was taken for. */
  says?: Record<string, string>
  board?: UnderstoodBoard
}

export const idFrom = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')

const headOf = (draft: PasteDraft) => {
  return {
    id: idFrom(draft.name),
    name: draft.name.trim(),
    sheet: draft.sheet.trim() || 'pasted tables',
    maker: draft.maker.trim() || undefined,
    price: draft.price.trim() === '' ? undefined : Number(draft.price.replace(',', '.')),
  }
}

/** A regulator or a device, with what was answered about legs and about limits. */
const smallPartOf = (
  draft: PasteDraft,
  table: Understood,
  limits: UnderstoodLimits | undefined,
): PartFrom => {
  const head = headOf(draft)
  const facts = limits?.facts ?? []
  const answers = { ...draft.limitAnswers, ...draft.answers }
  return draft.kind === 'regulator'
    ? regulatorFrom(
        table,
        facts,
        {
          ...head,
          style: draft.style || undefined,
          pitch: draft.pitch.trim() === '' ? undefined : parseQuantity(draft.pitch, 'm'),
        },
        answers,
      )
    : deviceFrom(
        table,
        facts,
        { ...head, group: draft.group.trim() || undefined },
        answers,
        `${draft.tableText}\n${draft.limitsText}`,
      )
}

/** All exchange files together; undefined where there is none. */
const startOf = (draft: PasteDraft): Start | undefined =>
  draft.exchange
    .flatMap((e) => e.starts[e.chosen]?.start ?? [])
    .reduce<Start | undefined>((all, one) => (all ? joinStarts(all, one) : one), undefined)

/** The table with what exchange files know besides. */
export const withExchange = (draft: PasteDraft, table: Understood | undefined): Understood | undefined => {
  const start = draft.kind === 'chip' ? startOf(draft) : undefined
  return start ? withStart(start, table) : table
}

export const resultOf = (
  draft: PasteDraft,
  table: Understood | undefined,
  limits: UnderstoodLimits | undefined,
  library: Library | undefined,
  answers: Answers,
): Result => {
  const faults: Fault[] = []
  const none = { faults, questions: [], notes: [] }
  if (!table || table.legs.length === 0) return none
  const unread = Object.entries(headFaults(draft)).map(([path, message]) => ({
    path,
    message: `${headNames[path as keyof PasteDraft] ?? path}: ${message}.`,
  }))
  if (unread.length > 0) return { ...none, faults: unread }
  const head = headOf(draft)
  let file: Record<string, unknown>
  let board: UnderstoodBoard | undefined
  let from: PartFrom | undefined
  if (draft.kind === 'board') {
    const chip = library && findPart(library, 'chip', draft.chip)
    if (!chip) return { ...none, faults: [{ path: 'chip', message: 'Choose the chip on the board above.' }] }
    const [logic, min, max] = [draft.logic, draft.inputMin, draft.inputMax].map((v) =>
      parseQuantity(v, 'V'),
    ) as [number, number, number]
    const boardHead = { ...head, chip, logic, input: { min, max } }
    board = joinBoard(table, boardHead, answers)
    file = boardFileFrom(board, boardHead)
  } else if (draft.kind === 'regulator' || draft.kind === 'device') {
    from = smallPartOf(draft, table, limits)
    file = from.file
  } else {
    const begun = chipFileFrom(table, { ...head, style: draft.style || undefined })
    const start = startOf(draft)
    file = withFacts(start ? withDrivers(begun, start) : begun, limits?.facts ?? [])
  }
  const questions = from?.questions ?? board?.questions ?? []
  const notes = from?.notes ?? []
  const all = { file, board, questions, notes, says: from?.says }
  if (head.id === '') return { ...all, faults: [{ path: 'name', message: 'Give it a name above.' }] }
  if (from && from.missing.length > 0)
    return {
      ...all,
      faults: from.missing.map((words) => ({ path: 'limits', message: `Still to be told: ${words}.` })),
    }
  try {
    return { ...all, part: readPart(file, head.id), faults }
  } catch (error) {
    if (!(error instanceof FaultyFile)) throw error
    return { ...all, faults: error.faults }
  }
}
