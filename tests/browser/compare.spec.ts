import { expect } from '@playwright/test'
import { sailingGuide } from '../../demo/sailing-guide'
import { choose, noPageErrors, openOnDesk, tabTo } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

test('a version is compared with the one before it, its differences walked, its pages laid over', async ({ page }) => {
  await openOnDesk(page, 'Compared.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Proof' }).click()
  await expect(page.getByRole('heading', { level: 1, name: /findings$/ })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Put right: Double return, 3 places' }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText('Done: Put 3 places right.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  await choose(page.getByLabel('A version of this document'), /^1: /)
  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  const places = page.getByRole('table', { name: 'Places that differ' })
  await expect(places.getByText('Text that went')).toHaveCount(3, { timeout: 20_000 })
  await expect(page.getByText(/^Version 1, page \d+$/)).toBeVisible()
  await expect(page.getByText(/^Now, page \d+$/)).toBeVisible()
  // By keys: from one difference to the next, and one page laid over the other.
  await tabTo(page, /^Show difference 2: Text that went/)
  await page.keyboard.press('Enter')
  await expect(places.locator('tr.bg-wash')).toHaveCount(1)
  await page.getByRole('radio', { name: 'Laid over' }).click()
  await expect(page.getByText(/Laid over: Version 1, page \d+, and page \d+ now/)).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as CSV' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Compared, compared with Version 1.csv')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as PDF' }).click(),
  ])
  expect(pdf.suggestedFilename()).toBe('Compared, compared with version 1.pdf')
  await page.getByRole('button', { name: 'Back to the sheets' }).click()
  await expect(page.getByLabel('Go to page')).toBeVisible()
})

test('a document is rehearsed without our faces: what would have to travel, and its pages there', async ({ page }) => {
  await openOnDesk(page, 'Rehearsed.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Proof' }).click()
  await expect(page.getByRole('heading', { level: 1, name: /findings$/ })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  await tabTo(page, /^Rehearse without our faces$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /families would have to travel$/ })).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('row', { name: /^Spectral Liberation Serif/ })).toBeVisible()
  await expect(page.getByText(/^Without our faces, page \d+$/)).toBeVisible()
})
