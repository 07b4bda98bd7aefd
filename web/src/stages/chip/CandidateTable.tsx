// The candidates as a table: sorted, with the columns one wants, copied; ticked to see them side by side, asked what choosing
// one would change.

import type { CandidateChip } from '@root-board/core/chip'
import { knownPrice, priceWords } from '@root-board/core/parts'
import { swapTo, swapWords } from '@root-board/core/pins'
import { formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import { Flat } from '../../kit/Flat'
import { type GrowingColumn, GrowingTable } from '../../kit/GrowingTable'
import { Tick } from '../../kit/inputs'
import { Num } from '../../kit/Num'
import { useStage } from '../../shared/analysis'
import { PreviewedFix } from '../../shared/PreviewedFix'

/** Bytes, in KiB where there are many. */
const Bytes = ({ count }: { count: number }) => {
  const size = Math.abs(count)
  const [scale, unit] = size >= 2 ** 20 ? [2 ** 20, 'MiB'] : size >= 1024 ? [1024, 'KiB'] : [1, 'B']
  const text = `${Number((size / scale).toPrecision(3))} ${unit}`
  return (
    <span className="mono">
      {count < 0 && '−'}
      {text}
    </span>
  )
}

/** What it may be fed with: a bare chip’s supply, a board’s input. */
const feed = ({ chip }: CandidateChip) => {
  const range = fullRange(chip.board?.input ?? chip.supply.recommended)
  return `${range.min}…${formatQuantity(range.max, 'V')}`
}

/** The sentence that answers “Does it fit?”. */
const verdictOf = (c: CandidateChip): { word: string; look: string; rest: string } => {
  if (c.fits) {
    const more = c.but.length > 1 ? `, and ${c.but.length - 1} more` : ''
    return { word: 'fits', look: 'settled', rest: c.but.length > 0 ? `, but ${c.but[0]}${more}` : '' }
  }
  return c.undecided
    ? { word: 'not decided in the time given', look: 'risks', rest: ': there may be a plan, none was found' }
    : { word: 'no', look: 'stops', rest: `: ${c.no.join('; ')}` }
}

const Verdict = ({ of }: { of: CandidateChip }) => {
  const { word, look, rest } = verdictOf(of)
  return (
    <>
      <span className={look}>{word}</span>
      <span className={of.fits ? 'faint' : undefined}>{rest}</span>
    </>
  )
}

interface Props {
  rows: CandidateChip[]
  picked: string[]
  pick: (id: string) => void
  /** The board whose parts are shown below. */
  taken?: string
  takeApart: (id: string) => void
  tools: ReactNode
  empty: ReactNode
}

export const CandidateTable = ({ rows, picked, pick, taken, takeApart, tools, empty }: Props) => {
  const { analysis, design, library, edit } = useStage()
  const [asked, setAsked] = useState<string>()
  const [justChosen, setJustChosen] = useState<string>()
  const own = analysis.chip.chip
  const swap = (c: CandidateChip) => swapTo({ ...analysis, design }, library, c.chip)
  const choose = (c: CandidateChip) => {
    setJustChosen(c.chip.id)
    const chosen = swap(c)
    edit(chosen.edits, swapWords(c.chip, chosen))
  }
  const columns: GrowingColumn<CandidateChip>[] = [
    {
      id: 'compare',
      name: 'Side by side',
      cell: ({ chip }) => (
        <Tick
          checked={picked.includes(chip.id)}
          onChange={() => pick(chip.id)}
          label={`Compare ${chip.name}`}
        />
      ),
    },
    {
      id: 'name',
      name: 'Chip, module or board',
      width: 158,
      of: ({ chip }) => chip.name,
      cell: (c) => (
        <>
          {c.chip.board ? (
            <BoardName aria-expanded={taken === c.chip.id} onClick={() => takeApart(c.chip.id)}>
              {c.chip.name}
            </BoardName>
          ) : (
            <b>{c.chip.name}</b>
          )}
          <br />
          <span className="faint">
            {c.chip.board ? c.chip.description : `${c.chip.package.name}, ${c.chip.package.solder}`};{' '}
            <span className="mono one-line">{feed(c)}</span>
          </span>
          {c.chosen && (
            <>
              {' '}
              <Link to={`/parts/${encodeURIComponent(c.chip.board?.id ?? c.chip.id)}`}>its facts</Link>
            </>
          )}
        </>
      ),
    },
    { id: 'package', name: 'Package', of: ({ chip }) => chip.package.name, away: true },
    { id: 'solder', name: 'Solder', of: ({ chip }) => chip.package.solder, away: true },
    { id: 'family', name: 'Family', of: ({ chip }) => chip.family, away: true },
    {
      id: 'fits',
      name: 'Does it fit?',
      width: 190,
      of: (c) => `${verdictOf(c).word}${verdictOf(c).rest}`,
      cell: (c) => <Verdict of={c} />,
    },
    {
      id: 'left',
      name: 'Legs left',
      of: (c) => c.workings.left?.value.typ,
      cell: (c) => (c.workings.left ? <Num worked={c.workings.left} /> : '—'),
      right: true,
      mono: true,
    },
    {
      id: 'program',
      name: 'Program left',
      unit: 'B',
      of: (c) => c.programLeft,
      cell: (c) => (
        <Num worked={c.workings.program}>
          <Bytes count={c.programLeft} />
        </Num>
      ),
      right: true,
      mono: true,
    },
    {
      id: 'data',
      name: 'Data left',
      unit: 'B',
      of: (c) => c.dataLeft,
      cell: (c) => (
        <Num worked={c.workings.data}>
          <Bytes count={c.dataLeft} />
        </Num>
      ),
      right: true,
      mono: true,
    },
    {
      id: 'price',
      name: 'Price',
      unit: '€',
      of: ({ chip }) => knownPrice(chip),
      cell: ({ chip }) => priceWords(chip),
      right: true,
      mono: true,
    },
    {
      id: 'choose',
      name: 'Choose',
      right: true,
      cell: (c) =>
        c.chosen ? (
          <>
            <span className="settled">chosen</span>{' '}
            {own?.id === c.chip.id && !own.board && (
              <Button
                autoFocus={justChosen === c.chip.id}
                onFocus={() => setJustChosen(undefined)}
                onClick={() => document.getElementById('clock-source')?.focus()}
              >
                To its clock
              </Button>
            )}
          </>
        ) : (
          <>
            {own && (
              <Button onClick={() => setAsked(c.chip.id)} aria-label={`What if ${c.chip.name}?`}>
                What if?
              </Button>
            )}{' '}
            <Button onClick={() => choose(c)} aria-label={`Choose ${c.chip.name}`}>
              Choose
            </Button>
          </>
        ),
    },
  ]
  return (
    <Candidates>
      <GrowingTable
        label="Candidates"
        rows={rows}
        columns={columns}
        keyOf={(c) => c.chip.id}
        // Narrowed by more than words, above.
        findFrom={Infinity}
        tools={tools}
        empty={empty}
        isChosen={(c) => c.chosen}
        below={(c) =>
          asked === c.chip.id &&
          !c.chosen && (
            <PreviewedFix
              fix={{ label: swapWords(c.chip, swap(c)), edits: swap(c).edits }}
              asked={{ close: () => setAsked(undefined) }}
            />
          )
        }
      />
    </Candidates>
  )
}

const BoardName = styled(Flat)({
  fontWeight: 700,
  textDecoration: 'underline',
  textDecorationThickness: 1,
  textUnderlineOffset: 3,
})

const Candidates = styled('div')({
  '& td:first-of-type': { paddingLeft: 8 },
  '& th:first-of-type': { width: 32 },
  '& td:last-of-type .MuiButton-root': { padding: '3px 8px' },
})
