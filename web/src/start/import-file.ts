// A file that a builder hands over: a project, a part, or everything, told apart by what is in it. Checked here with the same schemas
// as on the server, so that faults are named at once.

import { readDesign } from '@root-board/core/design'
import { FaultyFile, readPart } from '@root-board/core/parts'
import { api, Problem } from '../api/client'
import { broughtWords } from '../shared/brought'

export interface ImportFault {
  file: string
  faults: { path: string; message: string }[]
}
export type Imported = { words: string; project?: string } | { fault: ImportFault }

/** Of one project or part, and of everything. */
const largest = 4 * 2 ** 20
const largestOfAll = 64 * 2 ** 20

export const importFile = async (file: File): Promise<Imported> => {
  const refuse = (message: string): Imported => ({
    fault: { file: file.name, faults: [{ path: '', message }] },
  })
  if (file.size > largestOfAll) return refuse('is larger than 64 MB: no file of ours is')
  let data: unknown
  try {
    data = JSON.parse(await file.text())
  } catch (error) {
    return refuse(`is not JSON: ${(error as Error).message}`)
  }
  const isEverything =
    typeof data === 'object' && data !== null && 'kind' in data && data.kind === 'everything'
  if (!isEverything && file.size > largest) return refuse('is larger than 4 MB: no project or part file is')
  try {
    if (isEverything) return { words: broughtWords(await api.bringEverything(data)) }
    const isPart = typeof data === 'object' && data !== null && 'kind' in data
    if (isPart) {
      const part = readPart(data, file.name)
      await api.addPart(data)
      return { words: `${part.name} is in the library.` }
    }
    const design = readDesign(data, file.name)
    const made = await api.create(design)
    return { words: `“${design.name}” is here.`, project: made.id }
  } catch (error) {
    if (error instanceof FaultyFile) return { fault: { file: file.name, faults: error.faults } }
    if (error instanceof Problem)
      return {
        fault: {
          file: file.name,
          faults: error.faults.length > 0 ? error.faults : [{ path: '', message: error.message }],
        },
      }
    return refuse('the server does not answer; try again when it is back')
  }
}
