// The thread that computes: its end in time and memory, its queue, and that it goes on after each.

import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { analyse } from '@root-board/core/analysis'
import { type Design, emptyDesign, libraryFor, readDesign } from '@root-board/core/design'
import { FaultyFile, makeLibrary } from '@root-board/core/parts'
import { freshFolder, root, thread } from '../../test/serve'
import { readLibraryFolder } from '../files'
import { Analyser, AnalyserBusy, AnalysisStopped } from './analyser'

const library = makeLibrary(readLibraryFolder(root))
const demo = readDesign(JSON.parse(readFileSync(join(root, 'demo', 'darkroom-timer.json'), 'utf8')), 'demo')
/** A program of a thread that does what the name of the project says. */
const acting = join(freshFolder(), 'acting.cjs')
writeFileSync(
  acting,
  `const { parentPort } = require('node:worker_threads')
   let knows = false
   parentPort.on('message', (told) => {
     if (told.library) return (knows = Object.keys(told.library.parts).length > 100)
     const { name } = told.design
     if (name === 'for ever') for (;;);
     if (name === 'all memory') { const all = []; for (;;) all.push(new Array(1e5).fill(Math.random())) }
     if (name === 'fails') return parentPort.postMessage({ failed: 'out of ideas' })
     parentPort.postMessage({ json: new TextEncoder().encode(JSON.stringify(knows ? name : 'without its library')) })
   })`,
)
const all: Analyser[] = []
const make = (...given: ConstructorParameters<typeof Analyser>) => {
  all.push(new Analyser(...given))
  return all.at(-1)!
}
afterEach(async () => {
  for (const analyser of all.splice(0)) await analyser.close()
})
const read = (json: Uint8Array): unknown => JSON.parse(Buffer.from(json).toString())
const named = (name: string): Design => emptyDesign(name)

test('what it answers is the analysis of the core, also after the library has changed', async () => {
  const analyser = make(thread)
  const plain = (of: unknown) => JSON.parse(JSON.stringify(of)) as unknown
  expect(read(await analyser.ask(demo, library))).toEqual(plain(analyse(demo, libraryFor(demo, library))))
  const none = makeLibrary([])
  const bare: Design = { ...demo, parts: undefined }
  expect(read(await analyser.ask(bare, none))).toEqual(plain(analyse(bare, none)))
}, 60_000)

test('a project with faults is refused with their places, and the next is answered', async () => {
  const analyser = make(thread)
  const many = { ...demo, pins: { ...demo.pins, excluded: Array<string>(60).fill('P A') } }
  const refused = await analyser.ask(many, library).catch((error: unknown) => error)
  expect(refused).toBeInstanceOf(FaultyFile)
  const { faults } = refused as FaultyFile
  expect([faults.length, faults[0]!.path, faults[20]!.message]).toEqual([
    21,
    'pins.excluded[0]',
    'has 40 more faults, told when these are mended',
  ])
  expect(read(await analyser.ask(demo, library))).toHaveProperty('findings')
}, 60_000)

test('what takes too long is ended, and the next is answered', async () => {
  const analyser = make(acting, { time: 0.3 })
  const stuck = analyser.ask(named('for ever'), library)
  const next = analyser.ask(named('next'), library)
  await expect(stuck).rejects.toThrow(
    new AnalysisStopped('The analysis was stopped after 0.3 s: this project asks for more'),
  )
  expect(read(await next)).toBe('next')
})

test('what takes too much memory is ended with words, and the next is answered', async () => {
  const analyser = make(acting, { memory: 60 })
  await expect(analyser.ask(named('all memory'), library)).rejects.toThrow(
    /asked for more than 60 MB of memory/,
  )
  expect(read(await analyser.ask(named('next'), library))).toBe('next')
}, 60_000)

test('a failure is that of its question alone', async () => {
  const analyser = make(acting)
  await expect(analyser.ask(named('fails'), library)).rejects.toThrow('out of ideas')
  expect(read(await analyser.ask(named('next'), library))).toBe('next')
})

test('so many wait and no more; each gets its own answer, in turn', async () => {
  const analyser = make(acting, { queue: 3, time: 0.5 })
  const stuck = analyser.ask(named('for ever'), library)
  const waiting = ['a', 'b', 'c'].map((n) => analyser.ask(named(n), library))
  await expect(analyser.ask(named('d'), library)).rejects.toThrow(AnalyserBusy)
  await expect(stuck).rejects.toThrow(AnalysisStopped)
  expect((await Promise.all(waiting)).map(read)).toEqual(['a', 'b', 'c'])
})

test('at the end nobody is left waiting', async () => {
  const analyser = make(acting)
  const asked = [named('for ever'), named('a')].map((d) => analyser.ask(d, library))
  const ended = Promise.allSettled(asked)
  await analyser.close()
  expect((await ended).map((e) => e.status)).toEqual(['rejected', 'rejected'])
})
