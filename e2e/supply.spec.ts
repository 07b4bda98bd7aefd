// What feeds a project: a regulator that gets too hot and one that doesn’t, and a meter that says otherwise. Every number is by hand
// from the part files.

import { expect, test } from './server'
import { isAccessible, openDemo, saved, tabTo } from './pages'

test('a linear regulator too hot for 12 V, and a switching one in its place', async ({ page }) => {
  await openDemo(page, 'power')
  const regulator = page.getByLabel('Regulator', { exact: true })
  await regulator.selectOption({ label: 'BL5 low drop 5 V' })
  // Up to 219 mA flow. Behind the diode there are at most 12.8 V − 0.17 V: (12.63 − 4.9) V · 219 mA + 12.63 V · 10 mA = 1.82 W if
  // all were at its worst at once; where 219 mA flow the diode takes more: 1.79 W. 30 °C + 1.79 W · 92 K/W = 195 °C.
  const limits = page.getByRole('region', { name: 'Limits at the worst corner' })
  await expect(limits.getByRole('row', { name: /^Regulator junction/ })).toContainText('195 °C')
  const ranked = page.getByRole('region', { name: 'Regulators for this load' })
  await expect(ranked.getByRole('row', { name: /^BL5 low drop 5 V/ })).toContainText(
    'no: its junction reaches 195 °C, above 125 °C',
  )
  const switching = ranked.getByRole('row', { name: /^BS5 drop-in 5 V/ })
  await expect(switching).toContainText('yes')
  // η at 219 mA, between 0.86 at 100 mA and 0.92 at 500 mA: 0.878. 5.1 V · 219 mA · (1 / 0.878 − 1) + 12.7 V · 3 mA = 193 mW:
  // 30 °C + 193 mW · 55 K/W = 40.6 °C. It was said before it was chosen.
  await expect(switching).toContainText('40.6 °C')
  await page.getByRole('button', { name: 'Choose BS5 drop-in 5 V' }).click()
  await expect(limits.getByRole('row', { name: /^Regulator junction/ })).toContainText('40.6 °C')
  // 5.1 V · 219 mA / (0.878 · 11 V) = 115 mA, and its own 3 mA.
  await expect(limits.getByRole('row', { name: /^Source/ })).toContainText('118 mA')
  const sources = page.getByRole('region', { name: 'Sources for this project' })
  await expect(sources.getByRole('row', { name: /^9 V adapter/ })).toContainText('yes')
  // From 6.5 V on it does, and USB gives 5.
  const more = sources.getByRole('button', { name: /more that don’t do, and why$/ })
  await more.click()
  await expect(sources.getByRole('row', { name: /^USB port/ })).toContainText(
    /BS5 drop-in 5 V: it needs 6\.\d+ V at its input, and gets as little as 4\.\d+ V/,
  )
  await isAccessible(page, 'power with rankings')
  await saved(page)
})

test('the servos’ own feed: a wire too thin for what they take when they stall, and one that does', async ({
  page,
}) => {
  await openDemo(page, 'power', undefined, 'signal-cabin')
  const lead = page.getByRole('group', { name: 'Lead from 5 V adapter, 4 A' })
  const leads = page.getByRole('region', { name: 'Wires and fuses', exact: true })
  const evidence = page.getByRole('complementary')
  // Four servos of 650 mA and the crane’s 160 mA: 2.76 A. There and back 3 m of 13.3 mΩ, at 70 °C · 304.5 / 254.5: 47.7 mΩ; two joints
  // of 10 mΩ and a fuse of 28 mΩ: 95.7 mΩ, 264 mV, 729 mW.
  await expect(leads).toContainText(/up to 2\.76\sA through 96\smΩ: 260\smV lost on the way, 730\smW of heat/)
  await lead.getByLabel('Wire').selectOption({ label: 'Cable 2 × 0.5 mm²' })
  // 3 m of 39 mΩ: 140 mΩ, 188 mΩ in all: 519 mV of the 4.8 V that the adapter gives at the least.
  await expect(evidence).toContainText('With all of it working Points gets down to 4.28 V, and needs 4.5 V')
  // 1.45 · 3 A < 8.4 A · 0.98 in air of 30 °C
  await expect(evidence).toContainText('Cable 2 × 0.5 mm² may carry 3 A then, and stands 4.35 A')
  const able = page.getByRole('region', { name: 'Wires and fuses that would do' })
  // 3 m of 26 mΩ are 93.3 mΩ: 141.3 mΩ, 390 mV.
  await expect(able.getByRole('row', { name: /^Cable 2 × 0\.75 mm²/ })).toContainText(
    'no: Points gets down to 4.41 V, and needs 4.5 V',
  )
  await expect(able.getByRole('row', { name: /^Cable 2 × 1\.5 mm²/ })).toContainText('yes')
  await lead.getByLabel('Length, one way').fill('500 mm')
  await page.keyboard.press('Enter')
  // 1 m of 39 mΩ: 46.7 mΩ; 94.7 mΩ in all: 261 mV, 4.54 V.
  await expect(evidence).not.toContainText('With all of it working')
  await lead.getByLabel('Fuse').selectOption({ label: 'Fuse 2 A' })
  // 2 A · (1 − 0.07 · 7 / 27) = 1.96 A
  await expect(evidence).toContainText(
    'Fuse 2 A holds 1.96 A in air of 30 °C, and up to 2.76 A flow with nothing wrong',
  )
  await isAccessible(page, 'power with a lead')
  await saved(page)
  await page.getByRole('link', { name: /^Build/ }).click()
  await page.getByRole('tab', { name: 'Steps and checks' }).click()
  await expect(page.getByText('Two conductors of 500 mm, Cable 2 × 0.5 mm²')).toBeVisible()
})

test('a meter says more than was predicted: what explains it, and what it was', async ({ page }) => {
  await openDemo(page, 'power', undefined, 'hive-scale')
  await page.getByRole('button', { name: 'Note a measured current' }).click()
  await expect(page.getByLabel('The meter said')).toBeFocused()
  await page.keyboard.type('1.53 mA')
  await page.getByLabel('Ohms inside it there').fill('10')
  await page.keyboard.press('Enter')
  const meter = page.getByRole('region', { name: 'What the meter says' })
  // Asleep are predicted 9 µA of the chip, 2.2 µA of the regulator and what the devices take at rest, 29 µA in all; the scale takes
  // 1.5 mA at work and 1 µA at rest: 1.53 mA if it was never sent to sleep.
  const list = meter.getByRole('list', { name: 'What would explain 1.53 mA' })
  await expect(list.getByRole('listitem').first()).toContainText(/^Scale is working: 1\.5\smA/)
  // 10 Ω · 388 mA = 3.9 V of 3.9 V.
  await expect(meter).toContainText('3.9 V would fall across the meter: it may not start through it')
  await expect(page.getByRole('complementary')).toContainText('1.53 mA were measured asleep')
  await isAccessible(page, 'power with a measurement')
  await meter.getByRole('button', { name: 'It was this: Scale is working' }).click()
  await expect(meter).toContainText('It was: Scale is working')
  await expect(page.getByRole('complementary')).not.toContainText('were measured asleep')
  await page.getByRole('button', { name: 'Undo: Note what it was: Scale is working' }).click()
  await expect(list).toBeVisible()
  await saved(page)
})

test('a budget: the hive scale is to last a season, and what it gives up for that', async ({ page }) => {
  await openDemo(page, 'power', undefined, 'hive-scale')
  const budget = page.getByRole('region', { name: 'Budget', exact: true })
  await budget.getByLabel('Lasts at least').fill('90 d')
  await page.keyboard.press('Enter')
  await expect(budget).toContainText('64 days too short')
  await expect(page.getByRole('complementary')).toContainText(
    'One set of cells lasts at least 26 days, and 90 days are asked for.',
  )
  await budget.getByRole('button', { name: 'What to give up for: One set of cells lasts' }).click()
  const ways = page.getByRole('region', { name: 'What could be given up for: One set of cells lasts' })
  await expect(ways).toContainText('Nothing alone is enough.')
  // Worst: 1.8 Ah, of which 29 % have flowed when the rail sags; 830 µA, of which a button that is held all the time takes 521 µA
  // through its pull-up; 5 % a year are lost in the cells, 10 µA: 0.52 Ah / 840 µA = 617 h, 26 days. Without: 0.52 Ah / 320 µA = 1,625 h.
  await expect(ways.getByRole('listitem').filter({ hasText: 'Leave out the pull-up of Look' })).toContainText(
    '68 days',
  )
  await isAccessible(page, 'power with a budget')
  await ways.getByRole('button', { name: /^Leave out the pull-up of Look; / }).click()
  const preview = ways.getByRole('group', { name: /^What “Leave out the pull-up of Look; / })
  await expect(preview).toContainText('runtime: 26 days becomes 97 days')
  await preview.getByRole('button', { name: 'Do it' }).click()
  await expect(budget.getByRole('row', { name: /^One set of cells lasts/ })).toContainText('97 days')
  await expect(page.getByRole('complementary')).not.toContainText('90 days are asked for')
  await page.getByRole('button', { name: /^Undo: Leave out the pull-up of Look/ }).click()
  await expect(budget).toContainText('64 days too short')
  await saved(page)
})

test('the lantern’s latch: pressed on, held, let go; a press too short, a resistor too large, a diode that falls too much', async ({
  page,
}) => {
  await openDemo(page, 'power', undefined, 'window-lantern')
  await page.getByRole('button', { name: 'Add a latching power button' }).click()
  const latch = page.getByRole('region', { name: /^Latch: Power button/ })
  const sure = latch.getByRole('table', { name: 'How surely the latch is on and off' })
  // It leaks 0.1 µA into the gate, 0.5 through the small MOSFET, 0.1 through the button, 2 through the diode: 2.7 µA. 0.4 V / 5.4 µA =
  // 74 kΩ, less 5 %: 68 kΩ; 2.7 µA · 71.4 kΩ = 193 mV. Off 1 µA more.
  await expect(sure.getByRole('row', { name: /all off/ })).toContainText(/190\smV.*below 400 mV, with 68k/)
  await expect(sure.getByRole('row', { name: /^Drawn while it is off/ })).toContainText(/3\.7\sµA/)
  // 1.8 Ah / (3.7 µA + 5 % of 1.8 Ah in 8766 h) = 128,860 h
  await expect(sure.getByRole('row', { name: /^Cells last, switched off/ })).toContainText('5370 days')
  // 66 ms until the chip runs, 5 ms until it holds.
  await expect(sure.getByRole('row', { name: /^Press for/ })).toContainText(/71\sms/)
  // Through the leg’s own 20 kΩ at 3.2 V: 0.16 mA, 255 mV in the diode; a low is below 0.3 · 1.8 V.
  await expect(sure.getByRole('row', { name: /^Its leg while pressed/ })).toContainText(
    /250\smV.*290\smV left/,
  )
  // 71.4 kΩ · 912 pF · ln (3.2 / 0.4) = 135 µs
  await expect(sure.getByRole('row', { name: /^Off after/ })).toContainText(/140\sµs/)

  const turn = latch.getByRole('table', { name: 'What happens, in turn' })
  await expect(turn.getByRole('row')).toHaveText([
    /^AfterWhat$/,
    /^0 sthe button is pressed/,
    /^[\d.]+ [nµ]sthe rail is enough/,
    /^66 msthe program begins/,
    /^71 msthe program holds/,
    /^200 msthe button is let go/,
    /^400 msthe program lets go/,
    /^400\.\d msthe rail is below/,
  ])
  await expect(latch.getByText(/^The program holds 71 ms after the press began/)).toBeVisible()
  const pressed = latch.getByLabel('Pressed for')
  await pressed.fill('60 ms')
  await page.keyboard.press('Enter')
  await expect(latch.getByText('Too short: it goes off with the button')).toBeVisible()
  await pressed.fill('80 ms')
  await page.keyboard.press('Enter')
  await expect(latch.getByText(/^The program holds 71 ms after/)).toBeVisible()
  await latch.getByLabel('When').selectOption({ label: 'the source is put in, and nobody presses' })
  await expect(latch.getByText('It stays off.')).toBeVisible()

  // What it is made of, changed by hand: told, and mended by what is offered.
  const evidence = page.getByRole('complementary')
  const made = latch.getByRole('group', { name: 'What the latch is made of' })
  await made.getByLabel('Resistor from gate to source').fill('1M')
  await page.keyboard.press('Enter')
  // 2.7 µA · 1.05 MΩ
  await evidence.getByText('The latch may switch itself on: leakage leaves up to 2.8').click()
  await evidence.getByRole('button', { name: /^The resistor that holds it for sure/ }).click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(evidence).not.toContainText('The latch may switch itself on')
  await made.getByLabel('Diodes to the button').selectOption({ label: 'small silicon diode' })
  // 0.7 V at 1 mA and no less below; a low is below 0.54 V.
  await expect(evidence).toContainText('Pressed, Power button brings its leg no lower than 700 mV')
  await made.getByLabel('Diodes to the button').selectOption({ label: 'small Schottky diode' })
  await made.getByLabel('Transistor in the plus').selectOption({ label: 'plain p-channel MOSFET' })
  await expect(evidence).toContainText(
    'plain p-channel MOSFET gets as little as 1.79 V while the program holds, and may need 4 V',
  )
  await page.getByRole('button', { name: /^Undo/ }).click()
  await isAccessible(page, 'power with a latch')
  await saved(page)
  await page.getByRole('link', { name: /^Build/ }).click()
  await page.getByRole('tab', { name: 'Steps and checks' }).click()
  await expect(page.getByText('A wire from VCELL to VCC for now, in the place of the latch')).toBeVisible()
  await expect(page.getByText(/^The program that holds comes first/)).toBeVisible()
})

test('the coop door: a cell charged on the board, what a programmer does to it, and a standby that differs', async ({
  page,
}) => {
  await openDemo(page, 'power', undefined, 'coop-door')
  const evidence = page.getByRole('complementary')
  const charging = page.getByRole('region', { name: /^Charging/ })
  const becomes = charging.getByRole('table', { name: 'What becomes of charging' })
  // The strongest charger makes 205 V / R of it: 205 V / 250 mA = 820 Ω, and a twentieth more 863 Ω: 1 kΩ. 205 V / 950 Ω = 216 mA.
  await expect(becomes.getByRole('row', { name: /^Current/ })).toContainText(/216\smA.*set by 1k/)
  // 2.25 V · 215.8 mA = 486 mW; 35 °C + 486 mW · 125 K/W.
  await expect(becomes.getByRole('row', { name: /^Heat in the charger/ })).toContainText(/490\smW.*95\.7\s°C/)
  // 2 Ah / 199.9 mA · (0.85 + 0.15 · ln 10 / 0.9) = 12.34 h.
  await expect(becomes.getByRole('row', { name: /^From empty to full/ })).toContainText('12 h 21 min usually')
  await charging.getByLabel('Charging current').fill('0.5')
  await page.keyboard.press('Enter')
  // 200 V / 390 Ω: its sheet knows 10 mA to 250 mA.
  await expect(evidence).toContainText('BC42 sparing charger is set to 513 mA, and its sheet knows')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(evidence).not.toContainText('is set to 513 mA')

  const plugs = page.getByRole('table', { name: 'What is fed with which plugs in, and what flows back' })
  await expect(plugs.getByRole('row')).toHaveCount(8)
  await expect(plugs.getByRole('row', { name: /^programmer/ })).toContainText('nothing')
  await page.getByLabel('Regulator', { exact: true }).selectOption({ label: 'BL33 tiny 3.3 V' })
  // 5.5 V that the chip’s sheet allows a programmer, and 0.3 V in a diode at the least.
  await expect(plugs.getByRole('row', { name: /^programmer/ })).toContainText(
    /from the rail backwards through BL33 tiny 3\.3 V to its input: up to 5\.2\sV/,
  )
  await evidence.getByText('A programmer may feed the rail with up to 5.5').click()
  await evidence.getByRole('button', { name: /^Regulate with BL33 sparing 3\.3 V/ }).click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  await expect(evidence).not.toContainText('A programmer may feed the rail')

  // The door rests on an end switch: 3.3 V / 6.8 kΩ = 485 µA besides the 34 µA that are planned.
  const meter = page.getByRole('region', { name: 'What the meter says' })
  const list = meter.getByRole('list', { name: 'What would explain 524 µA' })
  await expect(list.getByRole('listitem').first()).toContainText(
    /^The pull-up of End switch 1 draws all the time/,
  )
  await meter.getByRole('button', { name: /^It was this: The pull-up of End switch 1/ }).click()
  await expect(evidence).not.toContainText('were measured asleep')
  await isAccessible(page, 'power with charging')
  await saved(page)
  await page.getByRole('link', { name: /^Build/ }).click()
  await page.getByRole('tab', { name: 'Steps and checks' }).click()
  await expect(page.getByText(/between CHARGE_SET and GND, unplugged/)).toBeVisible()
})

test('a servo at 5 V beside a chip at 3.3 V: a rail of its own, too hot behind one regulator and cool behind another', async ({
  page,
}) => {
  await openDemo(page, 'power', (design) =>
    Object.assign(design, {
      needs: {
        devices: [{ id: 'd1', part: 'servo-small', name: 'Flap', count: 1 }],
        limits: { ambient: 30 },
      },
      chip: { part: 'qm32-32' },
      pins: { locks: {}, excluded: [], kept: {} },
      power: { source: 'adapter-12v', regulator: 'bl33-low' },
    }),
  )
  const evidence = page.getByRole('complementary')
  await evidence.getByText('Flap runs on 4.5 V to 6 V; its rail is 3.23 V to 3.37 V.').click()
  // A linear one would turn 7.6 V · 650 mA to heat.
  await evidence
    .getByRole('button', {
      name: /^Feed Flap from a rail of its own, behind BS5 drop-in 5 V, with a resistor in its line/,
    })
    .click()
  await evidence.getByRole('button', { name: 'Do it' }).click()
  const second = page.getByRole('region', { name: 'Second rail', exact: true })
  await expect(second).toContainText(/650\smA of 1\sA, 350\smA left/)
  await expect(second).toContainText(/4\.9 … 5\.1\sV/)
  await expect(second.getByRole('list', { name: 'Loads of the second rail' })).toContainText(/^Flap650\smA$/)
  // η at 650 mA, between 0.92 at 500 mA and 0.9 at 1 A: 0.914. 5.1 V · 650 mA · (1 / 0.914 − 1) = 312 mW, and 12.5 V · 3 mA = 38 mW:
  // 30 °C + 349 mW · 55 K/W = 49.2 °C.
  await expect(second).toContainText('49.2 °C')
  const limits = page.getByRole('region', { name: 'Limits at the worst corner' })
  await expect(limits.getByRole('row', { name: /^Second rail: regulator junction/ })).toContainText('49.2 °C')
  await expect(evidence).not.toContainText('Flap runs on')

  await second.getByLabel('Regulator').selectOption({ label: 'BL5 low drop 5 V' })
  // 12.8 V less 0.34 V of the diode at 0.68 A: (12.46 V − 4.9 V) · 650 mA + 12.46 V · 10 mA = 5.04 W, times 92 K/W.
  await expect(evidence).toContainText(
    'BL5 low drop 5 V reaches far more than 300 °C inside; its limit is 125 °C',
  )
  await expect(second).toContainText(/5\sW of heat/)
  const ranked = page.getByRole('region', { name: 'Regulators for this load' })
  await ranked.getByLabel('Of').selectOption({ label: 'the second rail' })
  const cool = ranked.getByRole('row', { name: /^BS5 drop-in 5 V/ })
  await expect(cool).toContainText('yes')
  await expect(cool).toContainText('49.2 °C')
  await expect(ranked.getByRole('row', { name: /^BS33 strong 3\.3 V/ })).toBeHidden()
  await ranked.getByRole('button', { name: /more that don’t do, and why$/ }).click()
  await expect(ranked.getByRole('row', { name: /^BS33 strong 3\.3 V/ })).toContainText(
    'no: its 3.3 V doesn’t suit Flap',
  )
  await cool.getByRole('button', { name: 'Choose BS5 drop-in 5 V' }).click()
  await expect(evidence).not.toContainText('its limit is 125 °C')
  await isAccessible(page, 'power with a further rail')
  await saved(page)

  await page.getByRole('link', { name: /^Build/ }).click()
  await page.getByRole('tab', { name: 'Steps and checks' }).click()
  await expect(page.getByRole('heading', { name: /The second rail$/ })).toBeVisible()
  await expect(page.getByText('between VCC2 and GND, red lead on VCC2')).toBeVisible()
})

test('a rover: two motors on a bridge, chosen by keyboard; one that gets too hot says so, and the wiring table has the outputs', async ({
  page,
}) => {
  await openDemo(page, 'power', (design) =>
    Object.assign(design, {
      needs: {
        devices: [{ id: 'd1', part: 'wheel-motor', name: 'Wheel', count: 2 }],
        limits: { ambient: 30 },
      },
      chip: { part: 'td8-28-dip' },
      pins: { locks: {}, excluded: [], kept: {} },
      power: { source: 'adapter-5v' },
    }),
  )
  const bridges = page.getByRole('region', { name: 'Bridges for its motors' })
  const row = (name: RegExp) => bridges.getByRole('row', { name })
  // 4.8 V at the least, less 0.8 A · 0.8 Ω. Two of them: 2 · 0.8² A² · 0.8 Ω, and 2 mA at 5.2 V: 1.034 W, times 65 K/W.
  await expect(row(/^cool bridge/)).toContainText(/yes4\.16\sV1\sW97\.2\s°C4/)
  // 4.8 V − 2.8 V; 2 · 0.8 A · 2.8 V and 36 mA at 5.2 V: 4.667 W, times 45 K/W.
  await expect(row(/^bridge for two/)).toContainText(
    /as little as 2\sV are left for Wheel, which runs on 3\sV or more/,
  )
  await expect(row(/^bridge for two/)).toContainText(/240\s°C/)
  await tabTo(page, /^Choose cool bridge/, 400)
  await page.keyboard.press('Enter')
  await expect(row(/^cool bridge/)).toContainText('chosen')
  await expect(row(/^cool bridge/).getByText('chosen')).toBeFocused()
  await expect(page.getByRole('complementary')).not.toContainText('left for Wheel')
  await isAccessible(page, 'bridges')
  await page.keyboard.press('5')
  await page.getByRole('tab', { name: 'Wiring table' }).click()
  await expect(page.getByRole('row', { name: /_OA1.*Wheel 1, \+.*bridge for two motors, OA1/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /_OB2.*Wheel 2, -.*bridge for two motors, OB2/ })).toBeVisible()
  await saved(page)
})
