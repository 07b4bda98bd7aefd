// Planning in the page: lock, swap, keep free, clash and its ways out, search, keys, another chip on cells.

import { openDemo, saved } from './pages'
import { expect, test } from './server'

test('lock, swap, keep free and plan afresh, with every step taken back by name', async ({ page }) => {
  await openDemo(page, 'pins')
  const signal = (name: RegExp) =>
    page.getByRole('navigation', { name: 'Signals' }).getByRole('button', { name })
  const leg = (name: RegExp) => page.getByRole('button', { name })
  await signal(/^Start/).click()
  await expect(signal(/^Start/)).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('l')
  await expect(signal(/Start.*locked/)).toBeVisible()
  await leg(/^leg 26, PC7, Safe light/).click()
  await page.getByRole('button', { name: 'Swap with Safe light' }).click()
  await expect(leg(/^leg 26, PC7, Start/)).toBeVisible()
  await expect(leg(/^leg 2, PA1, Safe light/)).toBeVisible()
  await leg(/^leg 16, PB7/).click()
  await page.getByRole('button', { name: 'Keep this leg free' }).click()
  await expect(leg(/^leg 16, PB7, kept free/)).toBeVisible()
  for (const step of ['Keep PB7 free', 'Swap Start and Safe light', 'Lock Start on PA1'])
    await page.getByRole('button', { name: `Undo: ${step}` }).click()
  await expect(leg(/^leg 16, PB7, Dial A/)).toBeVisible()
  await page.getByRole('button', { name: 'Redo: Lock Start on PA1' }).click()
  await expect(signal(/Start.*locked/)).toBeVisible()
})

test('a key pressed right after a choice acts on that choice, every time', async ({ page }) => {
  await openDemo(page, 'pins')
  const signals = page.getByRole('navigation', { name: 'Signals' })
  for (let n = 0; n < 24; n++) {
    const [name, pin] = n % 2 ? (['Start', 'PB4'] as const) : (['Safe light', 'PB5'] as const)
    // Nothing is waited for between the keys.
    await signals.getByRole('button', { name: new RegExp(`^${name}`) }).focus()
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: new RegExp(`^leg 1[34], ${pin}`) }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.press('m')
    await expect(page.getByRole('button', { name: `Undo: Move ${name} to ${pin}` })).toBeVisible()
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Escape')
  }
})

test('a signal moved where it can’t work stays there, is explained, and is moved by the fix', async ({
  page,
}) => {
  await openDemo(page, 'pins?signal=d8.1.level&leg=PC0')
  await expect(page.getByText('Paper light can’t be here: it has no analog input.')).toBeVisible()
  await page.getByRole('button', { name: 'Move Paper light here all the same' }).click()
  await expect(page.getByRole('button', { name: /leg 17, PC0, Paper light/ })).toBeVisible()
  await page.locator('#table').focus()
  await page.keyboard.press('n')
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await expect(evidence).toContainText('Paper light is locked on leg 17 (PC0)')
  await expect(evidence).toContainText('Verdict: impossible')
  // At once, while what may help is still being tried.
  await page.keyboard.press('a')
  await expect(evidence.getByRole('button', { name: 'Do it' })).toBeVisible()
  await page.keyboard.press('a')
  await expect(page.getByRole('button', { name: /leg 1, PA0, Paper light/ })).toBeVisible()
  await expect(evidence).toContainText('Nothing speaks against this project')
})

test('more than the chip can serve: the smallest clash, and a bigger package clears it', async ({ page }) => {
  await openDemo(page, 'needs')
  await page.getByLabel('Count of Paper light').fill('7')
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Pins/ }).click()
  await evidence.getByRole('button', { name: /TD8-28 DIP can’t serve everything/ }).click()
  await expect(evidence).toContainText('Without any one of these the others would fit')
  await evidence.getByRole('button', { name: 'Choose TD8-40 DIP' }).click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(page.getByRole('heading', { name: 'Pins of TD8-40 DIP' })).toBeVisible()
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
})

test('one box finds a leg by any name, a part, a net, a need, a stage and something to do', async ({
  page,
}) => {
  await openDemo(page, 'needs')
  const find = async (text: string, option: RegExp) => {
    await page.keyboard.press('Escape')
    await page.locator('#table').focus()
    await page.keyboard.press('/')
    await page.keyboard.type(text)
    await page.getByRole('option', { name: option }).first().click()
  }
  await find('xin', /leg 9 · PB0/)
  await expect(page).toHaveURL(/pins\?leg=PB0/)
  await find('vplug', /VPLUG/)
  await expect(page).toHaveURL(/build\?view=wiring/)
  await find('flyback', /flyback diode of Buzzer/)
  await expect(page).toHaveURL(/build\?view=parts/)
  await find('dial', /^Need\s*Dial\s*$/)
  await expect(page.getByLabel('Name of Dial')).toBeFocused()
  await find('stance lean', /Stance: lean/)
  await expect(page.getByLabel('Stance')).toHaveValue('lean')
  await find('undo', /Undo: Build lean/)
  await expect(page.getByLabel('Stance')).toHaveValue('by-the-book')
})

test('what is typed before the search field has been loaded is not lost', async ({ page }) => {
  await page.route(/\/SearchField-[^/]*\.js$/, async (route) => {
    await new Promise((go) => setTimeout(go, 800))
    await route.continue()
  })
  await openDemo(page, 'needs')
  await page.locator('#table').focus()
  await page.keyboard.press('/')
  await page.keyboard.type('xin')
  await expect(page.getByRole('option', { name: /leg 9 · PB0/ })).toBeVisible()
  await page.keyboard.type(' pb0')
  await expect(page.getByRole('combobox', { name: /^Find a leg/ })).toHaveValue('xin pb0')
})

test('the 32-bit chip on three cells with a low-drop regulator: selected functions, runtime, debug header', async ({
  page,
}) => {
  await openDemo(page, 'chip', (d) => {
    d.needs = {
      devices: [
        { id: 'd1', part: 'temperature-two-wire', name: 'Air', count: 2 },
        { id: 'd2', part: 'card-reader', name: 'Card', count: 1 },
      ],
      limits: { ambient: 25 },
    }
    d.chip = { part: 'qm32-32' }
    d.power = { source: 'cells-3-aa', regulator: 'bl33-tiny' }
  })
  await expect(page.getByRole('row', { name: /QM32-32.*fits/ })).toBeVisible()
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  // 2.7 V of empty cells can't hold 3.3 V: the drop-out is a finding with its sum
  await expect(evidence).toContainText(/At its lowest the source leaves BL33 tiny 3.3 V short by \d/)
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Pins/ }).click()
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
  await page
    .getByRole('navigation', { name: 'Signals' })
    .getByRole('button', { name: /I2C SDA/ })
    .click()
  await expect(page.getByRole('region', { name: /^leg / })).toContainText(/function \d/)
  await expect(page.getByRole('contentinfo', { name: 'Gauges' })).toContainText(/Runtime\s*[\d.]+ (h|days)/)
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Build/ }).click()
  await expect(page.getByRole('row', { name: /programming header.*two-wire debug header/ })).toBeVisible()
  await saved(page)
})

test('lamp light is remembered', async ({ page }) => {
  await openDemo(page, 'needs')
  await page.getByRole('button', { name: 'Lamp light' }).click()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Daylight' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.dataset.mode)).toBe('dark')
})
