// The shipped library and demo, for tests of the core.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type Design, readDesign } from '../src/design'
import { type Library, makeLibrary, readPart } from '../src/parts'

const root = join(__dirname, '..', '..')

export const partFiles = (): { name: string; data: unknown }[] =>
  readdirSync(join(root, 'library'), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.json'))
    .sort()
    .map((name) => ({ name, data: JSON.parse(readFileSync(join(root, 'library', name), 'utf8')) as unknown }))

export const shippedLibrary = (): Library => makeLibrary(partFiles().map((f) => readPart(f.data, f.name)))

export const demoFile = (name: string): unknown =>
  JSON.parse(readFileSync(join(root, 'demo', `${name}.json`), 'utf8')) as unknown

export const demo = (name: string): Design => readDesign(demoFile(name), name)
