import { unzipSync, zipSync } from 'fflate'
import { expect, type Page } from '@playwright/test'
import { openDocument, saveDocument } from '../../core/document/open'
import { galleyMenu } from '../../demo/galley-menu'
import { sailingGuide } from '../../demo/sailing-guide'
import { seasonReview } from '../../demo/season-review'
import { choose, downloadFile, noPageErrors, openOnDesk, sheetText } from '../support/browser'
import { otherDifferences, parts } from '../support/independent'
import { test } from '../support/desk-browser'

noPageErrors()

const stored = (page: Page) => expect(page.getByText(/^(Typing|Storing) …$/)).toHaveCount(0, { timeout: 20_000 })

test('the lone space is found, deleted, undone, done again, and nothing else changes', async ({ page }) => {
  await openOnDesk(page, 'Lone space.odt', sailingGuide())
  await page
    .getByRole('button', { name: /Ovrelund Light/ })
    .first()
    .click()
  await expect(page.getByText('Place 1 of 1')).toBeVisible()
  // The walk shows it large enough to be seen, and a click beside it puts the caret there.
  await expect
    .poll(async () => Number.parseInt((await page.getByText(/^\d+ %$/).textContent()) ?? '0', 10))
    .toBeGreaterThan(110)
  await page.getByRole('button', { name: 'Fit' }).click()
  await page.getByLabel('Find text on the pages').fill('water.  There')
  await page.getByLabel('Find text on the pages').press('Enter')
  await expect(page.getByText('1 of 1', { exact: true })).toBeVisible()
  await expect(page.locator('[data-selection]').first()).toBeVisible()
  // The caret goes into the selection's page, to its beginning, then behind the first of the two spaces.
  await page.getByLabel(/^Sheets/).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('ArrowLeft')
  for (let step = 0; step < 'water. '.length; step++) await page.keyboard.press('ArrowRight')
  const sheet = 'Page 11'
  const before = await sheetText(page, sheet)
  expect(before).toContain('water.  There')
  await page.keyboard.press('Backspace')
  await expect.poll(() => sheetText(page, sheet)).toContain('water. There')
  await stored(page)
  await expect(page.getByRole('button', { name: /^Undo: Deleted 1 space/ })).toBeVisible()

  await page.keyboard.press('Control+z')
  await expect.poll(() => sheetText(page, sheet)).toContain('water.  There')
  await expect(page.getByRole('button', { name: /^Redo: Deleted 1 space/ })).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => sheetText(page, sheet)).toContain('water. There')
  await expect(page.getByRole('button', { name: /^Undo: Deleted 1 space/ })).toBeEnabled({ timeout: 20_000 })

  const now = parts(await downloadFile(page, 'Lone space'))
  const old = parts(sailingGuide())
  expect(Object.keys(now)).toEqual(Object.keys(old))
  for (const path of Object.keys(old))
    if (path !== 'content.xml') expect(Buffer.compare(now[path]!, old[path]!), path).toBe(0)
  // One stretch of the content differs, and it is short.
  const [a, b] = [old['content.xml']!, now['content.xml']!]
  let start = 0
  while (a[start] === b[start]) start++
  let end = 0
  while (a[a.length - 1 - end] === b[b.length - 1 - end]) end++
  expect(a.length - start - end).toBeLessThan(80)
  expect(b.length - start - end).toBeLessThan(20)
})

test('words are written, divided, joined and pasted by keyboard alone', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openOnDesk(page, 'By keyboard.odt', sailingGuide())
  await page.getByLabel(/^Sheets/).focus()
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-caret]')).toBeVisible()
  await page.keyboard.press('Control+Home')
  await page.keyboard.press('End')
  await page.keyboard.type(' ever')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Second thoughts')
  await expect.poll(() => sheetText(page, 'Page 1')).toContain('Second thoughts')
  const heading = await sheetText(page, 'Page 1')
  expect(heading).toContain('outer ever')
  await page.keyboard.press('Home')
  await page.keyboard.press('Backspace')
  await expect.poll(() => sheetText(page, 'Page 1')).toMatch(/everSecond thoughts/)
  // Select a word, copy it, and paste it twice.
  await page.keyboard.press('Control+Shift+ArrowRight')
  await expect(page.locator('[data-selection]').first()).toBeVisible()
  await page.keyboard.press('Control+c')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.type(' ')
  await page.keyboard.press('Control+v')
  await expect.poll(() => sheetText(page, 'Page 1')).toContain('Second Second')
  await page.keyboard.press('Control+Shift+ArrowLeft')
  await page.keyboard.press('Control+x')
  await expect.poll(() => sheetText(page, 'Page 1')).not.toContain('Second Second')
  await stored(page)
  // One undo for what was done in one go, and the words are gone.
  for (let tries = 0; tries < 6 && (await sheetText(page, 'Page 1')).includes('outer ever'); tries++) {
    await page.keyboard.press('Control+z')
    await page.waitForTimeout(1200)
  }
  await expect.poll(() => sheetText(page, 'Page 1')).not.toContain('outer ever')
  expect(await sheetText(page, 'Page 1')).toContain('Crossing to the outer islands')
  // Escape leads out again.
  await page.keyboard.press('Escape')
  await expect(page.getByLabel(/^Sheets/)).toBeFocused()
  await page.keyboard.press('PageDown')
  await expect(page.getByLabel('Go to page')).toHaveValue('2')
})

test('text with structure is asked about once, and takes the document’s own styles', async ({ page }) => {
  await openOnDesk(page, 'Pasted.odt', sailingGuide())
  const paste = (html: string, text: string) =>
    page.getByLabel(/Words at the caret/).evaluate(
      (field, [markup, words]) => {
        const data = new DataTransfer()
        data.setData('text/html', markup!)
        data.setData('text/plain', words!)
        field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
      },
      [html, text],
    )
  await page.getByText('From the first thaw', { exact: false }).first().click()
  await page.keyboard.press('Home')
  await paste(
    '<h2 style="font-family:Comic">New pier</h2><p style="color:red">It is <b>open</b>.</p>',
    'New pier\nIt is open.',
  )
  await expect(page.getByRole('heading', { name: 'What shall come along?' })).toBeVisible()
  await page.getByRole('button', { name: /Words and structure/ }).click()
  await expect.poll(() => sheetText(page, 'Page 1')).toContain('New pier')
  await stored(page)
  await paste('<h2>Again</h2><p>more</p>', 'Again\nmore')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect.poll(() => sheetText(page, 'Page 1')).toContain('Again')
  await stored(page)
  const content = new TextDecoder().decode(parts(await downloadFile(page, 'Pasted'))['content.xml']!)
  expect(content).toContain('<text:h text:style-name="Heading_20_2" text:outline-level="2">New pier</text:h>')
  expect(content).not.toContain('Comic')
  expect(content).not.toContain('"red"')
  await page.getByRole('tab', { name: 'Pages' }).click()
  await expect(page.getByLabel('Text pasted with structure')).toHaveText('words and structure')
})

test('a deck: its notes, masters, contact sheet and plain reading; a wrong face in a chart is marked', async ({
  page,
}) => {
  await openOnDesk(page, 'Deck.odp', seasonReview())
  await page
    .getByRole('button', { name: /Skerrow Regular/ })
    .first()
    .click()
  await expect(page.getByText(/Place 1 of \d+/)).toBeVisible()
  await page.getByRole('tab', { name: 'Pages' }).click()
  await page.getByRole('radio', { name: /Speaker notes/ }).click()
  await expect.poll(() => sheetText(page, 'Page 1, notes')).toContain('Good evening')
  await page.getByRole('radio', { name: /Masters/ }).click()
  await expect.poll(() => sheetText(page, 'Page Master Saltmere')).toContain('Title')
  await page.getByRole('radio', { name: /^Pages/ }).click()
  await page.getByRole('radio', { name: 'Contact sheet' }).click()
  await expect(page.locator('section[aria-label="Page 14, Until the thaw"]')).toBeVisible()
  await page.locator('section[aria-label="Page 3, Passengers by month"]').click({ force: true })
  await expect(page.getByLabel('Go to page')).toHaveValue('3')
  await expect.poll(() => sheetText(page, 'Page 3')).toContain('Passengers by month')
  await expect(page.locator('section[aria-label^="Page 3"]').getByText('Skerrow shown in')).toBeVisible()
  await page.getByRole('radio', { name: 'Plain reading' }).click()
  await expect(page.getByLabel('Plain reading').getByText('evening', { exact: false }).first()).toBeVisible()

  // Pages are added and moved.
  await page.getByRole('radio', { name: 'One below the other' }).click()
  await page.getByLabel('Go to page').fill('2')
  await page.getByLabel('Go to page').press('Enter')
  await page.getByRole('button', { name: 'Add a page behind it' }).click()
  await expect(page.getByText('of 15')).toBeVisible({ timeout: 20_000 })
  await stored(page)
  await page.getByRole('button', { name: /^Undo: Added a page/ }).click()
  await expect(page.getByText('of 14')).toBeVisible({ timeout: 20_000 })
})

test('a folded sheet: what lies off it and what is absent is said; a frame is chosen, moved and sized', async ({
  page,
}) => {
  // As it comes where somebody forgot to send its picture along.
  const { 'Pictures/gull.png': _gull, ...sent } = unzipSync(galleyMenu())
  await openOnDesk(page, 'Folded.odg', zipSync(sent, { level: 0 }))
  await page.getByRole('tab', { name: 'Pages' }).click()
  await expect(page.getByText('Absent picture: Gull')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('cell', { name: /1 thing lies off the page/ })).toBeVisible()
  const sheet = (await page.locator('section[aria-label="Page 1, Outside"]').boundingBox())!
  await page.keyboard.down('Alt')
  await page.mouse.click(sheet.x + sheet.width * 0.15, sheet.y + sheet.height * 0.2)
  await page.keyboard.up('Alt')
  await expect(page.getByRole('heading', { name: 'Story, 1' })).toBeVisible()
  await expect(page.getByLabel('From the left')).toHaveValue('10 mm')
  await page.getByLabel('From the left').fill('1.5cm')
  await page.getByLabel('From the left').press('Enter')
  await expect(page.getByLabel('From the left')).toHaveValue('15 mm')
  await page.getByLabel('Width').fill('nonsense')
  await page.getByLabel('Width').press('Enter')
  await expect(page.getByRole('alert').filter({ hasText: 'is no length' })).toBeVisible()
  await page.getByRole('group', { name: /^Story, 1/ }).focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect(page.getByLabel('Height')).toHaveValue('77 mm')
  // Dragged by the mouse it goes along.
  const box = (await page.locator('[data-frame]').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByLabel('From the left')).not.toHaveValue('15 mm')
  // Escape lets go; from words in a frame it leads to the frame, then out.
  await page.getByRole('group', { name: /^Story, 1/ }).focus()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('group', { name: /^Story, 1/ })).toHaveCount(0)
  await page.getByLabel(/^Sheets/).focus()
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-caret]')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('group', { name: /Arrow keys move it/ })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByLabel(/^Sheets/)).toBeFocused()
  await stored(page)
  const now = parts(await downloadFile(page, 'Folded'))
  const old = parts(galleyMenu())
  expect(
    otherDifferences(old['content.xml']!, now['content.xml']!).every(difference =>
      /svg:(x|y|width|height)/.test(difference),
    ),
  ).toBe(true)
  expect(openDocument(saveDocument(openDocument(galleyMenu()))).kind).toBe('drawing')
})

test('a new document from a page size, with a frame drawn on it', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New document' }).click()
  await page.getByLabel('Title').fill('Pier poster')
  await choose(page.getByRole('combobox', { name: /^Kind/ }), 'Drawing')
  await choose(page.getByRole('combobox', { name: /^Page/ }), /^A5,/)
  await page.getByLabel('Margin left').fill('2 in')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByRole('heading', { name: 'Pages', level: 1 })).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Fill the margins' }).click()
  await expect(page.getByLabel('From the left')).toHaveValue('50.8 mm')
  await page.getByRole('button', { name: 'Put filler in' }).click()
  await expect.poll(() => sheetText(page, 'Page 1')).toContain('The morning boat')
  await stored(page)
  await page.getByRole('button', { name: 'Let go of it' }).click()
  await page.getByRole('button', { name: 'Draw a text frame' }).click()
  const sheet = (await page.locator('section[aria-label^="Page 1"]').boundingBox())!
  await page.mouse.move(sheet.x + 40, sheet.y + 300)
  await page.mouse.down()
  await page.mouse.move(sheet.x + 200, sheet.y + 400, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByRole('heading', { name: 'Text frame 2' })).toBeVisible()
  await stored(page)
})
