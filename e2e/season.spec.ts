// A season on cells: the states of the machine, what each takes, how long the cells last, and what wakes it. Every number is
// by hand from the part files.

import { expect, test } from './server'
import { isAccessible, openDemo, saved } from './pages'

test('the hive scale opens with a season; weighed every minute it is a matter of weeks, and by undo a season again', async ({
  page,
}) => {
  await openDemo(page, 'power', undefined, 'hive-scale')
  const charge = page.getByRole('table', { name: 'Where the charge goes' })
  const chip = charge.getByRole('row', { name: /^MW2 module/ })
  // At 80 MHz 20 mA + 80 MHz · 150 pA/Hz = 32 mA, with the radio 120 mA more, asleep 9 µA. It works 1.5 s of 900 s and
  // 4 · 20 s of a day, sends 8 · 3 s of a day:
  // 32 mA · (1/600 + 80/86400) + 152 mA · 24/86400 + 9 µA · 0.99713 = 134.2 µA, times 24 h: 3.22 mAh.
  await expect(chip).toContainText('134 µA')
  await expect(chip).toContainText('3.22 mAh')
  // The regulator for itself 2.2 µA: 52.8 µAh.
  await expect(charge.getByRole('row', { name: /itself/ })).toContainText('52.8 µAh')
  // The rail sags once the cells are down to 3.3 V and what is lost on the way, 0.15 V: by the curve, between 3.54 V at 70 % and
  // 3.24 V at 85 %, that is after 74.6 %. 4.05 mAh a day are 168.9 µA; 3 % of 2.3 Ah in a year are 7.9 µA more:
  // 2.3 Ah · 0.746 / 176.8 µA = 9705 h, 404 or 405 days.
  const cells = page.getByText(/^Three AA cells hold/)
  await expect(cells).toContainText('a day takes 4.05 mAh: they last')
  const season = /they last (\d+ days)/.exec(await cells.innerText())![1]!
  expect(season).toMatch(/^40[45] days$/)
  await isAccessible(page, 'power with states')

  const every = page.getByLabel('weighing every')
  await every.fill('1 min')
  await every.press('Enter')
  // 32 mA · (1.5/60 + 80/86400) + 152 mA · 24/86400 + 9 µA · 0.9738 = 880.6 µA: 21.1 mAh.
  await expect(chip).toContainText('21.1 mAh')
  await expect(cells).not.toContainText(season)
  const rhythms = page.getByRole('region', { name: 'Were it more often, or less' })
  await expect(rhythms.getByRole('row', { name: /every 15 min/ })).toContainText(season)
  await page.getByRole('button', { name: 'Undo: Weighing every 1 min' }).click()
  await expect(cells).toContainText(`they last ${season}`)
  await expect(page.getByRole('region', { name: /^Before each sleep/ })).toContainText('Let Look wake it by')
  await saved(page)
})

test('what nothing wakes is told, and cleared by waiting less deeply', async ({ page }) => {
  await openDemo(
    page,
    'power',
    (d) => {
      // Its sheet: any leg of the processor ends “off”; no clock goes on in it.
      d.chip = { part: 'ox7-module' }
      d.power = { source: 'usb-port' }
      d.needs = {
        devices: [{ id: 'd1', part: 'weight-amplifier', name: 'Scale', count: 1 }],
        limits: { ambient: 25 },
        states: [
          { id: 'w', name: 'weighing', lasts: 1, every: 600 },
          { id: 'r', name: 'asleep', chip: 'off' },
        ],
      }
    },
    'hive-scale',
  )
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  const finding = evidence.getByRole('button', { name: /weighing never begins/ })
  await finding.click()
  await expect(evidence).toContainText('weighing comes every 10 min')
  await evidence.getByRole('button', { name: /^Let the chip wait in/ }).click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(finding).toHaveCount(0)
  await expect(page.getByLabel('The chip, asleep')).toHaveValue('wait')
})
