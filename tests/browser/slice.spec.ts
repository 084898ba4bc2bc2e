import { readFileSync, writeFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { sailingGuide } from '../../demo/sailing-guide'
import { DocumentSession } from '../../core/session'
import { displayPage } from '../../core/typeset/display'
import { typesetter } from '../support/fixtures'
import { noFindings, noPageErrors } from '../support/browser'
import { familiesIn, parts, xmlParts } from '../support/independent'
import { test } from '../support/desk-browser'

noPageErrors()

async function put(page: Page, name: string): Promise<void> {
  await page.goto('/')
  await page
    .getByLabel('Files to open')
    .setInputFiles({ name, mimeType: 'application/vnd.oasis.opendocument.text', buffer: Buffer.from(sailingGuide()) })
  const card = page.getByRole('listitem').filter({ hasText: name.replace('.odt', '') })
  await expect(card.getByText('settled')).toBeVisible({ timeout: 30_000 })
  await expect(card).toContainText('24 pages')
  await expect(card).toContainText('2 families absent')
}
async function openDocument(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: name.replace('.odt', ''), exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
}
async function pickFamily(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).first().fill(text)
  await page.locator('li[role=option]').first().click()
}
/** Whether a canvas has been drawn on with more than one colour. */
const inked = (page: Page) =>
  page
    .locator('canvas')
    .first()
    .evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
      for (let at = 0; at < data.length; at += 4) if (data[at]! < 100) return true
      return false
    })

test('the whole job by mouse: from the shelf to the downloaded file, which opens again', async ({ page }, info) => {
  await put(page, 'Whole job.odt')
  await openDocument(page, 'Whole job.odt')
  await expect.poll(() => inked(page)).toBe(true)

  // A click on a face marks its places and walks through them.
  await page
    .getByRole('button', { name: /Ovrelund Light/ })
    .first()
    .click()
  await expect(page.getByText('Place 1 of 1')).toBeVisible()
  await expect(page.getByText('one space')).toBeVisible()
  await page
    .getByRole('button', { name: /Skerrow/ })
    .first()
    .click()
  await expect(page.getByText(/Place 1 of \d+/)).toBeVisible()
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByText(/Place 2 of \d+/)).toBeVisible()
  await page
    .getByRole('button', { name: /Skerrow/ })
    .first()
    .click()

  // A click on text shows its voice, and leads to the swap with its face.
  await page.getByRole('button', { name: 'Fit' }).click()
  await page.getByLabel('Go to page').fill('1')
  await page.getByLabel('Go to page').press('Enter')
  await page.getByText('Tickets', { exact: false }).first().click()
  await expect(page.getByRole('button', { name: 'Swap this face' })).toBeVisible()
  await page.getByRole('button', { name: 'Swap this face' }).click()
  await expect(page.getByLabel('Goes').first()).toHaveValue('Skerrow')
  await pickFamily(page, 'Comes', 'work sans')
  await expect(page.getByRole('heading', { name: 'Skerrow gives way to Work Sans' })).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('Notice 1 runs over')).toBeVisible()
  await expect(page.getByText('Paragraph style Notice')).toBeVisible()

  // A row can be left out and taken in again.
  await page.getByRole('checkbox', { name: /Chart.*in the plan/ }).uncheck()
  await expect(page.getByRole('button', { name: /in 4 places/ })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('checkbox', { name: /Chart.*in the plan/ }).check()
  await page.getByRole('button', { name: /Swap 2 faces in 7 places/ }).click()
  await expect(page.getByText('Done, as version 2.')).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('The census finds nothing of the old font')).toBeVisible()

  // One undo, one redo.
  await page.getByRole('button', { name: /^Undo: Skerrow/ }).click()
  await expect(page.getByRole('button', { name: /^Redo: Skerrow/ })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: /^Redo: Skerrow/ }).click()
  await expect(page.getByRole('button', { name: /^Undo: / })).toBeEnabled({ timeout: 20_000 })

  await page.getByRole('tab', { name: 'Handoff' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /^Download Whole job/ }).click(),
  ])
  const path = info.outputPath('swapped.odt')
  await download.saveAs(path)
  const files = parts(new Uint8Array(readFileSync(path)))
  for (const part of xmlParts(files)) expect(familiesIn(files[part]!).has('skerrow'), part).toBe(false)

  await page.goto('/')
  await page.getByLabel('Files to open').setInputFiles(path)
  const again = page.getByRole('listitem').filter({ hasText: 'swapped' })
  await expect(again).toContainText('1 family absent', { timeout: 30_000 })
})

test('the browser sets the pages that the server and the command line set', async ({ page }) => {
  await put(page, 'Same pages.odt')
  await openDocument(page, 'Same pages.odt')
  const session = await DocumentSession.start(sailingGuide(), typesetter)
  for (const number of [3, 6, 11]) {
    await page.getByLabel('Go to page').fill(String(number))
    await page.getByLabel('Go to page').press('Enter')
    const sheet = page.locator(`section[aria-label="Page ${number}"]`)
    await expect(sheet.locator('span.whitespace-pre').first()).toBeAttached()
    const shown = await sheet.evaluate(section => ({
      width: (section as HTMLElement).offsetWidth,
      runs: [...section.querySelectorAll<HTMLElement>('span.whitespace-pre')].map(span => ({
        text: span.textContent,
        x: Number.parseFloat(span.style.left),
        size: Number.parseFloat(span.style.fontSize),
      })),
    }))
    const expected = displayPage(session.page(number - 1)!)
    const scale = shown.width / expected.width
    const runs = expected.runs.filter(run => run.text !== '')
    expect(shown.runs.map(run => run.text)).toEqual(runs.map(run => run.text))
    shown.runs.forEach((run, at) => {
      expect(run.x / scale).toBeCloseTo(runs[at]!.x, 0)
      expect(run.size / scale).toBeCloseTo(runs[at]!.size, 1)
    })
  }
})

test('the pages as PDF, and what is said of it', async ({ page }, info) => {
  await put(page, 'As a PDF.odt')
  await openDocument(page, 'As a PDF.odt')
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the PDF', exact: true }).click(),
  ])
  expect(download.suggestedFilename()).toBe('As a PDF.pdf')
  const path = info.outputPath('pages.pdf')
  await download.saveAs(path)
  expect(readFileSync(path).subarray(0, 8).toString()).toBe('%PDF-1.7')
  await expect(page.getByText(/^Saved: 24 pages, /)).toBeVisible()
  await expect(page.getByText('Not set as the file asks')).toHaveCount(0)
})

test('by keyboard alone', async ({ page }) => {
  await put(page, 'Keyboard.odt')
  await page.getByRole('link', { name: 'Keyboard', exact: true }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await page
    .getByRole('button', { name: /Skerrow/ })
    .first()
    .focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Place 1 of/)).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByText(/Place 2 of/)).toBeVisible()
  await page.keyboard.press('m')
  await expect(page.getByText('Marks hidden')).toBeVisible()
  await page.keyboard.press('m')
  await page.keyboard.press('Escape')
  await expect(page.getByText(/Place \d of/)).toBeHidden()
  await page.getByRole('tab', { name: 'Census' }).focus()
  for (const next of ['Absent', 'Type', 'Styles', 'House', 'Swap']) {
    await page.keyboard.press('ArrowDown')
    await expect(page.getByRole('tab', { name: next })).toBeFocused()
  }
  await page.getByLabel('Goes').first().focus()
  await page.keyboard.type('sker')
  await page.keyboard.press('Enter')
  await page.getByLabel('Comes').first().focus()
  await page.keyboard.type('archivo')
  await page.keyboard.press('Enter')
  const apply = page.getByRole('button', { name: /^Swap \d/ })
  await expect(apply).toBeEnabled({ timeout: 30_000 })
  await apply.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Done, as version 2.')).toBeVisible({ timeout: 30_000 })
})

test('two browsers on one document: the second is told what changed and loses nothing', async ({ page, browser }) => {
  await put(page, 'Two of us.odt')
  await openDocument(page, 'Two of us.odt')
  const other = await (await browser.newContext()).newPage()
  await other.goto(page.url())
  await expect(other.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  for (const [who, from, to] of [
    [page, 'Skerrow', 'Work Sans'],
    [other, 'Jost', 'Archivo'],
  ] as const) {
    await who.getByRole('tab', { name: 'Swap' }).click()
    await pickFamily(who, 'Goes', from)
    await pickFamily(who, 'Comes', to)
    await expect(who.getByRole('button', { name: /^Swap \d/ })).toBeEnabled({ timeout: 30_000 })
  }
  await page.getByRole('button', { name: /^Swap \d/ }).click()
  await expect(page.getByText('Done, as version 2.')).toBeVisible({ timeout: 30_000 })
  await other.getByRole('button', { name: /^Swap \d/ }).click()
  await expect(other.getByRole('alert')).toContainText('Skerrow gives way to Work Sans', { timeout: 30_000 })
  // The wish is kept and planned on what is there now.
  await other.getByRole('button', { name: /^Swap \d/ }).click()
  await expect(other.getByText('Done, as version 3.')).toBeVisible({ timeout: 30_000 })
  await other.context().close()
})

test('files are dropped on the shelf, and bad ones are told why', async ({ page }, info) => {
  await page.goto('/')
  const path = info.outputPath('letter.odt')
  writeFileSync(path, 'Dear all')
  await page.getByLabel('Files to open').setInputFiles(path)
  await expect(page.getByText('not an OpenDocument package')).toBeVisible()
  await page.getByRole('button', { name: 'Dismiss' }).click()
  const transfer = await page.evaluateHandle(
    bytes => {
      const data = new DataTransfer()
      data.items.add(new File([new Uint8Array(bytes)], 'Dropped.odt'))
      return data
    },
    [...sailingGuide()],
  )
  await page.locator('main').dispatchEvent('drop', { dataTransfer: transfer })
  await expect(page.getByRole('link', { name: 'Dropped', exact: true })).toBeVisible({ timeout: 30_000 })
})

test('what is thrown away lies in the trash, comes back whole, and goes for good when it is let go', async ({
  page,
}) => {
  await page.goto('/')
  const card = page.getByRole('link', { name: 'Dropped', exact: true })
  await page.getByRole('button', { name: 'Throw Dropped away' }).click()
  await expect(card).toBeHidden()
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(card).toBeVisible()
  // The same by the keyboard alone, and on to the trash.
  await page.getByRole('button', { name: 'Throw Dropped away' }).press('Enter')
  await expect(card).toBeHidden()
  await page.getByRole('tab', { name: 'Shelf' }).press('ArrowUp')
  await expect(page.getByRole('heading', { name: 'Trash' })).toBeVisible()
  await expect(page.getByRole('cell', { name: 'Dropped.odt', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Put Dropped.odt back on the shelf' }).press('Enter')
  await expect(page.getByText('Dropped.odt is back on the shelf.')).toBeVisible()
  await page.getByRole('tab', { name: 'Shelf' }).click()
  await page.getByRole('button', { name: 'Throw Dropped away' }).click()
  await page.getByRole('tab', { name: 'Trash' }).click()
  await page.getByRole('button', { name: 'Let Dropped.odt go for good' }).click()
  await noFindings(page)
  await page.getByRole('button', { name: 'Let go', exact: true }).click()
  await expect(page.getByText('Dropped.odt is gone for good.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Gone for good' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Put Dropped.odt back on the shelf' })).toBeHidden()
})

test('a folder says for how long it keeps documents', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Name of a new folder').fill('Fair of the year')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByLabel('How long this folder keeps documents').click()
  await page.getByRole('option', { name: '90 days after the last change' }).click()
  // It is shown when it is kept: whoever leaves before may have said nothing.
  await expect(page.getByLabel('How long this folder keeps documents')).toContainText('90 days')
  await page.reload()
  await page.getByRole('radio', { name: /Fair of the year/ }).click()
  await expect(page.getByLabel('How long this folder keeps documents')).toContainText('90 days')
  await page.getByRole('button', { name: 'Take the folder “Fair of the year” away' }).click()
})
