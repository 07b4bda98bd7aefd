// npm run torture -- [MINUTES], with ONLY=saves for one thing: the program is ended at calls of the system (writes, syncs,
// renames …) in the middle of everything it does, at random under two writers, and given a full, a read-only, a deleted and
// a damaged disk; then it is started again, and all that it answered must be there. Says what it found; ends with 1 if it
// is anything.

import { chmodSync, copyFileSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { seeded } from '../../core/test/seeded'
import { type Fact, kill, part, project, type Scenario, scenarios } from './scenarios'
import { ask, build, copyOf, type End, faultsOf, folder, start } from './world'

export interface Tortured {
  what: string
  points: number
  faults: string[]
}

const hows = ['before', 'half', 'after'] as const

/** Once through a scenario, ended where it is told to; what is wrong afterwards. */
const through = async (scenario: Scenario, end: End): Promise<{ calls: number; faults: string[] }> => {
  const data = scenario.template()
  const facts: Fact[] = []
  const run = await start(data, end, scenario.env)
  if (run.url) await scenario.acts(run.url, facts)
  const calls = run.calls()
  await kill(run)
  const again = await start(data, undefined, scenario.env)
  const faults: string[] = []
  if (end.at === undefined && facts.length < scenario.answers)
    faults.push('not ended at all, it was not answered to its end')
  if (again.url)
    for (const fact of [scenario.always, ...facts]) {
      const fault = await fact(again.url)
      if (fault) faults.push(fault)
    }
  faults.push(...(await faultsOf(data, again, scenario.samples)))
  rmSync(data, { recursive: true, force: true })
  return {
    calls,
    faults: faults.map((f) => `${scenario.name}, ${end.how ?? 'end'} ${end.at ?? end.room}: ${f}`),
  }
}

/** Ended at so many of its calls, evenly spread and a little off, each in one of three ways. */
const atCalls = async (scenario: Scenario, points: number, random: () => number): Promise<Tortured> => {
  const { calls, faults } = await through(scenario, {})
  const step = calls / points
  for (let i = 0; i < points; i++) {
    const at = 1 + Math.floor(Math.min(calls - 1, (i + random()) * step))
    faults.push(...(await through(scenario, { at, how: hows[i % 3] })).faults)
  }
  return { what: `${scenario.name} (${calls} calls)`, points, faults }
}

/** Two writers, each on a project and a part of its own, until it is killed at any moment. */
const atRandom = async (kills: number, random: () => number): Promise<Tortured> => {
  const data = folder()
  const faults: string[] = []
  let run = await start(data)
  const writers = await Promise.all(
    [0, 1].map(async (w) => {
      const made = await ask<{ id: string }>(run.url, 'POST', '/projects', project(`Writer ${w}`))
      await ask(run.url, 'POST', '/parts', part(`own-${w}`, 0))
      return { w, id: made!.body.id, version: 1, notes: '', partVersion: 1, price: 0 }
    }),
  )
  let count = 0
  for (let round = 0; round < kills; round++) {
    const { url, child } = run
    const timer = setTimeout(() => child.kill('SIGKILL'), 5 + random() * 250)
    await Promise.all(
      writers.map(async (writer) => {
        for (;;) {
          const notes = `${++count}`
          const saved = await ask<{ version: number }>(
            url,
            'PUT',
            `/projects/${writer.id}`,
            project(`Writer ${writer.w}`, notes),
            writer.version,
          )
          if (!saved) return
          if (saved.status !== 200) return void faults.push(`a save answered ${saved.status}`)
          Object.assign(writer, { version: saved.body.version, notes })
          const price = count % 1000
          const put = await ask<{ version: number }>(
            url,
            'PUT',
            `/parts/own-${writer.w}`,
            part(`own-${writer.w}`, price),
            writer.partVersion,
          )
          if (!put) return
          if (put.status !== 200) return void faults.push(`a save of a part answered ${put.status}`)
          Object.assign(writer, { partVersion: put.body.version, price })
        }
      }),
    )
    clearTimeout(timer)
    await kill(run)
    run = await start(data)
    if (!run.url)
      return { what: 'two writers', points: round + 1, faults: [...faults, `unstartable: ${run.output()}`] }
    for (const writer of writers) {
      const now = (await ask<{ version: number; design: { notes: string } }>(
        run.url,
        'GET',
        `/projects/${writer.id}`,
      ))!.body
      const stands =
        now.version === writer.version
          ? now.design.notes === writer.notes
          : now.version === writer.version + 1
      if (!stands) faults.push(`lost: save ${writer.notes}, kill ${round}`)
      const mine = (await ask<{ version: number; part: { price: number } }>(
        run.url,
        'GET',
        `/parts/own-${writer.w}`,
      ))!.body
      const part =
        mine.version === writer.partVersion
          ? mine.part.price === writer.price
          : mine.version === writer.partVersion + 1
      if (!part) faults.push(`lost: part at ${writer.price}, kill ${round}`)
      Object.assign(writer, {
        version: now.version,
        notes: now.design.notes,
        partVersion: mine.version,
        price: mine.part.price,
      })
    }
  }
  faults.push(...(await faultsOf(data, run, 5)))
  rmSync(data, { recursive: true, force: true })
  return { what: `two writers, killed at random (${count} saves)`, points: kills, faults }
}

/** Room for so many bytes, then no more: what was answered stands, what was not is said, and with room again all is well. */
const fullDisk = async (all: Scenario[], sizes: number): Promise<Tortured> => {
  const faults: string[] = []
  for (let i = 0; i < sizes; i++) {
    const scenario = all[i % all.length]!
    // From nothing at all to more than any of it writes, in twenty steps however few are taken of them.
    const room = Math.round(2000 * 1.4 ** Math.floor((20 * i) / sizes))
    const data = scenario.template()
    const facts: Fact[] = []
    const run = await start(data, { room }, scenario.env)
    if (run.url) {
      await scenario.acts(run.url, facts)
      const last = await ask<{ title: string }>(run.url, 'POST', '/projects', project('On a full disk'))
      if (last && ![201, 503, 507].includes(last.status))
        faults.push(`full after ${room}: answered ${last.status}`)
    } else if (!isInSentences(run.output())) faults.push(`full after ${room}: ${run.output().slice(0, 300)}`)
    await kill(run)
    const again = await start(data, undefined, scenario.env)
    if (again.url)
      for (const fact of [scenario.always, ...facts]) {
        const fault = await fact(again.url)
        if (fault) faults.push(`full after ${room}, ${scenario.name}: ${fault}`)
      }
    faults.push(
      ...(await faultsOf(data, again, scenario.samples)).map(
        (f) => `full after ${room}, ${scenario.name}: ${f}`,
      ),
    )
    rmSync(data, { recursive: true, force: true })
  }
  return { what: 'a full disk', points: sizes, faults }
}
/** What keeps it from starting, and before that at most what was done of it: a sentence each, and no stack. */
const isInSentences = (output: string): boolean => {
  const lines = output.trim().split('\n')
  return lines.length <= 2 && lines.every((line) => /^[A-Z].*\.$/.test(line))
}

const spoilt = async (used: () => string): Promise<Tortured> => {
  const faults: string[] = []
  const says = async (what: string, data: string, uid?: number) => {
    const run = await start(data, undefined, {}, uid)
    if (run.url) faults.push(`${what}: it started`)
    else if (!isInSentences(run.output())) faults.push(`${what}: ${run.output().slice(0, 300)}`)
    await kill(run)
  }
  // To root nothing is read-only: as nobody, then.
  const readOnly = used()
  const uid = process.getuid?.() === 0 ? 65534 : undefined
  chmodSync(join(readOnly, 'root-board.sqlite'), 0o444)
  chmodSync(readOnly, 0o555)
  await says('read-only', readOnly, uid)
  chmodSync(readOnly, 0o755)
  const other = join(used(), 'root-board.sqlite')
  for (const [what, take] of [
    ['deleted', rmSync],
    ['written over', (file: string) => copyFileSync(other, file)],
  ] as const) {
    const data = used()
    const run = await start(data)
    take(join(data, 'root-board.sqlite'))
    const answer = await ask<{ title: string }>(run.url, 'POST', '/projects', project('Lost'))
    if (answer?.status !== 503 || !/deleted, replaced or written by another/.test(answer.body.title))
      faults.push(`${what}: answered ${answer?.status}`)
    await kill(run)
    const again = await start(data)
    if (!again.url) faults.push(`${what}: it doesn’t start again: ${again.output().slice(0, 300)}`)
    await kill(again)
  }
  for (const [what, spoil] of [
    ['header', (b: Buffer) => b.fill(0, 0, 100)],
    ['page', (b: Buffer) => b.fill(0xa5, 4096, 3 * 4096)],
    ['cut short', (b: Buffer) => b.subarray(0, 6000)],
  ] as const) {
    const data = used()
    const file = join(data, 'root-board.sqlite')
    writeFileSync(file, spoil(readFileSync(file)))
    await says(`damaged: ${what}`, data)
  }
  return { what: 'read-only, deleted, written over, damaged', points: 6, faults }
}

/** `share` of all of it: 1 is 230 points, 500 kills and twenty sizes; `only`: what has this in its name. */
export const torture = async (
  share: number,
  seed: number,
  say: (line: string) => void,
  only = '',
): Promise<Tortured[]> => {
  const wanted = (name: string) => name.includes(only)
  const done: Tortured[] = []
  const tell = (one: Tortured) => {
    done.push(one)
    say(
      `${one.faults.length === 0 ? 'well' : 'NOT WELL'}  ${one.what}: ${one.points} times${one.faults.map((f) => `\n    ${f}`).join('')}`,
    )
  }
  const random = seeded(seed)
  const hasShim = await build()
  const all = await scenarios()
  const used = () => copyOf(all.find((s) => s.name === 'saves')!.template())
  if (hasShim) {
    for (const scenario of all.filter((s) => wanted(s.name)))
      tell(await atCalls(scenario, Math.max(1, Math.round(23 * share)), random))
    if (wanted('a full disk')) tell(await fullDisk(all, Math.max(2, Math.round(20 * share))))
  } else
    say('There is no C compiler here: no call of the system can be chosen, and the disk can’t be filled.')
  if (wanted('read-only, deleted, written over, damaged')) tell(await spoilt(used))
  if (wanted('killed at random')) tell(await atRandom(Math.max(4, Math.round(500 * share)), random))
  return done
}
