// One fault in a file a person wrote: where it is and what is wrong, in words.

import { type AnySchema, type ISchema, ValidationError } from 'yup'

export interface Fault {
  /** `pins[3].functions[0].unit`; empty for the file as a whole. */
  path: string
  message: string
}

export class FaultyFile extends Error {
  override name = 'FaultyFile'
  constructor(
    readonly file: string,
    readonly faults: Fault[],
  ) {
    super(`${file}: ${faults.map((f) => `${f.path || 'file'}: ${f.message}`).join('; ')}`)
  }
}

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
        message: path && message.startsWith(`${path} `) ? message.slice(path.length + 1) : message,
      })),
    )
  }
}
