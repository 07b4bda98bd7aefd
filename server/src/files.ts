// Reading the part files and sample projects that come with the program. A faulty file names itself and the path.

import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { type Design, readDesign } from '@root-board/core/design'
import { FaultyFile, type Part, readPart } from '@root-board/core/parts'

const jsonFiles = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.json'))
    .sort()
    .map((f) => join(folder, f))

const parse = (file: string): unknown => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch (error) {
    throw new FaultyFile(file, [{ path: '', message: `is not JSON: ${(error as Error).message}` }])
  }
}

export const readLibraryFolder = (root: string): Part[] => {
  const seen = new Map<string, string>()
  return jsonFiles(join(root, 'library')).map((file) => {
    const name = relative(root, file)
    const part = readPart(parse(file), name)
    const other = seen.get(part.id)
    if (other)
      throw new FaultyFile(name, [{ path: 'id', message: `“${part.id}” is the id of ${other} as well` }])
    seen.set(part.id, name)
    return part
  })
}

export const readDemoFolder = (root: string): Design[] =>
  jsonFiles(join(root, 'demo')).map((file) => readDesign(parse(file), relative(root, file)))

export const readDesignFile = (file: string): Design => readDesign(parse(file), file)
