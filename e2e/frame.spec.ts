// The frame: evidence and its fixes, saving and its troubles, files brought in, light and dark, narrow screens.

import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { emptyProject, isAccessible, isAccessibleInBothLights, openDemo, saved } from './pages'
import { expect, startServer, test } from './server'

test('a planted mistake is explained fact by fact, previewed and cleared from the evidence', async ({
  page,
}) => {
  await openDemo(page, 'power', (d) => ((d.power as Record<string, string>).regulator = 'bl5-low'))
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await page.locator('#table').focus()
  await page.keyboard.press('n')
  const finding = evidence.getByRole('listitem').filter({ hasText: 'BL5 low drop 5 V reaches' }).first()
  await expect(finding).toContainText('The volts it takes away turn into')
  await finding.locator('button.num').first().click()
  await expect(page.getByRole('dialog')).toContainText('V_source − V_F')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await evidence.getByRole('button', { name: 'Use BL5 cool 5 V' }).click()
  await expect(evidence).toContainText('clears this finding')
  await expect(evidence).toContainText(/hottest part: \d+ °C becomes 106 °C/)
  await expect(page.locator('#power-regulator')).toHaveValue('bl5-low')
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(page.locator('#power-regulator')).toHaveValue('bl5-cool')
  await expect(evidence).toContainText('Nothing speaks against this project')
  await expect(page.locator('.gauge-change').first()).toContainText('Use BL5 cool 5 V')
  await page.getByRole('button', { name: /Undo: Use BL5 cool/ }).click()
  await expect(page.locator('#power-regulator')).toHaveValue('bl5-low')
})

test('leaving a part out becomes a finding with a number; the stance can do it for all', async ({ page }) => {
  await openDemo(page, 'build')
  await page.getByLabel('decoupling capacitor at VCC on the board').uncheck()
  await expect(page.getByRole('complementary', { name: 'Evidence' })).toContainText('dips by about 400 mV')
  await page.getByLabel('Stance').selectOption('bare-bones')
  await expect(page.getByLabel('reset button on the board')).not.toBeChecked()
  await saved(page)
  await page.reload()
  await expect(page.getByLabel('reset button on the board')).not.toBeChecked()
})

test('two tabs: the second save of a stale version is refused, and neither version is lost', async ({
  page,
  context,
}) => {
  const id = await openDemo(page, 'needs')
  const other = await context.newPage()
  await other.goto(`/projects/${id}/needs`)
  await expect(other.getByLabel('Name of Dial')).toBeVisible()
  await page.getByLabel('Name of Dial').fill('Knob')
  await page.getByLabel('Name of Dial').press('Enter')
  await saved(page)
  await other.getByLabel('Name of Start').fill('Go')
  await other.getByLabel('Name of Start').press('Enter')
  await expect(other.getByRole('alert', { name: 'Two versions' })).toBeVisible()
  await isAccessible(other, 'conflict')
  // The first tab goes on saving, the second is reloaded in the middle: its edit is still there, and so is the choice.
  await page.getByLabel('Name of Focus').fill('Look')
  await page.getByLabel('Name of Focus').press('Enter')
  await saved(page)
  await other.reload()
  await expect(other.getByLabel('Name of Go')).toBeVisible()
  await expect(other.getByRole('alert', { name: 'Two versions' })).toBeVisible()
  await other.getByRole('button', { name: 'Go on with mine' }).click()
  await saved(other)
  await expect(other.getByLabel('Name of Go')).toBeVisible()
  const lines = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[]
  const copy = lines.find((l) => l.name === 'Darkroom timer (the other version)')!
  const kept = (await (await page.request.get(`/api/projects/${copy.id}`)).json()) as {
    design: { needs: { devices: { name: string }[] } }
  }
  expect(kept.design.needs.devices.map((d) => d.name)).toContain('Knob')
})

test('a lost server loses no edit', async ({ page }) => {
  const data = mkdtempSync(join(tmpdir(), 'root-board-away-'))
  const first = await startServer(data)
  const port = Number(new URL(first.url).port)
  await page.goto(first.url)
  await page.getByLabel('What will it be called?').fill('Kept')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Needs', level: 1 })).toBeVisible()
  await saved(page)
  await first.stop()
  await page.getByLabel('What does it have?').fill('2 push buttons')
  await page.keyboard.press('Enter')
  await expect(page.locator('.top-bar [role=status]')).toHaveText('Server away: kept in this browser')
  const again = await startServer(data, port)
  await saved(page)
  await page.reload()
  await expect(page.getByLabel('Name of Push button')).toBeVisible()
  await again.stop()
})

test('files brought in: a project, a part, and faulty ones that name the place and change nothing', async ({
  page,
}) => {
  await page.goto('/')
  const bring = (name: string, text: string) =>
    page
      .getByLabel('Project or part file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  const count = async () => ((await (await page.request.get('/api/projects')).json()) as unknown[]).length
  const before = await count()
  await bring('broken.json', '{ "format": 1,')
  await expect(page.getByRole('alert')).toContainText('broken.json was not taken; nothing was changed')
  await bring('odd.json', JSON.stringify({ format: 1, name: 'Odd', stance: 'reckless' }))
  await expect(page.getByRole('alert')).toContainText('stance')
  await bring(
    'led.json',
    JSON.stringify({
      format: 1,
      kind: 'led',
      id: 'led-red',
      name: 'x',
      sheet: 's',
      price: 1,
      colour: 'red',
      forward: [],
      current: 0.02,
      currentAbsolute: 0.03,
    }),
  )
  await expect(page.getByRole('alert')).toContainText('forward')
  expect(await count()).toBe(before)
  await bring('good.json', JSON.stringify(emptyProject('Brought in')))
  await expect(page.getByLabel('Project name')).toHaveValue('Brought in')
  await page.goto('/')
  const dropped = await page.evaluateHandle(
    (text) => {
      const data = new DataTransfer()
      data.items.add(new File([text], 'dropped.json', { type: 'application/json' }))
      return data
    },
    JSON.stringify(emptyProject('Dropped')),
  )
  await page.dispatchEvent('main', 'drop', { dataTransfer: dropped })
  await expect(page.getByLabel('Project name')).toHaveValue('Dropped')
})

test('putting a project away can be taken back', async ({ page }) => {
  await page.request.post('/api/projects', {
    data: emptyProject('Away'),
  })
  await page.goto('/')
  await page.getByRole('button', { name: 'Put Away away' }).click()
  await expect(page.getByRole('link', { name: 'Away', exact: true })).toBeHidden()
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('link', { name: 'Away', exact: true })).toBeVisible()
})

test('axe finds nothing serious on any screen, by day and by lamp', async ({ page }) => {
  test.setTimeout(360_000)
  await page.emulateMedia({ colorScheme: 'light' })
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Darkroom timer' }).first()).toBeVisible()
  await isAccessibleInBothLights(page, 'start')
  const id = await openDemo(page, 'needs', (d) => {
    ;(d.power as Record<string, string>).regulator = 'bl5-low'
    ;(d.build as Record<string, unknown>).support = { bulk: 'out' }
  })
  for (const path of [
    'needs',
    'chip',
    'pins?signal=d7.1.light&leg=PC5',
    'power',
    'build',
    'build?view=parts',
    'build?view=wiring',
    'build?view=steps',
    'sheet',
  ]) {
    await page.goto(`/projects/${id}/${path}`)
    await expect(page.locator('h1').first()).toBeVisible()
    await page.waitForTimeout(300)
    await isAccessibleInBothLights(page, path)
  }
  await page.goto(`/projects/${id}/power`)
  await page.locator('.finding button').first().click()
  await page.locator('.finding.open .fix').first().click()
  await expect(page.getByRole('button', { name: 'Do it' })).toBeVisible()
  await isAccessibleInBothLights(page, 'evidence')
  await page.locator('.path button.num').first().click()
  await isAccessibleInBothLights(page, 'working')
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await isAccessibleInBothLights(page, 'keys')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden()
  await page.keyboard.press('/')
  await page.keyboard.type('pa')
  await expect(page.getByRole('option').first()).toBeVisible()
  await isAccessibleInBothLights(page, 'search')
})

test('each page scrolls by itself, and the frame around it stays where it is', async ({ page }) => {
  await openDemo(page, 'needs', undefined, 'hive-scale')
  for (const stage of ['Needs', 'Chip', 'Pins', 'Power', 'Build']) {
    await page.getByRole('link', { name: new RegExp(`^${stage}`) }).click()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    if (stage === 'Power')
      await expect(page.getByRole('region', { name: 'Budget', exact: true })).toBeVisible()
    const over = () => page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)
    expect([stage, await over()]).toEqual([stage, 0])
  }
})

test('empty stages say what goes there; nothing is cut off at 768', async ({ page }) => {
  await page.setViewportSize({ width: 768, height: 900 })
  const made = (await (
    await page.request.post('/api/projects', {
      data: emptyProject('Empty'),
    })
  ).json()) as { id: string }
  for (const stage of ['needs', 'chip', 'pins', 'power', 'build']) {
    await page.goto(`/projects/${made.id}/${stage}`)
    await expect(page.locator('.table .empty').first()).toBeVisible()
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect([stage, overflow]).toEqual([stage, 0])
  }
})
