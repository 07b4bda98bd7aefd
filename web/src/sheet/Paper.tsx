// What is printed: one column, on the screen as on paper; what only print needs is in its style sheet.

import { styled } from '@mui/material'
import './print.css'

export const Paper = styled('main')({
  maxWidth: 820,
  margin: '0 auto',
  padding: 24,
  '& section': { marginTop: 18 },
  '@media screen': { '& section': { overflowX: 'auto' } },
  '& .card svg[role="img"]': { display: 'block', maxWidth: 'none' },
  '& ul': { margin: '4px 0', paddingLeft: 20 },
  '& ol > li': { marginBottom: 12, breakInside: 'avoid' },
  '& .measured': { minWidth: 150, color: 'var(--faint)' },
})
