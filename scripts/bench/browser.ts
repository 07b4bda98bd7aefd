// The built page in Chromium: which files it loads for the first stage, how long its worker takes for an edit, and how
// long one waits for a page, a stage, a key.

import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type Browser, chromium, type Page } from '@playwright/test'
import { startServer } from '../../e2e/server'
import config from '../../playwright.config'

interface Project {
  id: string
  name: string
}

const inBrowser = async <T>(
  work: (browser: Browser, url: string, projects: Project[]) => Promise<T>,
): Promise<T> => {
  const server = await startServer(mkdtempSync(join(tmpdir(), 'root-board-bench-')))
  const browser = await chromium.launch(config.use?.launchOptions)
  try {
    return await work(
      browser,
      server.url,
      (await (await fetch(`${server.url}/api/projects`)).json()) as Project[],
    )
  } finally {
    await browser.close()
    await server.stop()
  }
}
const viewport = { width: 1280, height: 800 }

export const analysisInBrowser = (): Promise<{ loaded: string[]; worker: number[] }> =>
  inBrowser(async (browser, url, projects) => {
    const page = await browser.newPage({ viewport })
    const loaded: string[] = []
    page.on('request', (request) => {
      const name = /\/assets\/([^/?]+\.js)$/.exec(request.url())?.[1]
      if (name) loaded.push(name)
    })
    const project = projects.find((p) => p.name === 'Darkroom timer')
    await page.goto(`${url}/projects/${project!.id}/needs`)
    await page.getByLabel('What does it have?').waitFor()
    const asked = [...loaded]
    const ambient = page.getByLabel('Air around it, at its warmest')
    for (let i = 0; i < 40; i++) {
      await ambient.fill(`${25 + (i % 10)} °C`)
      await ambient.press('Enter')
      await page.waitForTimeout(60)
    }
    const worker = await page.evaluate(() => performance.getEntriesByName('analysis').map((e) => e.duration))
    return { loaded: asked, worker: worker.slice(5) }
  })

/** In the page: from each key until what it leads to has been painted. `window.waited` collects, ms. */
const watchKeys = () => {
  const at = window as unknown as { waited: number[]; until: () => boolean }
  at.waited = []
  at.until = () => true
  addEventListener(
    'keydown',
    () => {
      const began = performance.now()
      const look = () =>
        // In the frame after the change, so that it has been painted.
        requestAnimationFrame(() =>
          at.until() ? setTimeout(() => at.waited.push(performance.now() - began)) : look(),
        )
      look()
    },
    true,
  )
}
const waited = (page: Page) => page.evaluate(() => (window as unknown as { waited: number[] }).waited)

export interface Waits {
  /** From asking for the page until its first field has the cursor. */
  start: number[]
  /** From a stage's key until that stage is there and painted. */
  stage: number[]
  /** From a key in a field until it is painted; and in a bare page with one field. */
  key: number[]
  bare: number[]
}

/** Of a project as it is found by its name among the samples, ms. */
export const waitsInBrowser = (name: string): Promise<Waits> =>
  inBrowser(async (browser, url, projects) => {
    const start: number[] = []
    for (let i = 0; i < 9; i++) {
      // Nothing kept from the last time.
      const context = await browser.newContext({ viewport })
      const page = await context.newPage()
      const began = performance.now()
      await page.goto(url, { waitUntil: 'commit' })
      await page.waitForFunction(
        () => document.activeElement?.tagName === 'INPUT' && document.querySelector('table a') !== null,
        undefined,
        { polling: 'raf' },
      )
      start.push(performance.now() - began)
      await context.close()
    }
    const page = await browser.newPage({ viewport })
    await page.addInitScript(watchKeys)
    const stages = ['Needs', 'Chip', 'Pins', 'Power', 'Build']
    await page.goto(`${url}/projects/${projects.find((p) => p.name === name)!.id}/needs`)
    await page.getByRole('heading', { level: 1 }).waitFor()
    // The first round fetches each stage; five more are measured.
    for (let i = 0; i < 6 * stages.length; i++) {
      if (i === stages.length)
        await page.evaluate(() => ((window as unknown as { waited: number[] }).waited.length = 0))
      const n = (i + 1) % stages.length
      await page.evaluate((title) => {
        ;(window as unknown as { until: () => boolean }).until = () =>
          document.querySelector('.table h1')?.textContent?.startsWith(title) === true
      }, stages[n]!)
      await page.keyboard.press(String(n + 1))
      await page.waitForTimeout(400)
    }
    const stage = await waited(page)
    const typing = async (at: Page, field: string) => {
      await at.locator(field).first().click()
      await at.evaluate(() => {
        const w = window as unknown as { waited: number[]; until: () => boolean }
        w.waited.length = 0
        w.until = () => true
      })
      for (const letter of 'three push buttons and a buzzer of some sort') {
        await at.keyboard.type(letter)
        await at.waitForTimeout(60)
      }
      return waited(at)
    }
    await page.goto(page.url().replace(/[^/]*$/, 'needs'))
    await page.getByLabel('What does it have?').waitFor()
    const key = await typing(page, 'input[placeholder]')
    const plain = await browser.newPage({ viewport })
    await plain.addInitScript(watchKeys)
    await plain.goto('data:text/html,<input>')
    const bare = await typing(plain, 'input')
    return { start, stage, key, bare }
  })
