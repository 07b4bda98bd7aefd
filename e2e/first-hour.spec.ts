// The first hour: a new project by keyboard alone, a device that no library has, evidence that folds and opens by itself,
// and the same on a phone.

import { expect } from '@playwright/test'
import { beginByKeys, emptyProject, isAccessible, openDemo, saved } from './pages'
import { test } from './server'

test('a new project puts the cursor where one types; a pump that nobody knows is sketched in a line', async ({
  page,
}) => {
  await beginByKeys(page, 'Plant waterer')
  await page.keyboard.type('2 pumps: motor 12 V 0.4 A blue')
  await expect(page.getByText('nothing like that in the library')).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Sketch it' })).toBeFocused()
  await page.keyboard.press('Enter')
  const form = page.getByRole('dialog', { name: 'Sketch a device' })
  await expect(form.getByLabel('Name')).toBeFocused()
  await expect(form.getByLabel('Name')).toHaveValue('Pump')
  await expect(form).toContainText('Not understood of what was typed: blue.')
  // By hand: five times 0.4 A.
  await expect(form).toContainText('starting or stalled it takes 2 A')
  await isAccessible(page, 'sketch')
  // What can’t be read is said beside it, and nothing is added.
  await form.getByLabel('Supply').fill('400 V')
  await page.keyboard.press('Enter')
  await expect(
    form.getByRole('alert').filter({ hasText: 'More than 60 V is not for this board' }),
  ).toBeVisible()
  await form.getByLabel('Supply').fill('6 V')
  await page.keyboard.press('Enter')
  await expect(form).toBeHidden()
  const row = page.getByRole('row').filter({ has: page.getByLabel('Name of Pump') })
  await expect(row.getByLabel('Count of Pump')).toHaveValue('2')
  // Two stalled at once: 4 A.
  await expect(row.getByRole('button', { name: /4\sA/ })).toBeVisible()
  await saved(page)
  await page.reload()
  await row.getByRole('link', { name: 'much of it assumed' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Pump')
  await expect(page.locator('main')).toContainText('5.4')
})

test('the evidence folds while it has nothing to say, opens by itself for what is new, and as the builder says', async ({
  page,
}) => {
  await openDemo(page, 'needs')
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  const width = async () => (await evidence.boundingBox())!.width
  expect(await width()).toBeLessThan(40)
  await page.keyboard.press('e')
  await expect(evidence).toContainText('What will go wrong appears here')
  await page.keyboard.press('e')
  await expect.poll(width).toBeLessThan(40)
  await page.getByLabel('Air around it, at its warmest').fill('60')
  await page.keyboard.press('Enter')
  await expect(evidence.getByText(/BL5 cool 5 V reaches/)).toBeVisible()
  await page.locator('h1').click()
  await page.keyboard.press('e')
  await expect.poll(width).toBeLessThan(40)
  // The mark and how many stay in sight.
  await expect(evidence.getByTitle('1: stops the work')).toBeVisible()
  await page.keyboard.press('ControlOrMeta+z')
  await expect(evidence).toContainText('Nothing speaks against this project')
})

test('in the drawing of a chip nothing lies over its neighbour: each leg’s words are in its own row', async ({
  page,
}) => {
  await openDemo(page, 'pins')
  const legs = page.locator('.leg')
  expect(await legs.count()).toBe(28)
  const astray = await legs.evaluateAll((all) =>
    all.flatMap((leg) => {
      const row = leg.getBoundingClientRect()
      return [...leg.querySelectorAll('span')]
        .map((e) => [e.textContent, e.getBoundingClientRect()] as const)
        .filter(([text, box]) => text && (box.top < row.top - 2 || box.bottom > row.bottom + 2))
        .map(([text]) => text)
    }),
  )
  expect(astray).toEqual([])
  // One under the other, at one distance: the left side of a DIP has legs 1 to 14 from the top.
  const tops = await legs.evaluateAll((all) =>
    all.map((e) => Math.round(e.getBoundingClientRect().top)).sort((a, b) => a - b),
  )
  expect(new Set(tops).size).toBe(14)
})

test('a sample is copied and left as it is', async ({ page }) => {
  await page.goto('/')
  const samples = page.getByRole('region', { name: 'Samples' })
  await expect(samples).toContainText('Counts the enlarger lamp down')
  await samples.getByRole('button', { name: 'Copy Darkroom timer' }).click()
  await expect(page.getByLabel('Project name')).toHaveValue('Darkroom timer, a copy')
  await page.goto('/')
  await expect(
    page.getByRole('region', { name: 'Your projects' }).getByRole('link', { name: 'Darkroom timer, a copy' }),
  ).toBeVisible()
  await expect(samples.getByRole('link', { name: 'Darkroom timer', exact: true })).toBeVisible()
})

test('on a phone every stage can be reached and nothing runs out at the side', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await openDemo(page, 'needs')
  for (const stage of ['Needs', 'Chip', 'Pins', 'Power', 'Build']) {
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect([stage, overflow]).toEqual([stage, 0])
    // Nor does the page itself move sideways; what is wide scrolls in its own place.
    const sideways = await page.locator('.table').evaluate((e) => [e.clientWidth, e.scrollWidth])
    expect([stage, ...sideways]).toEqual([stage, 390, 390])
  }
  const made = (await (await page.request.post('/api/projects', { data: emptyProject('Small') })).json()) as {
    id: string
  }
  await page.goto(`/projects/${made.id}/needs`)
  await page.getByLabel('What does it have?').fill('3 buttons, 1 buzzer')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByLabel(/^Name of/)).toHaveCount(2)
  // All of a device is within reach of a thumb: its name, its count, its end.
  for (const name of [/^Name of Push button/, /^Count of Push button/, /^Remove Push button/]) {
    const box = (await page.getByLabel(name).boundingBox())!
    expect([String(name), box.x >= 0 && box.x + box.width <= 390]).toEqual([String(name), true])
  }
})
