import { demo, shippedLibrary } from '../../test/files'
import { analyse } from '../analysis'
import { applyEdits } from '../design'
import { partsTable, pinHeader, textReport, wiringTableCells } from '.'

const library = shippedLibrary()
const timer = demo('darkroom-timer')
const clean = analyse(timer, library)
const wires = clean.pins.plan!.wires

test('parts: headings, one row a line of the list, prices that add up', () => {
  const [head, ...rows] = partsTable(clean.build.parts)
  expect(head).toEqual(['count', 'part', 'value', 'references', 'price each (EUR)', 'price (EUR)'])
  expect(rows).toContainEqual(['7', 'film resistor', '10k', 'R2 R5 R6 R7 R8 R9 R13', '0.02', '0.14'])
  expect(rows.reduce((sum, r) => sum + Number(r[5]), 0)).toBeCloseTo(clean.build.price.value.typ, 2)
})

test('wiring: every cell filled, one row a wire', () => {
  const [head, ...rows] = wiringTableCells(clean.build.wiring)
  expect(head).toHaveLength(5)
  expect(rows).toHaveLength(clean.build.wiring.length)
  expect(rows.flat().every((cell) => cell.length > 0)).toBe(true)
})

describe('pins.h', () => {
  const header = pinHeader('Timer “ä” */', 'TD8-28', wires)
  test('is plain C: guarded, ASCII, each name defined once, comments closed', () => {
    expect(header).toMatch(/^\/\* Pins of .*\*\/\n#ifndef PINS_H\n#define PINS_H\n/)
    expect(header.trimEnd().endsWith('#endif')).toBe(true)
    expect([...header].every((c) => c === '\n' || (c >= ' ' && c <= '~'))).toBe(true)
    const names = [...header.matchAll(/^#define (\w+) /gm)].map((m) => m[1])
    expect(new Set(names).size).toBe(names.length)
    for (const line of header.split('\n').filter(Boolean))
      expect(line).toMatch(/^(\/\*[^*]*(\*(?!\/)[^*]*)*\*\/|#(ifndef|define|endif)( \w+)*)$/)
  })
  test.each([
    ['BUZZER', 8, 'B', 2],
    ['LAMP_RELAY', 3, 'A', 3],
    ['DIAL_SW', 15, 'C', 1],
  ])('%s is number %d, port %s bit %d', (name, number, port, bit) => {
    expect(header).toContain(
      `#define ${name}_PIN ${number}\n#define ${name}_PORT ${port}\n#define ${name}_BIT ${bit}\n`,
    )
  })
  test('a selected function comes with its number, a leg without number or port with its leg', () => {
    const q = analyse(
      applyEdits({ ...timer, chip: { part: 'qm32-32' } }, [
        { kind: 'chooseRegulator', part: 'bl33-low', name: '' },
      ]),
      library,
    )
    const text = pinHeader('x', 'y', q.pins.plan!.wires)
    expect(text).toMatch(/#define I2C_SDA_FUNCTION \d/)
    const bare = { ...wires[0]!, pin: { id: 'LEFT', legs: [9], type: 'io' as const } }
    expect(pinHeader('x', 'y', [bare])).toContain('_LEG 9')
  })
})

test('the report says the gauges, the plan, the parts and each finding with its facts', () => {
  const hot = analyse(applyEdits(timer, [{ kind: 'chooseRegulator', part: 'bl5-low', name: '' }]), library)
  const text = textReport(hot)
  expect(text).toMatch(/^Darkroom timer\n=+\n/)
  expect(text).toMatch(/Hottest part: \d+ °C/)
  expect(text).toContain('Parts: € 25')
  expect(text).toContain('  I2C SDA: leg 5 PA4')
  expect(text).toMatch(/\[stops\] BL5 low drop 5 V reaches/)
  expect(text).toMatch(/ {6}The volts it takes away turn into/)
  expect(textReport(clean)).toMatch(/Findings:\n {2}none\n$/)
})

describe('the report, line by line', () => {
  const finding = {
    id: 'x.y:1',
    check: 'x.y',
    stage: 'pins' as const,
    severity: 'risks' as const,
    text: 'It may not work.',
    because: [{ text: 'Since this' }, { text: 'and that' }],
    fixes: [],
  }
  const report = (plan: object, more: object = {}, helps?: Parameters<typeof textReport>[1]) =>
    textReport(
      {
        ...clean,
        gauges: [],
        findings: [],
        build: { ...clean.build, parts: [] },
        pins: { ...clean.pins, plan: { ...clean.pins.plan!, wires: [], ...plan } },
        ...more,
      },
      helps,
    )
      .split('\n')
      .slice(3)
  test.each([
    [{ status: 'proven', cost: 7 }, 'no plan costs less than this one’s 7 points'],
    [
      { status: 'found', cost: 9, gap: 2 },
      'the best found in the time given, 9 points; one up to 2 points cheaper may exist',
    ],
    [{ status: 'undecided' }, 'not decided in the time given: none was found, and none is ruled out'],
    [{ status: 'clash', clashText: 'six want five' }, 'none: six want five'],
  ])('%j', (plan, words) =>
    expect(report(plan)).toEqual([
      '',
      'Chip: TD8-28 DIP',
      `Plan: ${words}`,
      '',
      'Parts:',
      '',
      'Findings:',
      '  none',
      '',
    ]),
  )
  test('what helps, what was not tried, what may be settled by looking longer; findings in working order', () => {
    const offers = { offers: [{ fix: { label: 'Do this', edits: [] } }], untried: ['Do that'] }
    const second = {
      ...finding,
      id: 'b',
      stage: 'build' as const,
      severity: 'notes' as const,
      text: 'B.',
      longer: true,
    }
    expect(
      report(
        { status: 'proven', cost: 0 },
        { findings: [second, finding] },
        new Map([['x.y:1', offers as never]]),
      ).slice(6),
    ).toEqual([
      'Findings:',
      '  [risks] It may not work.',
      '      Since this',
      '      and that',
      '    helps: Do this',
      '    not tried in the time given: Do that',
      '  [notes] B.',
      '      Since this',
      '      and that',
      '    looking longer may settle it',
      '',
    ])
  })
  test('no chip, no plan, a wire that can’t work, a gauge without a number, parts without a value', () => {
    const [first] = wires
    const lines = textReport({
      ...clean,
      gauges: [{ ...clean.gauges[0]!, worked: undefined, instead: 'no source yet' }],
      findings: [],
      chip: {},
      build: {
        ...clean.build,
        parts: [{ ...clean.build.parts[0]!, value: '', refs: [], count: 2, name: 'lamp' }],
      },
      pins: {
        ...clean.pins,
        plan: { ...clean.pins.plan!, wires: [{ ...first!, impossible: 'it has no timer' }] },
      },
    }).split('\n')
    expect(lines[3]).toBe('Budget used: no source yet')
    expect(lines[5]).toBe('Chip: none chosen')
    expect(lines[7]).toBe("  I2C SDA: leg 5 PA4 (can't work: it has no timer)")
    expect(lines.slice(9, 11)).toEqual(['Parts:', '  2 x lamp'])
    expect(textReport({ ...clean, pins: { ...clean.pins, plan: undefined } })).not.toContain('Plan:')
  })
})

test('each cell of a wire and of a part is where its heading says', () => {
  expect(
    wiringTableCells([
      {
        net: 'I2C_SDA',
        from: { ref: 'U1', name: 'chip', terminal: '5 PA4' },
        to: { ref: 'M1', name: 'Display', terminal: 'SDA' },
      },
    ]),
  ).toEqual([
    ['net', 'from', 'from terminal', 'to', 'to terminal'],
    ['I2C_SDA', 'U1 chip', '5 PA4', 'M1 Display', 'SDA'],
  ])
})

test('pins.h says of each line what it is, where, and by which unit; nothing ends its comments early', () => {
  const text = pinHeader('a */ b', 'TD8', wires).split('\n')
  expect(text[0]).toBe('/* Pins of "a * / b" on TD8. Written by Root Board; plan again rather than edit. */')
  // PA4 carries the data of the unit that the chip’s file names so
  expect(text.slice(4, 9)).toEqual([
    '/* I2C SDA: leg 5, two-wire port SDA */',
    '#define I2C_SDA_PIN 4',
    '#define I2C_SDA_PORT A',
    '#define I2C_SDA_BIT 4',
    '',
  ])
  const start = wires.find((w) => w.signal.name === 'Start')!
  expect(pinHeader('x', 'y', [start])).toMatch(/^\/\* Start: leg \d+ \*\/$/m)
})
