// What will go wrong, why, and what to do: findings of this stage first, each with its chain of facts and its fixes.

import type { Design } from '@root-board/core/design'
import { type Finding, originText } from '@root-board/core/findings'
import { Button, styled } from '@mui/material'
import { useCallback, useEffect, useRef } from 'react'
import { Link, useLocation } from 'react-router'
import { useStage } from '../shared/analysis'
import { Mark, Marks } from '../kit/Mark'
import { Num } from '../kit/Num'
import { LookLonger } from '../shared/LookLonger'
import { PreviewedFix } from '../shared/PreviewedFix'
import { QuestionFailed, useAsked } from '../shared/use-asked'
import { Waiting } from '../shared/Waiting'
import { questions } from '../worker/client'
import { useFrame } from './frame-state'
import { stages } from './stages'
import { Flat } from '../kit/Flat'

/** Findings as the panel lists them: those of the stage in front first. */
export const useOrderedFindings = (): { here: Finding[]; others: Finding[] } => {
  const { analysis } = useStage()
  const { pathname } = useLocation()
  const stage = stages.find((s) => pathname.endsWith(`/${s.name}`))?.name
  return {
    here: analysis.findings.filter((f) => f.stage === stage),
    others: analysis.findings.filter((f) => f.stage !== stage),
  }
}

const nothing = 'Nothing speaks against this project so far.'

/** A narrow strip of marks, which opens. */
export const FoldedEvidence = () => {
  const { analysis } = useStage()
  const set = useFrame((s) => s.set)
  return (
    <Panel className="evidence folded" aria-label="Evidence">
      <Flat
        title="Open the evidence (e)"
        aria-label="Open the evidence"
        onClick={() => set({ evidence: true })}
      >
        <span className="upright">Evidence</span>
      </Flat>
      <Marks findings={analysis.findings} />
      {analysis.findings.length === 0 && (
        <>
          <span className="settled" aria-hidden="true">
            ✓
          </span>
          <span className="visually-hidden">{nothing}</span>
        </>
      )}
    </Panel>
  )
}

export const Evidence = () => {
  const { here, others } = useOrderedFindings()
  const frame = useFrame()
  return (
    <Panel className="evidence" aria-label="Evidence">
      <h2>
        Evidence <Button onClick={() => frame.set({ evidence: false })}>Fold away</Button>
      </h2>
      {here.length + others.length === 0 && (
        <p className="empty">{nothing} What will go wrong appears here, with its reasons.</p>
      )}
      {[
        { title: 'On this page', list: here },
        { title: here.length > 0 ? 'Elsewhere' : 'On other pages', list: others },
      ]
        .filter((g) => g.list.length > 0)
        .map((group) => (
          <section key={group.title}>
            <h3 className="faint">{group.title}</h3>
            <ul>
              {group.list.map((f) => (
                <FindingItem
                  key={f.id}
                  finding={f}
                  open={frame.finding === f.id}
                  toggle={() =>
                    frame.set({ finding: frame.finding === f.id ? undefined : f.id, fixOf: undefined })
                  }
                  elsewhere={group.list === others}
                />
              ))}
            </ul>
          </section>
        ))}
    </Panel>
  )
}

/** What was proposed, once it has been tried: only what clears the finding and brings nothing as bad is offered. */
const TriedFixes = ({ finding }: { finding: Finding }) => {
  const ask = useCallback((design: Design) => questions.offers(design, finding.id), [finding.id])
  const { answer: offers, current, failed, again } = useAsked(ask)
  const { fixOf, set } = useFrame()
  const list = useRef<HTMLDivElement>(null)
  const wanted = fixOf === finding.id && offers !== undefined && current
  useEffect(() => {
    if (!wanted) return
    list.current?.querySelector<HTMLButtonElement>('.fix')?.click()
    set({ fixOf: undefined })
  }, [wanted, set])
  if (failed) return <QuestionFailed why={failed} again={again} />
  if (!current && !offers) return <Waiting words="Trying what may help …" />
  if (!offers) return <p className="faint">Stopped before anything could be tried. Open it again to try.</p>
  return (
    <div ref={list} className="fixes-tried">
      {/* What one is looking at stays while it is tried anew, as after a plan that came late. */}
      {!current && <Waiting words="The project has changed: trying anew …" />}
      {offers.offers.map(({ fix, preview }) => (
        <PreviewedFix key={fix.label} fix={fix} known={preview} stale={!current} />
      ))}
      {offers.offers.length === 0 && offers.untried.length === 0 && (
        <p className="faint">Nothing that was tried clears this without bringing up something as bad.</p>
      )}
      {offers.untried.length > 0 && (
        <p className="faint">
          Not tried through in the time given: {offers.untried.join('; ')}.{' '}
          <Button onClick={again} disabled={!current}>
            Try again
          </Button>
        </p>
      )}
    </div>
  )
}

const FindingItem = ({
  finding,
  open,
  toggle,
  elsewhere,
}: {
  finding: Finding
  open: boolean
  toggle: () => void
  elsewhere: boolean
}) => {
  const item = useRef<HTMLLIElement>(null)
  useEffect(() => {
    if (open) item.current?.scrollIntoView({ block: 'nearest' })
  }, [open])
  return (
    <li ref={item} className={`finding ${open ? 'open' : ''}`}>
      <Flat aria-expanded={open} onClick={toggle}>
        <Mark severity={finding.severity} /> {finding.text}
      </Flat>
      {open && (
        <div className="chain">
          <ol>
            {finding.because.map((fact, i) => (
              <li key={i}>
                {fact.text}
                {fact.worked && (
                  <>
                    {' '}
                    <span className="one-line">
                      (<Num worked={fact.worked} show="range" />)
                    </span>
                  </>
                )}
                {fact.origin && <span className="faint"> — {originText(fact.origin)}</span>}
              </li>
            ))}
            {finding.grade && (
              <li>
                Verdict: <b>{finding.grade}</b>
              </li>
            )}
          </ol>
          <div className="fixes">
            {finding.longer && <LookLonger />}
            <TriedFixes finding={finding} />
            {elsewhere && (
              <Link to={finding.stage === 'needs' ? 'needs' : finding.stage}>
                Go to {stages.find((s) => s.name === finding.stage)?.title}
              </Link>
            )}
          </div>
        </div>
      )}
    </li>
  )
}

const Panel = styled('aside')({
  gridArea: 'evidence',
  borderLeft: '1px solid var(--line)',
  overflow: 'auto',
  padding: '14px 14px 20px',
  background: 'var(--sheet)',
  '& h2': { display: 'flex', justifyContent: 'space-between', alignItems: 'center' },
  '&.folded': {
    padding: '10px 0',
    display: 'flex',
    flexDirection: 'column',
    alignItems: 'center',
    gap: 8,
    fontSize: 13,
    whiteSpace: 'nowrap',
  },
  '& .upright': { writingMode: 'vertical-rl', padding: 4, fontWeight: 600 },
  '& h3': { margin: '12px 0 4px', fontWeight: 600, fontSize: 12.5 },
  '& ul, & ol': { margin: 0, padding: 0, listStyle: 'none' },
  '& .finding': { borderTop: '1px solid var(--line)', padding: '6px 0' },
  '& .finding > button': {
    display: 'grid',
    gridTemplateColumns: '20px 1fr',
    width: '100%',
    alignItems: 'baseline',
  },
  '& .finding.open > button': { fontWeight: 600 },
  '& .chain ol': {
    borderLeft: '2px solid var(--line)',
    margin: '6px 0 8px 5px',
    paddingLeft: 12,
    fontSize: 13,
  },
  '& .chain ol li': { padding: '2px 0', position: 'relative' },
  '& .chain ol li::before': {
    content: "''",
    position: 'absolute',
    left: -16,
    top: 10,
    width: 9,
    borderTop: '2px solid var(--line)',
  },
  '& .fixes': { display: 'flex', flexWrap: 'wrap', gap: 6, paddingLeft: 18, alignItems: 'center' },
  '& .fixes-tried': { display: 'contents' },
  '& .fixes .MuiButton-root': { textAlign: 'left', lineHeight: 1.3 },
})
