// A change that says what it would do before it is done.

import type { Preview } from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import type { Fix } from '@root-board/core/findings'
import { Button, styled } from '@mui/material'
import { useEffect, useState } from 'react'
import { questions } from '../worker/client'
import { useStage } from './analysis'
import { QuestionFailed } from './use-asked'
import { Waiting } from './Waiting'

const previewOf = (
  design: Design,
  edits: Fix['edits'],
  done: (preview: Preview) => void,
  failed: (why: string) => void,
): Promise<void> =>
  questions.preview(design, edits).then(done, (error: unknown) => failed((error as Error).message))

/** Pressed once it says what it would change, pressed again it does it. */
interface Props {
  fix: Fix
  /** What the first button says, where that is not the change itself. */
  ask?: string
  /** What it would change, where that is known already. */
  known?: Preview
  /** `known` is of the project as it was; the answer for what it is now is on its way. */
  stale?: boolean
  /** Asked already: shows the preview at once, and says when the builder wants it gone. */
  asked?: { close: () => void }
}

export const PreviewedFix = ({ fix, ask = fix.label, known, stale, asked }: Props) => {
  const { design, edit } = useStage()
  const [opened, setOpened] = useState<Preview>()
  const [failed, setFailed] = useState<string>()
  const apply = () => {
    edit(fix.edits, fix.label)
    close()
  }
  const close = () => {
    setOpened(undefined)
    asked?.close()
  }
  // One that is open follows what is known.
  const preview = opened && (known ?? opened)
  const waiting = asked !== undefined && preview === undefined
  const wanted = JSON.stringify(fix.edits)
  useEffect(() => {
    if (waiting) void previewOf(design, JSON.parse(wanted) as Fix['edits'], setOpened, setFailed)
  }, [waiting, design, wanted])
  if (failed) return <QuestionFailed why={failed} />
  if (waiting) return <Waiting words="Working it out …" />
  if (!preview)
    return (
      <Button
        className="fix"
        disabled={stale}
        onClick={() => (known ? setOpened(known) : void previewOf(design, fix.edits, setOpened, setFailed))}
      >
        {ask}
      </Button>
    )
  const lines = preview.undecided ? [] : preview.lines
  return (
    <Previewed className="preview" role="group" aria-label={`What “${fix.label}” would change`}>
      <b>{fix.label}</b> would change:
      <ul>
        {preview.undecided && (
          <li className="risks">
            not known: it was not worked out to the end, since the pins after it were not planned in the time
            given
          </li>
        )}
        {!preview.undecided && preview.cleared.length > 0 && (
          <li className="settled">
            clears{' '}
            {preview.cleared.length === 1
              ? asked
                ? 'one finding'
                : 'this finding'
              : `${preview.cleared.length} findings`}
          </li>
        )}
        {preview.appearing.map((f) => (
          <li key={f.id} className={f.severity}>
            brings up: {f.text}
          </li>
        ))}
        {lines.slice(0, 8).map((line) => (
          <li key={line}>{line}</li>
        ))}
        {lines.length > 8 && <li>and {lines.length - 8} more</li>}
        {!preview.undecided && lines.length + preview.cleared.length + preview.appearing.length === 0 && (
          <li>nothing that is computed here</li>
        )}
      </ul>
      <Button variant="contained" color="primary" onClick={apply} autoFocus className="do-it">
        Do it
      </Button>{' '}
      <Button onClick={close}>Not now</Button>
    </Previewed>
  )
}

const Previewed = styled('div')({
  border: '1px solid var(--line)',
  padding: '8px 10px',
  width: '100%',
  fontSize: 13,
  '& ul': { listStyle: 'square', paddingLeft: 18, margin: '4px 0 8px' },
})
