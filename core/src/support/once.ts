import type { Wire } from '../legs'

/**
 * The same function, which makes its answer about a wire once for the same surroundings: support, checks and page ask alike. For functions of
 * nothing but their arguments; surroundings are compared by identity.
 */
export const onceAWire = <Rest extends readonly unknown[], Answer>(
  make: (wire: Wire, ...rest: Rest) => Answer,
): ((wire: Wire, ...rest: Rest) => Answer) => {
  const known = new WeakMap<Wire, { rest: Rest; answer: Answer }[]>()
  return (wire, ...rest) => {
    const answers = known.get(wire) ?? []
    const before = answers.find((a) => a.rest.every((x, n) => x === rest[n]))
    if (before) return before.answer
    const answer = make(wire, ...rest)
    known.set(wire, [...answers, { rest, answer }])
    return answer
  }
}
