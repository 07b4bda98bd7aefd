// From an understood table to a chip's part file: pins, units, and what follows from them. What no table of legs says is
// left out, so that it counts as missing until its own table is pasted.

import { type ChipPin, partFormat } from '../parts'
import type { FoundLeg, Understood } from './understood'

export interface PartHead {
  id: string
  name: string
  sheet: string
  maker?: string
  family?: string
  price?: number
  style?: string
}
type Json = Record<string, unknown>

const attributesOf = (leg: FoundLeg): Json[] => {
  const notes = leg.notes.join(' ')
  const tolerant = /(\d(?:[.,]\d)?)\s*V[- ]tolerant/i.exec(notes)
  return [
    ...(leg.reset ? [{ kind: 'reset', reason: 'low restarts the chip' }] : []),
    ...(leg.oscillator ? [{ kind: 'oscillator', reason: 'the crystal’s leg when a crystal is used' }] : []),
    ...(leg.debug ? [{ kind: 'debug', signal: leg.debug, reason: 'the debugger’s line' }] : []),
    ...(tolerant
      ? [
          {
            kind: 'tolerant',
            voltage: Number(tolerant[1]!.replace(',', '.')),
            reason: notes,
            source: 'footnote',
          },
        ]
      : []),
    ...(/input[- ]only|inputs? only/i.test(notes)
      ? [{ kind: 'input-only', reason: notes, source: 'footnote' }]
      : []),
    ...(/no (?:internal )?pull-?ups?\b/i.test(notes)
      ? [{ kind: 'no-pull-up', reason: notes, source: 'footnote' }]
      : []),
  ]
}

const rails: Partial<Record<ChipPin['type'], (id: string) => string>> = {
  supply: (id) => id.replace(/\d+$/, '') || id,
  ground: () => 'GND',
  reference: (id) => id,
}

const functionsOf = (leg: FoundLeg): string[] => [
  ...new Set(
    leg.functions.map((f) => `${f.unit}.${f.signal}${f.select === undefined ? '' : `@${f.select}`}`),
  ),
]

const pinFrom = (leg: FoundLeg, legs: number[]): Json => {
  const functions = functionsOf(leg)
  const attributes = attributesOf(leg)
  const rail = rails[leg.type]?.(leg.id)
  return {
    id: leg.id,
    legs,
    type: leg.type,
    ...(rail ? { rail } : {}),
    ...(leg.number === undefined ? {} : { number: leg.number }),
    ...(functions.length > 0 ? { functions } : {}),
    ...(attributes.length > 0 ? { attributes } : {}),
  }
}

/** Each leg once, each name once; legs that nothing names are not connected until somebody knows better. */
const pinsFrom = ({ legs, total }: Understood): Json[] => {
  const owners = new Map<number, string>()
  const byId = new Map<string, { leg: FoundLeg; legs: number[] }>()
  for (const leg of legs) {
    const mine = leg.legs.filter((n) => !owners.has(n))
    mine.forEach((n) => owners.set(n, leg.id))
    const same = byId.get(leg.id)
    if (same) {
      same.legs.push(...mine)
      same.leg = { ...same.leg, functions: [...same.leg.functions, ...leg.functions] }
    } else byId.set(leg.id, { leg, legs: mine })
  }
  const missing = Array.from({ length: total }, (_, i) => i + 1).filter((n) => !owners.has(n))
  const pins = [...byId.values()].filter((p) => p.legs.length > 0).map((p) => pinFrom(p.leg, p.legs))
  if (missing.length === 0) return pins
  const free = byId.get('NC')
  return free
    ? pins.map((p) => (p.id === 'NC' ? { ...p, legs: [...free.legs, ...missing] } : p))
    : [...pins, { id: 'NC', legs: missing, type: 'none' }]
}

/** The header that debug lines ask for, where both are there. */
const debugHeader = (legs: FoundLeg[]): Json | undefined => {
  const at = (pattern: RegExp) => legs.find((l) => l.debug && pattern.test(l.debug))?.id
  const data = at(/^(?:SWDIO|SWD)$/)
  const clock = at(/^(?:SWCLK|SWDCLK|SWD_CLK|SWCK)$/)
  const reset = legs.find((l) => l.reset)?.id
  return data && clock
    ? {
        id: 'two-wire',
        name: 'two-wire debug',
        contacts: [
          { signal: 'V', at: 'supply' },
          { signal: 'DATA', at: data },
          { signal: 'CLOCK', at: clock },
          ...(reset ? [{ signal: 'RESET', at: reset }] : []),
          { signal: 'GND', at: 'ground' },
        ],
      }
    : undefined
}

/** The file of a chip, as far as its table of legs goes. */
export const chipFileFrom = (understood: Understood, head: PartHead): Json => {
  const { legs, units, total } = understood
  const used = new Set(legs.flatMap((l) => l.functions.map((f) => f.unit)))
  const header = debugHeader(legs)
  const reset = legs.find((l) => l.reset && l.legs.length > 0)
  return {
    format: partFormat,
    kind: 'chip',
    ...Object.fromEntries(
      Object.entries({
        id: head.id,
        name: head.name,
        maker: head.maker,
        family: head.family,
        sheet: head.sheet,
        price: head.price,
      }).filter(([, value]) => value !== undefined && value !== ''),
    ),
    package: { legs: total, ...(head.style ? { style: head.style } : {}) },
    units: units
      .filter((u) => used.has(u.id))
      .map((u) => ({ id: u.id, kind: u.kind, name: u.id, signals: u.signals })),
    pins: pinsFrom(understood),
    ...(header ? { programming: [header] } : {}),
    ...(reset
      ? {
          support: {
            reset: {
              pin: reset.id,
              pullUp: { typ: '10k', kind: 'assumed', source: 'assumed: the usual value' },
            },
          },
        }
      : {}),
  }
}
