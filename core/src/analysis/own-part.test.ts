// A chip pasted from its sheet goes the whole way: planned at once, what is assumed is said, and each further table
// clears what it answers.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { chipFileFrom, readLimits, readTable, withFacts } from '../intake'
import { applyEdits } from '../design'
import { makeLibrary, readPart } from '../parts'
import { analyse } from '.'

const table = readTable(`Pin,Name,Functions
1,VDD,
2,PA0,"ADC0, TMR0_CH1"
3,PA1,"ADC1, TMR0_CH2"
4,PA2,"SDA"
5,PA3,"SCL"
6,PA4,"INT0"
7,NRST,
8,VSS,`)
const head = { id: 'bench-8', name: 'Bench 8', sheet: 'its sheet' }
const limits = `Absolute maximum ratings
Parameter,Min,Max,Unit
Supply voltage,-0.3,6.0,V
Recommended operating conditions
Supply voltage,2.7,5.5,V
Ambient temperature,-20,70,°C
`
const file = chipFileFrom(table, head)
const libraryWith = (data: unknown) =>
  makeLibrary([...Object.values(shippedLibrary().parts), readPart(data, 'pasted')])
const design = project({
  chip: 'bench-8',
  devices: [
    ['temperature-two-wire', 'Air'],
    ['push-button', 'Start'],
    ['light-resistor', 'Light'],
  ],
  source: 'adapter-5v',
})
const found = (data: unknown, warm = 30) => {
  const library = libraryWith(data)
  const analysis = analyse(applyEdits(design, [{ kind: 'setLimit', limit: 'ambient', value: warm }]), library)
  return { analysis, library, ids: analysis.findings.map((f) => [f.check, f.severity]) }
}

test('it is planned from its table of legs alone; the supply is only feared for', () => {
  const { analysis, ids } = found(file)
  expect(analysis.pins.plan?.status).toBe('proven')
  expect(analysis.pins.assignment).toMatchObject({ 'i2c.SDA': 'PA2', 'i2c.SCL': 'PA3' })
  expect(ids).toContainEqual(['chip.rests-on-assumptions', 'risks'])
  expect(ids).toContainEqual(['chip.supply-out-of-range', 'risks'])
})
test('limits pasted later clear what they answer, and name what is left', () => {
  const whole = withFacts(file, readLimits(limits).facts)
  const { analysis, ids } = found(whole)
  expect(ids.map(([check]) => check)).not.toContain('chip.supply-out-of-range')
  const rest = analysis.findings.find((f) => f.check === 'chip.rests-on-assumptions')!
  expect(rest.because.map((b) => b.text).join(' ')).toMatch(/output strength/)
  expect(rest.because.map((b) => b.text).join(' ')).not.toMatch(/supply range/)
})
test('air warmer than its sheet allows is said, and cleared by its fix', () => {
  const whole = withFacts(file, readLimits(limits).facts)
  const { analysis, library } = found(whole, 75)
  const warm = analysis.findings.find((f) => f.check === 'chip.too-warm')!
  expect(warm.text).toBe('The air reaches 75 °C; Bench 8 is made for at most 70 °C.')
  const after = analyse(applyEdits(analysis.design, warm.fixes[0]!.edits), library)
  expect(after.findings.some((f) => f.check === 'chip.too-warm')).toBe(false)
})
test('shipped chips rest on no assumption', () => {
  for (const part of Object.values(shippedLibrary().parts)) expect(part.assumed).toBeUndefined()
})
