// npm run bench: the figures the project claims. Each compares against a reference in the same run; none is a test.

import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { analyse } from '@root-board/core/analysis'
import { takenPins, makeDemand } from '@root-board/core/pins'
import { makeLibrary } from '@root-board/core/parts'
import loadHighs from 'highs'
import { solvePlan } from '../../core/src/pins/solve'
import {
  integerProgramme,
  type IntegerProgrammeSolver,
} from '../../core/src/pins/solve/test/integer-programme'
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
const solvers = () => {
  const ours: number[] = []
  const theirs: number[] = []
  const ratios: number[] = []
  let differing = 0
  for (let seed = 1; seed <= 20; seed++) solvePlan(randomInstance(seed))
  for (let seed = 1; seed <= 330; seed++) {
    const problem = randomInstance(seed)
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
    ratios.push(b.ms / a.ms)
  }
  console.log(
    'Pin solver against an integer programme, 330 random instances up to 40 pins and 25 signals, one run:',
  )
  console.log(`  differing answers: ${differing}`)
  console.log(
    `  ours:              median ${ms(at(sorted(ours), 0.5))}, 95th percentile ${ms(at(sorted(ours), 0.95))}`,
  )
  console.log(
    `  integer programme: median ${ms(at(sorted(theirs), 0.5))}, 95th percentile ${ms(at(sorted(theirs), 0.95))}`,
  )
  console.log(
    `  ratio of each instance: median ${at(sorted(ratios), 0.5).toFixed(0)}, 5th percentile ${at(sorted(ratios), 0.05).toFixed(0)}`,
  )
  console.log(
    `  ratio of the sums: ${(theirs.reduce((s, x) => s + x, 0) / ours.reduce((s, x) => s + x, 0)).toFixed(0)}`,
  )
}

const demo = () => {
  const library = makeLibrary(readLibraryFolder(root))
  const design = readDesignFile(join(root, 'demo', 'darkroom-timer.json'))
  const analysis = analyse(design, library)
  const chip = analysis.chip.chip!
  const demand = makeDemand(chip, analysis.needs.open, design.pins, takenPins(chip, analysis.clock))
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

solvers()
demo()
await firstPage()
