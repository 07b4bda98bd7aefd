// The pictures: which view, from which design, after which steps.

import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { startServer } from '../e2e/server'
import config from '../playwright.config'

const root = join(import.meta.dirname, '..')
const demoOf = (name: string) =>
  JSON.parse(readFileSync(join(root, 'demo', `${name}.json`), 'utf8')) as {
    name: string
    needs: {
      devices: {
        id: string
        part: string
        name: string
        count: number
        wiring?: string
        fedBy?: string
      }[]
      limits: object
    }
    chip: { part: string; clock?: object }
    power: { source: string; regulator: string; feed?: string; rails?: object[] }
  }

interface Shot {
  name: string
  path: string
  /** An address outside projects. */
  at?: string
  /** The darkroom timer where none is named. */
  demo?: string
  /** A design other than the demo as it is. */
  spoil?: (design: ReturnType<typeof demoOf>) => void
  steps?: (page: Page) => Promise<void>
}

const shots: Shot[] = [
  { name: 'needs', path: 'needs' },
  {
    name: 'chip',
    path: 'chip',
    steps: async (page) => {
      await page.getByText(/^All \d+ asked/).waitFor()
      await page.locator('.recharts-line').waitFor()
    },
  },
  { name: 'cards', path: 'cards', demo: 'signal-cabin' },
  {
    name: 'lines',
    path: 'pins?view=lines',
    spoil: (design) => {
      design.name = 'Two voltages'
      design.needs.limits = { ambient: 25 }
      design.chip = { part: 'mw2-module' }
      design.power = { source: 'adapter-5v', regulator: 'bl33-low' }
      design.needs.devices = (
        [
          ['gas-sensor-5v', 'Gas', 'source'],
          ['pixel-strip-8', 'Pixels', 'source'],
          ['humidity-two-wire', 'Air', 'source'],
          ['relay-module', 'Fan', 'source'],
          ['push-button', 'Go', undefined],
        ] as const
      ).map(([part, name, fedBy], i) => ({ id: `d${i + 1}`, part, name, count: 1, fedBy }))
    },
  },
  { name: 'passport', path: 'pins?view=passport&leg=PA6', demo: 'signal-cabin' },
  {
    name: 'stack',
    path: 'pins?view=stack',
    demo: 'signal-cabin',
    spoil: (design) => (design.needs.devices.find((d) => d.id === 'd2')!.wiring = 'outer'),
  },
  { name: 'pins', path: 'pins?signal=d7.1.light&leg=PC5' },
  {
    name: 'power',
    path: 'power',
    // Its buzzer on a rail of its own, so that it doesn’t hum in the readings.
    spoil: (design) => {
      design.name = 'Two rails'
      design.power.rails = [{ id: 'rail2', regulator: 'bl5-low' }]
      design.needs.devices.find((d) => d.part === 'buzzer-magnetic')!.fedBy = 'rail2'
    },
  },
  {
    name: 'season',
    path: 'power',
    demo: 'hive-scale',
    steps: async (page) => {
      await page.getByRole('table', { name: 'Where the charge goes' }).waitFor()
      await page.locator('#states').evaluate((e) => e.scrollIntoView())
    },
  },
  {
    name: 'latch',
    path: 'power',
    demo: 'window-lantern',
    spoil: (design) => {
      design.needs.devices.push({ id: 'd9', part: 'latch-button', name: 'Power', count: 1 })
    },
    steps: async (page) => {
      await page.getByRole('table', { name: 'What happens, in turn' }).waitFor()
      await page.locator('#latch').evaluate((e) => e.scrollIntoView())
    },
  },
  {
    name: 'charging',
    path: 'power',
    demo: 'coop-door',
    steps: async (page) => {
      await page.getByRole('table', { name: 'What becomes of charging' }).waitFor()
      await page.locator('#charging').evaluate((e) => e.scrollIntoView())
    },
  },
  { name: 'build', path: 'build' },
  { name: 'sheet', path: 'sheet' },
  {
    name: 'working',
    path: 'power',
    steps: async (page) => {
      await page
        .getByTitle(/^Heat in BL/)
        .first()
        .click()
    },
  },
  {
    name: 'evidence',
    path: 'power',
    spoil: (design) => (design.power.regulator = 'br5-plain'),
    steps: async (page) => {
      await page.locator('.finding button').first().click()
      await page.locator('.finding.open .fix').first().click()
      await page.getByRole('button', { name: 'Do it' }).waitFor()
    },
  },
]

const bench48 = readFileSync(join(root, 'e2e', 'fixtures', 'bench-48.csv'), 'utf8')
const paste = async (page: Page) => {
  await page.getByLabel('Its name').fill('Bench 48')
  // A line that is no leg's, with a name in it that nobody knows.
  await page.getByLabel('Table of its legs').fill(`${bench48.trimEnd()}\nPQ9 see the errata\n`)
  await page.getByText('48 legs, 43 names').waitFor()
}

shots.push(
  { name: 'parts', path: '', at: '/parts' },
  { name: 'part', path: '', at: '/parts/qm32-48' },
  {
    name: 'copies',
    path: '',
    at: '/copies',
    // Looked at is a copy from before a project was put away and the drawer was counted anew.
    steps: async (page) => {
      await page.getByRole('button', { name: 'Make a copy now' }).click()
      const looks = page.getByRole('button', { name: /^Look at/ })
      await looks.nth(1).waitFor()
      await page.request.put('/api/drawer/led-red', { data: { count: 12, place: 'tin 3' } })
      const lines = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[]
      const door = lines.find((l) => l.name === 'Coop door')!
      await page.request.delete(`/api/projects/${door.id}`)
      await page.reload()
      await looks.first().click()
      await page.getByRole('region', { name: /^The copy of/ }).waitFor()
      await page.request.post(`/api/projects/${door.id}/restore`)
    },
  },
  {
    name: 'paste',
    path: '',
    at: '/parts/from-sheet',
    steps: async (page) => {
      await paste(page)
      await page.getByRole('button', { name: 'Show what was understood of it' }).click()
      await page.getByRole('button', { name: 'PA1', exact: true }).click()
      await page
        .getByRole('row', { name: /PA1\b/ })
        .getByRole('button', { name: /^Correct/ })
        .click()
    },
  },
)

const server = await startServer(mkdtempSync(join(tmpdir(), 'root-board-shots-')))
const browser = await chromium.launch(config.use?.launchOptions)
for (const shot of shots) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    baseURL: server.url,
  })
  const page = await context.newPage()
  let address = shot.at ?? '/'
  if (shot.path) {
    const design = demoOf(shot.demo ?? 'darkroom-timer')
    const { name } = design
    shot.spoil?.(design)
    const lines = (await (await fetch(`${server.url}/api/projects`)).json()) as { id: string; name: string }[]
    const made = shot.spoil
      ? ((await (await context.request.post('/api/projects', { data: design })).json()) as { id: string })
      : lines.find((l) => l.name === name)!
    address = `/projects/${made.id}/${shot.path}`
  }
  await page.goto(address)
  await page.locator('h1').first().waitFor()
  await page.waitForTimeout(900)
  await shot.steps?.(page)
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(root, 'docs', 'screenshots', `${shot.name}.png`) })
  console.log(`docs/screenshots/${shot.name}.png`)
  await context.close()
}
await browser.close()
await server.stop()
