/** Gives way to others between the many, every so many milliseconds: nobody waits for the last of them. */
export const breathing = (after = 10): (() => Promise<void>) => {
  let since = performance.now()
  return async () => {
    if (performance.now() - since < after) return
    await new Promise((resolve) => setImmediate(resolve))
    since = performance.now()
  }
}
