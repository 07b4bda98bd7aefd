// A line of a list from which one is chosen: signals, legs.

import { styled } from '@mui/material'
import { Flat } from '../../kit/Flat'

export const ListLine = styled(Flat)({
  display: 'flex',
  width: '100%',
  justifyContent: 'space-between',
  gap: 8,
  padding: '3px 6px',
  borderBottom: '1px solid var(--line)',
  fontSize: 13.5,
  '&.chosen': { background: 'var(--shade)', boxShadow: 'inset 3px 0 0 var(--slate)' },
})
