// Chip: every chip, module and board of the library against this project, decided by the pin solver; up to four side by
// side; what a board is made of; the clock.

import { type CandidateChip } from '@root-board/core/chip'
import { swapTo, swapWords } from '@root-board/core/pins'
import { priceWords } from '@root-board/core/parts'
import { formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import { Fragment, useState } from 'react'
import { Link } from 'react-router'
import { Body, Cell, Columns, Row, Table, hidden, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { PreviewedFix } from '../../shared/PreviewedFix'
import { AnatomyPart } from './AnatomyPart'
import { ClockPart } from './ClockPart'
import { Comparison } from './Comparison'
import { Filters, noFilter, passes } from './Filters'
import { useCandidates } from './use-candidates'
import { Flat } from '../../kit/Flat'
import { Tick } from '../../kit/inputs'

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

const ChipPage = () => {
  const { analysis, design, library, edit } = useStage()
  const candidates = useCandidates()
  const [filter, setFilter] = useState(noFilter)
  const [picked, setPicked] = useState<string[]>([])
  const [asked, setAsked] = useState<string>()
  const [justChosen, setJustChosen] = useState<string>()
  const [opened, setOpened] = useState<string>()
  const compare = picked
    .map((id) => candidates.list.find((c) => c.chip.id === id)?.chip)
    .filter((c) => c !== undefined)
  const pick = (id: string) =>
    setPicked((p) => (p.includes(id) ? p.filter((x) => x !== id) : [...p.slice(-3), id]))
  const own = analysis.chip.chip
  const swap = (c: CandidateChip) => swapTo({ ...analysis, design }, library, c.chip)
  const choose = (c: CandidateChip) => {
    setJustChosen(c.chip.id)
    const chosen = swap(c)
    edit(chosen.edits, swapWords(c.chip, chosen))
  }
  const shown = candidates.list.filter((c) => passes(c, filter))
  const undecided = candidates.list.filter((c) => c.undecided).length
  const anatomy =
    candidates.list.find((c) => c.chip.id === opened)?.chip.board ?? (opened ? undefined : own?.board)
  return (
    <Page>
      <header className="chip-head">
        <h1>Chip</h1>
        {compare.length > 1 && (
          <Button onClick={() => document.getElementById('compare')?.scrollIntoView()}>
            To the {compare.length} side by side
          </Button>
        )}
      </header>
      {analysis.needs.signals.length === 0 && (
        <p className="empty">
          No signals are asked for yet, so every chip fits. Add devices on the Needs page first.
        </p>
      )}
      <Filters filter={filter} set={setFilter} />
      <p className="faint progress" role="status">
        {candidates.done < candidates.total ? (
          <>
            {candidates.done} of {candidates.total} asked{' '}
            <Button onClick={candidates.stopped ? candidates.goOn : candidates.stop}>
              {candidates.stopped ? 'Go on' : 'Stop'}
            </Button>
          </>
        ) : (
          <>
            All {candidates.total} asked, {candidates.list.filter((c) => c.fits).length} fit
            {candidates.failed > 0 && `, ${candidates.failed} could not be worked out`}
            {undecided > 0 && `, ${undecided} not decided in the time given`}
            {shown.length < candidates.list.length && `, ${shown.length} shown`}.
          </>
        )}
      </p>
      <div className="scroll-x">
        <Candidates>
          <Columns
            of={[
              hidden('Side by side'),
              'Chip, module or board',
              'Does it fit?',
              right('Legs left'),
              right('Memory left'),
              right('Price'),
              hidden('Choose'),
            ]}
          />
          <Body>
            {shown.map((c) => (
              <Fragment key={c.chip.id}>
                <Row className={c.chosen ? 'chosen' : undefined} aria-current={c.chosen ? 'true' : undefined}>
                  <Cell>
                    <Tick
                      checked={picked.includes(c.chip.id)}
                      onChange={() => pick(c.chip.id)}
                      label={`Compare ${c.chip.name}`}
                    />
                  </Cell>
                  <Cell>
                    {c.chip.board ? (
                      <Flat
                        className="board-name"
                        aria-expanded={anatomy?.id === c.chip.id}
                        onClick={() => setOpened(c.chip.id)}
                      >
                        {c.chip.name}
                      </Flat>
                    ) : (
                      <b>{c.chip.name}</b>
                    )}
                    <br />
                    <span className="faint">
                      {c.chip.board ? c.chip.description : `${c.chip.package.name}, ${c.chip.package.solder}`}
                      ; <span className="mono">{feed(c)}</span>
                    </span>
                    {c.chosen && (
                      <>
                        {' '}
                        <Link to={`/parts/${encodeURIComponent(c.chip.board?.id ?? c.chip.id)}`}>
                          its facts
                        </Link>
                      </>
                    )}
                  </Cell>
                  <Cell className="verdict">
                    {c.fits ? (
                      <>
                        <span className="settled">fits</span>
                        {c.but.length > 0 && (
                          <span className="faint">
                            , but {c.but[0]}
                            {c.but.length > 1 && `, and ${c.but.length - 1} more`}
                          </span>
                        )}
                      </>
                    ) : c.undecided ? (
                      <span className="risks">
                        not decided in the time given: there may be a plan, none was found
                      </span>
                    ) : (
                      <>
                        <span className="stops">no:</span> {c.no.join('; ')}
                      </>
                    )}
                  </Cell>
                  <Cell align="right" className="mono">
                    {c.workings.left ? <Num worked={c.workings.left} /> : '—'}
                  </Cell>
                  <Cell align="right" className="mono">
                    <Num worked={c.workings.program}>
                      <Bytes count={c.programLeft} />
                    </Num>
                    <br />
                    <span className="faint">
                      <Num worked={c.workings.data}>
                        <Bytes count={c.dataLeft} />
                      </Num>{' '}
                      data
                    </span>
                  </Cell>
                  <Cell align="right" className="mono">
                    {priceWords(c.chip)}
                  </Cell>
                  <Cell align="right">
                    {c.chosen ? (
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
                    )}
                  </Cell>
                </Row>
                {asked === c.chip.id && !c.chosen && (
                  <Row>
                    <Cell colSpan={7}>
                      <PreviewedFix
                        fix={{ label: swapWords(c.chip, swap(c)), edits: swap(c).edits }}
                        asked={{ close: () => setAsked(undefined) }}
                      />
                    </Cell>
                  </Row>
                )}
              </Fragment>
            ))}
          </Body>
        </Candidates>
      </div>
      {compare.length === 1 && (
        <p className="faint">Tick a second one to see them side by side, four at most.</p>
      )}
      {compare.length > 1 && <Comparison chips={compare} />}
      {anatomy && <AnatomyPart board={anatomy} />}
      {own && !own.board && <ClockPart />}
    </Page>
  )
}

export default ChipPage

const Page = styled('div')({
  minWidth: 0,
  '& h1': { marginBottom: 6 },
  '& section': { marginTop: 18 },
  '& .progress': { margin: '4px 0 8px', minHeight: 26 },
  '& .board-name': {
    fontWeight: 700,
    textDecoration: 'underline',
    textDecorationThickness: 1,
    textUnderlineOffset: 3,
  },
  '& .chip-head': { display: 'flex', gap: 12, alignItems: 'baseline' },
})

const Candidates = styled(Table)({
  '& tr.chosen td': { background: 'var(--shade)' },
  '& tr.chosen td:first-of-type': { boxShadow: 'inset 3px 0 0 var(--green)', paddingLeft: 8 },
  '& td:first-of-type': { paddingLeft: 8 },
  '& .mono': { whiteSpace: 'nowrap' },
  '& td:nth-child(2)': { minWidth: 158 },
  '& th:first-of-type': { width: 32 },
  '& .verdict': { minWidth: 190 },
  '& td:last-of-type:not([colspan])': { whiteSpace: 'nowrap' },
  '& td:last-of-type .MuiButton-root': { padding: '3px 8px' },
})
