import type { Grade } from '@root-board/core/findings'

const marks: Record<Grade, string> = {
  guaranteed: 'settled',
  typical: 'risks',
  'outside the sheet': 'risks',
  impossible: 'stops',
}

/** How sure a verdict is, in its word and colour. `stops`: whatever the grade, it does damage. */
export const GradeWord = ({ grade, stops = false }: { grade: Grade; stops?: boolean }) => (
  <span className={stops ? 'stops' : marks[grade]}>{grade}</span>
)
