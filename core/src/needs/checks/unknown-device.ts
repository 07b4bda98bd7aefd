import { type Check, say } from '../../findings'

export const unknownDevice: Check = {
  id: 'needs.unknown-device',
  stage: 'needs',
  looksFor: 'a device of the project that is not in the library',
  rule: 'nothing can be computed for a part without facts',
  run: ({ needs }) =>
    needs.unknown.map((device) => ({
      id: `needs.unknown-device:${device.id}`,
      severity: 'stops',
      ...say`${device.name} is made of part “${device.part}”, which is not in the library: nothing about it is computed.`,
      because: [say`The project asks for part ${device.part}`, say`No part file has that id`],
      fixes: [{ label: `Remove ${device.name}`, edits: [{ kind: 'removeDevice', id: device.id }] }],
      about: { device: device.id },
    })),
}
