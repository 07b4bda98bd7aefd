// A first board, step by step: one sentence a stage, done when the analysis says so. It can be left at any time.

import { Button, Paper } from '@mui/material'
import { Link, useLocation } from 'react-router'
import { stages } from '../frame/stages'
import { useStage } from '../shared/analysis'
import { useGuided } from './guided'
import { stepAt, steps, stopping } from './steps'
import { useFrame } from '../frame/frame-state'

const Guide = () => {
  const { analysis } = useStage()
  const { pathname } = useLocation()
  const { looked, look, leave } = useGuided()
  const at = stepAt(analysis, looked)
  const step = steps[at]
  const here = step !== undefined && pathname.endsWith(`/${step.stage}`)
  const stops = stopping(analysis)
  const openFrame = useFrame((s) => s.set)
  const stage = stages.find((s) => s.name === step?.stage)
  return (
    <Paper
      component="section"
      elevation={0}
      aria-label="Step by step"
      sx={{
        p: 1.25,
        mb: 2,
        display: 'flex',
        flexWrap: 'wrap',
        gap: 1.5,
        alignItems: 'center',
        justifyContent: 'space-between',
      }}
    >
      <div role="status" style={{ flex: '1 1 34ch' }}>
        {stops ? (
          <>
            <b className="stops">Something stops it now:</b> {stops.text}
          </>
        ) : step ? (
          <>
            <b>
              Step {at + 1} of {steps.length}: {step.title}.
            </b>{' '}
            {here ? step.say : `It is done on the page ${stage!.title}.`}
            {here && <div className="faint">{step.look}</div>}
          </>
        ) : (
          <b>That is a whole board. Nothing stops it; the sheet to build by can be printed.</b>
        )}
      </div>
      <div>
        {stops ? (
          <Button
            onClick={() => openFrame({ evidence: true, finding: stops.id })}
            variant="contained"
            color="primary"
          >
            What helps
          </Button>
        ) : step && !here ? (
          <Button component={Link} to={step.stage} variant="contained" color="primary">
            On to {stage!.title}
          </Button>
        ) : step === steps.at(-1) ? (
          <Button onClick={look} variant="contained" color="primary" disabled={!step!.done(analysis, true)}>
            Looked through
          </Button>
        ) : (
          !step && (
            <Button component={Link} to="sheet" variant="contained" color="primary">
              The build sheet
            </Button>
          )
        )}{' '}
        <Button onClick={leave}>{step ? 'Go on without the steps' : 'Close'}</Button>
      </div>
    </Paper>
  )
}

export default Guide
