// The pictures: which view, from which design, after which steps.

import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { startServer } from '../e2e/server'
import config from '../playwright.config'

const root = join(import.meta.dirname, '..')
const timer = () =>
  JSON.parse(readFileSync(join(root, 'demo', 'darkroom-timer.json'), 'utf8')) as {
    power: { regulator: string }
  }

interface Shot {
  name: string
  path: string
  dark?: boolean
  /** A design other than the demo as it is. */
  spoil?: (design: ReturnType<typeof timer>) => void
  steps?: (page: Page) => Promise<void>
}

const shots: Shot[] = [
  { name: 'start', path: '' },
  { name: 'needs', path: 'needs' },
  {
    name: 'chip',
    path: 'chip',
    steps: async (page) => {
      await page.locator('.recharts-line').waitFor()
    },
  },
  { name: 'pins', path: 'pins?signal=d7.1.light&leg=PC5' },
  { name: 'power', path: 'power' },
  { name: 'build', path: 'build' },
  { name: 'wiring', path: 'build?view=wiring' },
  { name: 'steps', path: 'build?view=steps' },
  { name: 'sheet', path: 'sheet' },
  { name: 'dark', path: 'pins', dark: true },
  {
    name: 'working',
    path: 'power',
    steps: async (page) => {
      await page
        .getByTitle(/^Heat in/)
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

const server = await startServer(mkdtempSync(join(tmpdir(), 'root-board-shots-')))
const browser = await chromium.launch(config.use?.launchOptions)
for (const shot of shots) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme: shot.dark ? 'dark' : 'light',
    baseURL: server.url,
  })
  const page = await context.newPage()
  let address = '/'
  if (shot.path) {
    const design = timer()
    shot.spoil?.(design)
    const lines = (await (await fetch(`${server.url}/api/projects`)).json()) as { id: string }[]
    const made = shot.spoil
      ? ((await (await context.request.post('/api/projects', { data: design })).json()) as { id: string })
      : lines.at(-1)!
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
