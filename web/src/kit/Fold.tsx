// What is opened when it is wanted: a heading that folds. What is folded away is not there.

import { Accordion, AccordionDetails, AccordionSummary, styled } from '@mui/material'
import type { ReactNode } from 'react'

const Plain = styled(Accordion)({
  font: 'inherit',
  background: 'none',
  border: 0,
  '&::before': { display: 'none' },
  '& .MuiAccordionSummary-root': {
    font: 'inherit',
    minHeight: 0,
    padding: '2px 0',
    flexDirection: 'row-reverse',
    gap: 6,
  },
  '& .MuiAccordionSummary-content': { margin: 0 },
  '& .MuiAccordionSummary-expandIconWrapper': { color: 'var(--faint)' },
  '& .MuiAccordionSummary-expandIconWrapper.Mui-expanded': { transform: 'rotate(90deg)' },
  '& .MuiAccordionDetails-root': { padding: '2px 0 6px 16px' },
})

interface Props {
  title: ReactNode
  open: boolean
  onOpen: (open: boolean) => void
  children: ReactNode
}

export const Fold = ({ title, open, onOpen, children }: Props) => (
  <Plain
    elevation={0}
    disableGutters
    square
    expanded={open}
    onChange={(_, expanded) => onOpen(expanded)}
    // Not each fold is a landmark of the page.
    slotProps={{
      region: { role: undefined },
      transition: { unmountOnExit: true, timeout: 0 },
      heading: { component: 'div' },
    }}
  >
    <AccordionSummary
      expandIcon={
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden="true">
          <path d="M2 1l6 4-6 4z" fill="currentColor" />
        </svg>
      }
    >
      <span>{title}</span>
    </AccordionSummary>
    <AccordionDetails>{children}</AccordionDetails>
  </Plain>
)
