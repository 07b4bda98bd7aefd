// What will go wrong, why, and what to do: findings of this stage first, each with its chain of facts and its fixes.

import type { Preview } from '@root-board/core/analysis'
import type { Finding, Fix } from '@root-board/core/findings'
import { originText } from '@root-board/core/findings'
import { Button } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useStage } from '../shared/analysis'
import { Mark } from '../shared/Mark'
import { Num } from '../shared/Num'
import { worker } from '../worker/client'
import { useFrame } from './frame-state'
import { stages } from './stages'

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

export const Evidence = () => {
  const { here, others } = useOrderedFindings()
  const frame = useFrame()
  return (
    <aside className="evidence" aria-label="Evidence">
      <h2>Evidence</h2>
      {here.length + others.length === 0 && (
        <p className="empty">
          Nothing speaks against this project so far. What will go wrong appears here, with its reasons.
        </p>
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
                  toggle={() => frame.set({ finding: frame.finding === f.id ? undefined : f.id })}
                  elsewhere={group.list === others}
                />
              ))}
            </ul>
          </section>
        ))}
    </aside>
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
      <button type="button" className="plain-button" aria-expanded={open} onClick={toggle}>
        <Mark severity={finding.severity} /> {finding.text}
      </button>
      {open && (
        <div className="chain">
          <ol>
            {finding.because.map((fact, i) => (
              <li key={i}>
                {fact.text}
                {fact.worked && (
                  <>
                    {' '}
                    <span className="in-brackets">
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
            {finding.fixes.map((fix) => (
              <FixButton key={fix.label} fix={fix} />
            ))}
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

/** Pressed once it says what it would change, pressed again it does it. */
const FixButton = ({ fix }: { fix: Fix }) => {
  const { design, edit } = useStage()
  const [preview, setPreview] = useState<Preview>()
  const apply = () => {
    edit(fix.edits, fix.label)
    setPreview(undefined)
  }
  if (!preview)
    return (
      <Button className="fix" onClick={() => void worker.preview(design, fix.edits).then(setPreview)}>
        {fix.label}
      </Button>
    )
  return (
    <div className="preview" role="group" aria-label={`What “${fix.label}” would change`}>
      <b>{fix.label}</b> would change:
      <ul>
        {preview.cleared.length > 0 && (
          <li className="settled">
            clears {preview.cleared.length === 1 ? 'this finding' : `${preview.cleared.length} findings`}
          </li>
        )}
        {preview.appearing.map((f) => (
          <li key={f.id} className={f.severity}>
            brings up: {f.text}
          </li>
        ))}
        {preview.lines.slice(0, 8).map((line) => (
          <li key={line}>{line}</li>
        ))}
        {preview.lines.length > 8 && <li>and {preview.lines.length - 8} more</li>}
        {preview.lines.length + preview.cleared.length + preview.appearing.length === 0 && (
          <li>nothing that is computed here</li>
        )}
      </ul>
      <Button variant="contained" color="primary" onClick={apply} autoFocus className="do-it">
        Do it
      </Button>{' '}
      <Button onClick={() => setPreview(undefined)}>Not now</Button>
    </div>
  )
}
