// A table has the same few names over and over, and each is looked at in many ways: what was read of a text is kept.

const most = 50_000

/** The same function, that reads each text once while there is room. What it gives is shared: nobody may change it. */
export const remember = <R, More extends readonly unknown[]>(
  read: (text: string, ...more: More) => R,
  keyOf?: (text: string, ...more: More) => string,
): ((text: string, ...more: More) => R) => {
  const kept = new Map<string, R>()
  return (text, ...more) => {
    const key = keyOf ? keyOf(text, ...more) : text
    if (kept.has(key)) return kept.get(key)!
    if (kept.size >= most) kept.clear()
    const result = read(text, ...more)
    kept.set(key, result)
    return result
  }
}
