// Forty clients on projects and parts for a while, and then ten analyses that take all they may: how long a save and a
// question about the program's health take, and that nothing is refused that should not be.

import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { emptyDesign } from '@root-board/core/design'

const root = process.cwd()
const at = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN

const started = (): Promise<{ url: string; child: ChildProcess }> =>
  new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, 'server', 'dist', 'main.js')], {
      env: {
        ...process.env,
        PORT: '0',
        HOST: '',
        ROOT_BOARD_DATA: mkdtempSync(join(tmpdir(), 'root-board-bench-')),
        ROOT_BOARD_ROOT: root,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    let output = ''
    child.stdout.on('data', (chunk: Buffer) => {
      output += String(chunk)
      const url = /Root Board is at (\S+)/.exec(output)?.[1]
      if (url) resolve({ url, child })
    })
    child.on('close', () => reject(new Error(`the server ended: ${output}`)))
  })

interface Tally {
  saves: number[]
  refused: number
  stale: number
  failed: number
  /** Saves of one version of one thing that were answered as stored: more than one would be two winners. */
  winners: Map<string, number>
}

/** `seconds` of forty clients: half of them share four projects, the others save parts and make projects. */
const clients = async (url: string, seconds: number): Promise<Tally> => {
  const tally: Tally = { saves: [], refused: 0, stale: 0, failed: 0, winners: new Map() }
  const led = JSON.parse(readFileSync(join(root, 'library/small/led-red.json'), 'utf8')) as object
  const send = async (method: string, path: string, body: unknown, version?: number) => {
    const began = performance.now()
    const answer = await fetch(`${url}/api${path}`, {
      method,
      headers: {
        'Content-Type': 'application/json',
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      },
      body: JSON.stringify(body),
    })
    tally.saves.push(performance.now() - began)
    if (answer.status >= 500) tally.failed++
    else if (answer.status === 412 || answer.status === 409) tally.stale++
    else if (answer.status >= 400) tally.refused++
    if (answer.ok && version !== undefined) {
      const key = `${path} ${version}`
      tally.winners.set(key, (tally.winners.get(key) ?? 0) + 1)
    }
    return {
      status: answer.status,
      body: (await answer.json()) as { id: string; version: number; stored?: { version: number } },
    }
  }
  const shared = await Promise.all(
    [0, 1, 2, 3].map(async (n) => (await send('POST', '/projects', emptyDesign(`Shared ${n}`))).body.id),
  )
  const end = performance.now() + 1000 * seconds
  await Promise.all(
    Array.from({ length: 40 }, async (_, n) => {
      let version = 1
      const own = `own-${n}`
      if (n >= 20) await send('POST', '/parts', { ...led, id: own })
      for (let i = 0; performance.now() < end; i++) {
        const { status, body } =
          n < 20
            ? await send(
                'PUT',
                `/projects/${shared[n % 4]}`,
                { ...emptyDesign(`Shared ${n % 4}`), notes: `${n} ${i}` },
                version,
              )
            : await send('PUT', `/parts/${own}`, { ...led, id: own, price: i % 100 }, version)
        version = status === 412 ? (body.stored?.version ?? version) : status === 200 ? body.version : version
      }
    }),
  )
  return tally
}

/** Asks for the program's health again and again, in a thread with nothing else to do: an answer of 20 MB is not its own. */
const asksForHealth = `
const { parentPort, workerData } = require('node:worker_threads')
let over = false
parentPort.on('message', () => (over = true))
;(async () => {
  const waits = []
  while (!over) {
    const began = performance.now()
    await (await fetch(workerData + '/api/health')).text()
    waits.push(performance.now() - began)
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
  parentPort.postMessage(waits)
  parentPort.close()
})()`

/** How long the program's health takes to be told while ten analyses run that take all they may. */
const health = async (url: string): Promise<{ waits: number[]; answers: Map<number, number> }> => {
  const heavy = JSON.parse(readFileSync(join(root, 'scripts', 'bench', 'large.json'), 'utf8')) as {
    needs: { devices: { id: string; name: string }[] }
  }
  // As many devices as can be planned: the parts of a hard project, over and over.
  const { devices } = heavy.needs
  const many = Array.from({ length: 200 }, (_, i) => ({
    ...devices[i % devices.length]!,
    id: `x${i}`,
    name: `Thing ${i}`,
  }))
  const body = JSON.stringify({ ...heavy, needs: { ...heavy.needs, devices: many } })
  const answers = new Map<number, number>()
  // The thread is begun by the first who asks.
  const analyse = (of: string) =>
    fetch(`${url}/api/analyse`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: of })
  await (await analyse(JSON.stringify(emptyDesign('First')))).arrayBuffer()
  const asking = new Worker(asksForHealth, { eval: true, workerData: url })
  const waits = new Promise<number[]>((resolve, reject) => {
    asking.once('message', resolve)
    asking.once('error', reject)
  })
  await Promise.all(
    Array.from({ length: 10 }, async () => {
      const answer = await analyse(body)
      await answer.arrayBuffer()
      answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1)
    }),
  )
  asking.postMessage('over')
  return { waits: await waits, answers }
}

export const store = async (seconds = Number(process.env.SECONDS ?? 120)): Promise<void> => {
  const { url, child } = await started()
  try {
    const { saves, refused, stale, failed, winners } = await clients(url, seconds)
    const twice = [...winners.values()].filter((n) => n > 1).length
    console.log(
      `\nStore: 40 clients for ${seconds} s, ${saves.length} saves: ${failed} failed, ${refused} refused, ${stale} of an older version, ${twice} versions with two winners; half within ${at(saves, 0.5).toFixed(0)} ms, 99 % within ${at(saves, 0.99).toFixed(0)} ms, the slowest ${at(saves, 1).toFixed(0)} ms`,
    )
    const { waits, answers } = await health(url)
    console.log(
      `  health while ten analyses of 200 devices run: half within ${at(waits, 0.5).toFixed(0)} ms, the slowest of ${waits.length} ${at(waits, 1).toFixed(0)} ms; answers ${JSON.stringify(Object.fromEntries(answers))}`,
    )
  } finally {
    child.removeAllListeners('close')
    child.kill('SIGKILL')
  }
}
