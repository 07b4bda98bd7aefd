// What is being done when the program is ended, and what must be there of it afterwards: all that was answered, and of the
// last thing all or nothing.

import { readFileSync, truncateSync } from 'node:fs'
import { join } from 'node:path'
import { emptyDesign } from '../../core/src/design/index'
import { ask, copyOf, folder, kill, type Line, oldFolder, root, start } from './world'

const led = JSON.parse(readFileSync(join(root, 'library/small/led-red.json'), 'utf8')) as { id: string }
export const part = (id: string, price = 1) => ({ ...led, id, price })
export const project = (name: string, notes = '') => ({ ...emptyDesign(name), notes })

/** What was answered, as a question to be asked again: what is wrong, or nothing. */
export type Fact = (url: string) => Promise<string | undefined>
export interface Scenario {
  name: string
  template: () => string
  env?: Record<string, string>
  /** Samples there must be afterwards. */
  samples: number
  /** Facts that its acts keep where nothing ends them. */
  answers: number
  /** Does things, and keeps what was answered. */
  acts: (url: string, facts: Fact[]) => Promise<void>
  /** What must hold though nothing was answered. */
  always: Fact
}

interface Stored {
  id: string
  version: number
  design: { notes?: string }
}
const is = (what: string, holds: boolean) => (holds ? undefined : `lost: ${what}`)
const nothing = () => Promise.resolve(undefined)
const own = async (url: string) =>
  (
    (await ask<{ parts: { id: string; file: { price: number } }[] }>(url, 'GET', '/parts/own'))?.body.parts ??
    []
  ).map((p) => [p.id, p.file.price] as const)
const names = async (url: string) =>
  ((await ask<Line[]>(url, 'GET', '/projects'))?.body ?? []).map((l) => l.name)

export const scenarios = async (): Promise<Scenario[]> => {
  const old = await oldFolder(project('From before', 'kept'), part('own-old'))
  // A folder as it is after some use: a project, a part, and a copy.
  const used = folder()
  const first = await start(used)
  const made = await ask<Stored>(first.url, 'POST', '/projects', project('Used', 'first'))
  await ask(first.url, 'POST', '/parts', part('own-used'))
  const copy = await ask<{ name: string }>(first.url, 'POST', '/copies')
  await ask(first.url, 'POST', '/projects', project('Later'))
  const everything = (await ask(first.url, 'GET', '/everything'))?.body
  first.child.kill('SIGTERM')
  await first.ended
  // More than the log holds before it is brought into the file.
  const devices = Array.from({ length: 200 }, (_, n) => ({
    id: `d${n}`,
    part: 'led-red',
    name: 'x'.repeat(390),
    count: 1,
  }))
  const much = Array.from({ length: 180 }, (_, n) => ({
    id: `much-${n}`,
    design: { ...project(`Much ${n}`), needs: { devices, limits: { ambient: 25 } } },
    sample: false,
    changedAt: new Date().toISOString(),
    away: false,
  }))
  const ofMuch = async (url: string) => (await names(url)).filter((n) => n.startsWith('Much')).length
  const id = made!.body.id
  const name = copy!.body.name
  const damaged = copyOf(used)
  truncateSync(join(damaged, 'root-board.sqlite'), 5000)
  const hasUsed: Fact = async (url) => is('the project of before', (await names(url)).includes('Used'))
  return [
    { name: 'first start', template: folder, samples: 5, answers: 0, acts: nothing, always: nothing },
    {
      name: 'start on old tables',
      template: () => copyOf(old),
      samples: 0,
      answers: 0,
      acts: nothing,
      always: async (url) => {
        const stored = (await ask<Stored>(url, 'GET', '/projects/old'))?.body
        const parts = await own(url)
        return is(
          'what was in the old tables',
          stored?.design.notes === 'kept' && stored.version === 3 && parts.length === 1,
        )
      },
    },
    {
      name: 'saves',
      template: () => copyOf(used),
      samples: 5,
      answers: 1,
      always: hasUsed,
      acts: async (url, facts) => {
        let version = 1
        for (const notes of ['second', 'third', 'fourth']) {
          const answer = await ask<Stored>(url, 'PUT', `/projects/${id}`, project('Used', notes), version)
          if (answer?.status !== 200) return
          version = answer.body.version
          facts[0] = async (again) => {
            const now = (await ask<Stored>(again, 'GET', `/projects/${id}`))?.body
            // The next may have been stored too, though its answer was not heard.
            return is(notes, now !== undefined && (now.design.notes === notes || now.version === version + 1))
          }
        }
      },
    },
    {
      name: 'saves of parts',
      template: () => copyOf(used),
      samples: 5,
      answers: 1,
      always: hasUsed,
      acts: async (url, facts) => {
        if ((await ask(url, 'POST', '/parts', part('own-new')))?.status !== 201) return
        facts.push(async (again) =>
          is(
            'own-new',
            (await own(again)).some(([p]) => p === 'own-new'),
          ),
        )
        if ((await ask(url, 'PUT', '/parts/own-new', part('own-new', 7), 1))?.status !== 200) return
        facts[0] = async (again) =>
          is('own-new at 7', [undefined, 7].includes((await own(again)).find(([p]) => p === 'own-new')?.[1]))
        if ((await ask(url, 'DELETE', '/parts/own-new'))?.status !== 204) return
        facts[0] = async (again) => is('the putting away', !(await own(again)).some(([p]) => p === 'own-new'))
      },
    },
    {
      name: 'a library brought',
      template: () => copyOf(used),
      samples: 5,
      answers: 1,
      always: async (url) => {
        const there = (await own(url)).filter(([p]) => /own-[abc]/.test(p)).length
        return (await hasUsed(url)) ?? is('half of a library', there === 0 || there === 3)
      },
      acts: async (url, facts) => {
        const parts = ['own-a', 'own-b', 'own-c'].map((p) => part(p))
        if ((await ask(url, 'POST', '/parts/library', { format: 1, parts }))?.status !== 201) return
        facts.push(async (again) => is('the library', (await own(again)).length === 4))
      },
    },
    {
      name: 'a copy made',
      template: () => copyOf(used),
      samples: 5,
      answers: 1,
      always: hasUsed,
      acts: async (url, facts) => {
        const answer = await ask<{ name: string }>(url, 'POST', '/copies')
        if (answer?.status !== 201) return
        facts.push(async (again) => {
          const look = await ask<{ projects?: unknown[] }>(again, 'GET', `/copies/${answer.body.name}`)
          return is('the copy', look?.status === 200 && look.body.projects?.length === 7)
        })
      },
    },
    {
      name: 'a copy brought back',
      template: () => copyOf(used),
      samples: 5,
      answers: 1,
      // Of before it or of after it, whole.
      always: async (url) => {
        const now = (await names(url)).filter((n) => ['Used', 'Later'].includes(n)).sort()
        return is('half of a copy', ['Used', 'Later,Used'].includes(now.join()))
      },
      acts: async (url, facts) => {
        if ((await ask(url, 'POST', `/copies/${name}/bring-back`))?.status !== 200) return
        facts.push(async (again) => is('the bringing back', !(await names(again)).includes('Later')))
      },
    },
    {
      name: 'going on from a copy',
      template: () => copyOf(damaged),
      env: { ROOT_BOARD_FROM: name },
      samples: 5,
      answers: 0,
      acts: nothing,
      always: hasUsed,
    },
    {
      name: 'everything brought',
      template: folder,
      samples: 5,
      answers: 1,
      acts: async (url, facts) => {
        // The samples are there already; a project, a part and the later one come in.
        if ((await ask(url, 'POST', '/everything', everything))?.status !== 201) return
        facts.push(async (again) => is('what was brought', (await names(again)).includes('Used')))
      },
      always: async (url) => {
        const there =
          (await names(url)).filter((n) => ['Used', 'Later'].includes(n)).length + (await own(url)).length
        return is('half of everything', there === 0 || there === 3)
      },
    },
    {
      name: 'so much brought that the log is brought into the file',
      template: () => copyOf(used),
      samples: 5,
      answers: 2,
      acts: async (url, facts) => {
        const all = { format: 1, kind: 'everything', projects: much, parts: [], drawer: [], damaged: [] }
        if ((await ask(url, 'POST', '/everything', all))?.status !== 201) return
        facts.push(async (again) => is('what was brought', (await ofMuch(again)) === much.length))
        if ((await ask(url, 'POST', '/projects', project('On top of it')))?.status !== 201) return
        facts.push(async (again) => is('what came then', (await names(again)).includes('On top of it')))
      },
      always: async (url) =>
        (await hasUsed(url)) ?? is('half of much', [0, much.length].includes(await ofMuch(url))),
    },
  ]
}
export { kill }
