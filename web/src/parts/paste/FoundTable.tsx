// What was read out of a sheet, line by line, the one that is looked at marked.

import { styled } from '@mui/material'
import { Table } from '../../kit/Table'

export const FoundTable = styled(Table)({
  '& tr.chosen td': { background: 'var(--shade)' },
  '& tr.chosen td:first-of-type': { boxShadow: 'inset 3px 0 0 var(--ink)' },
  '& td:first-of-type': { paddingLeft: 8, paddingRight: 10, whiteSpace: 'nowrap' },
  '& .functions span': { marginRight: 8, display: 'inline-block' },
  '& .functions span span': { margin: 0, display: 'inline' },
  '& .open': { color: 'var(--ochre)' },
  '& .correct': { textDecoration: 'underline', color: 'var(--faint)' },
  '& .note': { color: 'var(--faint)', fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif" },
})
