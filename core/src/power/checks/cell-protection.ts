// What guards a lithium cell that is charged again and again against being emptied too far, whether it goes with the cell, and whether
// it stays out of the way.

import { type Design, type LeadOwner, leadOwners, sourceOf } from '../../design'
import { type Check, type Fact, type Fix, partOrigin, say, type Found, type Worked } from '../../findings'
import { findPart, type Library, partsOfKind, type Protection, type Source } from '../../parts'
import { capital, formatQuantity, fullRange } from '../../quantity'
import {
  type CellGuard,
  cellGuards,
  choosing,
  leadOf,
  type Misfit,
  misfits,
  needsProtection,
  unprotected,
} from '../../supply'

export const cellProtection: Check = {
  id: 'power.cell-protection',
  stage: 'power',
  looksFor:
    'a lithium cell that nothing keeps from being emptied too far, protection made for another cell or that cuts the charger off, or that opens while all is well',
  rule: 'what sits on the cell or beside it, by its sheet, against the most that the project takes, the lowest that the cell stands and what it is charged to',
  run: ({ design, library, power: { loads } }) =>
    leadOwners.flatMap((of): Found[] => {
      const cell = sourceOf(design, library, of)
      if (!cell) return []
      const lead = leadOf(design, library, of)
      const most = loads.sources.find((s) => s.source.id === of)?.work
      const at: Guarded = { of, cell, board: lead?.protection, design, library }
      return [
        ...(unprotected(cell, lead) ? [none(at)] : []),
        ...wrongBoard(at),
        ...cutsCharger(at),
        ...(most ? opening(at, cellGuards(cell, lead), most) : []),
      ]
    }),
}

interface Guarded {
  of: LeadOwner
  cell: Source
  board: Protection | undefined
  design: Design
  library: Library
}

const idOf = (what: string, { of }: Guarded) => `power.cell-protection:${what.replaceAll(' ', '-')}:${of}`

const none = (at: Guarded): Found => {
  const { of, cell, design, library } = at
  const empty = volts(cell.voltage, 'min')
  return {
    id: idOf('none', at),
    severity: 'risks',
    grade: 'typical',
    ...say`Nothing stops ${cell.name} from being emptied below ${empty}: after all has gone dark the board goes on drawing a little. A lithium cell that has been that low may catch fire when it is charged again; nor does anything on it open in a short.`,
    because: [
      say`${cell.sheet} names no protection on the cell`,
      { ...say`It is empty at ${empty}`, origin: partOrigin(cell, 'voltage', cell.voltage) },
    ],
    fixes: [
      ...boardsFor(cell, library).map((b): Fix => ({
        label: `Put ${b.name} between it and all else`,
        edits: [guardBy(of, b)],
      })),
      ...protectedLike(cell, library).map((c): Fix => ({
        label: `Take ${c.name}`,
        edits: choosing(of, c, design, library),
      })),
    ],
  }
}

const wrongBoard = (at: Guarded): Found[] => {
  const { of, cell, board, library } = at
  if (!board) return []
  const leftOut: Fix = { label: `Leave ${board.name} out`, edits: [guardBy(of, undefined)] }
  return misfits(cell, board).map((why) => ({
    id: idOf(why, at),
    ...misfitSays(why, cell, board),
    because: misfitFacts(why, cell, board),
    fixes: [
      ...instead(
        at,
        boardsFor(cell, library).filter((b) => b.id !== board.id),
      ),
      ...(unprotected(cell) ? [] : [leftOut]),
    ],
  }))
}

/** A charger that ends by itself above what a board of the right sort lets in. */
const cutsCharger = (at: Guarded): Found[] => {
  const { of, cell, board, design, library } = at
  const charger = of === 'source' ? findPart(library, 'charger', design.power.charging?.charger) : undefined
  if (!board || !charger || misfits(cell, board).some((why) => why !== 'opens early')) return []
  const [brings, ends] = [fullRange(charger.voltage).max, fullRange(board.full).min]
  if (brings <= ends) return []
  return [
    {
      id: idOf('cuts-off-charger', at),
      severity: 'notes',
      grade: 'outside the sheet',
      ...say`${charger.name} may bring the cell to ${volts(charger.voltage, 'max')}, and ${board.name} may end charging at ${volts(board.full, 'min')}: the charger then never sees the cell full.`,
      because: [
        {
          ...say`${charger.sheet}: up to ${volts(charger.voltage, 'max')}`,
          origin: partOrigin(charger, 'voltage', charger.voltage),
        },
        {
          ...say`${board.sheet}: from ${volts(board.full, 'min')} on`,
          origin: partOrigin(board, 'full', board.full),
        },
      ],
      fixes: instead(
        at,
        boardsFor(cell, library).filter((b) => fullRange(b.full).min >= brings),
      ),
    },
  ]
}

/** What is drawn takes a guard for a short; one before what is no lithium cell is told as that. */
const opening = (at: Guarded, guards: readonly CellGuard[], most: Worked): Found[] => {
  const { cell, library } = at
  return guards.flatMap(({ part, name, opens }): Found[] => {
    const isBoard = part.kind === 'protection'
    if (most.value.max <= opens.value.min || (isBoard && !needsProtection(cell))) return []
    const usually = most.value.typ > opens.value.typ
    return [
      {
        id: idOf(isBoard ? 'board-opens' : 'opens', at),
        severity: usually ? 'stops' : 'risks',
        grade: usually ? 'typical' : 'outside the sheet',
        ...say`${capital(name)} may open at ${formatQuantity(opens.value.min, 'A')}, and up to ${formatQuantity(most.value.max, 'A', 3)} are drawn: all goes dark as if the cell were gone.`,
        because: [
          { ...say`Drawn with all at work: up to ${formatQuantity(most.value.max, 'A', 3)}`, worked: most },
          {
            ...say`It opens between ${formatQuantity(opens.value.min, 'A')} and ${formatQuantity(opens.value.max, 'A')}`,
            worked: opens,
          },
        ],
        fixes: isBoard
          ? instead(
              at,
              boardsFor(cell, library).filter((b) => fullRange(b.current).min > opens.value.min),
            )
          : [],
      },
    ]
  })
}

const volts = (rated: Parameters<typeof fullRange>[0], end: 'min' | 'max') =>
  formatQuantity(fullRange(rated)[end], 'V', 3)

const misfitSays = (why: Misfit, cell: Source, board: Protection) => {
  switch (why) {
    case 'no cell':
      return {
        severity: 'risks' as const,
        grade: 'typical' as const,
        ...say`${board.name} is made for one lithium cell that is charged, and ${cell.name} is none: outside what it is made for it guards nothing, and may not let anything through.`,
      }
    case 'ends charging early':
      return {
        severity: 'risks' as const,
        grade: 'outside the sheet' as const,
        ...say`${board.name} may end charging at ${volts(board.full, 'min')}, and ${cell.name} is full only at ${volts(cell.charging!.voltage, 'min')}: the charger is cut off before it ends by itself.`,
      }
    case 'lets it be overcharged':
      return {
        severity: 'stops' as const,
        grade: 'outside the sheet' as const,
        ...say`${board.name} lets the cell be charged up to ${volts(board.full, 'max')}, and ${cell.name} stands ${volts(cell.charging!.voltage, 'max')}: it is made for another sort of cell, and keeps this one from nothing. A lithium cell that is overcharged may burn.`,
      }
    case 'opens early':
      return {
        severity: 'notes' as const,
        grade: 'outside the sheet' as const,
        ...say`${board.name} may open at ${volts(board.voltage, 'max')}, while ${cell.name} still has charge: it is empty at ${volts(cell.voltage, 'min')}. What is left then is not reckoned with.`,
      }
  }
}

/** What the sheets of both say of it. */
const misfitFacts = (why: Misfit, cell: Source, board: Protection): Fact[] => {
  switch (why) {
    case 'no cell':
      return [say`${cell.sheet} says nothing of a lithium cell that is charged`]
    case 'opens early':
      return [
        {
          ...say`It opens between ${volts(board.voltage, 'min')} and ${volts(board.voltage, 'max')}`,
          origin: partOrigin(board, 'voltage', board.voltage),
        },
        {
          ...say`The cell is empty at ${volts(cell.voltage, 'min')}`,
          origin: partOrigin(cell, 'voltage', cell.voltage),
        },
      ]
    case 'ends charging early':
    case 'lets it be overcharged':
      return [
        {
          ...say`It ends charging between ${volts(board.full, 'min')} and ${volts(board.full, 'max')}`,
          origin: partOrigin(board, 'full', board.full),
        },
        {
          ...say`The cell is full at ${volts(cell.charging!.voltage, 'min')}, and stands ${volts(cell.charging!.voltage, 'max')}`,
          origin: partOrigin(cell, 'charging.voltage', cell.charging!.voltage),
        },
      ]
  }
}

const guardBy = (of: LeadOwner, board: Protection | undefined) => ({
  kind: 'changeLead' as const,
  of,
  change: { protection: board?.id },
  what: board?.name ?? 'no protection',
})

const instead = ({ of }: Guarded, boards: readonly Protection[]): Fix[] =>
  boards.map((b) => ({ label: `Take ${b.name}`, edits: [guardBy(of, b)] }))

/** Boards that go with a cell, the cheapest first. */
const boardsFor = (cell: Source, library: Library): Protection[] =>
  partsOfKind(library, 'protection')
    .filter((b) => misfits(cell, b).every((why) => why === 'opens early'))
    .sort((a, b) => misfits(cell, a).length - misfits(cell, b).length || a.price - b.price)

/** Cells of the same voltages with something on them that guards them. */
const protectedLike = (cell: Source, library: Library) =>
  partsOfKind(library, 'source').filter(
    (c) =>
      c.protection !== undefined &&
      c.sort === 'cells' &&
      Math.abs(fullRange(c.voltage).typ - fullRange(cell.voltage).typ) < 0.1,
  )
