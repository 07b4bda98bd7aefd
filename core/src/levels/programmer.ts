import { fromPart, type Worked } from '../findings'
import type { Chip } from '../parts'
import { asStated } from '../sums'

/** What a programmer may feed onto the rail: nobody says more of it than the chip’s sheet; where that is silent, the rail’s own. */
export const programmerGives = (chip: Chip, rail: Worked): Worked => {
  const { name = '', voltage } = chip.programming[0] ?? {}
  return voltage
    ? asStated(
        'What a programmer may feed',
        'V_prog',
        'V',
        fromPart('V_prog', name, chip, 'programming[0].voltage', voltage, 'V'),
        'What the chip’s sheet allows while it is programmed: which programmer it is nobody has said.',
      )
    : rail
}
