// Reading in the worker while the builder types and answers: the newest text counts, and a long reading can be stopped.

import { useEffect, useRef, useState } from 'react'

export interface Reading<T> {
  result: T | undefined
  busy: boolean
  fault?: string
}

/** Runs `read` for each new key, shortly after the last change; what an older key gave is dropped. */
export const useRead = <T>(key: string, read: () => Promise<T> | undefined): Reading<T> => {
  const [state, setState] = useState<Reading<T>>({ result: undefined, busy: false })
  const latest = useRef(read)
  useEffect(() => {
    latest.current = read
  })
  useEffect(() => {
    let left = false
    const timer = setTimeout(() => {
      const asked = latest.current()
      if (!asked) return setState({ result: undefined, busy: false })
      setState((s) => ({ ...s, busy: true, fault: undefined }))
      asked.then(
        (result) => {
          if (!left) setState({ result, busy: false })
        },
        (error: unknown) => {
          if (!left) setState((s) => ({ ...s, busy: false, fault: (error as Error).message }))
        },
      )
    }, 120)
    return () => {
      left = true
      clearTimeout(timer)
    }
  }, [key])
  return state
}
