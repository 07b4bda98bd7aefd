// Asking for something slow, again and again, while only the newest answer counts.

/** Keeps one request running and the newest one waiting; results of overtaken ones, and their failures, are dropped. */
export const latestWins = <In, Out>(
  run: (input: In) => Promise<Out>,
  done: (result: Out, input: In) => void,
  failed: (error: Error) => void,
) => {
  let running = false
  let waiting: { input: In } | undefined
  const next = async (): Promise<void> => {
    const job = waiting
    if (!job) return
    waiting = undefined
    running = true
    try {
      const result = await run(job.input)
      if (!waiting) done(result, job.input)
    } catch (error) {
      if (!waiting) failed(error as Error)
    } finally {
      running = false
    }
    await next()
  }
  return {
    ask: (input: In): void => {
      waiting = { input }
      if (!running) void next()
    },
    /** What waits is not asked; what runs is the newest again. */
    forget: (): void => {
      waiting = undefined
    },
  }
}
