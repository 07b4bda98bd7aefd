// core/src/needs/checks/no-button.ts
import { type Check, say } from '../../src/findings'

export const noButton: Check = {
  id: 'needs.no-button',
  stage: 'needs',
  looksFor: 'a project that nobody can tell anything',
  rule: 'a builder wants to try what was built',
  run: ({ needs }) =>
    needs.signals.some((s) => s.ends.some((e) => e.signal.electrical.kind === 'contact'))
      ? []
      : [
          {
            id: 'needs.no-button',
            severity: 'notes',
            ...say`Nothing can be pressed: the program can only be watched.`,
            because: [say`None of the devices is a contact`],
            fixes: [
              {
                label: 'Add a button',
                edits: [{ kind: 'addDevices', devices: [{ part: 'push-button', name: 'Button', count: 1 }] }],
              },
            ],
          },
        ],
}
