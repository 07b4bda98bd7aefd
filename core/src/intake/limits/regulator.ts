// What a regulator's file asks of a table of its characteristics.

import { nextUp } from '../../quantity'
import {
  besides,
  currentIn,
  plainRated,
  type Reading,
  ratedFrom,
  shareIn,
  type Target,
  valueOf,
} from './values'

/** The current at which a row's numbers hold: `IOUT = 100 mA`, or the only current that it names. */
const currentAt = (r: Reading): number | undefined => {
  const words = `${r.conditions} ${r.text}`
  const told = currentIn(words)
  const named = [...words.matchAll(/[\d.,]+\s*[mµu]?A\b/g)]
  return told ?? (named.length === 1 ? valueOf(named[0]![0], '', 'A') : undefined)
}
/** Numbers of a row that the file has no place for: they stand in words beside its fact. */
const also = (r: Reading, corners: (keyof Reading['numbers'])[]): string =>
  corners.flatMap((c) => (r.numbers[c] === undefined ? [] : [`; ${c} ${r.numbers[c]} ${r.unit}`])).join('')
const sourced = (r: Reading) => (r.source ? { source: r.source } : {})

const dropout = (r: Reading) => {
  const [current, voltage] = [currentAt(r), ratedFrom(r, 'V', 'guaranteed')]
  return current !== undefined && voltage && { path: 'dropout[]', value: { current, voltage, ...sourced(r) } }
}
const efficiency = (r: Reading) => {
  const current = currentAt(r)
  const share = shareIn(r.numbers.min ?? r.numbers.typ, r.unit)
  const words = `share of its input that it passes on${also(r, ['typ', 'max'])}`
  return current !== undefined && share !== undefined
    ? { path: 'efficiency[]', value: { current, share }, words }
    : undefined
}
/** The least that must be there is there with a capacitor that has 20 % less than is printed on it. */
const capacitor = (path: string, words: string) => (r: Reading) => {
  const [min, typ] = [valueOf(r.numbers.min, r.unit, 'F'), valueOf(r.numbers.typ, r.unit, 'F')]
  const value = typ ?? (min === undefined ? undefined : nextUp(min / 0.8, 'E6'))
  return value === undefined ? undefined : { path, value, words: `${words}${also(r, ['min', 'max'])}` }
}
const most = (path: string, words: string) => (r: Reading) => {
  const max = valueOf(r.numbers.max ?? r.numbers.typ, r.unit, 'A')
  return max === undefined
    ? undefined
    : {
        path,
        value: { max, kind: 'recommended', ...sourced(r) },
        words: `${words}${also(r, r.numbers.max === undefined ? ['min'] : ['min', 'typ'])}`,
      }
}
/** So much load is no rest: what it takes itself then is not what eats a sleeping battery. */
const loaded = 1e-3

export const regulatorTargets: readonly Target[] = [
  besides('regulation', /(?:line|load) regulation|ΔV[_ ]?OUT/i),
  besides('rejection', /rejection|\bPSRR\b/i),
  besides('noise', /noise/i, /ripple/i),
  besides('handling', /storage|\bESD\b|humidity|solder|lead temperature/i),
  besides(
    'switching off',
    /shut-?down|stand-?by|enable|\bEN\b|under-?voltage|UVLO|soft[- ]?start|start-?up/i,
  ),
  besides('limits of its own', /(?:current limit|short|thermal (?:limit|trip)|foldback|I[_ ]?(?:SC|LIM))/i),
  besides('frequency', /frequency|\bf[_ ]?(?:SW|OSC)\b|duty/i),
  besides('heat', /power dissipation|temperature coefficient|θ ?JC|R(?:th|θ) ?JC|junction[- ]to[- ]case/i),
  {
    id: 'thermal',
    words: 'thermal resistance',
    pattern: /thermal resistance|θ ?JA|R(?:th|θ)/i,
    read: plainRated('package.thermalResistance', 'K/W'),
  },
  {
    id: 'junction',
    words: 'how warm its junction may get',
    pattern: /junction.*temp|\bT[_ ]?J\b/i,
    allowed: true,
    read: (r) => {
      const max = valueOf(r.numbers.max ?? r.numbers.typ, r.unit, '°C')
      const kind = r.section === 'absolute' ? 'absolute' : 'recommended'
      const words = `how warm its junction may get${also(r, ['min'])}`
      return max === undefined
        ? undefined
        : { path: 'junctionMax', value: { max, kind, ...sourced(r) }, words }
    },
  },
  {
    id: 'dropout',
    words: 'voltage it needs above its output',
    pattern: /drop-?\s?out|V[_ ]?(?:DO|DROP)\b/i,
    read: (r) => dropout(r) || undefined,
  },
  {
    id: 'esr',
    words: 'what its output capacitor may have as ESR',
    pattern: /\bESR\b|(?:equivalent )?series resistance/i,
    allowed: true,
    read: plainRated('outputCapacitor.esr', 'Ω'),
  },
  {
    id: 'input-capacitor',
    words: 'capacitor at its input',
    pattern: /input.*capaci|\bC[_ ]?IN?\b/i,
    allowed: true,
    read: capacitor('inputCapacitor', 'capacitor at its input'),
  },
  {
    id: 'output-capacitor',
    words: 'capacitor at its output',
    pattern: /output.*capaci|load capaci|\bC[_ ]?(?:O|OUT|L)\b/i,
    allowed: true,
    read: capacitor('outputCapacitor.capacitance', 'capacitor at its output'),
  },
  {
    id: 'efficiency',
    words: 'share of its input that it passes on',
    pattern: /efficien|η/i,
    read: efficiency,
  },
  {
    id: 'accuracy',
    words: 'how exact its output is',
    pattern: /(?:output|voltage|V[_ ]?OUT).*(?:accuracy|tolerance)|(?:accuracy|tolerance).*output/i,
    read: (r) => {
      const shares = [r.numbers.min, r.numbers.typ, r.numbers.max].flatMap((t) => shareIn(t, r.unit) ?? [])
      return shares.length > 0
        ? {
            path: 'accuracy',
            value: Math.max(...shares.map(Math.abs)),
            words: `how exact its output is${also(r, ['min', 'typ', 'max'])}`,
          }
        : undefined
    },
  },
  {
    id: 'ripple',
    words: 'ripple on its output',
    pattern: /ripple/i,
    read: plainRated('ripple', 'V'),
  },
  {
    id: 'quiescent',
    words: 'current it takes itself',
    pattern:
      /quiescent|ground(?: pin)? current|own current|no[- ]load (?:supply |input )?current|(?:supply|operating|bias) current|\bI[_ ]?(?:Q|GND|CC|S)\b/i,
    read: (r) => ((currentAt(r) ?? 0) > loaded ? 'beside' : plainRated('quiescent', 'A')(r)),
  },
  {
    id: 'input-current',
    words: 'most it takes at its input',
    pattern: /input current/i,
    section: ['recommended', 'other'],
    allowed: true,
    read: most('inputCurrent', 'most it takes at its input'),
  },
  {
    id: 'current',
    words: 'current it gives',
    pattern: /(?:output|load|rated|continuous).*current|current.*(?:output|load)|\bI[_ ]?(?:O|OUT|L|LOAD)\b/i,
    not: /limit|peak|short/i,
    section: ['recommended', 'other'],
    allowed: true,
    read: most('current', 'current it gives'),
  },
  {
    id: 'input',
    words: 'input voltage',
    pattern:
      /(?:input|supply|operating)(?: supply)?(?: voltage)?(?: range)?\b(?!.*current)|\bV[_ ]?(?:IN|I|CC|DD|S|BAT)\b/i,
    not: /output|temperature|V[_ ]?OUT/i,
    allowed: true,
    read: (r) =>
      plainRated(r.section === 'absolute' ? 'inputAbsolute' : 'inputRecommended', 'V', 'recommended')(r),
  },
  {
    id: 'output',
    words: 'output voltage',
    pattern: /output(?: voltage)?\b|\bV[_ ]?(?:O|OUT|REG)\b/i,
    section: ['recommended', 'other'],
    read: plainRated('output', 'V'),
  },
  besides('output from outside', /output|V[_ ]?OUT|any (?:other )?(?:pin|leg)|all (?:other )?(?:pins|legs)/i),
  besides('air', /ambient|temperature|T[_ ]?(?:A|STG|OPR?)\b/i),
]
