// What the page asks of the worker that reads pasted text and files.

import type { Answers, TableOptions, Understood, UnderstoodLimits } from '@root-board/core/intake'

export interface IntakeWorker {
  table: (text: string, options: TableOptions) => Understood
  limits: (text: string, answers: Answers) => UnderstoodLimits
}
