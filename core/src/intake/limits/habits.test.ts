// Tables of limits written out by random habits, from values that are known before: what is read must be what was written,
// and nothing may be left over.

import { type LimitsOf, readLimits } from '..'
import { seeded } from '../../../test/seeded'

interface Limit {
  names: Record<'en' | 'de' | 'fr', string>
  symbol: string
  unit: string
  /** What one of the unit is in SI. */
  scale: number
  path: string
  corners: ('min' | 'typ' | 'max')[]
  /** Values are drawn between these, rising. */
  from: number
  to: number
}
/** What breaks it, and what it is made for or guarantees, by kind of part. */
const sheets: Record<LimitsOf, { absolute: Limit[]; operating: Limit[] }> = {
  chip: {
    absolute: [
      {
        names: { en: 'Supply voltage', de: 'Versorgungsspannung', fr: 'Tension d’alimentation' },
        symbol: 'VDD',
        unit: 'V',
        scale: 1,
        path: 'supply.absolute',
        corners: ['max'],
        from: 4,
        to: 7,
      },
    ],
    operating: [
      {
        names: { en: 'Supply voltage', de: 'Versorgungsspannung', fr: 'Tension d’alimentation' },
        symbol: 'VDD',
        unit: 'V',
        scale: 1,
        path: 'supply.recommended',
        corners: ['min', 'typ', 'max'],
        from: 1.6,
        to: 5.5,
      },
      {
        names: { en: 'Ambient temperature', de: 'Umgebungstemperatur', fr: 'Température ambiante' },
        symbol: 'TA',
        unit: '°C',
        scale: 1,
        path: 'temperature',
        corners: ['min', 'max'],
        from: -40,
        to: 125,
      },
      {
        names: { en: 'Input leakage current', de: 'Leckstrom', fr: 'Courant de fuite' },
        symbol: 'ILEAK',
        unit: 'nA',
        scale: 1e-9,
        path: 'io.leakage',
        corners: ['typ', 'max'],
        from: 1,
        to: 900,
      },
      {
        names: { en: 'Input capacitance', de: 'Eingangskapazität', fr: 'Input capacitance' },
        symbol: 'CIN',
        unit: 'pF',
        scale: 1e-12,
        path: 'io.capacitance',
        corners: ['typ'],
        from: 2,
        to: 12,
      },
      {
        names: { en: 'Thermal resistance', de: 'Wärmewiderstand', fr: 'Résistance thermique' },
        symbol: 'RθJA',
        unit: '°C/W',
        scale: 1,
        path: 'package.thermalResistance',
        corners: ['typ'],
        from: 30,
        to: 200,
      },
    ],
  },
  regulator: {
    absolute: [
      {
        names: { en: 'Input voltage', de: 'Eingangsspannung', fr: 'Tension d’entrée' },
        symbol: 'VIN',
        unit: 'V',
        scale: 1,
        path: 'inputAbsolute',
        corners: ['max'],
        from: 7,
        to: 30,
      },
    ],
    operating: [
      {
        names: { en: 'Input voltage', de: 'Eingangsspannung', fr: 'Tension d’entrée' },
        symbol: 'VIN',
        unit: 'V',
        scale: 1,
        path: 'inputRecommended',
        corners: ['min', 'max'],
        from: 3,
        to: 24,
      },
      {
        names: { en: 'Output voltage', de: 'Ausgangsspannung', fr: 'Tension de sortie' },
        symbol: 'VOUT',
        unit: 'V',
        scale: 1,
        path: 'output',
        corners: ['min', 'typ', 'max'],
        from: 3.2,
        to: 3.4,
      },
      {
        names: { en: 'Output current', de: 'Ausgangsstrom', fr: 'Courant de sortie' },
        symbol: 'IOUT',
        unit: 'mA',
        scale: 1e-3,
        path: 'current',
        corners: ['max'],
        from: 50,
        to: 900,
      },
      {
        names: { en: 'Quiescent current', de: 'Ruhestrom', fr: 'Courant de repos' },
        symbol: 'IQ',
        unit: 'µA',
        scale: 1e-6,
        path: 'quiescent',
        corners: ['typ', 'max'],
        from: 5,
        to: 900,
      },
      {
        names: { en: 'Junction temperature', de: 'Sperrschichttemperatur', fr: 'Température de jonction' },
        symbol: 'TJ',
        unit: '°C',
        scale: 1,
        path: 'junctionMax',
        corners: ['max'],
        from: 85,
        to: 150,
      },
      {
        names: { en: 'Thermal resistance', de: 'Wärmewiderstand', fr: 'Résistance thermique' },
        symbol: 'RθJA',
        unit: '°C/W',
        scale: 1,
        path: 'package.thermalResistance',
        corners: ['typ'],
        from: 30,
        to: 200,
      },
    ],
  },
  device: {
    absolute: [
      {
        names: { en: 'Supply voltage', de: 'Versorgungsspannung', fr: 'Tension d’alimentation' },
        symbol: 'VDD',
        unit: 'V',
        scale: 1,
        path: 'supplyAbsolute',
        corners: ['max'],
        from: 4,
        to: 7,
      },
    ],
    operating: [
      {
        names: { en: 'Supply voltage', de: 'Versorgungsspannung', fr: 'Tension d’alimentation' },
        symbol: 'VDD',
        unit: 'V',
        scale: 1,
        path: 'supply',
        corners: ['min', 'max'],
        from: 1.6,
        to: 5.5,
      },
      {
        names: { en: 'SCL clock frequency', de: 'SCL-Taktfrequenz', fr: 'Fréquence SCL' },
        symbol: 'fSCL',
        unit: 'kHz',
        scale: 1e3,
        path: 'busSpeed',
        corners: ['max'],
        from: 90,
        to: 1000,
      },
    ],
  },
}
const titles = {
  en: ['Absolute maximum ratings', 'Recommended operating conditions'],
  de: ['Grenzwerte', 'Betriebsbedingungen'],
  fr: ['Valeurs limites', 'Conditions de fonctionnement'],
}
const heads = {
  en: {
    text: 'Parameter',
    symbol: 'Symbol',
    conditions: 'Conditions',
    min: 'Min',
    typ: 'Typ',
    max: 'Max',
    unit: 'Unit',
  },
  de: {
    text: 'Kenngröße',
    symbol: 'Symbol',
    conditions: 'Bedingungen',
    min: 'Min',
    typ: 'Typ',
    max: 'Max',
    unit: 'Einheit',
  },
  fr: {
    text: 'Paramètre',
    symbol: 'Symbole',
    conditions: 'Conditions',
    min: 'Min',
    typ: 'Typ',
    max: 'Max',
    unit: 'Unité',
  },
}
type Values = Partial<Record<'min' | 'typ' | 'max', number>>

const written = (seed: number) => {
  const random = seeded(seed)
  const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const of = one(['chip', 'regulator', 'device'] as const)
  const { absolute, operating } = sheets[of]
  const language = one(['en', 'de', 'fr'] as const)
  const comma = language !== 'en' && random() < 0.7
  const separator = one(comma ? ['\t', ';', ' | '] : ['\t', ';', ' | ', ',', 'aligned', 'aligned, blank'])
  const empty = one(['', '-', '–'])
  const minus = one(['-', '−'])
  const ownUnit = random() < 0.25
  const columns = one([
    ['text', 'symbol', 'min', 'typ', 'max', 'unit'],
    ['symbol', 'text', 'min', 'typ', 'max', 'unit'],
    ['text', 'min', 'typ', 'max', 'unit'],
    ['text', 'unit', 'max', 'typ', 'min'],
    ['text', 'conditions', 'min', 'typ', 'max', 'unit'],
  ] as const).filter((c) => !(ownUnit && c === 'unit'))
  const number = (v: number) => (comma ? String(v).replace('.', ',') : String(v)).replace('-', minus)
  const expected: [string, Values][] = []
  const rowsOf = (limits: Limit[]) =>
    limits.map((limit) => {
      const drawn = limit.corners
        .map(() => limit.from + random() * (limit.to - limit.from))
        .sort((a, b) => a - b)
      const values: Values = Object.fromEntries(
        limit.corners.map((c, i) => [c, Number(drawn[i]!.toPrecision(3))]),
      )
      expected.push([limit.path, values])
      return columns.map((c) => {
        if (c === 'text') return limit.names[language]
        if (c === 'symbol') return limit.symbol
        if (c === 'unit') return limit.unit
        if (c === 'conditions') return limit.unit === 'nA' ? 'at 3 V' : ''
        return values[c] === undefined ? empty : `${number(values[c])}${ownUnit ? ` ${limit.unit}` : ''}`
      })
    })
  const table = (title: string, limits: Limit[]): string[] => {
    const rows = [columns.map((c) => heads[language][c]), ...rowsOf(limits)]
    const widths = columns.map((_, i) => Math.max(...rows.map((r) => r[i]!.length)))
    const line = (r: string[]) =>
      separator.startsWith('aligned')
        ? r
            .map((c, i) => (c || (separator === 'aligned' ? '-' : '')).padEnd(widths[i]! + 3))
            .join('')
            .trimEnd()
        : r.join(separator)
    return [title, ...rows.map(line)]
  }
  const text = [
    ...table(titles[language][0]!, absolute),
    ...(random() < 0.5 ? [''] : []),
    ...table(
      titles[language][1]!,
      operating.filter(() => random() < 0.8),
    ),
  ].join('\n')
  return { text, of, expected, scale: new Map([...absolute, ...operating].map((l) => [l.path, l.scale])) }
}

const seed = Number(process.env['SEED'] ?? Date.now() % 2 ** 31)
const count = process.env['DEEP'] === '1' ? 2000 : 200
test(`${count} tables of limits, in three languages and many layouts, are read as they were written`, () => {
  console.log(`limits: seeds from ${seed} (SEED=${seed} runs them again)`)
  for (let i = 0; i < count; i++) {
    const { text, of, expected, scale } = written(seed + i)
    const { facts, open, questions } = readLimits(text, {}, of)
    const found = facts.map((f) => {
      const value = f.value as Values
      const corners = (['min', 'typ', 'max'] as const).filter((c) => value[c] !== undefined)
      const one = scale.get(f.path) ?? 1
      return [f.path, Object.fromEntries(corners.map((c) => [c, Number((value[c]! / one).toPrecision(6))]))]
    })
    expect([seed + i, text, found, open, questions.map((q) => q.text)]).toEqual([
      seed + i,
      text,
      expected,
      [],
      [],
    ])
  }
})
