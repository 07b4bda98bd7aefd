import type { Stock } from '../circuit'
import type { Design } from '../design'
import type { Worked } from '../findings'
import type { Chip, Library } from '../parts'
import type { OpenSupply } from '../supply'

/** What a line is on. */
export interface LineContext {
  chip: Chip
  rail: Worked
  supplies: OpenSupply
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
}

/** And what there is to fit into it. */
export interface FittingContext extends LineContext {
  design: Design
  library: Library
  stock: Stock
}
