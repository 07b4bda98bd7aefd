// The darkroom timer from a list of needs to a wiring table: the sample by mouse, and the same typed in by keyboard alone.

import { readFileSync } from 'node:fs'
import {
  beginByKeys,
  downloadText,
  isAccessible,
  openDemo,
  opensWorking,
  pickByKeys,
  rowsOf,
  saved,
  tabTo,
} from './pages'
import { expect, test } from './server'

const wiring = JSON.parse(
  readFileSync(new URL('./fixtures/darkroom-wiring.json', import.meta.url), 'utf8'),
) as Record<string, string[]>
delete wiring.about

/** Every wire of the exported table, as net, start and end, against the hand-written nets. */
const expectWiring = (csv: string) => {
  // The terminal “-” would start a formula in a spreadsheet: it is neutralised.
  expect(csv).toContain("'-")
  const ref = (cell: string) => cell.split(' ')[0]
  const plain = (terminal: string) => terminal.replace(/^'/, '')
  const rows = rowsOf(csv)
  expect(rows[0]).toEqual(['net', 'from', 'from terminal', 'to', 'to terminal'])
  const got = rows
    .slice(1)
    .map(([net, from, a, to, b]) => `${net}: ${ref(from!)} ${plain(a!)} > ${ref(to!)} ${plain(b!)}`)
  const wanted = Object.entries(wiring).flatMap(([net, [start, ...ends]]) =>
    ends.map((end) => `${net}: ${start} > ${end}`),
  )
  expect(got.sort()).toEqual(wanted.sort())
}

test('the sample, stage by stage, to its exports', async ({ page }) => {
  await page.goto('/')
  // Others are testing on projects of this name at the same time.
  await page.getByRole('region', { name: 'Samples' }).getByRole('link', { name: 'Darkroom timer' }).click()
  await expect(page.getByRole('heading', { name: 'Needs', level: 1 })).toBeVisible()
  await expect(
    page.getByRole('row', { name: /inputs 5 Dial A, Dial B, Dial SW, Start, Focus/ }),
  ).toBeVisible()
  await opensWorking(page, '.sum', /I_1/)
  const root = page.getByRole('navigation', { name: 'Stages' })

  await root.getByRole('link', { name: /Chip/ }).click()
  await expect(page.getByRole('row', { name: /TD8-28 DIP.*fits/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /TD8-08 DIP.*only 5 legs can serve them/ })).toBeVisible()
  await page.getByLabel('Compare TD8-28 DIP').check()
  await page.getByLabel('Compare TD8-40 DIP').check()
  await expect(page.getByRole('rowheader', { name: 'Program memory' })).toBeVisible()
  await opensWorking(page, '.clock-part', /f/)

  await root.getByRole('link', { name: /Pins/ }).click()
  await page
    .getByRole('navigation', { name: 'Signals' })
    .getByRole('button', { name: /Safe light/ })
    .click()
  await expect(page.getByRole('button', { name: /leg 22, PC5, free, costs \d+ more/ })).toBeVisible()
  await expect(
    page.getByRole('button', { name: /leg 7, AVCC.*can’t serve Safe light: it is a supply leg/ }),
  ).toBeVisible()
  await opensWorking(page, '.leg-panel', /V_DD/)
  await page.getByRole('button', { name: /leg 19, PC2/ }).click()
  await page.getByRole('button', { name: /Move Safe light here/ }).click()
  await expect(page.getByRole('button', { name: /leg 19, PC2, Safe light/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /Undo: Move Safe light to PC2/ })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /leg 26, PC7, Safe light/ })).toBeVisible()

  await root.getByRole('link', { name: /Power/ }).click()
  await expect(page.getByRole('row', { name: /BR5 plain 5 V.*its junction reaches/ })).toBeVisible()
  await opensWorking(page, '.path', /I_rail/)

  await root.getByRole('link', { name: /Build/ }).click()
  await opensWorking(page, '.support', /V_in|C_sheet/)
  await page.getByRole('tab', { name: 'Steps and checks' }).click()
  // Where the adapter is plugged in, and where the relay is wired.
  await expect(page.getByText('Let a licensed electrician wire the mains side')).toHaveCount(2)
  await expect(
    page.getByRole('row', { name: /leg 7 \(AVCC\) against GND, before the chip goes in on 4.9 V to 5.1 V/ }),
  ).toBeVisible()
  await page.getByRole('tab', { name: 'Wiring table' }).click()
  expectWiring(await downloadText(page, 'Wiring table, CSV'))
  const parts = rowsOf(await downloadText(page, 'Parts list, CSV'))
  expect(parts.find((r) => r[1] === 'film resistor' && r[2] === '10k')?.[0]).toBe('7')
  expect(await downloadText(page, 'pins.h')).toContain('#define I2C_SDA_PIN 4')
  expect(JSON.parse(await downloadText(page, 'Project file'))).toMatchObject({
    format: 1,
    name: 'Darkroom timer',
  })
})

test('from an empty project by keyboard alone, to the same wiring table', async ({ page }) => {
  await beginByKeys(page, 'Typed timer')
  await page.keyboard.type(
    '4-digit display two-wire, rotary encoder, 1 push button, button push, magnetic buzzer, relay module, red led, light-dependent resistor',
  )
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /Undo: Add/ })).toBeVisible()
  for (const [from, to] of [
    ['4-digit display, two-wire', 'Display'],
    ['Rotary encoder with push', 'Dial'],
    ['Push button', 'Start'],
    ['Push button 2', 'Focus'],
    ['Magnetic buzzer', 'Buzzer'],
    ['Relay module', 'Lamp relay'],
    ['Red LED', 'Safe light'],
    ['Light-dependent resistor', 'Paper light'],
  ] as const) {
    await tabTo(page, new RegExp(`^Name of ${from}$`))
    await page.keyboard.press('Control+a')
    await page.keyboard.type(to)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel(`Name of ${to}`)).toBeVisible()
  }
  await tabTo(page, /Fed from/)
  await pickByKeys(page, 'Fed from', /^adapter-12v$/)
  // Past the warmest air and the coldest.
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.type('300m')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Current budget from the source')).toHaveValue('300 mA')
  await page.keyboard.press('Tab')
  await page.keyboard.press('t')
  await page.keyboard.press('Escape')

  // by search to the chip, the clock and the regulator
  await page.locator('#table').focus()
  await page.keyboard.press('2')
  await expect(page.getByRole('heading', { name: 'Chip', level: 1 })).toBeVisible()
  await tabTo(page, /^Named/)
  await page.keyboard.type('TD8-28 DIP')
  await tabTo(page, /^Choose TD8-28 DIP$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'To its clock' })).toBeFocused()
  await page.keyboard.press('Enter')
  await pickByKeys(page, 'Runs from', /crystal 8000000/)
  await page.keyboard.press('Tab')
  await page.keyboard.press('4')
  await expect(page.getByRole('heading', { name: 'Power', level: 1 })).toBeVisible()
  await tabTo(page, /^Regulator$/)
  await pickByKeys(page, 'Regulator', /^bl5-cool$/)
  // The way is drawn anew for it: what stands beside it comes and goes until then.
  const path = page.getByRole('region', { name: 'From plug to load' })
  await expect(path.getByText(/of 1\.5 A,/)).toBeVisible()
  await expect(path).toHaveAttribute('aria-busy', 'false')
  await page.keyboard.press('Tab')

  // pins: choose a signal, walk to a leg, move it there, take it back
  await page.keyboard.press('3')
  await expect(page.getByText('Every signal has a leg')).toBeVisible()
  await tabTo(page, /I2C SDA/)
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/signal=d7/)
  await tabTo(page, /^leg 1, PA0/)
  await page.keyboard.press('End')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/leg=PB4/)
  await page.keyboard.press('m')
  await expect(page.getByRole('button', { name: /leg 13, PB4, Safe light/ })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /leg 26, PC7, Safe light/ })).toBeVisible()
  await page.keyboard.press('Escape')

  await page.keyboard.press('/')
  await page.keyboard.type('vcc')
  await expect(page.getByRole('option', { name: /leg 24/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('5')
  await expect(page.getByRole('heading', { name: 'Build', level: 1 })).toBeVisible()
  await tabTo(page, /Wiring table, CSV/)
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')])
  expectWiring(readFileSync(await download.path(), 'utf8'))
  await saved(page)
})

test('the build sheet prints to PDF without the program around it', async ({ page }) => {
  await openDemo(page, 'build')
  await page.getByRole('link', { name: 'Build sheet to print' }).click()
  await expect(page.getByRole('heading', { name: 'Steps' })).toBeVisible()
  await isAccessible(page, 'sheet')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  const pdf = await page.pdf({ format: 'A4' })
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  const sheets = pdf.toString('latin1').match(/\/Type\s*\/Page\b(?!s)/g)?.length ?? 0
  expect(sheets).toBeGreaterThanOrEqual(3)
  expect(sheets).toBeLessThanOrEqual(12)
})

test('cards: printed, and taken along as pictures that stand alone', async ({ page }) => {
  await openDemo(page, 'build', () => undefined, 'signal-cabin')
  await page.getByRole('link', { name: 'Cards' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Signal cabin: cards')
  for (const title of ['Trestle 32, header by header', 'From plug to load', 'The stack on Trestle 32']) {
    const card = page.getByRole('region', { name: title })
    const take = async (kind: string) => {
      const [download] = await Promise.all([
        page.waitForEvent('download'),
        card.getByRole('button', { name: kind, exact: true }).click(),
      ])
      expect(download.suggestedFilename()).toMatch(
        new RegExp(`^signal-cabin-(legs|power|stack)\\.${kind.toLowerCase()}$`),
      )
      return readFileSync(await download.path())
    }
    const svg = (await take('SVG')).toString('utf8')
    const size = /width="([\d.]+)" height="([\d.]+)"/.exec(svg)!.slice(1).map(Number)
    // Opened by itself it is a picture of that size, and shows what the card shows.
    const alone = await page.context().newPage()
    await alone.goto(`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`)
    expect(await alone.locator('svg').getAttribute('viewBox')).toBe(`0 0 ${size.join(' ')}`)
    expect(await alone.locator('parsererror').count()).toBe(0)
    expect(await alone.locator('svg').textContent()).toContain(
      title === 'From plug to load' ? 'BL33' : 'Track 1',
    )
    await alone.close()
    // A PNG says its width and height at bytes 16 to 23: three dots for each unit.
    const png = await take('PNG')
    expect(png.subarray(1, 4).toString()).toBe('PNG')
    expect(png.length).toBeGreaterThan(5000)
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual(size.map((x) => x * 3))
  }
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  expect((await page.pdf({ format: 'A4' })).subarray(0, 5).toString()).toBe('%PDF-')
})
