// What the page asks of the worker that reads pasted text and files.

import type {
  Answers,
  Exchange,
  LimitsOf,
  TableOptions,
  Understood,
  UnderstoodLimits,
} from '@root-board/core/intake'

export interface IntakeWorker {
  table: (text: string, options: TableOptions) => Understood
  limits: (text: string, answers: Answers, of: LimitsOf) => UnderstoodLimits
  /** Faults come as a list, since an error loses its fields on the way between threads. */
  exchange: (
    text: string,
    file: string,
  ) => { exchange?: Exchange; faults: { path: string; message: string }[] }
}
