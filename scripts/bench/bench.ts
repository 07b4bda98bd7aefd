// npm run bench: the figures the project claims. Each compares against a reference in the same run; none is a test.

import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { analyse, candidateOf } from '@root-board/core/analysis'
import { type Design, emptyDesign } from '@root-board/core/design'
import { resolveNeeds } from '@root-board/core/needs'
import { readExchange, readTable } from '@root-board/core/intake'
import { takenPins, makeDemand } from '@root-board/core/pins'
import { makeLibrary } from '@root-board/core/parts'
import loadHighs from 'highs'
import { readAsking, scoreOf, tableCases } from '../../core/src/intake/test/cases'
import { solvePlan } from '../../core/src/pins/solve'
import {
  integerProgramme,
  type IntegerProgrammeSolver,
} from '../../core/src/pins/solve/test/integer-programme'
import { randomLibrary } from '../../core/test/random-library'
import { randomInstance } from '../../core/src/pins/solve/test/instances'
import { readDesignFile, readLibraryFolder } from '../../server/src/files'
import { analysisInBrowser } from './browser'

const root = join(import.meta.dirname, '..', '..')
const at = (sorted: number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!
const sorted = (values: number[]) => [...values].sort((a, b) => a - b)
const timed = <T>(work: () => T): { ms: number; result: T } => {
  const began = performance.now()
  const result = work()
  return { ms: performance.now() - began, result }
}
const ms = (value: number) => `${value.toFixed(3)} ms`

const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
const middle = (values: number[]) => at(sorted(values), 0.5)
const high = (values: number[]) => at(sorted(values), 0.95)
const total = (values: number[]) => values.reduce((sum, x) => sum + x, 0)

/** Random instances of one size, each by both solvers in turn. */
const solversAt = (pins: number, signals: number, count: number) => {
  const ours: number[] = []
  const theirs: number[] = []
  let differing = 0
  for (let seed = 1; seed <= count; seed++) {
    const problem = randomInstance(seed, { pins, signals })
    const text = integerProgramme(problem)
    const a = timed(() => solvePlan(problem))
    const b = timed(() => highs.solve(text))
    const same =
      a.result.status === 'optimal'
        ? b.result.Status === 'Optimal' && Math.round(b.result.ObjectiveValue) === a.result.cost
        : b.result.Status === 'Infeasible'
    if (!same) differing++
    ours.push(a.ms)
    theirs.push(b.ms)
  }
  const ratios = theirs.map((t, i) => t / ours[i]!)
  console.log(
    `  ${pins} pins, ${signals} signals (${count}, differing answers ${differing}): ours ${ms(middle(ours))}, 95 % ${ms(high(ours))}; programme ${ms(middle(theirs))}, 95 % ${ms(high(theirs))}; ratio of medians ${(middle(theirs) / middle(ours)).toFixed(0)}, median ratio ${middle(ratios).toFixed(0)}, 5 % ${at(sorted(ratios), 0.05).toFixed(1)}, of sums ${(total(theirs) / total(ours)).toFixed(1)}`,
  )
}
const solvers = () => {
  for (let seed = 1; seed <= 20; seed++) solvePlan(randomInstance(seed))
  console.log('Pin solver against an integer programme on random instances (medians of time), one run:')
  for (const [pins, signals, count] of [
    [20, 12, 100],
    [40, 25, 100],
    [80, 25, 60],
    [80, 40, 60],
    [144, 25, 40],
    [144, 60, 40],
  ] as const)
    solversAt(pins, signals, count)
}

/** Every carrier of a generated library against 25 needs, as the page’s worker does it, one after the other. */
const candidates = () => {
  const shipped = makeLibrary(readLibraryFolder(root))
  const library = randomLibrary(shipped, 300, 1)
  const design: Design = {
    ...emptyDesign('Bench'),
    needs: {
      devices: [
        ['push-button', 5],
        ['lamp-red', 4],
        ['servo-small', 3],
        ['track-sensor', 3],
        ['temperature-two-wire', 1],
        ['card-reader', 1],
        ['light-resistor', 2],
        ['serial-link', 1],
      ].map(([part, count], i) => ({
        id: `d${i + 1}`,
        part: String(part),
        name: String(part),
        count: Number(count),
      })),
      limits: { ambient: 30 },
    },
  }
  const signals = resolveNeeds(design, library).signals.length
  const ids = Object.values(library.parts).flatMap((p) => (p.kind === 'chip' ? [p.id] : []))
  const runs = Array.from({ length: 3 }, () =>
    timed(() => ids.map((id) => candidateOf(design, library, id)!)),
  )
  const fitting = runs[0]!.result.filter((c) => c.fits).length
  console.log(`\nEvery candidate: ${ids.length} generated chips for ${signals} signals, ${fitting} fit:`)
  console.log(`  all solved, clashes explained: median ${ms(middle(runs.map((r) => r.ms)))}`)
}

const demo = () => {
  const library = makeLibrary(readLibraryFolder(root))
  const design = readDesignFile(join(root, 'demo', 'darkroom-timer.json'))
  const analysis = analyse(design, library)
  const chip = analysis.chip.chip!
  const demand = makeDemand({ chip, needs: analysis.needs.open, choices: design.pins, taken: takenPins(chip, analysis.clock) })
  const text = integerProgramme(demand.problem)
  const solves = sorted(Array.from({ length: 200 }, () => timed(() => solvePlan(demand.problem)).ms))
  const programmes = sorted(Array.from({ length: 9 }, () => timed(() => highs.solve(text)).ms))
  const analyses = sorted(Array.from({ length: 60 }, () => timed(() => analyse(design, library)).ms))
  console.log('\nDarkroom timer:')
  console.log(
    `  pins solved: median ${ms(at(solves, 0.5))}; the integer programme ${ms(at(programmes, 0.5))}, ratio ${(at(programmes, 0.5) / at(solves, 0.5)).toFixed(0)}`,
  )
  console.log(`  whole analysis in Node: median ${ms(at(analyses, 0.5))}`)
}

/** Script that must be there before the first stage can be used: what the page itself asks for, compressed. */
const firstPage = async () => {
  const dist = join(root, 'web', 'dist')
  if (!existsSync(dist)) return console.log('\nFirst page: not built yet; run npm run build')
  const { loaded, worker } = await analysisInBrowser()
  const assets = join(dist, 'assets')
  const size = (name: string) => gzipSync(readFileSync(join(assets, name)), { level: 9 }).length / 1000
  const scripts = readdirSync(assets).filter((f) => f.endsWith('.js') && loaded.includes(f))
  const total = scripts.reduce((sum, f) => sum + size(f), 0)
  console.log('\nFirst page, opened at the Needs of the darkroom timer in Chromium:')
  console.log(
    `  script loaded: ${total.toFixed(0)} kB compressed, of at most 350, in ${scripts.length} files (the worker’s among them)`,
  )
  for (const f of scripts.sort((a, b) => size(b) - size(a)).slice(0, 6))
    console.log(`    ${f}: ${size(f).toFixed(1)} kB`)
  console.log(
    `  an edit’s analysis in the worker, there and back: median ${ms(at(sorted(worker), 0.5))} of ${worker.length} edits`,
  )
}

/** Pasted tables written for the tests: what is right before any question, and after the ones asked first. */
const intake = () => {
  const cases = tableCases(join(root, 'core', 'src', 'intake', 'test', 'tables'))
  const scores = [0, 1, 3].map((n) => cases.map((c) => scoreOf(c, readAsking(c, n, readTable))))
  const share = (of: { right: number; all: number }[]) =>
    `${((100 * total(of.map((s) => s.right))) / total(of.map((s) => s.all))).toFixed(1)} %`
  console.log(
    `\nPasted tables: ${cases.length} shapes, ${total(scores[0]!.map((s) => s.all))} legs and functions:`,
  )
  console.log(
    `  right without a question ${share(scores[0]!)}, with one ${share(scores[1]!)}, with three ${share(scores[2]!)} (aim 90, 97, 100)`,
  )
  const below = cases.filter((_, i) => scores[0]![i]!.right < scores[0]![i]!.all * 0.9).map((c) => c.name)
  console.log(`  below nine tenths without a question: ${below.join(', ') || 'none'}`)
  const long = (rows: number) =>
    Array.from({ length: rows }, (_, i) => `${(i % 900) + 1}\tPA${i}\tTMR1_CH${i % 4}, UART2_TX`).join('\n')
  const [small, large] = [2000, 20_000].map((n) => timed(() => readTable(long(n))).ms)
  console.log(
    `  20,000 rows ${large!.toFixed(0)} ms, 2,000 rows ${small!.toFixed(0)} ms: ${(large! / small!).toFixed(1)} times as long`,
  )
  const ibis = `[IBIS Ver] 4.2\n[Component] Long\n[Pin] a b c\n1 PA0 NC\n[Model] m\nModel_type Output\n[Pulldown]\n${'0.1 1mA 1mA 1mA\n'.repeat(50_000)}[End]\n`
  console.log(`  an IBIS file of 50,000 lines: ${timed(() => readExchange(ibis, 'long')).ms.toFixed(0)} ms`)
}

intake()
solvers()
candidates()
demo()
await firstPage()
