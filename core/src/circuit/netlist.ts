// Which terminals are joined: nets by name, from the legs of chip, devices and support parts.

export interface Node {
  /** Reference on the board: `R3`, `U1`. */
  ref: string
  terminal: string
}

export interface Net {
  name: string
  nodes: Node[]
}

export interface Placed {
  ref: string
  legs: { name: string; net: string }[]
  /** Not on the board; its two legs are joined by wire. */
  bridged?: boolean
}

/** Nets in the order in which they first appear; those of one node only are left out of the result. */
export const makeNetlist = (parts: Placed[]): Net[] => {
  const joined = new Map<string, string>()
  const root = (net: string): string => {
    const next = joined.get(net)
    return next === undefined ? net : root(next)
  }
  for (const part of parts)
    if (part.bridged && part.legs.length === 2) {
      const [a, b] = part.legs.map((l) => root(l.net)) as [string, string]
      if (a !== b) joined.set(b, a)
    }
  const nets = new Map<string, Node[]>()
  for (const part of parts) {
    if (part.bridged) continue
    for (const leg of part.legs) {
      // A leg that is joined to nothing.
      if (leg.net === '') continue
      const net = root(leg.net)
      nets.set(net, [...(nets.get(net) ?? []), { ref: part.ref, terminal: leg.name }])
    }
  }
  return [...nets].map(([name, nodes]) => ({ name, nodes })).filter((n) => n.nodes.length > 1)
}

/**
 * A name as a net’s and a program’s: `DISPLAY_SDA`. Marks over and under letters go, other letters are no part of it; never empty, and never
 * with a digit first.
 */
export const netOf = (name: string): string => {
  const text = name
    .replace(/ß/g, 'ss')
    .replace(/[æÆ]/g, 'ae')
    .replace(/[œŒ]/g, 'oe')
    .replace(/[øØ]/g, 'o')
    .replace(/[łŁ]/g, 'l')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
  return text === '' ? 'LINE' : /^\d/.test(text) ? `N${text}` : text
}
