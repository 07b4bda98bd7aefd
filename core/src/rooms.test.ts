// The drawings in docs/architecture.md are true: which room imports which, and which stage stands on which.

import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { stagesInTurn } from './analysis/stages'

const text = readFileSync(join(__dirname, '..', '..', 'docs', 'architecture.md'), 'utf8')
/** The indented block behind a line that ends so. */
const drawing = (after: RegExp): string[] => {
  const lines = text.slice(text.search(after)).split('\n')
  const from = lines.findIndex((l) => l.startsWith('    '))
  const to = lines.findIndex((l, i) => i > from && !l.startsWith('    '))
  return lines.slice(from, to).map((l) => l.slice(4))
}

const files = (dir: string): string[] =>
  readdirSync(dir)
    .map((name) => join(dir, name))
    .flatMap((f) => (statSync(f).isDirectory() ? files(f) : [f]))

/** room → rooms that it imports, types too; tests may import anything. */
const imports = new Map<string, Set<string>>()
for (const file of files(__dirname)) {
  const path = file.slice(__dirname.length + 1).split('/')
  if (path.length < 2 || !file.endsWith('.ts') || file.endsWith('.test.ts') || path.includes('test')) continue
  const room = path[0]!
  const of = imports.get(room) ?? imports.set(room, new Set()).get(room)!
  for (const [, from] of readFileSync(file, 'utf8').matchAll(
    /(?:from|import) '((?:\.\.\/)+[a-z]+)(?:\/[^']*)?'/g,
  )) {
    const up = from!.split('/').filter((s) => s === '..').length
    if (up === path.length - 1) of.add(from!.split('/').at(-1)!)
  }
}

test('each room is drawn once, and imports only what is drawn above it', () => {
  const rows = drawing(/each room imports only rooms above it/).map((l) => l.trim().split(' '))
  expect(rows.flat().sort()).toEqual([...imports.keys()].sort())
  const row = new Map(rows.flatMap((rooms, n) => rooms.map((room) => [room, n] as const)))
  const upwards = [...imports].flatMap(([room, of]) =>
    [...of].filter((other) => row.get(other)! >= row.get(room)!).map((other) => `${room} imports ${other}`),
  )
  expect(upwards).toEqual([])
  // A room is no lower than it need be: one step below the lowest that it imports.
  for (const [room, of] of imports)
    expect([room, row.get(room)]).toEqual([room, Math.max(-1, ...[...of].map((o) => row.get(o)!)) + 1])
})

test('each stage is drawn with all that it stands on', () => {
  const drawn = drawing(/their order follows from what each stands on/).map((line) => {
    const [name, after] = line.split(/\s{2,}(?=[^◄])|\s+◄ /)
    const stands = line.includes('◄')
      ? line
          .split('◄ ')[1]!
          .split(/\s{2,}/)[0]!
          .split(' ')
      : []
    return [name!.trim(), after === undefined ? [] : stands.sort()] as const
  })
  const real = stagesInTurn.map(({ name, after }) => [name, [...after].sort()] as const)
  expect(Object.fromEntries(drawn)).toEqual(Object.fromEntries(real))
})
