// Stages in turn: each behind what it stands on, and with no sight of anything else.

import { type AnyStage, type Given, inTurn, runStages } from '.'

const given = { design: 'the design' } as unknown as Given
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
  expect(runStages(list, given, ['pins' as never])).toEqual({ needs: 3, power: 7 })
  expect(seen).toEqual({ needs: ['design'], pins: ['design', 'needs'], power: ['design', 'pins'] })
})
