import { feederName } from '../../design'
import { type Check, type Fix, say } from '../../findings'
import { capital, namesInWords } from '../../quantity'

/** What hangs on a second feed that isn't there. */
export const unfed: Check = {
  id: 'power.unfed',
  stage: 'power',
  looksFor: 'a device or a further rail on a second feed, where none is chosen',
  rule: 'what a project says that it is fed by',
  run: ({ design: { needs, power } }) => {
    if (power.feed !== undefined) return []
    const devices = needs.devices.filter((d) => d.fedBy === 'feed')
    const rails = (power.rails ?? []).filter((r) => r.from === 'feed')
    const hang = [...devices.map((d) => d.name), ...rails.map((r) => `the ${feederName(r.id)}`)]
    if (hang.length === 0) return []
    return [
      {
        id: 'power.unfed',
        severity: 'stops',
        grade: 'impossible',
        ...say`${capital(namesInWords(hang))} ${hang.length === 1 ? 'hangs' : 'hang'} on a second feed, and none is chosen: nothing feeds ${hang.length === 1 ? 'it' : 'them'}.`,
        because: [say`“Second feed” on the Power page says none`],
        fixes: [
          ...devices.map((d): Fix => ({
            label: `Feed ${d.name} from the rail`,
            edits: [{ kind: 'setFedBy', id: d.id, by: 'rail' }],
          })),
          ...rails.map((r): Fix => ({
            label: `Hang the ${feederName(r.id)} on the source`,
            edits: [{ kind: 'changeRail', id: r.id, change: { from: 'source' }, what: 'from the source' }],
          })),
        ],
      },
    ]
  },
}
