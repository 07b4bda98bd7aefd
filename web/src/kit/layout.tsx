// How things stand beside and under one another, wherever they do.

import { styled } from '@mui/material'

/** Side by side, and on the next line where there is no room. */
export const Line = styled('div')({
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: 8,
})

/** Said to who listens, not shown. */
export const unseen = {
  position: 'absolute',
  width: 1,
  height: 1,
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const

/** Takes the room that is left in a line. */
export const Spacer = styled('span')({ flex: 1 })

/** A field in a line of fields, its name above it. */
export const Captioned = styled('span')({
  display: 'inline-flex',
  flexDirection: 'column',
  gap: 1,
  '& label': { fontSize: 12.5, color: 'var(--faint)' },
  '&.wide': { flex: 1, minWidth: 300 },
})

/** What must be answered or known before one goes on, above what it is about. */
export const Notice = styled('div', {
  shouldForwardProp: (name) => !['about', 'as', 'sx'].includes(String(name)),
})<{
  about?: 'ochre' | 'slate' | 'clay'
}>(({ about = 'ochre' }) => ({
  borderLeft: `3px solid var(--${about})`,
  background: 'var(--sheet)',
  padding: '8px 14px',
  margin: '0 0 10px',
  '& p': { margin: '4px 0' },
}))

/** A page of one column, as the first one. */
export const PlainPage = styled('main')({
  minHeight: '100%',
  maxWidth: 860,
  margin: '0 auto',
  padding: '28px 24px 60px',
})

/** A page of the library: its bar above, what must stay in sight at the foot, and between them a scroll of its own. */
export const LibraryFrame = styled('div')({
  height: '100%',
  display: 'grid',
  gridTemplateRows: 'auto minmax(0, 1fr) auto',
  '@media (max-width: 900px)': { height: 'auto', minHeight: '100%' },
})
export const LibraryPage = styled('main')({
  padding: '12px 20px 20px',
  overflow: 'auto',
  position: 'relative',
  minHeight: 0,
})
export const LibraryFoot = styled('footer')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: 10,
  alignItems: 'center',
  padding: '8px 20px',
  borderTop: '1.5px solid var(--ink)',
})
