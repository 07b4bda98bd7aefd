import { styled } from '@mui/material'

/** Fields beside one another, each with its name above. */
export const Fields = styled('div')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: '6px 10px',
  alignItems: 'end',
  '& .quantity-field': { display: 'flex', flexDirection: 'column', alignItems: 'flex-start', gap: 1 },
  '& .quantity-field label': { fontSize: 12.5, color: 'var(--faint)' },
})
