import type { Stages } from '../findings'
import type { PinQuestion } from './demand'

/** What an analysed project asks the planner. */
export const questionOf = ({
  chip,
  design,
  needs,
  pins,
  clock,
}: Pick<Stages, 'chip' | 'design' | 'needs' | 'pins' | 'clock'>): PinQuestion | undefined =>
  chip.chip && {
    chip: chip.chip,
    needs: needs.open,
    choices: design.pins,
    taken: pins.taken,
    clock: clock.frequency.value.typ || undefined,
  }
