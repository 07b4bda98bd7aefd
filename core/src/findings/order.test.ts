import { type Finding, inOrder, say } from '.'

const finding = (id: string, severity: Finding['severity'], stage: Finding['stage']): Finding => ({
  id,
  check: id,
  severity,
  stage,
  ...say`${id}`,
  because: [],
  fixes: [],
})

test('the worst first, then in working order, then by name', () => {
  const stages = ['needs', 'chip', 'pins', 'power', 'build'] as const
  const mixed = [
    finding('note-build', 'notes', 'build'),
    finding('stop-power-b', 'stops', 'power'),
    finding('risk-needs', 'risks', 'needs'),
    finding('stop-power-a', 'stops', 'power'),
    finding('stop-pins', 'stops', 'pins'),
  ]
  expect(inOrder(mixed, stages).map((f) => f.id)).toEqual([
    'stop-pins',
    'stop-power-a',
    'stop-power-b',
    'risk-needs',
    'note-build',
  ])
  expect(mixed[0]!.id).toBe('note-build')
})
