import { emptyDesign } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { useProject } from './project'

const open = () => useProject.getState().open('p1', emptyDesign('Test'), 1, { kind: 'saved' })
const state = () => useProject.getState()
beforeEach(open)

test('edits are undone and redone in order, by name', () => {
  state().edit({ kind: 'renameProject', name: 'One' })
  state().edit({ kind: 'setStance', stance: 'lean' })
  expect(state().done.map((s) => s.label)).toEqual(['Call the project “One”', 'Build lean'])
  state().undo()
  expect([state().design?.stance, state().design?.name]).toEqual(['by-the-book', 'One'])
  state().undo()
  expect(state().design).toEqual(emptyDesign('Test'))
  state().redo()
  expect(state().design?.name).toBe('One')
  state().edit({ kind: 'renameProject', name: 'Two' })
  expect(state().undone).toEqual([])
})

test('an edit that changes nothing is no step; several edits are one', () => {
  state().edit({ kind: 'renameProject', name: 'Test' })
  expect(state().done).toEqual([])
  state().edit(
    [
      { kind: 'setStance', stance: 'lean' },
      { kind: 'setLimit', limit: 'ambient', value: 45 },
    ],
    'A fix',
  )
  expect(state().done.map((s) => s.label)).toEqual(['A fix'])
  state().undo()
  expect(state().design).toEqual(emptyDesign('Test'))
})

test('every change waits to be saved, but a conflict stays until it is resolved', () => {
  state().edit({ kind: 'setStance', stance: 'lean' })
  expect(state().save).toEqual({ kind: 'waiting' })
  const conflict = {
    kind: 'conflict',
    stored: { id: 'p1', design: emptyDesign('Theirs'), version: 2, sample: false, changedAt: '' },
  } as const
  state().setSave(conflict)
  state().undo()
  expect(state().save).toEqual(conflict)
})

test('a part that is chosen takes its facts from the library of now into the project', () => {
  const lamp = { kind: 'device', id: 'lamp', name: 'Lamp', wirings: [], terminals: [], modes: [] }
  state().setLibrary({ parts: { lamp } } as unknown as Library)
  state().edit({ kind: 'addDevices', devices: [{ part: 'lamp', name: 'Lamp', count: 1 }] })
  expect(Object.keys(state().design?.parts ?? {})).toEqual(['lamp'])
})
