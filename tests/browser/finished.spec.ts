import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import { openPdf } from '../../core/format/finished/open'
import { FinishedReader } from '../../core/format/finished/reader'
import { harbourNotice } from '../../demo/harbour-notice'
import { choose, noFindings, noPageErrors } from '../support/browser'
import { madePdf } from '../support/made-pdf'
import { test } from '../support/desk-browser'

noPageErrors()

/** Two pages as an office program would finish them: the second one is shown turned. */
async function lease(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  const page = pdf.addPage([420, 300])
  page.drawText('The berth is let untill spring', { x: 40, y: 230, size: 14, font })
  page.drawText('Dues are paid - in full', { x: 40, y: 200, size: 11, font })
  const turned = pdf.addPage([420, 300])
  turned.setRotation(degrees(90))
  turned.drawText('A second page', { x: 40, y: 200, size: 11, font })
  return pdf.save({ useObjectStreams: false })
}

/** Puts a PDF on the shelf, waits until it is counted, and opens it. */
async function openFinished(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.goto('/')
  await page
    .getByLabel('Files to open')
    .setInputFiles({ name, mimeType: 'application/pdf', buffer: Buffer.from(bytes) })
  const title = name.replace(/\.pdf$/, '')
  const card = page.getByRole('listitem').filter({ hasText: title })
  await expect(card.getByText('finished PDF')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('link', { name: title, exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^\d+ fonts?$/, { timeout: 30_000 })
}
/** The lines of a page of the file that is on the desk. */
async function savedLines(page: Page, number = 1): Promise<string[]> {
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the PDF' }).click(),
  ])
  const bytes = new Uint8Array(readFileSync(await file.path()))
  return new FinishedReader(await openPdf(bytes)).lines(number).map(each => each.text)
}

test('a line is put right where it is pressed on, told before it is done, and undone', async ({ page }) => {
  await openFinished(page, 'Lease by mouse.pdf', await lease())
  await page.getByRole('button', { name: /Helvetica/ }).click()
  await expect(page.getByText('Place – of 3')).toBeVisible()
  await page.getByRole('tab', { name: 'Put right' }).click()
  const sheet = page.getByRole('group', { name: 'Page 1' })
  const box = (await sheet.boundingBox())!
  // The first line's baseline is 70 pt below the page's top.
  await page.mouse.click(box.x + (box.width * 100) / 420, box.y + (box.width * 66) / 420)
  const field = page.getByRole('textbox', { name: 'The line as it shall be' })
  await expect(field).toHaveValue('The berth is let untill spring')
  await field.fill('The berth is let until spring')
  const told = page.getByLabel('How it would be done')
  await expect(told).toContainText('its own font, Helvetica')
  await expect(told).toContainText('3.11 pt narrower')
  await expect(page.getByText('The pages as they would be')).toBeVisible()
  await noFindings(page)
  // A letter that the font lacks has the whole line set in a stand-in, and that is said, too.
  await field.fill('The berth is let until sprıng')
  await expect(told).toContainText('Liberation Sans, the whole line, since Helvetica has no “ı”')
  await field.fill('The berth is let until spring')
  await expect(told).toContainText('its own font')
  await page.getByRole('button', { name: 'Put it right' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Put right “The berth is let untill spring”' })).toBeVisible()
  expect(await savedLines(page)).toEqual(['The berth is let until spring', 'Dues are paid - in full'])
  await page.getByRole('button', { name: /^Undo: Put right/ }).click()
  await expect(page.getByRole('button', { name: /^Redo: Put right/ })).toBeVisible()
  expect(await savedLines(page)).toEqual(['The berth is let untill spring', 'Dues are paid - in full'])
})

test('by keyboard: defaults are said, text is added in them, and found', async ({ page }) => {
  await openFinished(page, 'Lease by keys.pdf', await lease())
  await page.getByRole('tab', { name: 'Defaults' }).click()
  await expect(page.getByRole('table', { name: 'Who says what' })).toContainText('Liberation Sans')
  await noFindings(page)
  await page.getByRole('combobox', { name: 'Family', exact: true }).fill('Spectral')
  await page
    .getByRole('option', { name: /^Spectral\b/ })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'Size, pt' }).fill('9.5')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Set it' }).first().focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Kept for this PDF' })).toBeVisible()

  await page.getByRole('tab', { name: 'Defaults' }).focus()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Add text')
  await page.getByRole('textbox', { name: 'Text', exact: true }).focus()
  await page.keyboard.type('Received at the quay')
  await page.getByRole('button', { name: /^Begin at the top left/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^1 line, [\d.]+ pt wide/)).toBeVisible()
  await noFindings(page)
  await page.getByRole('button', { name: 'Add it' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Added “Received at the quay” on page 1' })).toBeVisible()
  await page.keyboard.press('Control+f')
  await page.keyboard.type('received')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 of 1', { exact: true })).toBeVisible()
  await page.getByRole('tab', { name: 'Census' }).click()
  await expect(page.getByRole('row').filter({ hasText: 'Spectral' })).toContainText('9.5')
  expect(await savedLines(page)).toContain('Received at the quay')
})

test('a proof of it finds what pages can tell, and puts words right on all pages at once', async ({ page }) => {
  await openFinished(page, 'Lease to proof.pdf', await lease())
  await page.getByRole('tab', { name: 'Proof' }).click()
  const found = page.getByRole('list', { name: 'What the checks found' })
  await expect(found).toContainText('Font that is not in the file')
  await found.getByRole('button', { name: 'Hyphen for a dash', exact: true }).click()
  await expect(page.getByText('Place 1 of 1')).toBeVisible()
  await noFindings(page)
  const [report] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as PDF' }).click(),
  ])
  expect(report.suggestedFilename()).toMatch(/, proof\.pdf$/)
  expect(
    readFileSync(await report.path())
      .subarray(0, 5)
      .toString('latin1'),
  ).toBe('%PDF-')
  await page.getByRole('button', { name: /^See put right: Hyphen/ }).click()
  await page.getByRole('button', { name: 'Put 1 line right' }).click()
  await expect(found).not.toContainText('Hyphen for a dash')
  expect(await savedLines(page)).toContain('Dues are paid – in full')
})

test('a frame is drawn on a turned page; what has no room is said; a stand-in sets what the face lacks', async ({
  page,
}) => {
  await openFinished(page, 'Lease with frames.pdf', await lease())
  await page.getByRole('tab', { name: 'Add text' }).click()
  await page.getByRole('textbox', { name: 'Go to page' }).fill('2')
  await page.keyboard.press('Enter')
  const sheet = page.getByRole('group', { name: 'Page 2' })
  await expect(sheet).toBeInViewport({ ratio: 0.5 })
  const box = (await sheet.boundingBox())!
  // The turned page is 300 pt wide: the frame begins at 60, 90 and is 90 by 24 pt.
  const scale = box.width / 300
  await page.mouse.move(box.x + 60 * scale, box.y + 90 * scale)
  await page.mouse.down()
  await page.mouse.move(box.x + 150 * scale, box.y + 114 * scale, { steps: 4 })
  await page.mouse.up()
  await page
    .getByRole('textbox', { name: 'Text', exact: true })
    .fill('Read and agreed to at the quay office by both sides')
  await expect(page.getByText(/lines have no room/)).toBeVisible()
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Pier 漢')
  await expect(page.getByRole('alert')).toContainText('no stand-in that has them is chosen for Han letters')
  await page.getByRole('tab', { name: 'Defaults' }).click()
  const panel = page.getByRole('region', { name: 'Stand-ins by script' })
  await choose(panel.getByRole('combobox', { name: 'For' }), 'this document')
  await choose(panel.getByRole('combobox', { name: 'In', exact: true }), 'Han letters')
  await choose(panel.getByRole('combobox', { name: 'Stands in' }), 'Zen Kaku Gothic New')
  await panel.getByRole('button', { name: 'Set it' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'stands in' })).toBeVisible()
  await page.getByRole('tab', { name: 'Add text' }).click()
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Pier 漢')
  await page.getByRole('button', { name: /^Begin at the top left of page 2/ }).click()
  await page.getByRole('button', { name: 'Add it' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Added “Pier 漢” on page 2' })).toBeVisible()
  expect((await savedLines(page, 2)).join('')).toContain('Pier 漢')
})

test('a PDF that was made here opens with its fonts in part, and is refused nothing that they hold', async ({
  page,
}) => {
  const made = await madePdf(harbourNotice(), { leaveOut: true })
  await openFinished(page, 'Notice made here.pdf', made.bytes)
  await expect(page.getByText(/tagged for reading aloud\. A font/)).toBeVisible()
  await expect(page.getByRole('row').filter({ hasText: 'Newsreader' })).toContainText(
    'in the file in part, in the library',
  )
  await noFindings(page)
})
