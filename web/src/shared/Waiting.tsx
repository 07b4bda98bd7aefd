// Said while an answer is worked out: after half a second with something that moves, and a way to end it with what there is.

import { Button, CircularProgress } from '@mui/material'
import { useEffect, useState } from 'react'
import { endQuestions } from '../worker/client'

const noticed = 500

export const Waiting = ({ words, stop = endQuestions }: { words: string; stop?: () => void }) => {
  const [slow, setSlow] = useState(false)
  const [stopped, setStopped] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), noticed)
    return () => clearTimeout(timer)
  }, [])
  return (
    <p className="faint" role="status">
      {words}{' '}
      {slow && (
        <>
          <CircularProgress size={12} aria-hidden="true" />{' '}
          <Button
            disabled={stopped}
            onClick={() => {
              setStopped(true)
              stop()
            }}
          >
            Stop
          </Button>
        </>
      )}
    </p>
  )
}
