// Choosing what carries a project: chips, modules and boards against it, side by side, a board taken apart; and the
// sample projects that live on a radio module and on eight legs.

import { expect, test } from './server'
import { downloadText, isAccessible, openDemo, rowsOf } from './pages'

test('every carrier is solved, filtered, compared; a board is taken apart and left for its bare chip', async ({
  page,
}) => {
  await openDemo(page, 'chip')
  await expect(page.getByRole('status').filter({ hasText: /All 26 asked/ })).toBeVisible()
  const row = (name: string) =>
    page.getByRole('row').filter({ has: page.getByLabel(`Compare ${name}`, { exact: true }) })
  await expect(row('TD8-08 DIP')).toContainText('only 5 legs can serve them')
  // € 0.95, by its file; nothing in the library costs less.
  await page.getByRole('button', { name: 'Price', exact: true }).click()
  await expect(page.getByRole('table', { name: 'Candidates' }).getByRole('row').nth(1)).toContainText(
    'TD8-08 DIP',
  )
  await page.getByLabel('what fits').check()
  await expect(row('TD8-08 DIP')).toHaveCount(0)
  await page.getByLabel('Kind').selectOption('boards')
  await expect(row('TD8-28 DIP')).toHaveCount(0)
  for (const name of ['Trestle plain', 'Trestle 32', 'Trestle radio'])
    await page.getByLabel(`Compare ${name}`, { exact: true }).check()
  const compared = page.getByRole('region', { name: 'Trestle plain, Trestle 32 and Trestle radio' })
  await expect(compared.getByRole('row', { name: /Recommended current of a leg/ })).toContainText(
    '20 mA ▲ best here6 mA12 mA',
  )

  await page.getByRole('button', { name: 'What if Trestle plain?' }).click()
  await expect(page.getByRole('group', { name: /What “Choose Trestle plain” would change/ })).toContainText(
    'removes the',
  )
  await page.getByRole('button', { name: 'Do it' }).click()
  const anatomy = page.getByRole('region', { name: 'What Trestle plain is made of' })
  await expect(anatomy.getByRole('row', { name: /serial bridge/ })).toContainText('leave it out')
  await isAccessible(page, 'chip page with comparison and anatomy')
  await page.keyboard.press('Escape')
  await page.locator('#table').focus()
  await page.keyboard.press('3')
  await expect(page.getByRole('heading', { name: 'Pins of Trestle plain' })).toBeVisible()
  const legOf = async () =>
    (
      await page
        .getByRole('button', { name: /^Paper light/ })
        .first()
        .textContent()
    )?.match(/PA\d/)?.[0]
  const onBoard = await legOf()
  await page.locator('#table').focus()
  await page.keyboard.press('2')
  await anatomy.getByRole('button', { name: /Make it standalone/ }).click()
  await page.getByRole('button', { name: 'Do it' }).click()
  await expect(page.getByRole('button', { name: /Undo: Build around the bare TD8-28/ })).toBeVisible()
  await page.locator('#table').focus()
  await page.keyboard.press('3')
  await expect(page.getByRole('heading', { name: 'Pins of TD8-28' })).toBeVisible()
  expect(await legOf()).toBe(onBoard)
})

for (const [name, wires] of [
  ['hive-scale', [/scale.dat/i, /cells/i, /i2c.sda/i]],
  ['window-lantern', [/lantern/i, /touch/i, /dusk/i]],
  ['signal-cabin', [/T2 PA6/, /crane.k1/i, /track.3/i, /go.lamp/i]],
] as const)
  test(`${name}: through Needs, Chip and Pins to the wiring table`, async ({ page }) => {
    await openDemo(page, 'needs', undefined, name)
    await expect(page.getByRole('heading', { name: 'Needs', level: 1 })).toBeVisible()
    await page.locator('#table').focus()
    await page.keyboard.press('2')
    await expect(page.locator('tr[aria-current="true"]')).toContainText('fits')
    await page.locator('#table').focus()
    await page.keyboard.press('3')
    await expect(page.getByText('Every signal has a leg')).toBeVisible()
    await page.locator('#table').focus()
    await page.keyboard.press('5')
    const table = await downloadText(page, 'Wiring table, CSV')
    for (const wire of wires)
      expect(rowsOf(table).some((cells) => cells.some((c) => wire.test(c)))).toBe(true)
  })

test('the hive scale keeps its cells off the converter that the radio stops; next best plans say what they cost', async ({
  page,
}) => {
  await openDemo(
    page,
    'pins',
    (d) => ((d.pins as { locks: Record<string, string> }).locks = { 'd4.1.TAP': 'P12' }),
    'hive-scale',
  )
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await expect(evidence).toContainText('The program must pause the radio while it reads Cells.')
  await evidence.getByText('The program must pause the radio').click()
  await evidence.getByRole('button', { name: /^Move Cells to P/ }).click()
  await page.getByRole('button', { name: 'Do it' }).click()
  await expect(evidence).not.toContainText('must pause the radio')
  await expect(page.getByLabel('Wirings the plan chose')).toContainText('Display is wired by two-wire bus')
  await page.getByRole('button', { name: 'Next best plans' }).click()
  await expect(page.getByRole('region', { name: 'Next best plans' }).getByRole('row').nth(1)).toContainText(
    /points more|as good/,
  )
})

test('the head of a long table stays in sight; it is sorted and narrowed', async ({ page }) => {
  await openDemo(page, 'build?view=wiring')
  const table = page.getByRole('table', { name: 'Wiring table' })
  const head = table.getByRole('columnheader', { name: 'Net' })
  const place = async () => Math.round((await head.boundingBox())!.y)
  const before = await place()
  await page.locator('.table').evaluate((e) => e.scrollTo(0, 600))
  // Right under the bar at the top, which is 46 high: no row is seen between them.
  expect(await place()).toBeLessThan(before)
  expect(Math.abs((await place()) - 46)).toBeLessThanOrEqual(1)
  await head.getByRole('button').click({ trial: true })
  await page.locator('.table').evaluate((e) => e.scrollTo(0, 0))
  await page.getByLabel('Find in Wiring table').fill('crystal xin')
  await expect(page.getByRole('status').filter({ hasText: ' of ' })).toHaveText(/^\d of \d+$/)
  for (const row of (await table.getByRole('row').allTextContents()).slice(1))
    expect(row.toLowerCase()).toMatch(/crystal/)
  await page.getByRole('button', { name: 'Columns' }).click()
  await isAccessible(page, 'columns to choose')
  await page.getByRole('menuitemcheckbox', { name: 'To' }).click()
  await page.keyboard.press('Escape')
  await expect(table.getByRole('columnheader', { name: 'To' })).toBeHidden()
})
