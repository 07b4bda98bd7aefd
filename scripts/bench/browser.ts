// The built page in Chromium: which files it loads for the first stage, and how long its worker takes for an edit.

import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { startServer } from '../../e2e/server'
import config from '../../playwright.config'

export const analysisInBrowser = async (): Promise<{ loaded: string[]; worker: number[] }> => {
  const server = await startServer(mkdtempSync(join(tmpdir(), 'root-board-bench-')))
  const browser = await chromium.launch(config.use?.launchOptions)
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const loaded: string[] = []
    page.on('request', (request) => {
      const name = /\/assets\/([^/?]+\.js)$/.exec(request.url())?.[1]
      if (name) loaded.push(name)
    })
    const projects = (await (await fetch(`${server.url}/api/projects`)).json()) as {
      id: string
      name: string
    }[]
    const project = projects.find((p) => p.name === 'Darkroom timer')
    await page.goto(`${server.url}/projects/${project!.id}/needs`)
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
  } finally {
    await browser.close()
    await server.stop()
  }
}
