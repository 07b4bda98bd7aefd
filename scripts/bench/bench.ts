// npm run bench: the figures the project claims. Each compares against a reference in the same run; none is a test.

import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import {
  analyse,
  candidateOf,
  nextPlansOf,
  previewEdits,
  reachIn,
  giveUps,
  leadsOf,
  regulatorsOf,
  sourcesOf,
} from '@root-board/core/analysis'
import { carrierOf } from '@root-board/core/carrier'
import { runStages } from '@root-board/core/findings'
import { applyEdits, type Design, type Edit, emptyDesign, readDesign } from '@root-board/core/design'
import { resolveNeeds } from '@root-board/core/needs'
import { readExchange, readTable } from '@root-board/core/intake'
import { isPlanned } from '@root-board/core/legs'
import { makeDemand, questionOf, takenPins } from '@root-board/core/planner'
import { runLatch } from '@root-board/core/latch'
import { endless, type Patience, steps, usualPatience } from '@root-board/core/patience'
import { makeLibrary } from '@root-board/core/parts'
import { chargeOf, streamsOf } from '@root-board/core/power'
import loadHighs from 'highs'
import { stagesInTurn } from '../../core/src/analysis/stages'
import type { LatchFacts } from '../../core/src/latch/run'
import { readAsking, scoreOf, tableCases } from '../../core/src/intake/test/cases'
import { habitTables } from '../../core/src/intake/test/habits'
import { misreadings } from '../../core/src/intake/test/misread'
import { type PlanProblem, solvePlan } from '../../core/src/solve'
import { integerProgramme } from '../../core/src/solve/test/integer-programme'
import type { IntegerProgrammeSolver } from '../../core/test/lp'
import { shelf } from '../../core/test/referee/files'
import { programmeOf } from '../../core/test/referee/programme'
import { randomProject } from '../../core/test/referee/projects'
import { randomLibrary } from '../../core/test/random-library'
import { randomInstance } from '../../core/src/solve/test/instances'
import { readDesignFile, readLibraryFolder } from '../../server/src/files'
import { compareOpinions } from '../second-opinion'
import { analysisInBrowser, waitsInBrowser } from './browser'
import { store } from './store'

const root = process.cwd()
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

interface Timing {
  ours: number[]
  first: number[]
  theirs: number[]
  differing: number
  undecided: number
}
const noTimes = (): Timing => ({ ours: [], first: [], theirs: [], differing: 0, undecided: 0 })

/** One question by both solvers in turn; ours gives up after two seconds, as it does for an edit. */
const timeBoth = (into: Timing, problem: PlanProblem, programme: string): void => {
  const began = performance.now()
  let first: number | undefined
  const result = solvePlan(problem, {
    patience: {
      spent: () => performance.now() - began > 2000,
      progress: ({ best }) => {
        if (best !== undefined) first ??= performance.now() - began
      },
    },
  })
  into.ours.push(performance.now() - began)
  if (first !== undefined) into.first.push(first)
  const theirs = timed(() => highs.solve(programme))
  into.theirs.push(theirs.ms)
  if (result.status === 'found' || result.status === 'undecided') into.undecided++
  const same =
    result.status === 'proven'
      ? theirs.result.Status === 'Optimal' && Math.round(theirs.result.ObjectiveValue) === result.cost
      : result.status !== 'infeasible' || theirs.result.Status === 'Infeasible'
  if (!same) into.differing++
}
const tell = (what: string, { ours, first, theirs, differing, undecided }: Timing): void =>
  console.log(
    `  ${what} (${ours.length}, differing ${differing}, undecided at 2 s ${undecided}): ours ${ms(middle(ours))}, 95 % ${ms(high(ours))}, worst ${ms(Math.max(...ours))}; first plan, worst ${ms(Math.max(0, ...first))}; programme ${ms(middle(theirs))}, 95 % ${ms(high(theirs))}; ratio of medians ${(middle(theirs) / middle(ours)).toFixed(0)}, of sums ${(total(theirs) / total(ours)).toFixed(0)}`,
  )

/** As the page gives it. */
const seconds = (s: number): Patience => {
  const end = performance.now() + 1000 * s
  return { spent: () => performance.now() > end }
}

const sizes = [
  [20, 12, 60],
  [40, 25, 60],
  [80, 40, 40],
  [144, 60, 40],
] as const

const abstract = () => {
  console.log('Pin solver against an integer programme on random instances, one run:')
  for (let seed = 1; seed <= 30; seed++) solvePlan(randomInstance(seed))
  for (const [pins, signals, count] of sizes) {
    const times = noTimes()
    for (let seed = 1; seed <= count; seed++) {
      const problem = randomInstance(seed, { pins, signals })
      timeBoth(times, problem, integerProgramme(problem))
    }
    tell(`${pins} pins, ${signals} signals`, times)
  }
}

/** Whole projects over the library: the planner’s question, and the programme made from the files alone. */
const projects = () => {
  const files = shelf(root)
  const library = makeLibrary(readLibraryFolder(root))
  const legs = (p: { kind: string; id: string }) => {
    const carrier = carrierOf(library, p.id)
    return carrier ? carrier.pins.filter((x) => ['io', 'input', 'output'].includes(x.type)).length : 0
  }
  console.log('\nPin solver on whole projects, against a programme made from the project and part files:')
  for (const hard of [false, true])
    for (const [i, [pins, signals, count]] of sizes.entries()) {
      const fewest = i === 0 ? 0 : sizes[i - 1]![0]
      const times = noTimes()
      for (let seed = 1; seed <= count; seed++) {
        const project = randomProject(files, 9000 + seed, {
          signals: [Math.ceil(signals / 3), signals],
          hard,
          carriers: (p) => legs(p) > fewest * 0.85 && legs(p) <= pins,
        })
        const question = questionOf(analyse(readDesign(project, 'bench'), library, steps(0)))!
        const { open } = resolveNeeds(readDesign(project, 'bench'), library)
        timeBoth(times, makeDemand({ ...question, needs: open }).problem, programmeOf(project, files))
      }
      tell(`${hard ? 'hard' : 'ordinary'}, up to ${pins} legs and ${signals} signals`, times)
    }
}

/** A large project on 144 legs, edited and asked: what one builder’s step costs. */
const edits = () => {
  const files = shelf(root)
  const library = makeLibrary(readLibraryFolder(root))
  const times: number[] = []
  const reaches: number[] = []
  const nexts: number[] = []
  for (let seed = 1; times.length < 200 && seed < 400; seed++) {
    const project = randomProject(files, 20_000 + seed, {
      signals: [45, 60],
      carriers: (p) => p.id === 'qm32-144',
    })
    let design = readDesign(project, 'bench')
    let analysis = analyse(design, library)
    if (analysis.pins.plan?.status !== 'proven') continue
    for (let n = 0; n < 10 && times.length < 200; n++) {
      const [a, b] = [3 * n, 7 * n + 1].map(
        (k) => analysis.pins.plan!.wires[k % analysis.pins.plan!.wires.length]!,
      )
      const kept = analysis.pins.assignment
      const edit: Edit =
        n % 2 === 0
          ? { kind: 'moveSignal', signal: a!.signal.id, name: a!.signal.name, pin: b!.pin.id, kept }
          : { kind: 'lockSignal', signal: a!.signal.id, name: a!.signal.name, pin: a!.pin.id }
      design = applyEdits(design, [edit])
      const run = timed(() => analyse(design, library, seconds(2)))
      analysis = run.result
      times.push(run.ms)
      if (!isPlanned(analysis.pins.plan)) break
    }
    if (reaches.length < 10 && isPlanned(analysis.pins.plan)) {
      const signal = analysis.pins.plan!.wires[5]!.signal.id
      reaches.push(timed(() => reachIn(design, library, signal, seconds(4))).ms)
      nexts.push(timed(() => nextPlansOf(design, library, seconds(2))).ms)
    }
  }
  console.log(
    `\nOn 144 legs with 45 to 60 signals, whole analyses: an edit ${ms(middle(times))}, 95 % ${ms(high(times))}, worst of ${times.length} ${ms(Math.max(...times))} (aim 150)`,
  )
  console.log(
    `  reach of a signal, worst of ${reaches.length} ${ms(Math.max(...reaches))} (aim 300); next best plans ${ms(Math.max(...nexts))} (aim 1000)`,
  )
}

/** Until the engine has compiled what is asked again and again; the page’s worker is that far after its first edits, too. */
const firstFew = 8

/** An edit and its preview with what is taken over from the analysis before, against an analysis from nothing in the same run. */
const kept = () => {
  const library = makeLibrary(readLibraryFolder(root))
  // Drawn at random once, and kept: what is drawn from a library that grows is another project each time.
  const large = readDesignFile(join(root, 'scripts', 'bench', 'large.json'))
  const cases: [string, Design, aimed: [number, number]][] = [
    ['Darkroom timer', readDesignFile(join(root, 'demo', 'darkroom-timer.json')), [16, 20]],
    ['144 legs', large, [50, 60]],
  ]
  for (const [name, design, [aimEdit, aimPreview]] of cases) {
    const first = analyse(design, library)
    const { wires } = first.pins.plan!
    const device = design.needs.devices[0]!
    const changes = Array.from({ length: 40 + firstFew }, (_, n): Edit => {
      const { signal, pin } = wires[(3 * n) % wires.length]!
      if (n % 4 === 0) return { kind: 'setLimit', limit: 'ambient', value: 25 + (n % 10) }
      if (n % 4 === 1) return { kind: 'renameDevice', id: device.id, name: `Name ${n}` }
      if (n % 4 === 2) return { kind: 'lockSignal', signal: signal.id, name: signal.name, pin: pin.id }
      return { kind: 'setCount', id: device.id, count: 1 + (n % 3) }
    })
    const [edited, previewed, whole]: [number[], number[], number[]] = [[], [], []]
    let before = first
    for (const [n, change] of changes.entries()) {
      const preview = timed(() => previewEdits(before, library, [change], seconds(2)))
      const next = applyEdits(before.design, [change])
      const run = timed(() => analyse(next, library, seconds(2), before))
      const fresh = timed(() => analyse(next, library, seconds(2)))
      before = run.result
      if (n < firstFew) continue
      previewed.push(preview.ms)
      edited.push(run.ms)
      whole.push(fresh.ms)
    }
    console.log(
      `\n${name}, ${wires.length} signals, ${edited.length} edits of four sorts, after ${firstFew} that are not counted:`,
    )
    for (const [what, times, aim] of [
      ['an edit', edited, aimEdit],
      ['its preview', previewed, aimPreview],
    ] as const)
      console.log(
        `  ${what}: median ${ms(middle(times))} (aim ${aim}), 95 % ${ms(high(times))}, ${(total(times) / total(whole)).toFixed(2)} of an analysis from nothing (${ms(middle(whole))})`,
      )
  }
}

/** Why there is no plan, in words: the whole analysis of projects with one need too many. */
const clashes = () => {
  const files = shelf(root)
  const library = makeLibrary(readLibraryFolder(root))
  const times: number[] = []
  let unsure = 0
  let undecided = 0
  for (let seed = 1; times.length < 40 && seed < 200; seed++) {
    const design = readDesign(randomProject(files, 30_000 + seed, { signals: [20, 60], hard: true }), 'bench')
    const run = timed(() => analyse(design, library, seconds(2)))
    const { plan } = run.result.pins
    if (plan?.status === 'clash') times.push(run.ms)
    if (plan?.clashUnsure) unsure++
    if (plan?.status === 'undecided') undecided++
  }
  console.log(
    `\nA clash in words, with the rule that decides, in a whole analysis of two seconds at most: ${ms(middle(times))}, worst of ${times.length} ${ms(Math.max(...times))} (aim 2000); not made smallest in that time ${unsure}, undecided ${undecided}`,
  )
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
  const demand = makeDemand({
    chip,
    needs: analysis.needs.open,
    choices: design.pins,
    taken: takenPins(chip, analysis.clock),
  })
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
    `  script loaded: ${total.toFixed(0)} kB compressed, of at most 340, in ${scripts.length} files (the worker’s among them)`,
  )
  for (const f of scripts.sort((a, b) => size(b) - size(a)).slice(0, 6))
    console.log(`    ${f}: ${size(f).toFixed(1)} kB`)
  console.log(
    `  an edit’s analysis in the worker, there and back: median ${ms(at(sorted(worker), 0.5))} of ${worker.length} edits`,
  )
}

/** How long one waits: for the start page, a stage, a key in a field; the last beside a bare page with one field. */
const waits = async () => {
  if (!existsSync(join(root, 'web', 'dist'))) return console.log('\nWaits: not built yet; run npm run build')
  const name = 'Darkroom timer'
  const { start, stage, key, bare } = await waitsInBrowser(name)
  const line = (what: string, of: number[], aim: number) =>
    console.log(
      `  ${what}: median ${middle(of).toFixed(0)} ms of ${of.length}, 95 % ${high(of).toFixed(0)} ms (aim ${aim})`,
    )
  console.log(`\nWaits in Chromium, on ${name}:`)
  line('start page, from nothing until one can type', start, 1500)
  line('from one stage to another', stage, 200)
  for (const [n, to] of ['Chip', 'Pins', 'Power', 'Build', 'Needs'].entries())
    line(
      `  to ${to}`,
      stage.filter((_, i) => i % 5 === n),
      200,
    )
  line('a key in a field', key, 50)
  console.log(
    `  a key in a bare page: ${middle(bare).toFixed(0)} ms; ratio ${(middle(key) / middle(bare)).toFixed(1)}`,
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
  const seed = 1 + (Date.now() % 90_000)
  const habits = habitTables(400, seed)
  console.log(
    `\nTables that nobody has seen: ${habits.length}, seed ${seed}; right without a question, misread in silence`,
  )
  const by = new Map<string, { all: number; wrong: number; silent: number }>()
  for (const table of habits) {
    const { all, wrong } = misreadings(table, readTable(table.text))
    for (const id of [table.class, 'all']) {
      const now = by.get(id) ?? { all: 0, wrong: 0, silent: 0 }
      by.set(id, {
        all: now.all + all,
        wrong: now.wrong + wrong.length,
        silent: now.silent + wrong.filter((w) => w.silent).length,
      })
    }
  }
  for (const [id, { all, wrong, silent }] of by)
    console.log(
      `  ${id.padEnd(24)} ${((100 * (all - wrong)) / all).toFixed(1).padStart(5)} %  ${((100 * silent) / all).toFixed(2)} %  of ${all}`,
    )
  const long = (rows: number) =>
    Array.from({ length: rows }, (_, i) => `${(i % 900) + 1}\tPA${i}\tTMR1_CH${i % 4}, UART2_TX`).join('\n')
  const [small, large] = [2000, 20_000].map((n) => timed(() => readTable(long(n))).ms)
  console.log(
    `  20,000 rows ${large!.toFixed(0)} ms, 2,000 rows ${small!.toFixed(0)} ms: ${(large! / small!).toFixed(1)} times as long`,
  )
  const ibis = `[IBIS Ver] 4.2\n[Component] Long\n[Pin] a b c\n1 PA0 NC\n[Model] m\nModel_type Output\n[Pulldown]\n${'0.1 1mA 1mA 1mA\n'.repeat(50_000)}[End]\n`
  console.log(`  an IBIS file of 50,000 lines: ${timed(() => readExchange(ibis, 'long')).ms.toFixed(0)} ms`)
}

const only = process.argv.slice(2)
/** What the Power page asks: the supply after an edit, where the charge goes, and everything ranked in its place. */
const supply = () => {
  const library = makeLibrary(readLibraryFolder(root))
  console.log('\nSupply, median of 21 after warming up')
  for (const name of ['darkroom-timer', 'hive-scale', 'signal-cabin']) {
    const design = readDesignFile(join(root, 'demo', `${name}.json`))
    const before = analyse(design, library)
    const warmer = (n: number) =>
      applyEdits(design, [{ kind: 'setLimit', limit: 'ambient', value: 20 + n / 10 }])
    const power = (n: number) => {
      const a = analyse(warmer(n), library, undefined, before)
      return [chargeOf(a.power), streamsOf(a)]
    }
    // The Power stage anew, with all that it stands on made: timed within a run of all stages.
    let inStage = 0
    const stages = stagesInTurn.map((stage) =>
      stage.name !== 'power'
        ? stage
        : {
            ...stage,
            run: (given: never) => {
              const { result, ms: took } = timed(() => stage.run(given))
              inStage = took
              return result
            },
          },
    )
    const powerAlone = (n: number) => {
      const given = { design: warmer(n), library, patience: usualPatience() }
      const { results } = runStages(stages, given, [])
      return inStage + timed(() => [chargeOf(results.power), streamsOf({ ...results, ...given })]).ms
    }
    const ranked = () => [regulatorsOf(before, library), sourcesOf(before, library)]
    // What one would do without them: the whole project anew for each part, and the list sorted by what is found.
    const plainly = () =>
      Object.values(library.parts).flatMap((part) =>
        part.kind === 'source' || (part.kind === 'regulator' && !before.chip.chip?.board)
          ? [
              analyse(
                applyEdits(design, [
                  part.kind === 'source'
                    ? { kind: 'chooseSource', part: part.id, name: '' }
                    : { kind: 'chooseRegulator', part: part.id, name: '' },
                ]),
                library,
              ).findings.length,
            ]
          : [],
      )
    const of = (work: (n: number) => unknown, times = 21) => {
      for (let n = 0; n < 5; n++) work(n)
      return middle(Array.from({ length: times }, (_, n) => timed(() => work(n + 5)).ms))
    }
    for (let n = 0; n < 5; n++) powerAlone(n)
    const alone = middle(Array.from({ length: 21 }, (_, n) => powerAlone(n + 5)))
    const [anew, whole, list, plain] = [
      of(power),
      of((n) => analyse(warmer(n), library)),
      of(ranked),
      of(plainly, 5),
    ]
    const led = applyEdits(design, [{ kind: 'changeLead', of: 'source', change: { length: 1 }, what: '' }])
    const withLead = analyse(led, library)
    const leads = of(() => leadsOf(withLead, library))
    const eachLead = of(
      () =>
        Object.values(library.parts).flatMap((part) =>
          part.kind === 'wire' || part.kind === 'fuse'
            ? [
                analyse(
                  applyEdits(led, [
                    { kind: 'changeLead', of: 'source', change: { [part.kind]: part.id }, what: '' },
                  ]),
                  library,
                ).findings.length,
              ]
            : [],
        ),
      5,
    )
    const { tried } = giveUps(before, library, 'energy', usualPatience())
    const given = of(() => giveUps(before, library, 'energy', usualPatience()), 5)
    console.log(
      `${name}: all wires and fuses ranked ${ms(leads)}, ${(leads / eachLead).toFixed(2)} of choosing each; ${tried} things to give up of a day’s energy tried in ${ms(given)}, ${(given / (tried * whole)).toFixed(2)} of the whole project anew for each`,
    )
    console.log(
      `${name}: power, charge and streams after an edit ${ms(anew)}, ${(anew / whole).toFixed(2)} of the whole project anew (Power stage, charge and streams alone ${ms(alone)}, ${(alone / whole).toFixed(2)}); all regulators and sources ranked ${ms(list)}, ${(list / plain).toFixed(2)} of choosing each`,
    )
  }
}

/** The same latch step by step, 10 µs each, by the plainest sums: a gate and a rail that each go to where they are pulled. */
const latchPlainly = (f: LatchFacts, press: number, letGo: number, until: number) => {
  const dt = 1e-5
  const [V, th] = [f.source.voltage, f.pass.threshold]
  const inGate = f.pass.gate + f.pass.drain + f.stray
  let [gate, rail] = [V, 0]
  let [up, off] = [Infinity, Infinity]
  for (let n = 0; n < until / dt; n++) {
    const t = n * dt
    const holds = t > up + f.startUp + f.setUp && t < letGo && t < off
    const [g, to] = t < press || holds ? [10, holds ? 0 : (f.diode?.[0]?.[1] ?? 0)] : [1 / f.pullUp, V]
    gate = to + (gate - to) * Math.exp((-dt * g) / inGate)
    const over = V - gate - th
    const ohms = f.source.resistance + (over > 0 ? 1 / (f.pass.transconductance * over) : 1e12)
    const taken = rail > f.load.full ? f.load.current : (f.load.current * rail) / f.load.full
    const rest = V - taken * ohms
    rail = Math.max(0, rest + (rail - rest) * Math.exp(-dt / (ohms * Math.max(f.rail, 1e-9))))
    if (up === Infinity && rail >= f.least) up = t
    if (up < Infinity && off === Infinity && rail < f.least) off = t
  }
  return off
}

/** Two seconds of the window lantern with a latch. */
const latch = () => {
  const library = makeLibrary(readLibraryFolder(root))
  const design = applyEdits(readDesignFile(join(root, 'demo', 'window-lantern.json')), [
    { kind: 'addDevices', devices: [{ part: 'latch-button', name: 'Power', count: 1 }] },
  ])
  const { facts } = analyse(design, library).latch
  if (!facts) throw new Error('The lantern has no latch.')
  const run = () => runLatch(facts, { does: 'press', press: 0.2, letGo: 1.55 }, endless)
  const plainly = () => latchPlainly(facts, 0.2, 1.55, 2)
  const medianOf = (what: () => unknown) => middle(Array.from({ length: 9 }, () => timed(what).ms))
  const first = run()
  const off = first.events.find((e) => e.what === 'off')!.at - first.events[0]!.at
  const [ours, plain] = [medianOf(run), medianOf(plainly)]
  console.log(
    `\nLatch: ${first.times.at(-1)!.toFixed(2)} s simulated in ${ours.toFixed(0)} ms, ${(ours / plain).toFixed(1)} of 200,000 plain steps of 10 µs; off ${((off - 1.55) * 1e6).toFixed(0)} µs after the program lets go, plainly ${((plainly() - 1.55) * 1e6).toFixed(0)} µs`,
  )
}

/** Numbers recomputed from the part files by plain formulas that share nothing with the program. */
const opinion = () => {
  const { compared, apart, kinds } = compareOpinions(root)
  console.log(
    `\nSecond opinion: ${compared} values of five demos and ten random projects, ${apart.length} more than 0.5 % apart`,
  )
  console.log(
    `  ${Object.entries(kinds)
      .map(([kind, count]) => `${kind} ${count}`)
      .join(', ')}`,
  )
  for (const line of apart) console.log(`  ${line}`)
  if (apart.length > 0) process.exitCode = 1
}

const parts = {
  opinion,
  supply,
  latch,
  intake,
  abstract,
  projects,
  edits,
  kept,
  clashes,
  candidates,
  demo,
  firstPage,
  waits,
  store: () => store(),
}
for (const [name, run] of Object.entries(parts)) if (only.length === 0 || only.includes(name)) await run()
