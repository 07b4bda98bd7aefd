// How much of a large check runs: all of it in `npm run deep`, a small share under a new seed in `npm test`.

export const deep = process.env.DEEP === '1'

/** The first seed: fixed in deep runs, new each time otherwise, unless SEED says which. Printed, to be run again. */
export const firstSeed = (what: string, fixed = 1): number => {
  const seed = process.env.SEED
    ? Number(process.env.SEED)
    : deep
      ? fixed
      : 1_000_000 + (Date.now() % 1_000_000_000)
  process.stdout.write(`${what}: seeds from ${seed} (SEED=${seed} runs them again)\n`)
  return seed
}
