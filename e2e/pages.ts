// Steps that several tests share.

import { AxeBuilder } from '@axe-core/playwright'
import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'

/** Makes a project of one's own from a demo file, through the API, and opens a stage of it. */
export const openDemo = async (
  page: Page,
  stage: string,
  change: (design: Record<string, unknown>) => void = () => undefined,
  demo = 'darkroom-timer',
) => {
  const design = JSON.parse(readFileSync(new URL(`../demo/${demo}.json`, import.meta.url), 'utf8')) as Record<
    string,
    unknown
  >
  change(design)
  const made = (await (await page.request.post('/api/projects', { data: design })).json()) as { id: string }
  await page.goto(`/projects/${made.id}/${stage}`)
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible()
  await expect(page.locator('.table h1')).toBeVisible()
  return made.id
}

/** From the start page to an empty project, by keyboard; the cursor is then where one types what it has. */
export const beginByKeys = async (page: Page, name: string) => {
  await page.goto('/')
  await expect(page.getByLabel('What will it be called?')).toBeFocused()
  await page.keyboard.type(name)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('What does it have?')).toBeFocused()
}

export const saved = (page: Page) => expect(page.locator('.top-bar [role=status]')).toHaveText('Saved')

/** Opens the first number found in a place, checks that a working comes up, and closes it. */
export const opensWorking = async (page: Page, place: string, formula: RegExp) => {
  await page.locator(place).locator('button.num').first().click()
  const working = page.getByRole('dialog')
  await expect(working).toContainText(formula)
  await page.keyboard.press('Escape')
  await expect(working).toBeHidden()
}

export const downloadText = async (page: Page, button: string): Promise<string> => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button }).click(),
  ])
  return readFileSync(await download.path(), 'utf8')
}

/** In the list that has the focus, arrow by arrow to a value: typing ahead depends on how fast the machine is. */
export const pickByKeys = async (page: Page, label: string, value: RegExp) => {
  const list = page.getByLabel(label, { exact: true })
  await expect(list).toBeFocused()
  await page.keyboard.press('Home')
  const options = await list.locator('option').count()
  for (let i = 0; i < options && !value.test(await list.inputValue()); i++)
    await page.keyboard.press('ArrowDown')
  await expect(list).toHaveValue(value)
}

/** What axe judges by colours: all else is the same in either light. */
const byColour = ['color-contrast', 'link-in-text-block']

/** No fault by axe, of any weight, in the light that is on. */
export const isAccessible = async (page: Page, where: string, rules: 'all' | 'colours' = 'all') => {
  await expect(page.locator('h1').first()).toBeAttached()
  await expect(page.getByText('Loading …')).toHaveCount(0)
  // In the page itself: a page of its own for the answer takes the focus away, and may give it back elsewhere.
  const axe = new AxeBuilder({ page }).setLegacyMode()
  const { violations } = await (rules === 'all' ? axe : axe.withRules(byColour)).analyze()
  expect(
    violations.map(
      (v) =>
        `${where}: ${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => n.target.join(' '))
          .join(', ')}`,
    ),
  ).toEqual([])
}

/** The same by day and by lamp. */
export const isAccessibleInBothLights = async (page: Page, where: string) => {
  await isAccessible(page, `${where} light`)
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect(page.locator(':root[data-mode=dark]')).toBeAttached()
  await isAccessible(page, `${where} dark`, 'colours')
  await page.emulateMedia({ colorScheme: 'light' })
  await expect(page.locator(':root[data-mode=light]')).toBeAttached()
}

/** Rows of a CSV text without quotes in its cells. */
export const rowsOf = (csv: string): string[][] =>
  csv
    .trim()
    .split('\r\n')
    .map((line) =>
      [...line.matchAll(/(?:^|,)(?:"((?:[^"]|"")*)"|([^,]*))/g)].map((m) =>
        (m[1] ?? m[2] ?? '').replaceAll('""', '"'),
      ),
    )

/** A project without devices, as the server takes it. */
export const emptyProject = (name: string) => ({
  format: 1,
  name,
  stance: 'lean',
  needs: { devices: [], limits: { ambient: 25 } },
  chip: {},
  pins: { locks: {}, excluded: [], kept: {} },
  power: {},
  build: { support: {} },
})

/** Presses Tab until the element with this accessible name has the focus. */
export const tabTo = async (page: Page, name: RegExp, limit = 90) => {
  for (let i = 0; i < limit; i++) {
    await page.keyboard.press('Tab')
    const found = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null
      if (!e) return ''
      const label =
        e.getAttribute('aria-label') ??
        (e.id ? document.querySelector(`label[for="${e.id}"]`)?.textContent : null)
      return label ?? e.closest('label')?.textContent ?? e.textContent ?? ''
    })
    if (name.test(found)) return
  }
  throw new Error(`no way by Tab to ${name}`)
}
