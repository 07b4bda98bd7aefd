// The keys for the whole path, and the page that lists them.

import { Dialog } from '@mui/material'
import { useHotkeys } from 'react-hotkeys-hook'
import { useNavigate } from 'react-router'
import { commandKeys, isTyping } from '../shared/keys'
import { useProject } from '../store/project'
import { useOrderedFindings } from './Evidence'
import { useFrame } from './frame-state'
import { useEvidence } from './use-evidence'
import { stages } from './stages'
import { Body, Cell, Row, Table } from '../kit/Table'

const list: [string, string][] = [
  [`1 … ${stages.length}`, 'go to a stage'],
  ['/', 'find a leg, part, net, need, finding, stage or edit'],
  ['n  p', 'next, previous finding'],
  ['a', 'show what the first fix of the open finding would change; again to do it'],
  ['l', 'on Pins: lock or unlock the chosen signal where it is'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['e', 'open or close the evidence'],
  ['t', 'jump to the table of this stage'],
  ['← →', 'in the head of a table: from column to column'],
  ['Esc', 'close what is open; leave a field, so that these keys count again'],
  ['?', 'this list'],
]

export const Keys = () => {
  const navigate = useNavigate()
  const frame = useFrame()
  const { undo, redo } = useProject()
  const { here, others } = useOrderedFindings()
  const findings = [...here, ...others]
  const evidence = useEvidence(findings)
  const stepTo = (by: number) => {
    if (findings.length === 0) return
    const at = findings.findIndex((f) => f.id === frame.finding)
    const next = at < 0 ? (by > 0 ? 0 : findings.length - 1) : (at + by + findings.length) % findings.length
    frame.set({ evidence: true, finding: findings[next]!.id, fixOf: undefined })
  }
  useHotkeys(
    stages.map((_, i) => String(i + 1)),
    (e) => void navigate(stages[Number(e.key) - 1]!.name),
    commandKeys,
  )
  useHotkeys('/', () => frame.set({ search: true }), { ...commandKeys, preventDefault: true })
  useHotkeys('shift+?', () => frame.set({ help: true }), commandKeys)
  useHotkeys('?', () => frame.set({ help: true }), commandKeys)
  useHotkeys('n', () => stepTo(1), commandKeys, [findings, frame])
  useHotkeys('p', () => stepTo(-1), commandKeys, [findings, frame])
  useHotkeys('e', () => frame.set({ evidence: !evidence }), commandKeys, [evidence])
  useHotkeys('t', () => document.getElementById('table')?.focus(), commandKeys)
  // Whatever the field had open has taken the key for itself.
  useHotkeys('esc', () => (document.activeElement as HTMLElement | null)?.blur(), {
    enableOnFormTags: true,
    ignoreEventWhen: (e) => e.defaultPrevented || !isTyping(e),
  })
  useHotkeys('mod+z', undo, { ...commandKeys, useKey: false, preventDefault: true })
  useHotkeys(['mod+shift+z', 'mod+y'], redo, { ...commandKeys, useKey: false, preventDefault: true })
  useHotkeys(
    'a',
    () => {
      const doIt = document.querySelector<HTMLButtonElement>('.evidence .do-it')
      const first = doIt ?? document.querySelector<HTMLButtonElement>('.evidence .finding.open .fix')
      if (first) first.click()
      // Not tried yet: shown once it is.
      else frame.set({ fixOf: frame.finding })
    },
    commandKeys,
    [frame],
  )
  return (
    <Dialog open={frame.help} onClose={() => frame.set({ help: false })} aria-labelledby="keys-title">
      <div style={{ padding: 20 }}>
        <h2 id="keys-title">Keys</h2>
        <Table>
          <Body>
            {list.map(([key, what]) => (
              <Row key={key}>
                <Cell>
                  <kbd>{key}</kbd>
                </Cell>
                <Cell>{what}</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </div>
    </Dialog>
  )
}
