// One fault in a file a person wrote: where it is and what is wrong, in words.

import { type AnySchema, type ISchema, ValidationError } from 'yup'

export interface Fault {
  /** `pins[3].functions[0].unit`; empty for the file as a whole. */
  path: string
  message: string
}

/** So many are told at once: whoever mends them sees the others afterwards. */
const mostFaults = 20
const told = (faults: readonly Fault[]): Fault[] =>
  // One more is told rather than counted.
  faults.length <= mostFaults + 1
    ? [...faults]
    : [
        ...faults.slice(0, mostFaults),
        { path: '', message: `has ${faults.length - mostFaults} more faults, told when these are mended` },
      ]

export class FaultyFile extends Error {
  override name = 'FaultyFile'
  readonly faults: Fault[]
  constructor(
    readonly file: string,
    faults: readonly Fault[],
  ) {
    const some = told(faults)
    super(`${file}: ${some.map((f) => `${f.path || 'file'}: ${f.message}`).join('; ')}`)
    this.faults = some
  }
}

/** What is quoted of a value is enough to know it by. */
const short = (message: string): string => (message.length > 300 ? `${message.slice(0, 300)} …` : message)

/** Validates and casts; throws FaultyFile with every fault found. */
export const readWith = <T>(schema: ISchema<T>, data: unknown, file: string): T => {
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    throw new FaultyFile(file, [{ path: '', message: 'must hold one JSON object' }])
  try {
    return (schema as AnySchema).validateSync(data, { abortEarly: false }) as T
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const all = error.inner.length > 0 ? error.inner : [error]
    throw new FaultyFile(
      file,
      // The place is told once, before the message, and not again in it.
      all.map(({ path = '', message }) => ({
        path,
        message: short(path && message.startsWith(`${path} `) ? message.slice(path.length + 1) : message),
      })),
    )
  }
}
