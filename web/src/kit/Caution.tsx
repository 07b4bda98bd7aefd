// What can hurt someone, next to the step: short, hatched, in the same words everywhere.

import { type Caution as CautionName, cautionWords } from '@root-board/core/blocks'
import { styled } from '@mui/material'

const Hatched = styled('p')({
  borderLeft: '3px solid var(--clay)',
  background:
    'repeating-linear-gradient(-45deg, transparent 0 7px, color-mix(in srgb, var(--clay) 9%, transparent) 7px 8px)',
  padding: '5px 10px',
  margin: '6px 0',
  '& b': { color: 'var(--clay)' },
})

export const Caution = ({ name }: { name: CautionName }) => (
  <Hatched className="caution">
    <b>Caution.</b> {cautionWords[name]}
  </Hatched>
)
