// Chip: every chip, module and board of the library against this project, decided by the pin solver; up to four side by
// side; what a board is made of; the clock.

import { Button, styled } from '@mui/material'
import { useState } from 'react'
import { useStage } from '../../shared/analysis'
import { AnatomyPart } from './AnatomyPart'
import { CandidateTable } from './CandidateTable'
import { ClockPart } from './ClockPart'
import { Comparison } from './Comparison'
import { Filters, noFilter, passes } from './Filters'
import { type Candidates, useCandidates } from './use-candidates'

const Progress = ({ of: candidates, shown }: { of: Candidates; shown: number }) => {
  const undecided = candidates.list.filter((c) => c.undecided).length
  return (
    <span className="faint" role="status">
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
          {shown < candidates.list.length && `, ${shown} shown`}.
        </>
      )}
    </span>
  )
}

const ChipPage = () => {
  const { analysis } = useStage()
  const candidates = useCandidates()
  const [filter, setFilter] = useState(noFilter)
  const [picked, setPicked] = useState<string[]>([])
  const [opened, setOpened] = useState<string>()
  const compare = picked
    .map((id) => candidates.list.find((c) => c.chip.id === id)?.chip)
    .filter((c) => c !== undefined)
  const pick = (id: string) =>
    setPicked((p) => (p.includes(id) ? p.filter((x) => x !== id) : [...p.slice(-3), id]))
  const own = analysis.chip.chip
  const shown = candidates.list.filter((c) => passes(c, filter))
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
      <CandidateTable
        rows={shown}
        picked={picked}
        pick={pick}
        taken={anatomy?.id}
        takeApart={setOpened}
        tools={<Progress of={candidates} shown={shown.length} />}
        empty={candidates.list.length > 0 ? 'None of them is like that.' : 'Asking …'}
      />
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
  '& .chip-head': { display: 'flex', gap: 12, alignItems: 'baseline' },
})
