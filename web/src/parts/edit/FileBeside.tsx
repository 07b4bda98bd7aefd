// The file behind the fields, for those who want it: as it would be saved now.

import { type PartKind, sheetSections } from '@root-board/core/parts'
import { Button, styled } from '@mui/material'
import { useState } from 'react'
import { Line, Spacer } from '../../kit/layout'
import type { Json } from './data'

/** As its sections tell it, whatever order it was read in. */
const inOrder = (kind: PartKind, data: Json): Json => {
  const names = ['format', 'kind', ...sheetSections(kind).flatMap((s) => s.fields), ...Object.keys(data)]
  return Object.fromEntries(names.flatMap((name) => (name in data ? [[name, data[name]]] : [])))
}

export const FileBeside = ({ kind, data, close }: { kind: PartKind; data: Json; close: () => void }) => {
  const text = JSON.stringify(inOrder(kind, data), null, 2)
  const [copied, setCopied] = useState('')
  return (
    <Side aria-label="Its file">
      <Line>
        <h2>Its file</h2>
        <Spacer />
        <Button onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(text))}>
          {copied === text ? 'Copied' : 'Copy'}
        </Button>
        <Button onClick={close}>Close</Button>
      </Line>
      {/* Read by key as well. */}
      <pre tabIndex={0}>{text}</pre>
    </Side>
  )
}

const Side = styled('aside')({
  position: 'fixed',
  right: 0,
  top: 46,
  bottom: 46,
  width: 'min(430px, 92vw)',
  zIndex: 5,
  display: 'flex',
  flexDirection: 'column',
  padding: '10px 14px',
  background: 'var(--sheet)',
  borderLeft: '1.5px solid var(--ink)',
  '& pre': { flex: 1, overflow: 'auto', margin: '8px 0 0', font: '400 12px/1.45 var(--mono)' },
})
