import { expect } from '@playwright/test'
import { winterTariff } from '../../demo/winter-tariff'
import { choose, downloadFile, noPageErrors, openOnDesk, putOnShelf, tabTo } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

test('the Winter tariff gets its styles by mouse: renamed, merged, carried out and undone', async ({ page }) => {
  await openOnDesk(page, 'Tariff by mouse.odt', winterTariff())
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.getByRole('button', { name: 'Draw up styles' }).click()
  await expect(page.getByRole('heading', { name: '8 paragraph styles, 3 character styles' })).toBeVisible()
  await choose(page.getByLabel(/^How much sizes may differ/), 'only where they are the same')
  await expect(page.getByRole('heading', { name: '9 paragraph styles, 3 character styles' })).toBeVisible()
  const name = page.getByLabel('Name of the paragraph style Body', { exact: true })
  await name.fill('Running text')
  await name.press('Tab')
  await choose(page.getByLabel('Where the text of Body, large goes'), 'with Body')
  await expect(page.getByText(/^Body, large goes to /)).toBeVisible()
  await choose(page.getByLabel('Where the text of Strong, Highlight goes'), 'stays by hand')
  await page.getByRole('button', { name: /^Show the plan of 10 styles/ }).click()
  await expect(page.getByText('2 pages before and after')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByLabel(/^Strong, Highlight, .*: in the plan$/)).not.toBeChecked()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/^Done: Draw up 10 styles/)).toBeVisible({ timeout: 20_000 })
  await expect(page.locator('[data-style="Running_20_text"]')).toContainText('11')
  await page.getByRole('button', { name: /^Undo: Draw up/ }).click()
  await expect(page.getByRole('button', { name: /^Redo: Draw up/ })).toBeVisible({ timeout: 20_000 })
  expect(Buffer.compare(await downloadFile(page, 'Tariff by mouse'), winterTariff())).toBe(0)
})

test('the Winter tariff gets its styles by the keyboard alone', async ({ page }) => {
  await putOnShelf(page, 'Tariff by keys.odt', winterTariff())
  await tabTo(page, /^Tariff by keys$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await page.keyboard.press('Alt+s')
  await tabTo(page, /^Draw up styles$/, 'Shift+Tab')
  await page.keyboard.press('Enter')
  await tabTo(page, /^Name of the paragraph style Title$/)
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('Tariff title')
  await tabTo(page, /^Show the plan of 11 styles$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Carry it out/ })).toBeFocused({ timeout: 20_000 })
  await page.keyboard.press('Enter')
  await expect(page.getByText(/99\.\d % of the text/)).toBeVisible({ timeout: 20_000 })
  await expect(page.locator('[data-style="Tariff_20_title"]')).toBeVisible()
})
