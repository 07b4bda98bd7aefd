// What a device's file asks of a table of its characteristics. Levels of its lines are read as a chip's are.

import { chipTargets } from './chip'
import {
  besides,
  modeName,
  plainRated,
  type Reading,
  ratedFrom,
  type Target,
  valueOf,
  wordId,
} from './values'

/** A 7-bit address; with its read and write bit it is told as twice as much. */
export const addressOf = (text: string): number | undefined => {
  const match = /^0x([0-9a-f]{1,2})$/i.exec(text.trim()) ?? /^([01]{7})$/.exec(text.trim())
  if (!match) return undefined
  const value = parseInt(match[1]!, match[1]!.length === 7 ? 2 : 16)
  return value > 0x7f ? value >> 1 : value
}

/** At rest or at work: the file's order tells, and the currents give it. */
const current = (usual: string) => (r: Reading) => {
  const rated = ratedFrom(r, 'A', 'guaranteed')
  const name = modeName(r) || usual
  return rated && { path: 'modes[]', value: { id: wordId(name), name, current: rated } }
}
const lines = new Set(['output-high', 'output-low', 'input-high', 'input-low', 'leakage', 'capacitance'])

export const deviceTargets: readonly Target[] = [
  ...chipTargets.filter((t) => lines.has(t.id)),
  {
    id: 'address',
    words: 'its address on the bus',
    pattern: /address/i,
    read: ({ numbers }) => {
      const value = addressOf(numbers.typ ?? numbers.min ?? numbers.max ?? '')
      return value === undefined ? undefined : { path: 'address', value }
    },
  },
  {
    id: 'bus-speed',
    words: 'how fast its bus may be',
    pattern:
      /\bSCL\b.*(?:freq|clock)|(?:freq|clock).*\bSCL\b|(?:bus|clock|interface).*(?:freq|speed|rate)|\bf[_ ]?(?:SCL|CLK|BUS)\b/i,
    not: /SPI|SCK|SCLK/i,
    allowed: true,
    read: (r) => {
      const max = valueOf(r.numbers.max ?? r.numbers.typ, r.unit, 'Hz')
      return max === undefined
        ? undefined
        : { path: 'busSpeed', value: { max, kind: 'recommended', ...(r.source ? { source: r.source } : {}) } }
    },
  },
  {
    id: 'rest',
    words: 'current at rest',
    pattern: /sleep|stand-?by|shut-?down|power[- ]?down|idle|quiescent|at rest/i,
    not: /voltage|temperature|time/i,
    section: ['recommended', 'other'],
    read: current('at rest'),
  },
  {
    id: 'work',
    words: 'current at work',
    pattern: /current|consumption|\bI[_ ]?(?:DD|CC|S|Q)\b/i,
    not: /output current|input current|sink|source current|per pin|any pin/i,
    section: ['recommended', 'other'],
    read: current('working'),
  },
  {
    id: 'supply',
    words: 'supply voltage',
    pattern: /(?:supply|operating|power)(?: supply)? voltage|voltage supply|^V[_ ]?(?:DD|CC|S|IN)\b/i,
    not: /current|ripple/i,
    allowed: true,
    read: (r) => plainRated(r.section === 'absolute' ? 'supplyAbsolute' : 'supply', 'V', 'recommended')(r),
  },
  besides(
    'what it measures',
    /accuracy|resolution|range|repeatab|hysteres|drift|respon|conver|noise|sensitiv|linear|measur|error|offset/i,
  ),
  besides(
    'where it may be',
    /temperature|storage|humidity|pressure|\bESD\b|solder|T[_ ]?(?:A|STG|OPR?|J)\b|vibration/i,
  ),
  besides('its body', /weight|dimension|life|viewing|wavelength|brightness|time\b/i),
  besides(
    'legs from outside',
    /any (?:other )?(?:pin|leg)|all (?:other )?(?:pins|legs)|input voltage|current/i,
  ),
]
