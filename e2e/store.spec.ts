// No edit is lost and no conflict made up, however a page is left: reloaded, closed, left for another, with the line cut,
// the server killed, two tabs, no room in the browser or on the disk. And what was lost by mistake comes back from a copy.

import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BrowserContext, Page } from '@playwright/test'
import { seeded } from '../core/test/seeded'
import { isAccessible, openDemo, saved } from './pages'
import { expect, type Server, startServer, test } from './server'

/** Sixty in `npm run deep`, under one seed; some of each, under a new one, otherwise. */
const deep = process.env.DEEP === '1'
const rounds = deep ? 60 : 12
const seed = Number(process.env.SEED ?? (deep ? 7 : Date.now() % 1e9))
const random = seeded(seed)

const rename = async (page: Page, to: string) => {
  const field = page.getByLabel('Project name')
  await field.fill(to)
  await field.press('Enter')
}
const status = (page: Page) => page.locator('[role=status]').first()
const storedName = async (page: Page, id: string): Promise<string> => {
  const answer = await page.request.get(`/api/projects/${id}`)
  return ((await answer.json()) as { design: { name: string } }).design.name
}
const names = async (page: Page): Promise<string[]> =>
  ((await (await page.request.get('/api/projects')).json()) as { name: string }[]).map((p) => p.name)
const stageOf = (id: string) => `/projects/${id}/needs`

/** Ways to leave a page so many milliseconds after an edit; each ends with a page that is open on the project again. */
const ways: Record<
  string,
  (page: Page, context: BrowserContext, id: string, server: Server) => Promise<Page>
> = {
  reload: async (page) => {
    await page.reload()
    return page
  },
  close: async (page, context, id) => {
    await page.close({ runBeforeUnload: false })
    const next = await context.newPage()
    await next.goto(stageOf(id))
    return next
  },
  'for another address': async (page, _, id) => {
    await page.goto('about:blank')
    await page.goto(stageOf(id))
    return page
  },
  'for the list': async (page, _, id) => {
    await page.getByRole('link', { name: 'All projects' }).click()
    await page.goto(stageOf(id))
    return page
  },
  offline: async (page, context, id) => {
    await context.setOffline(true)
    await page.waitForTimeout(200)
    await context.setOffline(false)
    await page.goto(stageOf(id))
    return page
  },
  'the answer lost': async (page, context, id) => {
    // Stored, and nobody hears of it.
    await context.route('**/api/projects/*', async (route) => {
      if (route.request().method() !== 'PUT') return route.continue()
      await route.fetch()
      await route.abort()
    })
    await page.waitForTimeout(500)
    await context.unroute('**/api/projects/*')
    await page.goto(stageOf(id))
    return page
  },
}

test(`a page left ${rounds} times right after an edit: nothing lost, no conflict made up`, async ({
  page,
  context,
  server,
}) => {
  test.setTimeout(900_000)
  console.log(`leaving: seed ${seed} (SEED=${seed} runs it again)`)
  const id = await openDemo(page, 'needs')
  const before = (await names(page)).length
  let at = page
  const kinds = Object.keys(ways)
  for (let round = 0; round < rounds; round++) {
    const way = kinds[round % kinds.length]!
    const name = `Round ${round} ${way}`
    await rename(at, name)
    const wait = Math.floor(random() * 700)
    await at.waitForTimeout(wait)
    at = await ways[way]!(at, context, id, server)
    await expect(at.getByLabel('Project name'), `${name} after ${wait} ms`).toHaveValue(name)
    await expect(status(at), `${name} after ${wait} ms`).toHaveText('Saved')
    expect(await storedName(at, id)).toBe(name)
  }
  // No copy of it was made of a conflict that was none.
  expect((await names(at)).length).toBe(before)
})

test('the server killed in the middle of saving and started again: the edit is there', async ({ page }) => {
  test.setTimeout(300_000)
  const data = mkdtempSync(join(tmpdir(), 'root-board-e2e-'))
  let server = await startServer(data)
  const { port } = new URL(server.url)
  const made = await page.request.post(`${server.url}/api/projects`, {
    data: {
      format: 1,
      name: 'Killed',
      stance: 'by-the-book',
      needs: { devices: [], limits: { ambient: 25 } },
      chip: {},
      pins: { locks: {}, excluded: [], kept: {} },
      power: {},
      build: { support: {} },
    },
  })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`${server.url}${stageOf(id)}`)
  for (let round = 0; round < (deep ? 12 : 3); round++) {
    const name = `Killed ${round}`
    await rename(page, name)
    await page.waitForTimeout(Math.floor(random() * 600))
    await server.stop()
    await rename(page, `${name}, and after`)
    await expect(status(page)).toHaveText('Server away: kept in this browser')
    server = await startServer(data, Number(port))
    await expect(status(page)).toHaveText('Saved')
    await page.reload()
    await expect(page.getByLabel('Project name')).toHaveValue(`${name}, and after`)
    await expect(status(page)).toHaveText('Saved')
  }
  await server.stop()
})

test('two tabs: who saves second is asked, and both versions are there afterwards', async ({
  page,
  context,
}) => {
  const id = await openDemo(page, 'needs')
  const other = await context.newPage()
  await other.goto(stageOf(id))
  await expect(other.getByLabel('Project name')).toHaveValue('Darkroom timer')
  await rename(page, 'First tab')
  await saved(page)
  await rename(other, 'Second tab')
  await expect(status(other)).toHaveText('Changed elsewhere: choose below')
  // Left and opened again it is still asked, and the edit still there.
  await other.reload()
  await expect(other.getByLabel('Project name')).toHaveValue('Second tab')
  await expect(status(other)).toHaveText('Changed elsewhere: choose below')
  expect(await storedName(page, id)).toBe('First tab')
})

test('no room in the browser and no server: it is said that nothing keeps it', async ({ page, context }) => {
  const id = await openDemo(page, 'needs')
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError')
    }
  })
  await context.route('**/api/projects/*', (route) => route.abort())
  await rename(page, 'Nowhere')
  await expect(status(page)).toHaveText('Not saved: see below')
  await expect(page.getByRole('alert')).toContainText(
    'kept nowhere but in this page. The server does not answer',
  )
  await context.unroute('**/api/projects/*')
  await expect(status(page)).toHaveText('Saved')
  expect(await storedName(page, id)).toBe('Nowhere')
})

test('a full disk is said as such, and the edit is kept until there is room', async ({ page, context }) => {
  const id = await openDemo(page, 'needs')
  await context.route('**/api/projects/*', (route) =>
    route.request().method() === 'PUT'
      ? route.fulfill({
          status: 507,
          contentType: 'application/problem+json',
          body: JSON.stringify({ title: 'The disk is full; nothing was saved', status: 507 }),
        })
      : route.continue(),
  )
  await rename(page, 'Kept meanwhile')
  await expect(status(page)).toHaveText('The disk is full; nothing was saved: kept in this browser')
  await page.reload()
  await expect(page.getByLabel('Project name')).toHaveValue('Kept meanwhile')
  await context.unroute('**/api/projects/*')
  await expect(status(page)).toHaveText('Saved')
  expect(await storedName(page, id)).toBe('Kept meanwhile')
})

test('a project that is not worked out is open all the same: changed, stopped, tried again', async ({
  page,
  context,
}) => {
  const data = JSON.parse(
    readFileSync(new URL('../demo/darkroom-timer.json', import.meta.url), 'utf8'),
  ) as object
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string }
  // A worker that answers nothing, as one does that has more to do than its time.
  await context.route('**/*analysis.worker*', (route) =>
    route.fulfill({
      contentType: 'text/javascript',
      headers: { 'Cross-Origin-Embedder-Policy': 'require-corp' },
      body: 'for (;;);',
    }),
  )
  await page.goto(stageOf(id))
  await expect(page.getByText('This project is being worked out')).toBeVisible()
  await page.getByRole('button', { name: 'Take out Safe light' }).click()
  await expect(status(page)).toHaveText('Saved')
  await page.getByRole('button', { name: 'Stop working it out' }).click()
  await expect(page.getByRole('alert')).toContainText('could not be worked out: stopped by you')
  await isAccessible(page, 'without an analysis')
  await context.unroute('**/*analysis.worker*')
  await page.getByRole('button', { name: 'Undo: Remove Safe light' }).click()
  await expect(page.getByRole('button', { name: 'Take out Safe light' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible()
})
test('what was changed by mistake comes back from a copy; what was stored until then is a copy too', async ({
  page,
}) => {
  const id = await openDemo(page, 'needs')
  await page.goto('/')
  await page.getByRole('link', { name: 'the copies' }).click()
  await page.getByRole('button', { name: 'Make a copy now' }).click()
  await expect(page.getByText(/^All that is stored is in the copy of/)).toBeVisible()
  const count = await page.getByRole('button', { name: /Look at the copy/ }).count()
  await page.goto(stageOf(id))
  await rename(page, 'Spoilt')
  await saved(page)
  await page.goto('/copies')
  await page
    .getByRole('button', { name: /Look at the copy/ })
    .first()
    .click()
  await expect(page.getByRole('region', { name: /The copy of/ })).toContainText(
    'as it was, and not as it is now: Darkroom timer',
  )
  await isAccessible(page, 'copies')
  await page.getByRole('button', { name: 'Bring this copy back' }).click()
  await expect(page.getByText(/^All is as it was on/)).toBeVisible()
  expect(await storedName(page, id)).toBe('Darkroom timer')
  await expect(page.getByRole('button', { name: /Look at the copy/ })).toHaveCount(count + 1)
  // Everything as one file, and brought: nothing is doubled.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Take everything as one file' }).click(),
  ])
  await page.getByLabel('File of everything').setInputFiles(await download.path())
  await expect(page.getByText(/^Nothing new was in it\. \d+ were there already\.$/)).toBeVisible()
  // Put away, and thrown out for good.
  await page.request.delete(`/api/projects/${id}`)
  await page.reload()
  await page.getByRole('button', { name: 'Throw Darkroom timer out for good' }).click()
  await page.getByRole('button', { name: 'Yes, throw Darkroom timer out for good' }).click()
  await expect(page.getByText('Nothing is put away.')).toBeVisible()
  expect((await page.request.post(`/api/projects/${id}/restore`)).status()).toBe(404)
})

test('a damaged data file is said at the start, and the program goes on from a copy', async ({ page }) => {
  const data = mkdtempSync(join(tmpdir(), 'root-board-e2e-'))
  const first = await startServer(data)
  await page.request.post(`${first.url}/api/copies`)
  const { copies } = (await (await page.request.get(`${first.url}/api/copies`)).json()) as {
    copies: { name: string }[]
  }
  await first.stop()
  truncateSync(join(data, 'root-board.sqlite'), 100)
  writeFileSync(join(data, 'root-board.sqlite-wal'), '')
  await expect(startServer(data)).rejects.toThrow('the server ended')
  process.env.ROOT_BOARD_FROM = copies[0]!.name
  try {
    const again = await startServer(data)
    await page.goto(again.url)
    await expect(page.getByRole('link', { name: 'Darkroom timer' })).toBeVisible()
    await again.stop()
  } finally {
    delete process.env.ROOT_BOARD_FROM
  }
})

test('an address that is none of the program’s says so, and leads back', async ({ page }) => {
  expect((await page.goto('/nowhere'))?.status()).toBe(404)
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible()
  await page.getByRole('link', { name: 'All projects' }).click()
  await expect(page.getByRole('heading', { name: 'Your projects' })).toBeVisible()
})
