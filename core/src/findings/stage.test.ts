// Stages in turn: each behind what it stands on, and with no sight of anything else.

import { emptyDesign, type Design } from '../design'
import { type AnyStage, type Given, inTurn, runStages } from '.'

const given = { design: emptyDesign('Test'), library: { parts: {} } } as unknown as Given
const stage = (name: string, after: string[], run: (seen: Record<string, unknown>) => unknown): AnyStage =>
  ({ name, after, run, checks: [] }) as unknown as AnyStage

test('the order follows from what each stands on; where that leaves a choice, the list’s own', () => {
  const list = [
    stage('build', ['power', 'pins'], () => 0),
    stage('power', ['pins'], () => 0),
    stage('needs', [], () => 0),
    stage('pins', ['needs'], () => 0),
    stage('clock', [], () => 0),
  ]
  expect(inTurn(list).map((s) => s.name)).toEqual(['needs', 'pins', 'power', 'build', 'clock'])
})

test('stages that wait for one another, or for one that is not there, are named with what they wait for', () => {
  expect(() => inTurn([stage('pins', ['clock'], () => 0), stage('clock', ['pins'], () => 0)])).toThrow(
    'pins after clock; clock after pins',
  )
  expect(() => inTurn([stage('pins', [], () => 0), stage('clock', ['pins', 'nothing'], () => 0)])).toThrow(
    'clock after nothing',
  )
})

test('each is run once, sees what is given and what it stands on, and nothing else', () => {
  const seen: Record<string, string[]> = {}
  const list = inTurn([
    stage('needs', [], (s) => ((seen.needs = Object.keys(s)), 3)),
    stage('pins', ['needs'], (s) => ((seen.pins = Object.keys(s)), (s.needs as number) * 2)),
    stage('power', ['pins'], (s) => ((seen.power = Object.keys(s)), (s.pins as number) + 1)),
  ])
  expect(runStages(list, given, ['pins' as never]).results).toEqual({ needs: 3, power: 7 })
  expect(seen).toEqual({
    needs: ['design', 'library'],
    pins: ['design', 'library', 'needs'],
    power: ['design', 'library', 'pins'],
  })
})

describe('what was made before', () => {
  let runs: string[] = []
  const list = inTurn([
    stage('needs', [], (s) => (runs.push('needs'), [(s.design as Design).needs])),
    stage('pins', ['needs'], (s) => (runs.push('pins'), [(s.design as Design).pins, s.needs])),
    stage('limits', [], (s) => (runs.push('limits'), (s.design as Design).needs.limits)),
    stage('radio', [], (s) => (runs.push('radio'), 'radio' in (s.design as Design).needs)),
    stage('devices', [], (s) => (runs.push('devices'), [(s.design as Design).needs.devices.length])),
    // Takes a copy of one field.
    stage('spread', [], (s) => (runs.push('spread'), { ...(s.design as Design).pins })),
    // Looks for what is not there.
    stage('notes', [], (s) => (runs.push('notes'), [(s.design as Design).notes])),
    // Takes a copy of all.
    stage('copy', [], (s) => (runs.push('copy'), { ...(s.design as Design) })),
    { ...stage('hasty', [], () => (runs.push('hasty'), 0)), lasts: () => false },
  ])
  const first = runStages(list, given, [])
  const again = (change: Partial<Design>, library = given.library) => {
    runs = []
    const { results } = runStages(
      list,
      { ...given, library, design: { ...given.design, ...change } },
      [],
      first.remembered,
    )
    expect(results).toEqual(runStages(list, { ...given, design: { ...given.design, ...change } }, []).results)
    return runs.slice(0, runs.length - list.length).sort()
  }
  test.each<[string, Partial<Design>, string[]]>([
    ['nothing', {}, ['hasty']],
    ['what only a copy sees', { stance: 'lean' }, ['copy', 'hasty']],
    [
      'what the last one reads',
      { pins: { locks: {}, excluded: [], kept: {} } },
      ['copy', 'hasty', 'pins', 'spread'],
    ],
    [
      'what the first one reads',
      { needs: { devices: [], limits: { ambient: 30 } } },
      ['copy', 'devices', 'hasty', 'limits', 'needs', 'pins'],
    ],
    [
      'limits',
      { needs: { ...given.design.needs, limits: { ambient: 50 } } },
      ['copy', 'hasty', 'limits', 'needs', 'pins'],
    ],
    [
      'a field in it that was not there',
      { pins: { ...given.design.pins, resetAsPort: true } },
      ['copy', 'hasty', 'pins', 'spread'],
    ],
    ['what was not there', { notes: 'there now' }, ['copy', 'hasty', 'notes']],
  ])('an edit of %s', (_, change, expected) => expect(again(change)).toEqual(expected))
  test('another library', () =>
    expect(again({}, { parts: {} })).toEqual([
      'copy',
      'devices',
      'hasty',
      'limits',
      'needs',
      'notes',
      'pins',
      'radio',
      'spread',
    ]))
})
