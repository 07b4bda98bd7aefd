// Where something lies in an answer, so that the other thread, which has the same answer, can be asked about it.

export type Path = (string | number)[]

/** The first place, breadth first, at which this very object lies; undefined where it doesn’t. */
export const pathTo = (root: object, target: object): Path | undefined => {
  const seen = new Set<object>([root])
  let level: { of: object; path: Path }[] = [{ of: root, path: [] }]
  while (level.length > 0) {
    const next: typeof level = []
    for (const { of, path } of level) {
      if (of === target) return path
      for (const [key, value] of Object.entries(of) as [string, unknown][])
        if (typeof value === 'object' && value !== null && !seen.has(value)) {
          seen.add(value)
          next.push({ of: value, path: [...path, key] })
        }
    }
    level = next
  }
  return undefined
}

/** What lies there; undefined where nothing does. */
export const follow = (root: unknown, path: Path): unknown =>
  path.reduce<unknown>(
    (of, key) =>
      typeof of === 'object' && of !== null && Object.hasOwn(of, key)
        ? (of as Record<string | number, unknown>)[key]
        : undefined,
    root,
  )
