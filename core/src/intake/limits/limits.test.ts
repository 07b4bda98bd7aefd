// Limits pasted from sheets of several shapes, and a part file made of pasted tables alone.

import { completenessOf, readPart } from '../../parts'
import { chipFileFrom, type FoundFact, readLimits, readTable, withFacts } from '..'
import { type LimitsOf, shareOfSupply } from '.'

const absolute = `Table 7. Absolute maximum ratings
Parameter\tSymbol\tMin\tMax\tUnit
Supply voltage\tVDD\t-0.3\t4.0\tV
Voltage on any other pin\tVIN\t-0.3\tVDD + 0.3\tV
Output current sourced by any I/O pin\tIIO\t–\t25\tmA
Total current out of VSS\tIVSS\t–\t120\tmA
Storage humidity\t\t5\t95\t%`
const operating = `Recommended operating conditions (table 8)
Symbol;Parameter;Conditions;Min;Typ;Max;Unit
VDD;Supply voltage;;1,8;3,3;3,6;V
TA;Ambient temperature;;−40;;85;°C
VIH;Input high level;;0.7 × VDD;;;V
VIL;Input low level;;;;0.3VDD;V
VOH;Output high level;IOH = −8 mA;VDD − 0.4;;;V
VOL;Output low level;IOL = 8 mA;;;0.4;V
Ileak;Input leakage current;;;;±100;nA
RPU;Pull-up resistor;;25;40;55;kΩ
CIN;Input capacitance;;;5;;pF
fCPU;CPU frequency;VDD = 1.8 V;;;24;MHz
;;VDD = 3.0 V;;;48;MHz
IDD;Supply current, run mode at 24 MHz;;;6;9;mA
IDD;Supply current, standby;;;2;9;µA`
const facts = (found: FoundFact[]) => Object.fromEntries(found.map((f) => [f.path, f.value]))

test('an absolute maximum stays one; a unit stands at the end; what is not asked for is asked about', () => {
  const { facts: found, questions } = readLimits(absolute)
  expect(facts(found)).toEqual({
    'supply.absolute': { min: -0.3, max: 4, kind: 'absolute', source: 'table 7' },
    'io.aboveSupply': { max: 0.3, kind: 'absolute', source: 'table 7' },
    'limits.pinAbsolute': { max: 0.025, kind: 'absolute', source: 'table 7' },
    'limits.totalAbsolute': { max: 0.12, kind: 'absolute', source: 'table 7' },
  })
  expect(questions.map((q) => q.text)).toEqual(['What is “Storage humidity”?'])
  expect(readLimits(absolute, { 'limit:storage humidity': 'nothing' }).questions).toEqual([])
})

test('operating conditions: decimal commas, shares of the supply, levels at a current, rows that go on', () => {
  const { facts: found, questions } = readLimits(operating)
  expect(questions).toEqual([])
  const of = facts(found)
  expect(of['supply.recommended']).toMatchObject({ min: 1.8, typ: 3.3, max: 3.6, kind: 'recommended' })
  expect(of.temperature).toMatchObject({ min: -40, max: 85 })
  expect(of['io.inputHigh']).toMatchObject({ factor: 0.7, offset: 0 })
  expect(of['io.inputLow']).toMatchObject({ factor: 0.3, offset: 0 })
  expect(of['io.outputHigh[]']).toMatchObject({ current: 8e-3, drop: { max: 0.4 } })
  expect(of['io.outputLow[]']).toMatchObject({ current: 8e-3, drop: { max: 0.4 } })
  expect(of['io.leakage']).toMatchObject({ max: 1e-7 })
  expect(of['io.pullUp']).toMatchObject({ min: 25e3, typ: 40e3, max: 55e3 })
  expect(of['io.capacitance']).toMatchObject({ typ: 5e-12 })
  const lists = (path: string) => found.filter((f) => f.path === path).map((f) => f.value)
  expect(lists('frequencyLimits[]')).toMatchObject([
    { supply: 1.8, frequency: 24e6 },
    { supply: 3, frequency: 48e6 },
  ])
  expect(lists('modes[]')).toMatchObject([
    { kind: 'active', current: { typ: 6e-3, max: 9e-3 } },
    { kind: 'sleep', current: { typ: 2e-6, max: 9e-6 } },
  ])
})

test('a further section is not cited from the table before it', () => {
  const { facts: found } = readLimits(
    `${absolute}\nRecommended operating conditions\nSupply voltage\tVDD\t1.8\t3.6\tV`,
  )
  const of = facts(found) as Record<string, { source?: string }>
  expect([of['supply.absolute']!.source, of['supply.recommended']!.source]).toEqual(['table 7', undefined])
})

test.each<[string, string, unknown]>([
  ['Supply voltage: 2.7 V to 5.5 V', 'supply.recommended', { min: 2.7, max: 5.5 }],
  ['Supply voltage   4.5   5.0   5.5   V', 'supply.recommended', { min: 4.5, typ: 5, max: 5.5 }],
  ['Thermal resistance: 62 K/W', 'package.thermalResistance', { typ: 62 }],
  ['Thermal resistance, junction to ambient   62   °C/W', 'package.thermalResistance', { typ: 62 }],
  ['Internal pull-up resistor  20 … 50 kΩ', 'io.pullUp', { min: 20e3, max: 50e3 }],
  ['Power-down current, 3 V: 0.2 µA typ', 'modes[]', { kind: 'sleep', current: { typ: 2e-7 } }],
])('without headings: %s', (line, path, value) => {
  const { facts: found } = readLimits(line)
  expect(found).toHaveLength(1)
  expect(found[0]).toMatchObject({ path, value })
})

test.each<[string, number, number]>([
  ['0.7 × VDD', 0.7, 0],
  ['0.2VDD+0.9', 0.2, 0.9],
  ['V_CC − 0.4 V', 1, -0.4],
  ['2.0', 0, 2],
])('a level: %s', (text, factor, offset) => {
  expect(shareOfSupply(text)).toEqual({ factor, offset })
})

describe('a part made of pasted tables', () => {
  const table = readTable(`1 PA0 (ADC0/TX1)\n2 PA1 (ADC1/RX1)\n3 VDD\n4 VSS\n5 PA2 (TMR1_CH1)\n6 NRST`)
  const head = { id: 'mine-6', name: 'Mine 6', sheet: 'a sheet' }
  const file = chipFileFrom(table, head)
  const lacking = (data: Record<string, unknown>, check: string) => {
    const found = completenessOf(readPart(data, 'x')).find((c) => c.serves === check)!
    return [...found.assumed.map((a) => a.words), ...found.missing]
  }
  test('is valid at once; what no sheet was read for is assumed, and says so', () => {
    const chip = readPart(file, 'x')
    if (chip.kind !== 'chip') throw new Error('no chip')
    expect(chip.pins.map((p) => [p.id, p.legs, p.type])).toEqual([
      ['PA0', [1], 'io'],
      ['PA1', [2], 'io'],
      ['VDD', [3], 'supply'],
      ['VSS', [4], 'ground'],
      ['PA2', [5], 'io'],
      ['NRST', [6], 'input'],
    ])
    expect(chip.io.leakage.kind).toBe('assumed')
    expect(chip.assumed).toContain('io.leakage')
    expect(chip.support.decoupling.map((d) => d.pin)).toEqual(['VDD'])
    expect(lacking(file, 'pins')).toEqual([])
    expect(lacking(file, 'drive')).toContain('output strength, high')
  })
  test('its limits complete it, and only then is the check served', () => {
    const more = withFacts(file, [...readLimits(absolute).facts, ...readLimits(operating).facts])
    const chip = readPart(more, 'x')
    expect(lacking(more, 'drive')).toEqual([
      'recommended current of a leg',
      'current of all legs together',
      'through what resistance a converter reads, and what it fills for that',
    ])
    expect(lacking(more, 'power')).toEqual([])
    expect(chip.kind === 'chip' && chip.modes.map((m) => m.kind)).toEqual(['active', 'sleep'])
  })
  test('a second sheet’s word stands beside the first', () => {
    const once = withFacts(file, readLimits(operating).facts)
    const twice = withFacts(once, readLimits('Supply voltage: 2.0 V to 3.4 V').facts) as {
      supply: { recommended: unknown }
    }
    expect(twice.supply.recommended).toMatchObject({ min: 2, max: 3.4, others: [{ min: 1.8, max: 3.6 }] })
    expect(withFacts(once, readLimits(operating).facts.slice(0, 5))).toMatchObject({
      supply: once.supply,
    })
  })
  test('reading a read part again changes nothing', () => {
    const chip = readPart(file, 'x')
    expect(readPart(JSON.parse(JSON.stringify(chip)), 'x')).toEqual(chip)
  })
})

describe('every number is a fact or not understood', () => {
  const facts = (text: string) =>
    readLimits(text).facts.map((f) => {
      const { min, typ, max } = f.value as { min?: number; typ?: number; max?: number }
      return [f.path, min, typ, max]
    })
  test.each<[string, string]>([
    ['a range in one cell', 'Parameter\tValue\tUnit\nSupply voltage\t2.7 to 5.5\tV'],
    ['a unit in the heads', 'Parameter\tMin (V)\tMax (V)\nSupply voltage\t2.7\t5.5'],
    ['the greatest first', 'Parameter\tMax\tMin\tUnit\nSupply voltage\t5.5\t2.7\tV'],
    ['a sheet in Spanish', 'Parámetro\tMín\tMáx\tUnidad\nSupply voltage\t2,7\t5,5\tV'],
    [
      'a page’s table',
      '<table><tr><th>Parameter</th><th>Min</th><th>Max</th><th>Unit</th></tr>\n<tr><td>Supply&nbsp;voltage</td><td>2.7</td><td>5.5</td><td>V</td></tr></table>',
    ],
    ['full width', 'Parameter\tMin\tMax\tUnit\nSupply voltage\t２．７\t５．５\tV'],
  ])('%s: 2.7 to 5.5 V', (_, text) => {
    expect(facts(text).map(([, ...values]) => values)).toEqual([[2.7, undefined, 5.5]])
    expect(readLimits(text).open).toEqual([])
  })
  test('a unit in the heads is that of the numbers', () => {
    // 0.5 µA at most.
    expect(facts('Parameter\tMax (µA)\nInput leakage current\t0.5')).toEqual([
      ['io.leakage', undefined, undefined, 5e-7],
    ])
  })
  // The words as a sheet of that language has them: capacitor at the input, at the output, capacitance of a leg.
  test.each([
    ['German', 'Eingangskondensator', 'Ausgangskondensator', 'Eingangskapazität'],
    ['French', 'Condensateur d’entrée', 'Condensateur de sortie', 'Capacité d’entrée'],
    ['Spanish', 'Condensador de entrada', 'Condensador de salida', 'Capacidad de entrada'],
    ['Italian', 'Condensatore d’ingresso', 'Condensatore di uscita', 'Capacità di ingresso'],
    ['Portuguese', 'Condensador de entrada', 'Condensador de saída', 'Capacitância de entrada'],
    ['Dutch', 'Ingangscondensator', 'Uitgangscondensator', 'Ingangscapaciteit'],
  ])('capacitors in %s', (_, before, behind, leg) => {
    const rows = (lines: string[]) => ['Parameter\tTyp\tUnit', ...lines].join('\n')
    const regulator = readLimits(rows([`${before}\t1\tµF`, `${behind}\t2.2\tµF`]), {}, 'regulator')
    expect(regulator.facts.map((f) => [f.path, f.value])).toEqual([
      ['inputCapacitor', 1e-6],
      ['outputCapacitor.capacitance', 2.2e-6],
    ])
    expect(facts(rows([`${leg}\t5\tpF`]))).toEqual([['io.capacitance', undefined, 5e-12, undefined]])
  })
  test.each<[string, string, unknown[]]>([
    [
      'in running text',
      'The supply voltage must be between 2.7 V and 5.5 V. In sleep mode it takes 0.8 µA typical and 3 µA at most.\nThe maximum current of any I/O pin is 20 mA.',
      [
        ['supply.recommended', 2.7, undefined, 5.5],
        ['modes[]', undefined, undefined, undefined],
        ['limits.pinRecommended', undefined, undefined, 0.02],
      ],
    ],
    [
      'behind dots, corners in words',
      'Operating conditions\nSupply voltage VDD ............ 1.8 V to 3.6 V\nInput leakage current ......... max. ±100 nA\nInput capacitance ............ 5 pF (typ.), max. 8 pF',
      [
        ['supply.recommended', 1.8, undefined, 3.6],
        ['io.leakage', undefined, undefined, 1e-7],
        ['io.capacitance', undefined, 5e-12, 8e-12],
      ],
    ],
    [
      'in German, with commas in its numbers',
      'Grenzwerte\nKenngröße;Symbol;Min;Max;Einheit\nVersorgungsspannung;VDD;-0,3;6,0;V\nStrom je Anschluss;IIO;;40;mA\nBetriebsbedingungen\nKenngröße;Symbol;Min;Typ;Max;Einheit\nVersorgungsspannung;VDD;2,7;;5,5;V\nUmgebungstemperatur;TA;-40;;85;°C\nLeckstrom;IL;;;1;µA',
      [
        ['supply.absolute', -0.3, undefined, 6],
        ['limits.pinAbsolute', undefined, undefined, 0.04],
        ['supply.recommended', 2.7, undefined, 5.5],
        ['temperature', -40, undefined, 85],
        ['io.leakage', undefined, undefined, 1e-6],
      ],
    ],
    [
      'in French',
      'Valeurs limites\nParamètre\tMin\tMax\tUnité\nTension d’alimentation\t-0,3\t4\tV\nConditions de fonctionnement\nParamètre\tMin\tTyp\tMax\tUnité\nTension d’alimentation\t1,8\t3,3\t3,6\tV\nCourant de fuite\t\t\t50\tnA',
      [
        ['supply.absolute', -0.3, undefined, 4],
        ['supply.recommended', 1.8, 3.3, 3.6],
        ['io.leakage', undefined, undefined, 5e-8],
      ],
    ],
    [
      'under a title with its own conditions',
      'Electrical characteristics (VDD = 3.3 V, TA = 25 °C)\nParameter\tTyp\tMax\tUnit\nInput leakage current\t5\t100\tnA',
      [['io.leakage', undefined, 5e-9, 1e-7]],
    ],
  ])('%s', (_, text, wanted) => {
    expect(facts(text)).toEqual(wanted)
    expect(readLimits(text).open).toEqual([])
  })
  test('a high level in volts is so far below the supply that its row names', () => {
    const text = 'Parameter\tConditions\tMin\tUnit\nOutput high voltage\tIOH = -4 mA, VDD = 3 V\t2.6\tV'
    expect(readLimits(text).facts.map((f) => [f.path, f.value])).toEqual([
      ['io.outputHigh[]', { current: 4e-3, drop: { max: 0.4, kind: 'guaranteed' } }],
    ])
  })
  test('a line with quantities that is no title and no row is not understood, in its place', () => {
    const { facts: none, open } = readLimits('Wobbles 4 mm at 3 V and 7 mm at 5 V')
    expect(none).toEqual([])
    expect(open.length).toBeGreaterThan(0)
  })
  test('columns by temperature: the one that leaves least counts, and says where; all are accounted for', () => {
    const text =
      'Parameter\tTyp 25 °C\tMax 25 °C\tMax 85 °C\tMax @ 105 °C\tUnit\nInput leakage current\t1\t20\t50\t200\tnA'
    const { facts: found, open } = readLimits(text)
    expect(found.map((f) => f.value)).toMatchObject([{ typ: 1e-9, max: 200e-9, at: '25 °C, 105 °C' }])
    expect(open).toEqual([])
  })
  test('of what may be, or must be at least, the narrowest counts, whatever unit its cell is in', () => {
    const of = (rows: string, kind: LimitsOf = 'chip') =>
      readLimits(`Parameter\tMin 25 °C\tMin 85 °C\tMax 25 °C\tMax 85 °C\tUnit\n${rows}`, {}, kind).facts.map(
        (f) => f.value,
      )
    expect(of('Output current of one pin\t\t\t20\t12\tmA')).toMatchObject([{ max: 12e-3, at: '85 °C' }])
    expect(of('Output current of one pin\t\t\t-12\t-20\tmA')).toMatchObject([{ max: 12e-3, at: '25 °C' }])
    expect(of('Supply voltage\t2.4\t2.7\t5.5\t5\tV')).toMatchObject([{ min: 2.7, max: 5 }])
    expect(of('Input high level\t1.9\t2.1\t\t\tV')).toMatchObject([{ offset: 2.1 }])
    expect(of('Input low level\t\t\t0.8\t0.6\tV')).toMatchObject([{ offset: 0.6 }])
    expect(of('Output current\t\t\t500\t300\tmA', 'regulator')).toMatchObject([{ max: 0.3 }])
    expect(of('Clock frequency of SCL\t\t\t1 MHz\t400 kHz\t', 'device')).toMatchObject([{ max: 4e5 }])
    // What is no number, or of another form, is not compared: it is open, and what was taken says where it holds.
    const odd = readLimits(
      'Parameter\tMin 25 °C\tMin 85 °C\tMax 25 °C\tMax 85 °C\tUnit\nSupply voltage\t2.4\t2.7\tsee 3.1\t5\tV\nInput high level\t0.7VDD\t2.1\t\t\tV\nOutput current of one pin\t\t\t20\tnote\tmA',
    )
    expect(odd.facts.map((f) => [f.value, f.at])).toMatchObject([
      [{ min: 2.7, max: 5 }, '85 °C'],
      [{ factor: 0.7 }, '25 °C'],
      [{ max: 0.02 }, '25 °C'],
    ])
    expect(odd.open.map((o) => o.text)).toEqual(['see 3.1', '2.1'])
    // What it takes is the most of all.
    expect(of('Supply current in standby\t\t\t500 nA\t2 µA\t')).toMatchObject([{ current: { max: 2e-6 } }])
    expect(of('Drop-out voltage at 100 mA\t\t\t200\t300\tmV', 'regulator')).toMatchObject([
      { voltage: { max: 0.3 } },
    ])
  })
  // Of each two columns the one that leaves less, by hand.
  test.each<[LimitsOf, string, object]>([
    ['chip', 'Clock frequency\tVDD = 3 V\t\t\t48\t32\tMHz', { supply: 3, frequency: 32e6 }],
    ['chip', 'Total current into VDD\t\t\t\t150\t100\tmA', { max: 0.1 }],
    ['chip', 'Ambient temperature\t\t-40\t-20\t105\t85\t°C', { min: -20, max: 85 }],
    ['regulator', 'Junction temperature\t\t\t\t150\t125\t°C', { max: 125 }],
    ['regulator', 'ESR of the output capacitor\t\t0.1\t0.2\t5\t3\tΩ', { min: 0.2, max: 3 }],
    ['regulator', 'Input current\t\t\t\t900\t700\tmA', { max: 0.7 }],
    ['regulator', 'Input voltage\t\t3.6\t3.8\t7\t6.5\tV', { min: 3.8, max: 6.5 }],
    ['device', 'Supply voltage\t\t1.8\t2\t3.6\t3.4\tV', { min: 2, max: 3.4 }],
  ])('what may be, of a %s: %s', (kind, row, value) => {
    const text = `Parameter\tConditions\tMin 25 °C\tMin 85 °C\tMax 25 °C\tMax 85 °C\tUnit\n${row}`
    expect(readLimits(text, {}, kind).facts.map((f) => f.value)).toMatchObject([value])
  })
  test('of how far a leg may go above the supply, the least', () => {
    const text =
      'Absolute maximum ratings\nParameter\tMin\tMax 25 °C\tMax 85 °C\tUnit\nVoltage on any pin\t-0.3\tVDD + 0.5\tVDD + 0.3\tV'
    expect(readLimits(text).facts.map((f) => f.value)).toMatchObject([{ max: 0.3, kind: 'absolute' }])
  })
  // 4 µF must be there with 20 % less than is printed: 4 / 0.8 = 5 µF, and 6.8 µF is the next that is made (E6).
  test.each([
    ['Input capacitor', 6.8e-6],
    ['Output capacitor', 6.8e-6],
  ])('%s: the larger of the least ones', (name, value) => {
    const text = `Parameter\tMin 25 °C\tMin 85 °C\tMax\tUnit\n${name}\t2\t4\t\tµF`
    expect(readLimits(text, {}, 'regulator').facts.map((f) => f.value)).toEqual([value])
  })
  const heads = 'Parameter\tConditions\tMin\tTyp\tMax\tUnit\n'
  // Each by hand: of what may be the maximum and not what is usual; 0x88 = 2 × 0x44; 1000100b = 0x44; ±1.5 % beside
  // ±2 % is ±2 %; a drop-out at two currents is of neither.
  test.each<[LimitsOf, string, unknown]>([
    ['device', 'I2C address\t\t\t0x88\t\t', 0x44],
    ['device', 'I2C address\t\t\t0x44\t\t', 0x44],
    ['device', 'I2C address\t\t\t1000100\t\t', 0x44],
    ['device', 'SCL clock frequency\t\t\t100\t400\tkHz', { max: 4e5 }],
    ['device', 'Supply current, heater on\t\t\t5\t9\tmA', { id: 'heater-on', name: 'heater on' }],
    ['regulator', 'Output current\t\t\t150\t250\tmA', { max: 0.25 }],
    ['regulator', 'Output voltage accuracy\t\t-2\t\t1.5\t%', 0.02],
    ['regulator', 'Drop-out voltage\tIOUT = 80 mA\t\t\t0.3\tV', { current: 0.08, voltage: { max: 0.3 } }],
    ['regulator', 'Drop-out voltage at 80 mA\t\t\t\t0.3\tV', { current: 0.08, voltage: { max: 0.3 } }],
    ['regulator', 'Drop-out voltage\t10 mA to 80 mA\t\t\t0.3\tV', undefined],
  ])('%s: %s', (kind, row, value) => {
    const found = readLimits(heads + row, {}, kind).facts.map((f) => f.value)
    if (value === undefined) expect(found).toEqual([])
    else if (typeof value === 'object') expect(found).toMatchObject([value])
    else expect(found).toEqual([value])
  })
  test('two rows about one fact: the earlier says that the later is taken', () => {
    const two =
      'Parameter\tConditions\tMin\tUnit\nInput high level\tVDD = 3 V\t2.0\tV\nInput high level\tVDD = 5 V\t3.5\tV'
    expect(readLimits(two).facts.map((f) => [f.line, f.later])).toEqual([
      [2, 3],
      [3, undefined],
    ])
  })
  test('under a title that says nothing behind absolute maximums, that is asked', () => {
    const text =
      'Absolute maximum ratings\nParameter\tMin\tMax\tUnit\nSupply voltage\t-0.3\t6\tV\nOperation\nParameter\tMin\tMax\tUnit\nSupply voltage\t2.7\t5.5\tV'
    const paths = (answers = {}) => readLimits(text, answers).facts.map((f) => f.path)
    expect(readLimits(text).questions.map((q) => [q.id, q.guess])).toEqual([['section:operation', 'other']])
    expect(paths()).toEqual(['supply.absolute', 'supply.recommended'])
    expect(paths({ 'section:operation': 'absolute' })).toEqual(['supply.absolute', 'supply.absolute'])
    // The same table on the next page says nothing anew.
    const paged = text.replace('Operation\n', 'Page 3 of 90\n')
    expect(readLimits(paged).questions).toEqual([])
    expect(readLimits(paged).facts.map((f) => f.path)).toEqual(['supply.absolute', 'supply.absolute'])
  })
  test('a least above the greatest is no fact but a question; a current may flow either way', () => {
    const of = (row: string) => readLimits(`Parameter\tMin\tMax\tUnit\n${row}`)
    expect(of('Supply voltage\t5.5\t2.7\tV').facts).toEqual([])
    expect(of('Supply voltage\t5.5\t2.7\tV').questions[0]?.why).toContain('can’t be read')
    expect(of('Output current of one pin\t-4\t-8\tmA').facts[0]?.value).toMatchObject({ max: 8e-3 })
  })
  test('a number that nothing became of, and a row that nobody knows, are told with their places', () => {
    const text = 'Parameter\tMin\tMax\tUnit\tOld\nSupply voltage\t2.7\t5.5\tV\t3.1\nWobble\t4\t9\tmm\t'
    const { open } = readLimits(text)
    expect(open.map((o) => [o.text, o.line])).toEqual([
      ['3.1', 2],
      ['4', 3],
      ['9', 3],
    ])
    const lines = text.split('\n')
    for (const o of open) expect(lines[o.line - 1]!.slice(o.from, o.to)).toBe(o.text)
    const lost = readLimits('Parameter\tMin\tMax\tUnit\nSupply voltage\t2.7\tsee 5\tV').open
    expect(lost.map((o) => o.text)).toEqual(['see 5'])
  })
})
