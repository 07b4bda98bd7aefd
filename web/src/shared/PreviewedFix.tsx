// A change that says what it would do before it is done.

import type { Preview } from '@root-board/core/analysis'
import type { Fix } from '@root-board/core/findings'
import { Button } from '@mui/material'
import { useState } from 'react'
import { worker } from '../worker/client'
import { useStage } from './analysis'

/** Pressed once it says what it would change, pressed again it does it. */
export const PreviewedFix = ({ fix, ask = fix.label }: { fix: Fix; ask?: string }) => {
  const { design, edit } = useStage()
  const [preview, setPreview] = useState<Preview>()
  const apply = () => {
    edit(fix.edits, fix.label)
    setPreview(undefined)
  }
  if (!preview)
    return (
      <Button className="fix" onClick={() => void worker.preview(design, fix.edits).then(setPreview)}>
        {ask}
      </Button>
    )
  return (
    <div className="preview" role="group" aria-label={`What “${fix.label}” would change`}>
      <b>{fix.label}</b> would change:
      <ul>
        {preview.cleared.length > 0 && (
          <li className="settled">
            clears {preview.cleared.length === 1 ? 'one finding' : `${preview.cleared.length} findings`}
          </li>
        )}
        {preview.appearing.map((f) => (
          <li key={f.id} className={f.severity}>
            brings up: {f.text}
          </li>
        ))}
        {preview.lines.slice(0, 8).map((line) => (
          <li key={line}>{line}</li>
        ))}
        {preview.lines.length > 8 && <li>and {preview.lines.length - 8} more</li>}
        {preview.lines.length + preview.cleared.length + preview.appearing.length === 0 && (
          <li>nothing that is computed here</li>
        )}
      </ul>
      <Button variant="contained" color="primary" onClick={apply} autoFocus className="do-it">
        Do it
      </Button>{' '}
      <Button onClick={() => setPreview(undefined)}>Not now</Button>
    </div>
  )
}
