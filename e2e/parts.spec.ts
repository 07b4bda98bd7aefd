// Parts of one's own: from a sheet's table to a planned chip by keyboard alone, a board's header, exchange files, whole
// libraries, the editor, and projects that keep what they were planned with.

import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import {
  beginByKeys,
  downloadText,
  emptyProject,
  isAccessible,
  isAccessibleInBothLights,
  openDemo,
  saved,
  tabTo,
} from './pages'
import { expect, test } from './server'

const fixture = (name: string) => readFileSync(new URL(`./fixtures/${name}`, import.meta.url), 'utf8')
const core = (name: string) => new URL(`../core/src/exchange/test/${name}`, import.meta.url).pathname

const answerAll = async (page: Page, answers: Record<string, string>) => {
  const question = page.getByRole('form', { name: 'Question' })
  while (await question.isVisible()) {
    const text = (await question.locator('b').textContent())!
    const known = Object.entries(answers).find(([q]) => text.includes(q))
    if (known) await question.getByRole('combobox').selectOption({ label: known[1] })
    await question.getByRole('button', { name: 'So it is' }).click()
    await expect(question.locator('b').getByText(text, { exact: true })).toBeHidden()
  }
}

/** From an empty project to a planned pin map of the chip by keyboard alone. */
const planByKeys = async (page: Page, project: string, chip: string, devices: string) => {
  await beginByKeys(page, project)
  await page.keyboard.type(devices)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /Undo: Add/ })).toBeVisible()
  await page.locator('#table').focus()
  await page.keyboard.press('2')
  await tabTo(page, /^Named/)
  await page.keyboard.type(chip)
  await tabTo(page, new RegExp(`^Choose ${chip}$`))
  await page.keyboard.press('Enter')
  await page.locator('#table').focus()
  await page.keyboard.press('3')
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
}

test('a 48-leg chip with a table of alternate functions, pasted, put in and planned by keyboard alone', async ({
  page,
}) => {
  await page.goto('/parts')
  await tabTo(page, /^Put in a part from its sheet$/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Its name$/)
  await page.keyboard.type('Bench 48')
  await tabTo(page, /^Its data sheet$/)
  await page.keyboard.type('Bench 48 data sheet, issue 1')
  await tabTo(page, /^Table of its legs$/)
  await page.keyboard.insertText(fixture('bench-48.csv'))
  await expect(page.getByText('48 legs, 43 names')).toBeVisible()
  await expect(page.getByText('A valid part')).toBeVisible()
  // Back to the question above the text: QX is asked, once, for all its legs.
  await expect(page.getByText('What is QX?')).toBeVisible()
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Shift+Tab')
  await expect(page.getByRole('form', { name: 'Question' }).getByRole('combobox')).toBeFocused()
  await page.keyboard.type('interr')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByText('What is QX?')).toBeHidden()
  await expect(page.getByText('QX.INT1').first()).toBeVisible()
  await tabTo(page, /^Put it in the library$/, 60)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Bench 48', level: 1 })).toBeVisible()
  await expect(page).toHaveURL(/parts\/bench-48/)

  await planByKeys(
    page,
    'On my own chip',
    'Bench 48',
    '2 push button, red led, temperature sensor two-wire, light-dependent resistor',
  )
  await expect(page.getByRole('complementary', { name: 'Evidence' })).toContainText(
    'rests on careful assumptions',
  )
  await saved(page)
})

for (const [from, file, name] of [
  ['a drawing', 'drawn-20.txt', 'Drawn 20'],
  ['a page of paragraphs', 'told-20.txt', 'Told 20'],
] as const)
  test(`from ${from} to a planned pin map by keyboard alone; a leg corrected by hand becomes a rule`, async ({
    page,
  }) => {
    await page.goto('/parts/from-sheet')
    await tabTo(page, /^Its name$/)
    await page.keyboard.type(name)
    await tabTo(page, /^Table of its legs$/)
    await page.keyboard.insertText(fixture(file))
    // Nine pairs of functions by the sheet: 4 AIN, 3 ZK, 2 of UART, INT and PWM, 3 of SPI, 2 of I2C and of the timer.
    await expect(page.getByText('20 legs, 20 names, 20 functions')).toBeVisible()
    // Leg 2 is no ZK: its row is written anew, and what was taken out may go everywhere.
    await tabTo(page, /^VDD$/)
    await page.keyboard.press('ArrowDown')
    await tabTo(page, /^Correct leg 2$/, 2)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused()
    await tabTo(page, /^Functions$/)
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type('AIN0')
    await page.keyboard.press('Enter')
    await expect(page.getByText('corrected by you')).toBeVisible()
    await expect(page.getByText('You took ZK out of a leg; it stands at 2 more.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Correct leg 2', exact: true })).toBeFocused()
    await isAccessible(page, 'a leg corrected')
    // The rule is offered above the table.
    await expect(async () => {
      await page.keyboard.press('Shift+Tab')
      await expect(page.getByRole('button', { name: 'Leave ZK out everywhere' })).toBeFocused({
        timeout: 300,
      })
    }).toPass()
    await page.keyboard.press('Enter')
    await expect(page.getByText('20 legs, 20 names, 17 functions')).toBeVisible()
    await tabTo(page, /^Put it in the library$/, 120)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible()

    await planByKeys(
      page,
      `On ${name}`,
      name,
      'push button, red led, temperature sensor two-wire, light-dependent resistor',
    )
    await saved(page)
  })

/** Says what sort of part a sheet is of, and what it is called. */
const beginPart = async (page: Page, sort: string, name: string) => {
  await page.goto('/parts/from-sheet')
  await tabTo(page, /^What is it\?$/)
  await page.keyboard.type(sort)
  await tabTo(page, /^Its name$/)
  await page.keyboard.type(name)
}
const pasteLegs = async (page: Page, text: string) => {
  await tabTo(page, /^Table of its legs$/)
  await page.keyboard.insertText(text)
}
/** From the view of the legs to that of the limits, and what is pasted there. */
const pasteLimits = async (page: Page, text: string) => {
  await tabTo(page, /^Legs$/)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await tabTo(page, /^Table of its limits$/)
  await page.keyboard.insertText(text)
}

test('a regulator from its legs and its characteristics, by keyboard alone; what they don’t say is typed', async ({
  page,
}) => {
  await beginPart(page, 'a reg', 'Kettle 3V3')
  await pasteLegs(page, 'Pin\tName\n1\tIN\n2\tGND\n3\tOUT')
  await expect(page.getByText('Still to be told: its output voltage. And 8 more.')).toBeVisible()
  // Linear it is: the guess is taken.
  await expect(page.getByText('How does it make its output?')).toBeVisible()
  await page.keyboard.press('Shift+Tab')
  await expect(page.getByRole('button', { name: 'So it is' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText('How does it make its output?')).toBeHidden()
  await pasteLimits(page, fixture('kettle-limits.txt'))
  // By hand from the sheet: everything but the capacitor at the input is in it.
  await expect(page.getByText('What is the capacitor at its input?')).toBeVisible()
  await expect(page.getByText('Still to be told: the capacitor at its input.')).toBeVisible()
  await isAccessible(page, 'a regulator’s characteristics')
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.type('1 µF')
  await page.keyboard.press('Enter')
  await expect(page.getByText('A valid part')).toBeVisible()
  await tabTo(page, /^Put it in the library$/, 60)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Kettle 3V3', level: 1 })).toBeVisible()
  // In a project its rail is what its sheet says.
  await openDemo(page, 'power', (design) =>
    Object.assign(design, { power: { source: 'usb-port', regulator: 'kettle-3v3' } }),
  )
  await expect(page.getByLabel('Regulator', { exact: true })).toHaveValue('kettle-3v3')
  await expect(page.getByText(/3\.25 … 3\.35\sV/).first()).toBeVisible()
})

test('a device from its terminals and its characteristics, by keyboard alone, added to a project', async ({
  page,
}) => {
  await beginPart(page, 'a dev', 'mist sensor')
  await tabTo(page, /^What sort of thing$/)
  await page.keyboard.type('sensor')
  await pasteLegs(page, '1 VDD\n2 SDA\n3 SCL\n4 GND\n5 ALERT')
  await pasteLimits(page, fixture('mist-limits.txt'))
  await expect(page.getByText('A valid part')).toBeVisible()
  await isAccessible(page, 'a device’s characteristics')
  await tabTo(page, /^Put it in the library$/, 60)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'mist sensor', level: 1 })).toBeVisible()
  await beginByKeys(page, 'In the mist')
  await page.keyboard.type('mist sensor')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /Undo: Add/ })).toBeVisible()
  await saved(page)
})

test('a board’s header, its positions joined with the chip’s legs by one answer', async ({ page }) => {
  await page.goto('/parts/from-sheet')
  await page.getByLabel('What is it?').selectOption('board')
  await page.getByLabel('Its name').fill('Bench stick')
  await page.getByLabel('Chip on it').selectOption('mw1-32')
  const library = (await (await page.request.get('/api/parts')).json()) as {
    id: string
    pins?: { id: string; type: string }[]
  }[]
  const numbers = library
    .find((p) => p.id === 'mw1-32')!
    .pins!.filter((p) => p.type === 'io')
    .map((p) => /\d+$/.exec(p.id)![0])
    .slice(0, 10)
  const table = [
    'Position\tPrinted\tPort',
    '1\t3V3\t3V3',
    '2\tGND\tGND',
    ...numbers.map((n, i) => `${i + 3}\tX${i}\tIO${n}`),
  ]
  await page.getByLabel('Table of its header').fill(table.join('\n'))
  await expect(page.getByText(/has no IO/)).toBeVisible()
  await answerAll(page, {})
  await expect(page.getByText('A valid part')).toBeVisible()
  await page.getByRole('button', { name: 'Put it in the library' }).click()
  await expect(page.getByRole('heading', { name: 'Bench stick', level: 1 })).toBeVisible()
  const design = { ...emptyProject('On the stick'), chip: { part: 'bench-stick' } }
  design.needs.devices = [{ id: 'd1', part: 'push-button', name: 'Start', count: 2 }] as never
  const made = (await (await page.request.post('/api/projects', { data: design })).json()) as { id: string }
  await page.goto(`/projects/${made.id}/pins`)
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
})

test('exchange files begin a part; a wrong one names its line; a paste survives a reload', async ({
  page,
}) => {
  await page.goto('/parts/from-sheet?view=exchange')
  await page.getByLabel('Its name').fill('Gauge')
  const input = page.getByLabel('Boundary-scan or IBIS file')
  await input.setInputFiles({
    name: 'wrong.ibs',
    mimeType: 'text/plain',
    buffer: Buffer.from('[IBIS Ver] 4.2\n[Pin] x\n'),
  })
  await expect(page.getByRole('alert')).toContainText('line 2')
  await input.setInputFiles(core('gauge-16.bsd'))
  await expect(page.getByRole('row', { name: /gauge-16.bsd/ })).toContainText('boundary scan')
  await input.setInputFiles(core('gauge.ibs'))
  await expect(page.getByRole('row', { name: /gauge.ibs/ })).toContainText('IBIS')
  await expect(page.getByText('A valid part')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('row', { name: /gauge.ibs/ })).toBeVisible()
  // Fifty thousand lines: read or refused, with a way to stop.
  const long = `[IBIS Ver] 4.2\n${'| nothing\n'.repeat(50_000)}[Component] Long\n[Pin] a b c\n1 PA0 NC\n[End]\n`
  const began = Date.now()
  await input.setInputFiles({ name: 'long.ibs', mimeType: 'text/plain', buffer: Buffer.from(long) })
  await expect(page.getByRole('row', { name: /long.ibs/ })).toBeVisible({ timeout: 5000 })
  expect(Date.now() - began).toBeLessThan(5000)
  await page
    .getByRole('row', { name: /long.ibs/ })
    .getByRole('button', { name: 'Leave it out' })
    .click()
  await input.setInputFiles(core('gauge.ibs'))
  await page.getByRole('tab', { name: 'The part' }).click()
  await expect(page.getByRole('heading', { name: 'What it can serve' })).toBeVisible()
  await page.getByRole('button', { name: 'Put it in the library' }).click()
  await expect(page.getByRole('heading', { name: 'Gauge', level: 1 })).toBeVisible()
})

const own = (id: string, name: string, price = 1) => ({
  format: 2,
  kind: 'led',
  id,
  name,
  sheet: 'bag',
  price,
  colour: 'red',
  forward: [{ current: '5 mA', voltage: 1.9 }],
  current: '20 mA',
  currentAbsolute: '30 mA',
})

test('two builders’ parts of one id: asked, and nothing is lost; an older format is read and said', async ({
  page,
}) => {
  await page.request.post('/api/parts', { data: own('bag-led', 'Mine') })
  await page.goto('/parts')
  await page.getByLabel('Part file or library file').setInputFiles({
    name: 'theirs.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({
        format: 1,
        parts: [own('bag-led', 'Theirs'), { ...own('older-led', 'Older'), format: 1 }],
      }),
    ),
  })
  const form = page.getByRole('form', { name: 'Parts of the same id' })
  await expect(form).toContainText('bag-led')
  await form.getByLabel('What to do with bag-led').selectOption('both')
  await form.getByRole('button', { name: 'Take it so' }).click()
  await expect(page.getByText(/1 in part format 1 was read as today’s/)).toBeVisible()
  const ids = (
    (await (await page.request.get('/api/parts/own')).json()) as { parts: { id: string }[] }
  ).parts.map((p) => p.id)
  expect(ids).toEqual(expect.arrayContaining(['bag-led', 'bag-led-2', 'older-led']))
  // What a spreadsheet would run as a formula is made harmless in the table’s own export.
  await page.request.post('/api/parts', { data: own('formula-led', '=1+1') })
  await page.reload()
  await page.getByLabel('Find').fill('formula-led')
  const csv = await downloadText(page, 'CSV file')
  expect(csv).toContain("'=1+1")
  await page.request.delete('/api/parts/formula-led')
  await page.reload()
  const file = await downloadText(page, 'as one file')
  expect((JSON.parse(file) as { parts: unknown[] }).parts.length).toBe(ids.length)
})

test('copied and changed with faults beside their fields; a project takes the change over by choice, never by itself', async ({
  page,
}) => {
  await page.goto('/parts/led-red')
  await page.getByRole('link', { name: 'Copy and change' }).click()
  await page.getByLabel('id *').fill('my-led')
  await page.getByLabel('name *', { exact: true }).fill('My LED')
  const absolute = page.getByRole('group', { name: /current, absolute maximum/ })
  await absolute.getByLabel('max (A)').fill('5 V')
  await expect(page.getByText(/fault/).first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled()
  await absolute.getByLabel('max (A)').fill('25 mA')
  await page.getByRole('button', { name: 'What differs' }).click()
  await expect(page.getByRole('region', { name: 'Difference to the original' })).toContainText(
    'current, absolute maximum',
  )
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('heading', { name: 'My LED', level: 1 })).toBeVisible()

  const lamp = ((await (await page.request.get('/api/parts')).json()) as { id: string }[]).find(
    (p) => p.id === 'lamp-red',
  )!
  const copy = JSON.parse(JSON.stringify(lamp).replaceAll('"led-red"', '"my-led"')) as Record<string, unknown>
  await page.request.post('/api/parts', { data: { ...copy, id: 'my-lamp', name: 'My lamp' } })
  const design = { ...emptyProject('With my lamp'), chip: { part: 'td8-28-dip' } }
  design.needs.devices = [{ id: 'd1', part: 'my-lamp', name: 'Lamp', count: 1 }] as never
  const made = (await (await page.request.post('/api/projects', { data: design })).json()) as { id: string }

  await page.goto('/parts/my-led/edit')
  await page.getByLabel('price, € *').fill('0.33')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('heading', { name: 'My LED', level: 1 })).toBeVisible()
  await page.goto(`/projects/${made.id}/needs`)
  const notice = page.getByRole('region', { name: 'Parts that changed in the library' })
  await expect(notice).toContainText('something else now of My LED')
  await notice.getByRole('button', { name: 'See what differs' }).click()
  await expect(notice).toContainText('price')
  await isAccessible(page, 'changed parts')
  await notice.getByRole('button', { name: 'Take the new facts over' }).click()
  await notice.getByRole('button', { name: 'Do it' }).click()
  await expect(notice).toBeHidden()
  await expect(page.getByRole('button', { name: /Undo: Take/ })).toBeVisible()
  await saved(page)

  // Put away, with who uses it said; the project goes on, and can put it back.
  await page.goto('/parts/my-led')
  await page.getByRole('button', { name: 'Put away' }).click()
  await expect(page.getByRole('alertdialog')).toContainText('With my lamp')
  await page.getByRole('button', { name: 'Put it away' }).click()
  await expect(page).toHaveURL(/\/parts$/)
  await page.goto(`/projects/${made.id}/pins`)
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
  await expect(notice).toContainText('has My LED no more')
  await notice.getByRole('button', { name: 'See what differs' }).click()
  await notice.getByRole('button', { name: /Put it back into the library/ }).click()
  await expect(notice).toBeHidden()
})

test('axe finds nothing serious on the library’s pages, by day and by lamp', async ({ page }) => {
  test.setTimeout(360_000)
  await page.emulateMedia({ colorScheme: 'light' })
  await page.goto('/parts')
  await expect(page.getByRole('link', { name: 'Trestle 32' })).toBeVisible()
  await isAccessibleInBothLights(page, 'parts')
  for (const view of ['facts', 'legs', 'complete', 'uses', 'compare']) {
    await page.goto(`/parts/qm32-48?view=${view}`)
    await expect(page.getByRole('tabpanel').or(page.locator('.part-view')).first()).toBeVisible()
    await isAccessibleInBothLights(page, `part, ${view}`)
  }
  await page.goto('/parts/qm32-48/edit?copy=1')
  await expect(page.getByLabel('id *').first()).toBeVisible()
  await isAccessibleInBothLights(page, 'editor')
  await page.goto('/parts/from-sheet')
  await page.getByLabel('Table of its legs').fill(fixture('bench-48.csv'))
  await expect(page.getByText('48 legs, 43 names')).toBeVisible()
  await isAccessibleInBothLights(page, 'paste')
  await page.getByRole('button', { name: 'Show what was understood of it' }).click()
  await page.getByRole('button', { name: 'PA3', exact: true }).click()
  await expect(page.locator('.source-text mark').first()).toBeVisible()
  await isAccessibleInBothLights(page, 'paste, linked')
  await page.getByRole('tab', { name: 'The part' }).click()
  await isAccessibleInBothLights(page, 'paste, part')
})
