import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { readRules } from '../../core/document/rules'
import { openDocument } from '../../core/document/open'
import { proofOf } from '../../core/proof/proof'
import { galleyMenu } from '../../demo/galley-menu'
import { harbourNotice } from '../../demo/harbour-notice'
import { downloadFile, noPageErrors, openOnDesk, putOnShelf, tabTo } from '../support/browser'
import { session } from '../support/fixtures'
import { test } from '../support/desk-browser'

noPageErrors()

const found = (page: Page) => page.getByRole('heading', { level: 1, name: /^(\d+ findings?|Nothing found)$/ })

test('the Galley menu goes from its first proof to none left, by mouse', async ({ page }) => {
  await openOnDesk(page, 'Proofed by mouse.odg', galleyMenu())
  await page.getByRole('tab', { name: 'Proof' }).click()
  await expect(found(page)).toHaveText(/findings$/, { timeout: 20_000 })
  await page.getByRole('button', { name: /^Put \d+ findings? right$/ }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/^Done: /)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: /^Put \d+ findings? right$/ })).toHaveCount(0, { timeout: 20_000 })
  // What is meant to be so is accepted, row by row, with a reason.
  const rows = page.getByRole('list', { name: 'What the checks found' }).locator('button[aria-expanded]')
  await expect(rows.first()).toBeVisible()
  for (let left = 20; left > 0 && (await rows.count()) > 0; left--) {
    const before = await found(page).textContent()
    if ((await rows.first().getAttribute('aria-expanded')) === 'false') await rows.first().click()
    await page.getByRole('button', { name: 'Accept it' }).click()
    await page.getByLabel('Why it stays as it is').fill('The cook wants it so')
    await page.getByRole('button', { name: 'All that say this' }).click()
    await expect(page.getByText(/^Done: Accept/)).toBeVisible({ timeout: 20_000 })
    await expect(found(page)).not.toHaveText(before!, { timeout: 20_000 })
  }
  await expect(found(page)).toHaveText('Nothing found')
  const file = await downloadFile(page, 'Proofed by mouse')
  expect(proofOf(session(file)).findings.every(each => each.accepted === 'The cook wants it so')).toBe(true)
  expect(readRules(openDocument(file)).accepted.length).toBeGreaterThan(5)
})

test('a notice is proofed by the keyboard alone, its places walked, and accepted ones told again', async ({ page }) => {
  await putOnShelf(page, 'Proofed by keys.odt', harbourNotice())
  await tabTo(page, /^Proofed by keys$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await tabTo(page, /^Census$/)
  for (
    let step = 0;
    step < 12 && (await page.getByRole('tab', { name: 'Proof' }).getAttribute('aria-selected')) !== 'true';
    step++
  )
    await page.keyboard.press('ArrowDown')
  await expect(found(page)).toHaveText(/findings$/, { timeout: 20_000 })
  await tabTo(page, /^Double return$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'The finding that is walked to' })).toContainText('An empty paragraph')
  await tabTo(page, /^Accept it$/, 'Shift+Tab')
  await page.keyboard.press('Enter')
  await page.keyboard.type('The old letter had it')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Done: Accept 1 finding/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: 'Double return', exact: true })).toHaveCount(0)
  await tabTo(page, /^Put \d+ findings? right$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Carry it out/ })).toBeFocused({ timeout: 20_000 })
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Done: /)).toBeVisible({ timeout: 20_000 })
  const mended = proofOf(session(await downloadFile(page, 'Proofed by keys'))).findings
  expect(mended.filter(each => each.repair !== null && each.accepted === null).map(each => each.check)).toEqual([])
  expect(mended.find(each => each.check === 'empty-paragraph')!.accepted).toBe('The old letter had it')
})

test('the checklist of the desk says which checks run, and the report goes out as CSV and as PDF', async ({ page }) => {
  await openOnDesk(page, 'Checklist.odt', harbourNotice())
  await page.getByRole('tab', { name: 'Proof' }).click()
  await expect(page.getByRole('button', { name: 'Double return', exact: true })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Checklist', exact: true }).click()
  await page.getByLabel('Double return', { exact: true }).uncheck()
  await page.getByRole('button', { name: 'Keep it and look again' }).click()
  await expect(found(page)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: 'Double return', exact: true })).toHaveCount(0)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as CSV' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Checklist, proof.csv')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as PDF' }).click(),
  ])
  expect(pdf.suggestedFilename()).toBe('Checklist, proof.pdf')
  expect(
    readFileSync(await pdf.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
  await page.getByRole('button', { name: 'Checklist', exact: true }).click()
  await page.getByRole('button', { name: 'All as usual' }).click()
  await page.getByRole('button', { name: 'Keep it and look again' }).click()
  await expect(page.getByRole('button', { name: 'Double return', exact: true })).toBeVisible({ timeout: 20_000 })
})

test('all documents are looked over, by document and by check', async ({ page }) => {
  await putOnShelf(page, 'Over all.odt', harbourNotice())
  await page.goto('/across')
  await page.getByRole('radio', { name: 'Proof' }).click()
  const table = page.getByRole('table', { name: 'Findings by document' })
  await expect(table.getByRole('link', { name: 'Over all.odt' })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: /\d+ warnings/ })).toBeVisible({ timeout: 120_000 })
  await expect(table.getByText('waiting …')).toHaveCount(0)
  await page.getByRole('radio', { name: 'By check' }).click()
  await expect(page.getByRole('row', { name: /^Double return warning/ })).toBeVisible()
  await page.getByRole('radio', { name: 'By document' }).click()
  await table.getByRole('link', { name: 'Over all.odt' }).click()
  await expect(found(page)).toHaveText(/findings$/, { timeout: 30_000 })
})
