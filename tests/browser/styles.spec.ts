import { expect } from '@playwright/test'
import { openDocument } from '../../core/document/open'
import { readRules } from '../../core/document/rules'
import { paragraphsOf, readStories } from '../../core/document/stories'
import { paragraphText } from '../../core/style/runs'
import { listLevels } from '../../core/change/levels/level-list'
import { harbourNotice } from '../../demo/harbour-notice'
import { sailingGuide } from '../../demo/sailing-guide'
import { seasonReview } from '../../demo/season-review'
import { session } from '../support/fixtures'
import { choose, downloadFile, noPageErrors, openOnDesk, putOnShelf, sheetText, tabTo } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

const words = (bytes: Uint8Array) =>
  readStories(openDocument(bytes).parts.get('content.xml')!)
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraphText)

test('the Sailing guide is settled by mouse, and only the text that was meant changes', async ({ page }) => {
  await openOnDesk(page, 'Settled by mouse.odt', sailingGuide())
  await page.getByRole('button', { name: 'Settle it', exact: true }).first().click()
  await expect(page.getByRole('heading', { name: 'Settle local formatting in 17 places' })).toBeVisible()
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await expect(page.getByText('24 pages before and after')).toBeVisible()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText('100 % of the text settled')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('Shown as it would be.')).toHaveCount(0)
  await page.getByRole('tab', { name: 'Census' }).click()
  await expect(page.getByRole('heading', { name: '100 % settled' })).toBeVisible()
  await expect(page.getByText('twin of another')).toHaveCount(0)
  const now = await downloadFile(page, 'Settled by mouse')
  expect(words(now)).toEqual(words(sailingGuide()))
  await page.getByRole('button', { name: /^Undo: Settle/ }).click()
  await expect(page.getByRole('button', { name: /^Redo: Settle/ })).toBeVisible({ timeout: 20_000 })
  expect(Buffer.compare(await downloadFile(page, 'Settled by mouse'), sailingGuide())).toBe(0)
})

test('the Sailing guide is settled by the keyboard alone', async ({ page }) => {
  await putOnShelf(page, 'Settled by keys.odt', sailingGuide())
  await tabTo(page, /^Settled by keys$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await page.keyboard.press('Alt+s')
  await expect(page.getByLabel(/^Search styles/)).toBeFocused()
  await tabTo(page, /^Settle local formatting$/, 'Shift+Tab')
  await page.keyboard.press('Enter')
  await tabTo(page, /^Show the plan$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Carry it out/ })).toBeFocused({ timeout: 20_000 })
  // A row is left out and taken in again.
  await tabTo(page, /9\.8 pt: in the plan$/)
  await page.keyboard.press('Space')
  await expect(page.getByRole('heading', { name: 'Settle local formatting in 16 places' })).toBeVisible({
    timeout: 20_000,
  })
  await tabTo(page, /9\.8 pt: in the plan$/)
  await page.keyboard.press('Space')
  await expect(page.getByRole('heading', { name: 'Settle local formatting in 17 places' })).toBeVisible({
    timeout: 20_000,
  })
  await tabTo(page, /^Carry it out/, 'Shift+Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByText('100 % of the text settled')).toBeVisible({ timeout: 20_000 })
})

test('a style is edited before one’s eyes, kept, applied by a key of one’s own, and traced', async ({ page }) => {
  await openOnDesk(page, 'Edited styles.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.locator('[data-style="Lead"] button').click()
  await page.getByRole('button', { name: 'Edit', exact: true }).click()
  const size = page.getByLabel('Size', { exact: true })
  await expect(size).toHaveValue('13 pt')
  await size.fill('6 mm')
  await size.press('Enter')
  await expect(page.getByText('Shown as it would be.')).toBeVisible()
  await expect(size).toHaveValue('17.01 pt')
  await size.fill('nonsense')
  await size.press('Enter')
  await expect(page.getByText('“nonsense” is no length')).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('Standfirst')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Done: Rename the style Lead to Standfirst.')).toBeVisible({ timeout: 20_000 })
  await choose(page.getByLabel('Key', { exact: true }), 'Alt 3')
  await page
    .locator('section[aria-label^="Page 1"]')
    .first()
    .click({ position: { x: 150, y: 330 } })
  await expect(page.getByRole('heading', { name: 'Why it looks so' })).toBeVisible()
  await expect(page.getByText('in Body; settled')).toBeVisible()
  await page.keyboard.press('Alt+3')
  await expect(page.getByText('Done: Give 1 paragraph the style Standfirst.')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('in Standfirst; settled')).toBeVisible()
  await expect(page.getByRole('row', { name: /^size 17\.01 pt Standfirst/ })).toBeVisible()
})

test('a rule gives one language its own type on a bilingual page, and keeps doing so', async ({ page }) => {
  await openOnDesk(page, 'Bilingual.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.getByRole('button', { name: 'New style' }).click()
  await choose(page.getByLabel('Kind'), 'character style')
  await page.getByLabel('Name', { exact: true }).fill('Japanese')
  await page.getByText('Asian and complex text').click()
  await page.getByRole('combobox', { name: 'Family of asian text' }).fill('BIZ UDP')
  await page.getByRole('option', { name: /BIZ UDPGothic/ }).click()
  await choose(page.getByLabel('Weight'), 'bold')
  await page.getByLabel('Colour, as a value').fill('#1f6f6b')
  await page.getByLabel('Colour, as a value').press('Enter')
  await choose(page.getByLabel('Asian language'), 'Japanese')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByText('Done: Make the style Japanese.')).toBeVisible({ timeout: 20_000 })
  // What was made is shown among its like.
  await expect(page.getByRole('radio', { name: 'Characters' })).toBeChecked()
  await page.getByRole('radio', { name: 'Paragraphs' }).click()
  await page.locator('[data-style="Body"] button').click()
  await page.getByRole('button', { name: 'Rules', exact: true }).click()
  await choose(page.getByLabel('Add a pattern from its parts'), /^Japanese text with its signs and figures/)
  await expect(page.getByText('一日券（大人1,200円、子供600円）')).toBeVisible()
  await choose(page.getByLabel('Character style that it takes'), 'Japanese')
  const ready = await page.getByLabel('The pattern, a regular expression').inputValue()
  await page.getByLabel('The pattern, a regular expression').fill('[a')
  await expect(page.getByText(/This pattern cannot be read/)).toBeVisible()
  await page.getByLabel('The pattern, a regular expression').fill(ready)
  await expect(page.getByText(/\d places, lit up/)).toBeVisible()
  await page.getByRole('button', { name: 'Show the plan' }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText('Set the rules of Body.')).toBeVisible({ timeout: 20_000 })
  const first = openDocument(await downloadFile(page, 'Bilingual'))
  const spans = (of: typeof first) => {
    const part = of.parts.get('content.xml')!
    return [...part.descendants()]
      .filter(each => each.name === 'text:span' && each.attributes['text:style-name']?.startsWith('Rule_20_'))
      .map(each => part.textOf(each.id))
  }
  expect(spans(first)[0]).toBe('一日券（大人1,200円、子供600円）')
  expect(readRules(first).patterns).toMatchObject([{ style: 'Body', character: 'Japanese' }])

  // Editing the text: the rule acts on what is written.
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible({ timeout: 30_000 })
  await page.getByLabel('Find text on the pages').fill('子供600円')
  await page.getByLabel('Find text on the pages').press('Enter')
  await expect(page.locator('[data-selection]').first()).toBeVisible()
  await page.getByLabel(/^Sheets/).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.insertText('、犬100円')
  await expect.poll(() => sheetText(page, 'Page ')).toContain('子供600円、犬100円')
  await expect(page.getByText(/^(Typing|Storing) …$/)).toHaveCount(0, { timeout: 20_000 })
  expect(spans(openDocument(await downloadFile(page, 'Bilingual')))[0]).toBe(
    '一日券（大人1,200円、子供600円、犬100円）',
  )
})

test('defaults are repaired and set, and new frames come up right', async ({ page }) => {
  await openOnDesk(page, 'New starts.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Defaults' }).click()
  await page.getByRole('button', { name: 'Begin with Spectral' }).click()
  await expect(page.getByText('no paragraph gains or loses a line')).toBeVisible({
    timeout: 20_000,
  })
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/^Set what new/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('New text would begin in a face that is not here')).toHaveCount(0)
  await page.getByRole('button', { name: 'Set what a new Text frame begins with' }).click()
  await page.getByLabel('Size', { exact: true }).fill('14')
  await page.getByLabel('Inset').fill('3 mm')
  await page.getByRole('button', { name: 'Show the plan' }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText('Set what new text frames begin with.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('tab', { name: 'Pages' }).click()
  await page.getByRole('button', { name: 'New text frame', exact: true }).click()
  await page.getByLabel(/^Sheets/).focus()
  await expect(page.getByLabel('Keep the chosen frame as')).toBeVisible()
  await page.getByLabel('Keep the chosen frame as').fill('Plain box')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText(/^Plain box/)).toBeVisible()
  await page.getByRole('button', { name: 'Put Plain box in without text' }).click()
  await expect(page.getByRole('button', { name: /^Undo: Put a kept frame in/ })).toBeVisible({ timeout: 20_000 })
  const document = openDocument(await downloadFile(page, 'New starts'))
  const part = document.parts.get('content.xml')!
  const frames = [...part.descendants()].filter(
    each => each.name === 'draw:frame' && each.attributes['draw:name']?.startsWith('Text frame'),
  )
  expect(frames.length).toBe(2)
  const start = readRules(document).starts.frame!
  for (const frame of frames)
    expect([...part.descendants(frame)].find(each => each.name === 'text:p')!.attributes['text:style-name']).toBe(
      start.paragraph,
    )
  await page.getByRole('tab', { name: 'Pages' }).click()
  await page.getByRole('button', { name: 'Remove Plain box' }).click()
  await expect(page.getByText(/^Plain box/)).toHaveCount(0)
})

test('styles come from another document, and the shelf has folders and search', async ({ page }) => {
  await putOnShelf(page, 'Their notice.odt', harbourNotice())
  await openOnDesk(page, 'Takes styles.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.getByRole('button', { name: 'Styles from elsewhere' }).click()
  await page.getByRole('combobox', { name: 'From' }).fill('their notice')
  await page
    .getByRole('option', { name: /^Their notice.odt/ })
    .first()
    .click()
  const box = page.getByRole('checkbox', { name: 'Take Standard', exact: true })
  await box.check({ timeout: 20_000 })
  await choose(page.getByLabel('Standard is there already'), 'keep both')
  await page.getByRole('button', { name: 'Show the plan' }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.locator('[data-style^="Standard_2c_"]')).toBeVisible({ timeout: 20_000 })

  await page.goto('/')
  await page.getByLabel('Name of a new folder').fill('Notices')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByText('This folder is empty.')).toBeVisible()
  await page.getByRole('radio', { name: 'Everything' }).click()
  await choose(page.getByLabel('Folder of Their notice').first(), 'Notices')
  await page.getByRole('radio', { name: /^Notices/ }).click()
  await expect(page.getByRole('link', { name: 'Their notice', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Takes styles', exact: true })).toHaveCount(0)
  await page.getByRole('button', { name: 'Defaults' }).click()
  await expect(page.getByLabel('For', { exact: true })).toHaveText('the folder Notices')
  await page.getByRole('button', { name: 'Set Body text' }).click()
  await page.getByRole('combobox', { name: 'Family' }).fill('Alegreya')
  await page
    .getByRole('option', { name: /^Alegreya/ })
    .first()
    .click()
  await page.getByLabel('Size', { exact: true }).fill('11.5')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Kept. New documents begin so')).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'New document' }).click()
  await page.getByLabel('Title').fill('Fresh notice')
  await page.getByRole('button', { name: 'Make it' }).last().click()
  await page.waitForURL(/documents/)
  await page.getByRole('tab', { name: 'Defaults' }).click()
  await expect(page.getByRole('row', { name: /^Body text Alegreya 11\.5 pt/ })).toBeVisible({ timeout: 20_000 })
  await page.goto('/')
  await page.getByLabel('Search the shelf').fill('fresh')
  await expect(page.getByRole('link', { name: 'Fresh notice', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Their notice', exact: true })).toHaveCount(0)
  await page.getByLabel('Search the shelf').fill('')
  await page.getByRole('radio', { name: /^Notices/ }).click()
  // A folder takes another name with all that is in it and holds for it.
  await page.getByRole('button', { name: 'Rename the folder' }).click()
  await page.getByLabel('New name of the folder').fill('Harbour papers')
  await page.getByRole('button', { name: 'Rename', exact: true }).click()
  await expect(page.getByRole('radio', { name: /^Harbour papers/ })).toBeChecked()
  await expect(page.getByRole('link', { name: 'Fresh notice', exact: true })).toBeVisible()
  await choose(page.getByLabel('Sort by'), 'name')
  await expect(page.getByRole('heading', { level: 2 })).toHaveText(['Fresh notice', 'Their notice'])
  await page.getByRole('button', { name: 'Take the folder “Harbour papers” away' }).click()
  await expect(page.getByRole('radio', { name: /^Harbour papers/ })).toHaveCount(0)
})

test('a placeholder of a deck is edited in its own row, and its slides follow', async ({ page }) => {
  await openOnDesk(page, 'Placeholders.odp', seasonReview())
  await page.getByRole('tab', { name: 'Styles' }).click()
  await expect(page.getByRole('radio', { name: 'Placeholders' })).toBeChecked({ timeout: 20_000 })
  await page.locator('[data-style="Saltmere-title"] button').click()
  await page.getByRole('button', { name: 'Edit', exact: true }).click()
  const size = page.getByLabel('Size', { exact: true })
  await size.fill('31')
  await size.press('Enter')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText(/^Done: Change the style Saltmere-title/)).toBeVisible({ timeout: 20_000 })
  const title = listLevels(session(await downloadFile(page, 'Placeholders')).reading).find(
    each => each.placeholder === 'title',
  )
  expect(title!.size).toBe(31)
})
