import { spawnSync } from 'node:child_process'
import { expect, type Page, type TestInfo } from '@playwright/test'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { choose, noPageErrors, openOnDesk, putOnShelf } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

/** A notice of a ferry's name, in large capitals, with the same pair in small text. */
const notice = () =>
  makeOdt({
    stylesFaces: face('Lora'),
    faces: face('Lora'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Lora" fo:font-size="12pt" ' +
      'style:letter-kerning="true" fo:language="en" fo:country="GB"/></style:default-style>' +
      paragraphStyle('Name', 'fo:font-size="40pt"'),
    body: '<text:p text:style-name="Name">AVOCET</text:p><text:p>The AVOCET leaves at seven, and the AVOCET comes back at nine.</text:p>',
  })

/** How wide each word is in the PDF, in points. */
async function widthsInPdf(page: Page, info: TestInfo, name: string): Promise<Record<string, number[]>> {
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the PDF', exact: true }).click(),
  ])
  const path = info.outputPath(name)
  await download.saveAs(path)
  const widths: Record<string, number[]> = {}
  const { stdout } = spawnSync('pdftotext', ['-bbox', path, '-'], { encoding: 'utf8' })
  for (const [, from, to, word] of stdout.matchAll(
    /xMin="([\d.]+)" yMin="[\d.]+" xMax="([\d.]+)" yMax="[\d.]+">([^<]+)</g,
  ))
    (widths[word!] ??= []).push(Math.round((Number(to) - Number(from)) * 100) / 100)
  return widths
}

test('a pair of letters is corrected by keys alone, for a face, and the PDF has it', async ({ page }, info) => {
  await openOnDesk(page, 'Corrected by keys.odt', notice())
  const before = await widthsInPdf(page, info, 'before.pdf')
  await page.getByRole('tab', { name: 'Type' }).press('Enter')
  await page.getByRole('button', { name: 'Pairs of letters' }).press('Enter')
  await expect(page.getByRole('combobox', { name: 'Face whose pairs are looked at' })).toContainText('Lora Regular')
  await expect(page.getByText(/^It kerns \d+ % of the usual pairs; none of them stands out\.$/)).toBeVisible()
  const list = page.getByRole('listbox', { name: 'Pairs of letters' })
  await list.focus()
  const own = list.getByRole('option', { selected: true })
  for (let step = 0; step < 40 && !/^AV,/.test((await own.getAttribute('aria-label')) ?? ''); step++)
    await page.keyboard.press('ArrowDown')
  await expect(own).toHaveAttribute('aria-label', 'AV, 3 times, as usual, as the face has it')
  for (let step = 0; step < 10; step++) await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(own).toHaveAttribute('aria-label', /^AV, 3 times, .*, −49\/1000 em$/)
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Set “AV” in Lora Regular −49/1000 em: done, as version 2.')).toBeVisible({
    timeout: 30_000,
  })
  await page.getByLabel('Name of the wish that keeps the corrections').fill('Ferry names')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Kept as the wish “Ferry names”/)).toBeVisible()
  const after = await widthsInPdf(page, info, 'after.pdf')
  const moved = (at: number) => before.AVOCET![at]! - after.AVOCET![at]!
  // One at 40 points and two at 12, to a hundredth of a point.
  expect(moved(0)).toBeCloseTo((49 * 40) / 1000, 1)
  expect(moved(1)).toBeCloseTo((49 * 12) / 1000, 1)
  expect(after.leaves).toEqual(before.leaves)
  await page.getByRole('button', { name: /^Undo: Set “AV”/ }).click()
  await expect(page.getByRole('button', { name: /^Redo|^Do again/ }).first()).toBeVisible({ timeout: 30_000 })
  expect(await widthsInPdf(page, info, 'undone.pdf')).toEqual(before)
})

test('a pair is dragged in the words where it stands, here only, and every place is seen first', async ({ page }) => {
  await openOnDesk(page, 'Dragged.odt', notice())
  await page.getByRole('tab', { name: 'Type' }).click()
  await page.getByRole('button', { name: 'Pairs of letters' }).click()
  await choose(page.getByRole('combobox', { name: 'Face whose pairs are looked at' }), /^Lora Regular/)
  await page.getByRole('option', { name: /^VO,/ }).click()
  await page.getByRole('button', { name: 'Place behind' }).click()
  await expect(page.getByText('place 2 of 3')).toBeVisible()
  await page.getByLabel('here only').check()
  const letter = page.locator('.pair-word').nth(1).getByText('O', { exact: true })
  const box = (await letter.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 11, box.y + box.height / 2, { steps: 4 })
  await page.mouse.up()
  // Eleven pixels at 44 to the em.
  await expect(page.getByLabel('Thousandths of an em that the pair is set apart by')).toHaveValue('250')
  await page.getByRole('button', { name: 'See every place' }).click()
  await expect(page.getByText('“VO” at one place')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText('Set one pair of letters at one place +250/1000 em: done, as version 2.')).toBeVisible({
    timeout: 30_000,
  })
  // It is no stray: the census counts all text as settled as before.
  await expect(page.getByRole('heading', { name: 'Pairs of letters' })).toBeVisible()
})

test('corrections go to other documents as a kept wish', async ({ page }) => {
  const title = await putOnShelf(page, 'Other notice.odt', notice())
  await page.getByRole('tab', { name: 'All documents' }).click()
  await page.getByRole('button', { name: 'None' }).click()
  await page.getByLabel(`${title}.odt: in the plan`).first().check()
  await page.getByRole('listitem').filter({ hasText: 'Ferry names' }).getByRole('button', { name: 'Plan it' }).click()
  await page.getByRole('button', { name: 'Carry it out in 1 document' }).click({ timeout: 60_000 })
  await expect(page.getByText('Done: 1 document changed, one version each.')).toBeVisible({ timeout: 60_000 })
})
