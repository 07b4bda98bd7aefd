// Beside the plan: a stack of boards and its links, other boards of the header, levels that are joined, every name of a
// leg. By mouse and by keyboard, with the page checked for access on the way.

import { expect, test } from './server'
import { downloadText, isAccessible, openDemo, rowsOf } from './pages'

const evidenceOf = (page: Parameters<typeof isAccessible>[0]) =>
  page.getByRole('complementary', { name: 'Evidence' })

test('an overlap in the signal cabin’s stack is told and cleared by the links of one board', async ({
  page,
}) => {
  await openDemo(
    page,
    'pins?view=stack',
    (d) => {
      const { devices } = d.needs as { devices: { id: string; wiring?: string }[] }
      devices.find((x) => x.id === 'd2')!.wiring = 'outer'
    },
    'signal-cabin',
  )
  await expect(page.getByRole('row', { name: /^T7 PA11/ })).toContainText('taken twice')
  await isAccessible(page, 'stack with an overlap')
  const evidence = evidenceOf(page)
  await evidence.getByText('Points and Crane both use T7 (PA11).').click()
  await expect(evidence).toContainText('One position can carry one line')
  await evidence.getByRole('button', { name: 'Set Crane: relays at R3 and R4' }).click()
  await page.getByRole('button', { name: 'Do it' }).click()
  await expect(page.getByRole('row', { name: /^T4 PA8/ })).toContainText('R3 K1')
  await expect(page.getByRole('row', { name: /^T7 PA11/ })).not.toContainText('taken twice')
  await expect(evidence).not.toContainText('both use T7')
})

test('the cabin on other boards: names side by side, and what is wrong there', async ({ page }) => {
  await openDemo(page, 'pins', undefined, 'signal-cabin')
  await expect(page.getByRole('heading', { name: 'Pins of Trestle 32, Trestle plain' })).toBeVisible()
  // The views are tabs that the arrow keys walk.
  await page.getByRole('tab', { name: 'Plan' }).focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: '2 of 14 names in the program change' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^I2C SDA/ })).toContainText('DA PB13 30')
  // Its eight-bit timer divides 16 MHz by 1024 at most: 61 Hz, where a servo wants 50.
  await expect(page.getByRole('region', { name: 'Findings on Trestle plain' })).toContainText(
    'Points S1: timer 0 can’t run at 50 Hz from a clock of 16 MHz',
  )
  await page.getByRole('checkbox', { name: /Trestle radio/ }).focus()
  await page.keyboard.press('Space')
  await expect(
    page.getByRole('heading', { name: 'Pins of Trestle 32, Trestle plain, Trestle radio' }),
  ).toBeVisible()
  await expect(page.getByRole('region', { name: 'Findings on Trestle radio' })).toContainText(
    /carries pulses before the program runs|pulls D\d\d/,
  )
  await isAccessible(page, 'other boards')
})

test('a 5 V display and a 5 V sensor on a 3.3 V module are joined, and the wiring table has the parts', async ({
  page,
}) => {
  await openDemo(page, 'pins?view=lines', (d) => {
    d.needs = {
      devices: [
        { id: 'd1', part: 'glow-display', name: 'Screen', count: 1, wiring: 'i2c', fedBy: 'source' },
        { id: 'd2', part: 'gas-sensor-5v', name: 'Gas', count: 1, fedBy: 'source' },
      ],
      limits: { ambient: 25 },
    }
    d.chip = { part: 'mw2-module' }
    d.power = { source: 'adapter-5v', regulator: 'bl33-low' }
  })
  const evidence = evidenceOf(page)
  for (const [finding, fix, row] of [
    [/I2C SDA and I2C SCL, Screen: up to/, /Fit into I2C SDA and I2C SCL: a MOSFET/, /^I2C SDA.*Screen/],
    [/Gas: up to 5 V reaches/, /Fit into Gas: a divider/, /^Gas/],
  ] as const) {
    await expect(page.getByRole('row', { name: row }).first()).toContainText('outside the sheet')
    await evidence.getByText(finding).click()
    await evidence.getByRole('button', { name: fix }).click()
    await page.getByRole('button', { name: 'Do it' }).click()
    await expect(page.getByRole('row', { name: row }).first()).toContainText('guaranteed')
  }
  // The other maker’s display doesn’t stand the 5 V.
  await expect(page.getByRole('region', { name: 'Other makers’ versions' })).toContainText(
    'Screen runs on 3 V to 3.6 V',
  )
  await page.getByLabel('I2C runs at').selectOption('400 kHz')
  await isAccessible(page, 'lines')
  await page.locator('#table').focus()
  await page.keyboard.press('5')
  const rows = rowsOf(await downloadText(page, 'Wiring table, CSV'))
  const nets = rows.map((r) => r[0])
  for (const net of ['I2C_SDA', 'I2C_SDA_FAR', 'I2C_SCL_FAR', 'GAS', 'GAS_FAR']) expect(nets).toContain(net)
})

test('any name of a leg, typed into the one box, finds its passport', async ({ page }) => {
  await openDemo(page, 'needs', undefined, 'signal-cabin')
  await page.locator('#table').focus()
  await page.keyboard.press('/')
  // What the servo board prints beside the header’s T2.
  await page.keyboard.type('P1')
  await page
    .getByRole('option', { name: /^Leg\s*T2/ })
    .first()
    .click()
  await expect(page).toHaveURL(/pins\?leg=PA6/)
  await page.getByRole('tab', { name: 'Passport' }).click()
  const passport = page.getByRole('article', { name: 'Passport of T2' })
  for (const text of ['leg 13', 'PB2', 'Points S1', 'Recommended, by the board'])
    await expect(passport).toContainText(text)
  await passport.locator('#passport-levels ~ ul button.num').first().click()
  await expect(page.getByRole('dialog')).toContainText('V_DD')
  await page.keyboard.press('Escape')
  await isAccessible(page, 'passport')
})
