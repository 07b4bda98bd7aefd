import type { Grade, Origin, Said, Severity, Worked } from '../findings'

/** What is wrong with something on the way of the current, before it is said of which. */
export interface Fault<Kind extends string> {
  kind: Kind
  severity: Severity
  grade: Grade
  says: Said
  because: (Said & { worked?: Worked; origin?: Origin })[]
}
