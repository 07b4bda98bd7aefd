// What a chip's file asks of a table of limits.

import {
  currentIn,
  mode,
  plainRated,
  rail,
  ratedFrom,
  type Reading,
  shareOfSupply,
  type Target,
  unsigned,
  valueOf,
} from './values'

const limit = (path: string, absolute: string) => (r: Reading) => {
  const is = r.section === 'absolute'
  const value = unsigned(ratedFrom(r, 'A', is ? 'absolute' : 'recommended'))
  return value && { path: is ? absolute : path, value }
}

const threshold = (path: string, corner: 'min' | 'max') => (r: Reading) => {
  const text = r.numbers[corner] ?? r.numbers.typ
  const share = text === undefined ? undefined : shareOfSupply(text)
  return share && { path, value: { ...share, ...(r.source ? { source: r.source } : {}) } }
}
const drop = (path: string, side: 'high' | 'low') => (r: Reading) => {
  const current = currentIn(`${r.conditions} ${r.text}`)
  const share = shareOfSupply((side === 'high' ? r.numbers.min : r.numbers.max) ?? r.numbers.typ ?? '')
  if (current === undefined || !share) return undefined
  // Plain volts are so far below the supply that the row speaks of.
  const supply = /V[_ ]?(?:DD|CC)\w*\s*=\s*([\d.,]+)/i.exec(r.conditions)?.[1]?.replace(',', '.')
  const below =
    share.factor === 1
      ? -share.offset
      : share.factor === 0 && supply !== undefined
        ? Number((Number(supply) - share.offset).toPrecision(6))
        : undefined
  const max = side === 'low' ? share.offset : below
  return max === undefined || max < 0
    ? undefined
    : {
        path: `${path}[]`,
        value: { current, drop: { max, kind: 'guaranteed', ...(r.source ? { source: r.source } : {}) } },
      }
}
const frequency = (r: Reading) => {
  const max = valueOf(r.numbers.max ?? r.numbers.typ, r.unit, 'Hz')
  const volts =
    /V[_ ]?\w*\s*(?:=|≥|>=|from)\s*([\d.,]+)\s*V?/i.exec(r.conditions)?.[1] ??
    /([\d.,]+)\s*V\b/.exec(r.conditions)?.[1]
  const supply = volts === undefined ? undefined : Number(volts.replace(',', '.'))
  return max === undefined || supply === undefined
    ? undefined
    : {
        path: 'frequencyLimits[]',
        value: { supply, frequency: max, ...(r.source ? { source: r.source } : {}) },
      }
}
const aboveSupply = (r: Reading) => {
  const share = shareOfSupply(r.numbers.max ?? '')
  return share?.factor === 1
    ? {
        path: 'io.aboveSupply',
        value: { max: share.offset, kind: 'absolute', ...(r.source ? { source: r.source } : {}) },
      }
    : undefined
}

/** What a row may be about, most special first. */
export const chipTargets: readonly Target[] = [
  {
    id: 'thermal',
    words: 'thermal resistance',
    pattern: /thermal resistance|θ ?JA|R(?:th|θ)/i,
    read: plainRated('package.thermalResistance', 'K/W'),
  },
  {
    id: 'leakage',
    words: 'input leakage',
    pattern: /leakage|I[_ ]?(?:LEAK|LKG|IL\b|IH\b)/i,
    read: (r) => {
      const value = unsigned(ratedFrom(r, 'A', 'guaranteed'))
      return value && { path: 'io.leakage', value }
    },
  },
  {
    id: 'pull-up',
    words: 'pull-up inside',
    pattern: /pull[- ]?up|R[_ ]?PU\b/i,
    read: plainRated('io.pullUp', 'Ω'),
  },
  {
    id: 'pull-down',
    words: 'pull-down inside',
    pattern: /pull[- ]?down|R[_ ]?PD\b/i,
    read: plainRated('io.pullDown', 'Ω'),
  },
  {
    id: 'capacitance',
    words: 'capacitance of a leg',
    pattern: /(?:input|pin|leg|i\/o)\b.*capacitance|\bC[_ ]?I[NO]*\b/i,
    read: plainRated('io.capacitance', 'F'),
  },
  {
    id: 'output-high',
    words: 'high output level',
    pattern: /output.*high.*|high.*output|\bV[_ ]?OH\b/i,
    not: /current/i,
    read: drop('io.outputHigh', 'high'),
  },
  {
    id: 'output-low',
    words: 'low output level',
    pattern: /output.*low|low.*output|\bV[_ ]?OL\b/i,
    not: /current/i,
    read: drop('io.outputLow', 'low'),
  },
  {
    id: 'input-high',
    words: 'input threshold, high',
    pattern: /input.*high|high.*input|\bV[_ ]?IH\b/i,
    not: /current|leak/i,
    allowed: true,
    read: threshold('io.inputHigh', 'min'),
  },
  {
    id: 'input-low',
    words: 'input threshold, low',
    pattern: /input.*low|low.*input|\bV[_ ]?IL\b/i,
    not: /current|leak/i,
    allowed: true,
    read: threshold('io.inputLow', 'max'),
  },
  {
    id: 'total',
    words: 'current of all legs together',
    pattern:
      /total.*current|sum of.*current|current.*(?:into|out of|through|of all)|I[_ ]?(?:VDD|VSS|GND|TOT)/i,
    allowed: true,
    read: limit('limits.total', 'limits.totalAbsolute'),
  },
  {
    id: 'pin-current',
    words: 'current of one leg',
    pattern:
      /(?:output|source|sink|sunk|drive|dc)\b.*current|current.*(?:per|any|each|single|one|by)\b.*(?:pin|i\/o|leg|output)|I[_ ]?IO/i,
    allowed: true,
    read: limit('limits.pinRecommended', 'limits.pinAbsolute'),
  },
  {
    id: 'sleep',
    words: 'current asleep',
    pattern: /sleep|stand-?by|power[- ]?down|stop|hibernat|shutdown|deep/i,
    not: /voltage|temperature/i,
    section: ['recommended', 'other'],
    read: mode('sleep'),
  },
  {
    id: 'idle',
    words: 'current while idle',
    pattern: /idle|wait|halt/i,
    not: /voltage|temperature/i,
    section: ['recommended', 'other'],
    read: mode('idle'),
  },
  {
    id: 'active',
    words: 'current while running',
    pattern:
      /(?:active|run|operating|supply|normal).*current|current.*(?:active|run|operating)|I[_ ]?(?:DD|CC)\b/i,
    section: ['recommended', 'other'],
    read: mode('active'),
  },
  {
    id: 'above',
    words: 'how far above the supply a leg may go',
    pattern: /(?:input|i\/o|pin|leg|any)\b.*voltage|voltage on (?:any|all|other)/i,
    not: /high|low|threshold/i,
    section: ['absolute'],
    allowed: true,
    read: aboveSupply,
  },
  {
    id: 'supply',
    words: 'supply voltage',
    pattern: new RegExp(`supply voltage|operating voltage|voltage supply|^${rail}\\b`, 'i'),
    not: /current/i,
    allowed: true,
    read: (r) =>
      plainRated(r.section === 'absolute' ? 'supply.absolute' : 'supply.recommended', 'V', 'recommended')(r),
  },
  {
    id: 'frequency',
    words: 'highest clock at a supply',
    pattern: /(?:clock|cpu|system|operating|core)?.*frequency|f[_ ]?(?:CPU|SYS|CLK|OSC)/i,
    allowed: true,
    read: frequency,
  },
  {
    id: 'temperature',
    words: 'temperature of the air',
    pattern: /(?:ambient|operating).*temperature|T[_ ]?A\b/i,
    section: ['recommended', 'other'],
    allowed: true,
    read: plainRated('temperature', '°C', 'recommended'),
  },
]
