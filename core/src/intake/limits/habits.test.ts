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
/** What breaks it, and what it is made for or guarantees, by kind of part: names, symbol, unit, fact, corners, least, greatest. */
const sheets: Record<LimitsOf, { absolute: string[]; operating: string[] }> = {
  chip: {
    absolute: [
      'Supply voltage | Versorgungsspannung | Tension d’alimentation | VDD | V | supply.absolute | max | 4 | 7',
    ],
    operating: [
      'Supply voltage | Versorgungsspannung | Tension d’alimentation | VDD | V | supply.recommended | min typ max | 1.6 | 5.5',
      'Ambient temperature | Umgebungstemperatur | Température ambiante | TA | °C | temperature | min max | -40 | 125',
      'Input leakage current | Leckstrom | Courant de fuite | ILEAK | nA | io.leakage | typ max | 1 | 900',
      'Input capacitance | Eingangskapazität | Capacité d’entrée | CIN | pF | io.capacitance | typ | 2 | 12',
      'Thermal resistance | Wärmewiderstand | Résistance thermique | RθJA | °C/W | package.thermalResistance | typ | 30 | 200',
    ],
  },
  regulator: {
    absolute: [
      'Input voltage | Eingangsspannung | Tension d’entrée | VIN | V | inputAbsolute | max | 7 | 30',
    ],
    operating: [
      'Input voltage | Eingangsspannung | Tension d’entrée | VIN | V | inputRecommended | min max | 3 | 24',
      'Output voltage | Ausgangsspannung | Tension de sortie | VOUT | V | output | min typ max | 3.2 | 3.4',
      'Output current | Ausgangsstrom | Courant de sortie | IOUT | mA | current | max | 50 | 900',
      'Quiescent current | Ruhestrom | Courant de repos | IQ | µA | quiescent | typ max | 5 | 900',
      'Junction temperature | Sperrschichttemperatur | Température de jonction | TJ | °C | junctionMax | max | 85 | 150',
      'Thermal resistance | Wärmewiderstand | Résistance thermique | RθJA | °C/W | package.thermalResistance | typ | 30 | 200',
    ],
  },
  device: {
    absolute: [
      'Supply voltage | Versorgungsspannung | Tension d’alimentation | VDD | V | supplyAbsolute | max | 4 | 7',
    ],
    operating: [
      'Supply voltage | Versorgungsspannung | Tension d’alimentation | VDD | V | supply | min max | 1.6 | 5.5',
      'SCL clock frequency | SCL-Taktfrequenz | Fréquence SCL | fSCL | kHz | busSpeed | max | 90 | 1000',
    ],
  },
}
/** What one of each unit is in SI. */
const scales: Record<string, number> = {
  V: 1,
  '°C': 1,
  nA: 1e-9,
  pF: 1e-12,
  '°C/W': 1,
  mA: 1e-3,
  µA: 1e-6,
  kHz: 1e3,
}
const limitOf = (line: string): Limit => {
  const [en, de, fr, symbol, unit, path, corners, from, to] = line.split(' | ')
  return {
    names: { en: en!, de: de!, fr: fr! },
    symbol: symbol!,
    unit: unit!,
    scale: scales[unit!]!,
    path: path!,
    corners: corners!.split(' ') as Limit['corners'],
    from: Number(from),
    to: Number(to),
  }
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
  const [absolute, operating] = [sheets[of].absolute, sheets[of].operating].map((lines) =>
    lines.map(limitOf),
  ) as [Limit[], Limit[]]
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
