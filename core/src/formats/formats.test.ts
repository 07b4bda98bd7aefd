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
