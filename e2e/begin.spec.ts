// Beginnings: a first board step by step, the start page with many projects, and how few keys lead to a useful answer.

import { expect } from '@playwright/test'
import { beginByKeys, emptyProject, isAccessible, saved } from './pages'
import { test } from './server'

test('a first board, step by step: each step says what to do, is seen to be done, and the way on is offered', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Build a first board step by step' }).click()
  const guide = page.getByRole('region', { name: 'Step by step' })
  await expect(guide).toContainText('Step 1 of 5')
  await expect(page.getByLabel('What does it have?')).toBeFocused()
  for (const typed of ['push button', 'green lamp']) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('What does it have?')).toHaveValue('')
  }
  await expect(guide).toContainText('Step 2 of 5')
  await guide.getByRole('link', { name: 'On to Chip' }).click()
  await page
    .getByRole('row', { name: /TD8-28 DIP/ })
    .getByRole('button', { name: /Choose/ })
    .click()
  await guide.getByRole('link', { name: 'On to Pins' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Pins of')
  await isAccessible(page, 'guide')
  await page
    .getByRole('button', { name: /Green LED/ })
    .first()
    .click()
  await page.getByRole('button', { name: /^Lock Green LED here/ }).click()
  await guide.getByRole('link', { name: 'On to Power' }).click()
  await page.locator('#power-source').selectOption({ label: 'three AA cells' })
  // Cells of 2.7 to 4.8 V are too little for the regulator of 5 V that came with the chip: said, with what helps.
  await expect(guide).toContainText('Something stops it now')
  await guide.getByRole('button', { name: 'What helps' }).click()
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await evidence.getByRole('button', { name: 'Feed the rail straight from three AA cells' }).click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(guide).not.toContainText('stops it now')
  await expect(guide).toContainText('Step 5 of 5')
  // It is kept over a reload, and the project is as any other.
  await saved(page)
  await page.reload()
  await guide.getByRole('link', { name: 'On to Build' }).click()
  await expect(guide).toContainText('Look through the parts and the steps')
  await guide.getByRole('button', { name: 'Looked through' }).click()
  await expect(guide).toContainText('That is a whole board')
  await page.reload()
  await expect(guide).toContainText('That is a whole board')
  await guide.getByRole('link', { name: 'The build sheet' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('A first board')
  await page.goBack()
  await guide.getByRole('button', { name: 'Close' }).click()
  await expect(guide).toBeHidden()
  await page.reload()
  await expect(page.locator('.table h1')).toBeVisible()
  await expect(guide).toBeHidden()
})

test('many projects: found by a word, renamed in place, put away and brought back another day', async ({
  page,
}) => {
  for (let n = 1; n <= 8; n++)
    await page.request.post('/api/projects', {
      data: { ...emptyProject(`Greenhouse ${n}`), chip: n === 8 ? { part: 'td8-08-dip' } : {} },
    })
  await page.goto('/')
  const own = page.getByRole('region', { name: 'Your projects' })
  await own.getByLabel('Find a project').fill('td8 greenhouse')
  await expect(own.getByRole('row')).toHaveCount(2)
  await own.getByRole('button', { name: 'Rename Greenhouse 8' }).click()
  await own.getByLabel('New name of Greenhouse 8').fill('Cold frame')
  await page.keyboard.press('Escape')
  await expect(own.getByRole('link', { name: 'Greenhouse 8' })).toBeVisible()
  await own.getByRole('button', { name: 'Rename Greenhouse 8' }).click()
  await own.getByLabel('New name of Greenhouse 8').fill('Cold frame')
  await page.keyboard.press('Enter')
  await own.getByLabel('Find a project').fill('')
  await expect(own.getByRole('link', { name: 'Cold frame' })).toBeVisible()
  await own.getByRole('button', { name: 'Put Cold frame away' }).click()
  await expect(own.getByRole('link', { name: 'Cold frame' })).toBeHidden()
  // The next Tab is in the list, and not at the top of the page.
  await page.keyboard.press('Tab')
  expect(await page.evaluate(() => document.activeElement?.closest('section')?.textContent)).toContain(
    'Greenhouse',
  )
  // Not by the message that passes, but from where it lies.
  await page.reload()
  await own.getByRole('button', { name: /^Put away: 1/ }).click()
  await isAccessible(page, 'start page')
  await own.getByRole('button', { name: 'Bring Cold frame back' }).click()
  await expect(own.getByRole('link', { name: 'Cold frame' })).toBeVisible()
  await expect(own.getByText('Put away:')).toBeHidden()
})

test('from the last device to a chip that fits with its pins planned: no more than twenty keys', async ({
  page,
}) => {
  await beginByKeys(page, 'Counter')
  for (const device of ['3 push buttons', '2 green lamps', 'servo', 'humidity two-wire']) {
    await page.keyboard.type(device)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('What does it have?')).toHaveValue('')
  }
  let keys = 0
  const press = async (key: string) => {
    keys++
    await page.keyboard.press(key)
  }
  await press('Escape')
  await press('2')
  await expect(page.getByText(/^All \d+ asked/)).toBeVisible()
  const here = () => page.evaluate(() => document.activeElement?.textContent ?? '')
  while (!/^Choose/.test(await here()) && keys < 40) await press('Tab')
  await press('Enter')
  await expect(
    page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Chip/ }),
  ).toContainText('settled')
  await press('3')
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
  expect(keys).toBeLessThanOrEqual(20)
})

test('the kit in every state: nothing that can’t be read or reached, by day, by lamp, and on a phone', async ({
  page,
}) => {
  await page.goto('/kit')
  await page.getByRole('button', { name: 'Lamp light' }).waitFor()
  for (const width of [1280, 390])
    for (const light of ['by day', 'by lamp']) {
      await page.setViewportSize({ width, height: 800 })
      await isAccessible(page, `kit ${light} ${width}`)
      // Nothing runs out at the side.
      const main = page.locator('main')
      expect(await main.evaluate((e) => e.scrollWidth - e.clientWidth)).toBeLessThanOrEqual(0)
      await page.getByRole('button', { name: /^(Lamp light|Daylight)$/ }).click()
    }
  await page.getByRole('button', { name: '2.55 mA' }).first().click()
  await expect(page.getByRole('dialog')).toContainText('V / R')
  await isAccessible(page, 'a working')
})
