// The frame around every stage: the root on the left, the table in the middle, the evidence on the right, the gauges below.

import type { Analysis } from '@root-board/core/analysis'
import { changedParts, type Design, libraryFor, withOwnFactsOnly } from '@root-board/core/design'
import type { Finding } from '@root-board/core/findings'
import { makeLibrary } from '@root-board/core/parts'
import type { Progress } from '@root-board/core/patience'
import { Button, styled } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { lazy, type ReactNode, Suspense, useEffect, useMemo, useState } from 'react'
import { Link, Outlet, useLocation, useParams } from 'react-router'
import { api } from '../api/client'
import { useGuided } from '../guide/guided'
import { StageContext } from '../shared/analysis'
import { openProject, startAutosave } from '../store/autosave'
import { useProject } from '../store/project'
import {
  analyseInWorker,
  endAnalysis,
  endQuestions,
  longTime,
  setLibrary,
  stopAnalysis,
  workingOf,
} from '../worker/client'
import { latestWins } from '../worker/latest-wins'
import { Boundary } from './Boundary'
import { Conflict } from './Conflict'
import { Evidence, FoldedEvidence } from './Evidence'
import { Gauges } from './Gauges'
import { Keys } from './Keys'
import { KeptNowhere } from './ProjectBits'
import { Root } from './Root'
import { SearchBox } from './SearchBox'
import { TopBar } from './TopBar'
import { useEvidence, useEvidenceByItself } from './use-evidence'
import { PlainPage } from '../kit/layout'

/** Seldom needed, and all that names and prints a part’s facts comes with it. */
const ChangedParts = lazy(() => import('./ChangedParts'))
const WithoutAnalysis = lazy(() => import('./WithoutAnalysis'))
const Guide = lazy(() => import('../guide/Guide'))

/** Without the facts that the worker has from the library in the same words. */
const lean = (design: Design): Design => {
  const { library } = useProject.getState()
  return library ? withOwnFactsOnly(design, library) : design
}

interface Asked {
  design: Design
  /** Asked by the builder, who sees how it goes on and can end it. */
  long: boolean
}

const none: readonly Finding[] = []

const ProjectPage = () => {
  const { id } = useParams()
  const { pathname } = useLocation()
  const design = useProject((s) => s.design)
  const openId = useProject((s) => s.id)
  const [failure, setFailure] = useState<string>()
  const [result, setResult] = useState<{ analysis: Analysis; of: Design; long: boolean }>()
  const [failed, setFailed] = useState<{ why: string; of: Design }>()
  const [looking, setLooking] = useState<Progress>()
  const findings = result?.analysis.findings ?? none
  const evidence = useEvidence(findings)
  useEvidenceByItself(findings)
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts, staleTime: Infinity })
  const shelf = useMemo(() => parts.data && makeLibrary(parts.data), [parts.data])
  const library = useMemo(() => shelf && design && libraryFor(design, shelf), [shelf, design])
  const guided = useGuided((s) => s.project)
  // Paper, without the program around it.
  const onSheet = /\/(sheet|cards)$/.test(pathname)

  useEffect(() => {
    if (!id) return
    let stop: (() => void) | undefined
    let left = false
    openProject(id).then(
      () => {
        if (!left) stop = startAutosave()
      },
      (error: unknown) => setFailure((error as Error).message),
    )
    return () => {
      left = true
      stop?.()
      useProject.getState().close()
    }
  }, [id])

  const request = useMemo(
    () =>
      latestWins<Asked, Analysis>(
        async ({ design: d, long }) => {
          if (!long) return analyseInWorker(lean(d))
          setLooking({ bound: 0 })
          try {
            return await analyseInWorker(lean(d), { ms: longTime, progress: setLooking })
          } finally {
            setLooking(undefined)
          }
        },
        (analysis, { design: of, long }) => {
          setResult({ analysis, of, long })
          setFailed(undefined)
        },
        (error) => {
          // Said of the state that is open: a newer one would have been asked about.
          const { design: of } = useProject.getState()
          if (of) setFailed({ why: error.message, of })
        },
      ),
    [],
  )
  useEffect(() => {
    if (!shelf) return
    useProject.getState().setLibrary(shelf)
    setLibrary(shelf)
  }, [shelf])
  useEffect(() => {
    if (design && shelf) request.ask({ design, long: false })
  }, [design, shelf, request])

  // What runs for an older design gives up at once: the newest edit wins.
  useEffect(
    () =>
      useProject.subscribe((now, before) => {
        if (now.design === before.design) return
        endAnalysis()
        endQuestions()
      }),
    [],
  )

  useEffect(() => {
    document.title = design ? `${design.name} · Root Board` : 'Root Board'
  }, [design])

  const trouble = failure ?? (parts.error && 'The library could not be fetched')
  if (trouble)
    return (
      <PlainPage>
        <h1>This project can’t be opened</h1>
        <p>{trouble}.</p>
        <p>
          <Button onClick={() => window.location.reload()}>Try again</Button> <Link to="/">All projects</Link>
        </p>
      </PlainPage>
    )
  const stop = () => {
    request.forget()
    stopAnalysis()
  }
  // What failed for an earlier state says nothing about this one.
  const broken = failed?.of === design ? failed?.why : undefined
  const opening = (
    <p className="faint" style={{ padding: 24 }}>
      Opening the project …
    </p>
  )
  if (!design || openId !== id) return opening
  if (!library || !shelf || !result)
    return (
      <Suspense fallback={opening}>
        <Late unless={broken !== undefined} meanwhile={opening}>
          <WithoutAnalysis
            design={design}
            library={library}
            why={broken}
            stop={stop}
            again={() => {
              setFailed(undefined)
              request.ask({ design, long: false })
            }}
          />
        </Late>
      </Suspense>
    )
  return (
    <StageContext.Provider
      value={{
        analysis: result.analysis,
        pending: result.of !== design,
        library,
        design,
        looking,
        lookedLonger: result.long,
        lookLonger: () => request.ask({ design, long: true }),
        enough: endAnalysis,
        workingOf,
      }}
    >
      {onSheet ? (
        <Suspense fallback={null}>
          <Outlet />
        </Suspense>
      ) : (
        <Frame className={evidence ? 'frame' : 'frame folded'}>
          <TopBar />
          <Root />
          <Work className="table" id="table" tabIndex={-1}>
            <Conflict />
            <KeptNowhere />
            {changedParts(design, shelf).length > 0 && (
              <Suspense fallback={null}>
                <ChangedParts shelf={shelf} />
              </Suspense>
            )}
            {broken && (
              <p className="stops" role="alert">
                The analysis failed on the last change ({broken}). What is shown is from before it; undo it to
                go on.
              </p>
            )}
            {result.of !== design && !broken && !looking && (
              <Late meanwhile={null}>
                <p className="risks" role="status">
                  The last change is still being worked out; what is shown is from before it.{' '}
                  <Button onClick={stop}>Stop working it out</Button>
                </p>
              </Late>
            )}
            {guided === id && (
              <Suspense fallback={null}>
                <Guide />
              </Suspense>
            )}
            <Boundary what="This page" key={pathname} anew={result.analysis}>
              <Suspense fallback={<p className="faint">Loading …</p>}>
                <Outlet />
              </Suspense>
            </Boundary>
          </Work>
          <Boundary what="The evidence" anew={result.analysis}>
            {evidence ? <Evidence /> : <FoldedEvidence />}
          </Boundary>
          <Gauges />
          <SearchBox />
          <Keys />
        </Frame>
      )}
    </StageContext.Provider>
  )
}

/** What is shown only where it takes longer than one would wait without a word. */
const Late = ({
  unless,
  meanwhile,
  children,
}: {
  unless?: boolean
  meanwhile: ReactNode
  children: ReactNode
}) => {
  const [late, setLate] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), 2500)
    return () => clearTimeout(timer)
  }, [])
  return late || unless ? children : meanwhile
}

export default ProjectPage

const Frame = styled('div')({
  height: '100%',
  display: 'grid',
  gridTemplate: '46px minmax(0, 1fr) auto / 150px minmax(0, 1fr) 318px',
  gridTemplateAreas: "'top top top' 'root table evidence' 'gauges gauges gauges'",
  '&.folded': { gridTemplateColumns: '150px minmax(0, 1fr) 34px' },
  '@media (max-width: 999px)': {
    '&, &.folded': {
      gridTemplate: 'auto minmax(0, 1fr) auto / 108px minmax(0, 1fr)',
      gridTemplateAreas: "'top top' 'root table' 'gauges gauges'",
    },
    '& .evidence.folded': { display: 'none' },
    '& .evidence': {
      position: 'fixed',
      right: 0,
      top: 92,
      bottom: 60,
      width: 318,
      zIndex: 5,
      boxShadow: '-6px 0 14px rgb(0 0 0 / 25%)',
    },
  },
  '@media (max-width: 599px)': {
    '&, &.folded': {
      gridTemplate: 'auto auto minmax(0, 1fr) auto / minmax(0, 1fr)',
      gridTemplateAreas: "'top' 'root' 'table' 'gauges'",
    },
    '& .evidence': { top: 0, bottom: 0, width: 'min(318px, 92vw)' },
  },
})

/** The stage in front, with a scroll of its own. */
const Work = styled('main')({
  gridArea: 'table',
  overflow: 'auto',
  // What only a screen reader meets lies in here too, and not beneath the document.
  position: 'relative',
  padding: '14px 18px 18px',
  outlineOffset: -3,
  '@media (max-width: 599px)': {
    padding: '10px 10px 14px',
  },
})
