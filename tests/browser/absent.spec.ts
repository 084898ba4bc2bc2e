import { expect, type Page } from '@playwright/test'
import { colorReferences } from '../../core/document/color-references'
import { fontReferences } from '../../core/document/font-references'
import { openDocument } from '../../core/document/open'
import { paragraphsOf, readStories } from '../../core/document/stories'
import { paragraphText } from '../../core/style/runs'
import { galleyMenu } from '../../demo/galley-menu'
import { harbourNotice } from '../../demo/harbour-notice'
import { sailingGuide } from '../../demo/sailing-guide'
import { seasonReview } from '../../demo/season-review'
import { choose, downloadFile, noPageErrors, openOnDesk, putOnShelf } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

const words = (bytes: Uint8Array) =>
  readStories(openDocument(bytes).parts.get('content.xml')!)
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraphText)
    .join('\n')
const names = (bytes: Uint8Array) =>
  new Set(fontReferences(openDocument(bytes)).flatMap(reference => reference.families))
const option = (page: Page) => page.locator('[role=listbox] [role=option]').first()
async function pick(page: Page, label: string, family: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).first().fill(family)
  await option(page).click()
}

test('absent faces: told in one line, walked, shown by a stand-in, and the file stays as it was', async ({ page }) => {
  await openOnDesk(page, 'Absent menu.odg', galleyMenu())
  await expect(page.getByText('2 faces are absent: Brannock, Tolmere Script.')).toBeVisible()
  await page.getByRole('button', { name: 'See what can be done' }).click()
  await expect(page.getByRole('heading', { name: 'Absent faces' })).toBeVisible()
  await page.getByRole('button', { name: /^Brannock/ }).click()
  await expect(page.getByRole('cell', { name: 'In styles' })).toBeVisible()
  await expect(page.getByText('the file calls it roman').first()).toBeVisible()
  await page.getByRole('button', { name: 'Next place' }).click()
  await expect(page.getByText(/^1 of \d+$/)).toBeVisible()
  await expect(page.getByText(/the same lines|lines? more|lines? fewer/).first()).toBeVisible({ timeout: 20_000 })
  await page
    .getByRole('button', { name: 'Let Literata stand in for Brannock' })
    .or(page.getByRole('button', { name: 'Let Spectral stand in for Brannock' }))
    .first()
    .click()
  await expect(page.getByText(/stands in\. The file still says what it said\./)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(/stands in, as you chose/)).toBeVisible()
  expect(Buffer.compare(await downloadFile(page, 'Absent menu'), galleyMenu())).toBe(0)
})

test('one lone space in an absent face is seen and deleted on the spot', async ({ page }) => {
  await openOnDesk(page, 'One lone space.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Absent' }).click()
  await page.getByRole('button', { name: /Ovrelund Light.*one space/ }).click()
  await page.getByRole('button', { name: 'Next place' }).click()
  await expect(page.getByText('“␣”')).toBeVisible()
  await page.getByRole('button', { name: 'Plain reading' }).click()
  await page.getByRole('button', { name: 'Back to the pages' }).click()
  await page.getByRole('button', { name: 'Delete it' }).click()
  await expect(page.getByText('It is gone.')).toBeVisible({ timeout: 20_000 })
  // No text is set in it any more: only the file's definitions name it.
  await expect(page.getByRole('button', { name: /Ovrelund Light.*named, no text/ })).toBeVisible()
  const now = await downloadFile(page, 'One lone space')
  expect(words(now).length).toBe(words(sailingGuide()).length - 1)
})

test('the Season review: the retired face goes from charts, notes, tables and defaults, and no start names it', async ({
  page,
}) => {
  await openOnDesk(page, 'Season without Skerrow.odp', seasonReview())
  await page.getByRole('tab', { name: 'Swap' }).click()
  await pick(page, 'Goes', 'Skerrow')
  // Arrowing through the library shows each face on the pages.
  await page.getByRole('combobox', { name: 'Comes' }).fill('archivo')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('combobox', { name: 'Comes' }).fill('work sans')
  await option(page).click()
  await expect(page.getByRole('heading', { name: 'Text that shares the font' })).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('Shown as it would be.')).toHaveCount(0)
  for (const kind of ['defaults', 'charts']) await expect(page.getByLabel(`All ${kind} in the plan`)).toBeChecked()
  await page.getByRole('button', { name: /^Swap 3 faces in/ }).click()
  await expect(page.getByText('Done, as version 2.')).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('The census finds nothing of the old font')).toBeVisible()
  const now = await downloadFile(page, 'Season without Skerrow')
  expect([...names(now)].some(name => name.toLowerCase() === 'skerrow')).toBe(false)
  await page.getByRole('tab', { name: 'Defaults' }).click()
  await expect(
    page
      .locator('#tray')
      .getByText(/Work Sans/)
      .first(),
  ).toBeVisible()
  await expect(page.locator('#tray').getByText('Skerrow')).toHaveCount(0)
})

test('the walk by keyboard: pages before and after, accepted, left out, repaired, with the count left', async ({
  page,
}) => {
  await openOnDesk(page, 'Walked.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Swap' }).click()
  await pick(page, 'Goes', 'Skerrow')
  await pick(page, 'Comes', 'Work Sans')
  const walk = page.getByLabel(/^The walk/)
  await expect(walk).toBeVisible({ timeout: 30_000 })
  const count = page.getByText(/\d+ left, \d+ flagged/)
  const left = async () => Number(/^(\d+) left/.exec((await count.textContent()) ?? '')![1])
  const before = await left()
  // What runs over comes first, and is repaired.
  await expect(page.getByText('Page 6 now')).toBeVisible()
  await walk.focus()
  await page.keyboard.press('r')
  await expect(page.getByLabel('Repairs', { exact: true })).toBeVisible({ timeout: 30_000 })
  await page.keyboard.press('1')
  await expect(page.getByText('1 repair in the plan.')).toBeVisible({ timeout: 30_000 })
  // The next flagged page has a paragraph that gains a line: left out, it keeps the old font.
  await walk.focus()
  for (
    let tries = 0;
    tries < 4 && (await page.getByRole('button', { name: 'Leave this row out (L)' }).isDisabled());
    tries++
  )
    await page.keyboard.press('ArrowRight')
  await page.keyboard.press('l')
  await expect(page.getByText('One paragraph keeps the old font.')).toBeVisible({ timeout: 30_000 })
  const rest = await left()
  await walk.focus()
  await page.keyboard.press('a')
  await expect.poll(left).toBe(rest - 1)
  expect(rest).toBeLessThanOrEqual(before)
  await page.getByRole('button', { name: 'Size, scope' }).click()
  await choose(page.getByRole('combobox', { name: /^Size/ }).first(), 'equal x-height')
  await expect(page.getByText(/^Sizes go to \d/)).toBeVisible({ timeout: 30_000 })
})

test('a recast by words and by colour: the wish in one sentence, walked, left out, carried out, undone, kept and recorded', async ({
  page,
}) => {
  await openOnDesk(page, 'Recast.odt', harbourNotice())
  const before = words(harbourNotice())
  const [word] = /\b[A-Z][a-z]{5,}\b/.exec(before)!
  await page.getByRole('tab', { name: 'Recast' }).click()
  await page.getByRole('textbox', { name: 'Words', exact: true }).fill(word)
  await page.getByLabel('match case').check()
  await page.getByLabel('whole words').check()
  await page.getByRole('checkbox', { name: 'new words' }).check()
  await page.getByRole('textbox', { name: 'New words' }).fill('Herring')
  await expect(page.getByLabel('The wish')).toHaveText(
    `Find “${word}”, in this case alone, as whole words in the whole document, and write “Herring”.`,
  )
  await page.getByRole('button', { name: 'Look', exact: true }).click()
  await expect(page.getByRole('heading', { name: /^\d+ match/ })).toBeVisible({ timeout: 20_000 })
  await page.getByLabel('Name to keep this wish under').fill('Herrings')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('Kept as “Herrings”.')).toBeVisible()
  await page.getByRole('button', { name: 'Next match' }).click()
  await page.getByRole('button', { name: /^Recast \d+ places?$/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'as version 2' })).toBeVisible({ timeout: 20_000 })
  expect(words(await downloadFile(page, 'Recast'))).toBe(before.replaceAll(new RegExp(`\\b${word}\\b`, 'g'), 'Herring'))
  await page.getByRole('link', { name: 'Record of version 2', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('write “Herring”')
  await expect(page.getByAltText(/before the change/)).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('tab', { name: 'Recast' })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('tab', { name: 'Recast' }).click()
  await page.getByRole('button', { name: 'Clear it all' }).click()
  await page.getByRole('button', { name: /colours? named in this document/ }).click()
  const [color] = colorReferences(openDocument(harbourNotice())).map(reference => reference.color)
  await page.getByRole('button', { name: new RegExp(`^Exchange ${color}`) }).click()
  await page.getByLabel(`What ${color} becomes`, { exact: true }).fill('#123456')
  await page.getByRole('button', { name: 'Look', exact: true }).click()
  await page.getByRole('button', { name: /^Recast \d+ place/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'as version 3' })).toBeVisible({ timeout: 20_000 })
  const recolored = colorReferences(openDocument(await downloadFile(page, 'Recast'))).map(reference => reference.color)
  expect(recolored).not.toContain(color)
  expect(recolored).toContain('#123456')
  await page.getByRole('tab', { name: 'Recast' }).click()
  await page.getByRole('button', { name: 'Forget Herrings' }).click()
})

test('one plan over several documents, seen, carried out and taken back', async ({ page }) => {
  const titles = [
    await putOnShelf(page, 'Across one.odt', harbourNotice()),
    await putOnShelf(page, 'Across two.odt', harbourNotice()),
  ]
  await page.getByRole('tab', { name: 'All documents' }).click()
  await expect(page.getByRole('heading', { name: 'All documents' })).toBeVisible()
  await page.getByRole('button', { name: 'None' }).click()
  for (const title of titles) await page.getByLabel(`${title}.odt: in the plan`).first().check()
  await pick(page, 'Goes', 'Spectral')
  await pick(page, 'Comes', 'Literata')
  await page.getByRole('button', { name: 'Plan it for 2 documents' }).click()
  await page.getByRole('button', { name: 'Carry it out in 2 documents' }).click({ timeout: 60_000 })
  await expect(page.getByText('Done: 2 documents changed, one version each.')).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Take it back in 2 documents' }).click()
  await expect(page.getByText('Taken back in 2 documents.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('tab', { name: 'Records' }).click()
  await expect(page.getByRole('link', { name: 'Spectral gives way to Literata' }).first()).toBeVisible()
})
