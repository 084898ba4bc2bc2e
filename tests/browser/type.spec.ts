import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, type Page } from '@playwright/test'
import { measuresIn } from '../../core/font/face'
import { renamedFont } from '../../server/library/font-rename'
import { projectFolder, readFontFile } from '../../server/library/files'
import { shippedFaces } from '../../server/library/shipped'
import { collectionOf } from '../support/collection'
import { sailingGuide } from '../../demo/sailing-guide'
import { choose, noPageErrors, openOnDesk, putOnShelf } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

const plain = (family: string) =>
  shippedFaces().find(({ face }) => face.family === family && face.style === 'Regular')!.face

/** Types into the field of the given face, once it says which is given: what comes after would be typed into. */
async function lookFor(page: Page, words: string): Promise<void> {
  const field = page.getByRole('combobox', { name: 'To go with' })
  await expect(field).not.toHaveValue('')
  await field.fill(words)
}

test('in the library a face is found by look, kept, compared and seen from close by', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('tab', { name: 'Library' }).click()
  const search = page.getByRole('searchbox', { name: 'Search faces by name, look and measure' })
  await search.fill('old-style serif, x-height over 430, old-style figures, zzqx')
  const parts = page.getByRole('list', { name: 'How it was understood' })
  await expect(parts.getByRole('button')).toHaveCount(5)
  await expect(parts.getByText('“zzqx” is no name here and no word for a look')).toBeVisible()
  await parts.getByRole('button', { name: /zzqx/ }).click()
  await expect(search).toHaveValue('old-style serif, x-height over 430, old-style figures')
  const faces = page.getByRole('listbox', { name: 'Faces' })
  await faces.getByRole('option', { name: /^Alegreya/ }).click()
  const specimen = page.getByRole('article', { name: 'Specimen of Alegreya' })
  await expect(specimen.getByRole('img', { name: /^Anatomy of Alegreya/ })).toContainText('x-height 456')
  await expect(specimen.getByText('SIL Open Font License', { exact: true })).toBeVisible()
  // Long as it is, it scrolls by itself: the page stays.
  await specimen.getByRole('listbox', { name: 'Characters of the face' }).focus()
  expect(
    await page.evaluate(() => [document.documentElement.scrollHeight, document.documentElement.scrollTop]),
  ).toEqual([page.viewportSize()!.height, 0])
  await specimen.getByRole('button', { name: 'Put on the shortlist' }).click()
  await faces.getByRole('option', { name: /^Literata/ }).click()
  await page
    .getByRole('article', { name: 'Specimen of Literata' })
    .getByRole('button', { name: 'Put on the shortlist' })
    .click()
  // Equal sizes are told against the others on the shortlist.
  await expect(page.getByRole('row', { name: /Alegreya 11\.\d pt/ })).toBeVisible()
  await page.getByRole('radio', { name: 'Compare 2' }).click()
  await page.getByLabel('one x-height').check()
  await expect(page.getByText(/Literata at 86\.\d, x-height 43\.8/)).toBeVisible()
  await page.getByLabel('laid over one another').check()
  await expect(page.getByText(/^Literata at 86\.\d$/)).toBeVisible()
  // In another script they are made as large by its letters, which are laid beside each other then.
  await page.getByLabel('laid over one another').uncheck()
  await choose(page.getByRole('combobox', { name: 'Script to compare in' }), 'Cyrillic')
  await expect(page.getByText('Насугор').first()).toBeVisible()
  const cyrillic = (family: string) => measuresIn(plain(family), 'Cyrillic')!.xHeight
  const size = ((96 * cyrillic('Alegreya')) / cyrillic('Literata')).toFixed(1)
  await expect(page.getByText(new RegExp(`Literata at ${size}, `))).toBeVisible()
})

test('a specimen shows steps, features and characters, and goes to paper at true size', async ({ page }, info) => {
  await page.goto('/library')
  await page.getByRole('searchbox', { name: /^Search faces/ }).fill('EB Garamond')
  await page.getByRole('option', { name: /^EB Garamond/ }).click()
  const specimen = page.getByRole('article', { name: 'Specimen of EB Garamond' })
  await specimen.getByRole('radio', { name: 'Size' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(specimen.getByText('+120')).toBeVisible()
  await choose(specimen.getByRole('combobox', { name: 'Text of the steps' }), 'filler, Greek')
  await expect(specimen.getByText('Το πρωινό πλοίο').first()).toBeVisible()
  const figures = specimen.getByRole('row', { name: /^old-style figures/ }).getByRole('cell')
  await expect(figures.nth(2)).toHaveCSS('font-feature-settings', '"onum"')
  await specimen.getByRole('textbox', { name: 'Character or code point' }).fill('U+00DF')
  await page.keyboard.press('Enter')
  await expect(specimen.getByRole('option', { name: 'ß, U+00DF' })).toHaveAttribute('aria-selected', 'true')
  await specimen.getByRole('textbox', { name: 'Character or code point' }).fill('字')
  await page.keyboard.press('Enter')
  await expect(specimen.getByText('The face does not have it.')).toBeVisible()
  // What else the face has for a character stands below the table, and by keys one goes through those that have more.
  await specimen.getByRole('textbox', { name: 'Character or code point' }).fill('a')
  await page.keyboard.press('Enter')
  const forms = specimen.getByRole('list', { name: 'Further forms of a' })
  await expect(forms.getByText('small capitals')).toBeVisible()
  await specimen.getByLabel('only those').focus()
  await page.keyboard.press('Space')
  await specimen.getByRole('listbox', { name: 'Characters of the face' }).focus()
  await page.keyboard.press('ArrowRight')
  await expect(specimen.getByRole('list', { name: 'Further forms of b' }).getByText('small capitals')).toBeVisible()
  await page.keyboard.press('End')
  const last = specimen.getByRole('option', { selected: true, name: /further form/ }).last()
  await expect(last).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    specimen.getByRole('button', { name: 'Specimen as PDF' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('EB Garamond specimen.pdf')
  const path = info.outputPath('specimen.pdf')
  await download.saveAs(path)
  expect(spawnSync('pdffonts', [path], { encoding: 'utf8' }).stdout).toContain('EBGaramond')
  expect(spawnSync('pdftotext', [path, '-'], { encoding: 'utf8' }).stdout).toContain(
    '100 mm: it must measure so on paper',
  )
})

test('a family is judged by hand, listed, and leaves where faces are chosen when its licence is over', async ({
  page,
}) => {
  await page.goto('/library')
  await page.getByRole('searchbox', { name: /^Search faces/ }).fill('Bitter')
  await page.getByRole('option', { name: /^Bitter, unbracketed slab/ }).click()
  await page.getByRole('button', { name: 'Judge it by hand' }).click()
  await choose(page.getByRole('combobox', { name: 'Class', exact: true }), 'serif')
  await choose(page.getByRole('combobox', { name: 'Kind', exact: true }), 'transitional')
  await page.getByRole('button', { name: 'So it is' }).click()
  await expect(page.getByRole('option', { name: /^Bitter, transitional serif/ })).toBeVisible()
  await page.getByRole('button', { name: 'As it was measured' }).click()
  await expect(page.getByRole('option', { name: /^Bitter, unbracketed slab/ })).toBeVisible()
  await page.getByRole('button', { name: 'Put on the shortlist' }).click()
  await page.getByRole('radio', { name: /^Compare/ }).click()
  await page.getByRole('textbox', { name: 'Name of the list' }).fill('Wayfinding')
  await page.getByRole('button', { name: 'Keep as a list' }).click()
  await expect(page.getByText(/Kept as the list “Wayfinding”/)).toBeVisible()
  await page.getByRole('radio', { name: /^Wayfinding/ }).click()
  await expect(page.getByRole('option', { name: /^Bitter/ })).toBeVisible()
  // Switched on, it is all that pickers offer; the library goes on showing everything.
  await page.getByLabel('the whole desk').check()
  await expect(page.getByRole('radio', { name: 'Switched on 1' })).toBeVisible()
  await page.goto('/pairs')
  await lookFor(page, 'Inter')
  await expect(page.getByText('No family of that name or look')).toBeVisible()
  await page.goto('/library')
  await page.getByRole('radio', { name: /^Wayfinding/ }).click()
  await page.getByLabel('the whole desk').uncheck()
  await expect(page.getByRole('radio', { name: /^Switched on/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Let go of this list' }).click()
  await expect(page.getByRole('radio', { name: /^Wayfinding/ })).toHaveCount(0)
})

test('a held licence that is over takes an added face out of pickers, not out of documents', async ({ page }) => {
  const lora = readFontFile(shippedFaces().find(({ face }) => face.family === 'Lora' && face.style === 'Regular')!.path)
  await page.goto('/library')
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.getByLabel('Font files to add', { exact: true }).setInputFiles({
    name: 'Sheltie.ttf',
    mimeType: 'font/ttf',
    buffer: Buffer.from(renamedFont(lora, 'Sheltie Hired', 'Regular', 'Licensed by its maker.')),
  })
  await expect(page.getByText('1 face added')).toBeVisible()
  await page.getByRole('radio', { name: /^Added here/ }).click()
  await page.getByRole('option', { name: /^Sheltie Hired/ }).click()
  await expect(page.getByText('It is there twice: drawn alike as Lora: one design under two names')).toBeVisible()
  for (const [name, until, over] of [
    ['Season hire', '2099-12-31', false],
    ['Old hire', '2020-01-31', true],
  ] as const) {
    await page.getByRole('button', { name: 'Add a licence that is held' }).click()
    await page.getByLabel('Its name').fill(name)
    await page.getByLabel('Seats').fill('3')
    await page.getByLabel('Until').fill(until)
    await page.getByRole('button', { name: 'Keep this licence' }).click()
    await expect(
      page.getByText(`${name}, 3 seats, until ${until}: print, PDF${over ? '; it is over' : ''}`),
    ).toBeVisible()
  }
  // One that holds is enough; when it is let go, the other is over.
  await expect(page.getByRole('row', { name: /^print allowed Season hire/ })).toBeVisible()
  await page.getByRole('button', { name: 'Let go of the licence Season hire' }).click()
  await expect(page.getByText('Its licence ended on 2020-01-31.')).toBeVisible()
  await expect(page.getByRole('radio', { name: 'Licence ended 1' })).toBeVisible()
  await page.goto('/pairs')
  await lookFor(page, 'Sheltie')
  await expect(page.getByText('No family of that name or look')).toBeVisible()
  // The picker knows looks as the library does.
  await lookFor(page, 'monospaced with serifs')
  await expect(page.getByRole('option', { name: /^Courier Prime/ })).toBeVisible()
})

test('by keyboard alone a face is found, put on the shortlist and looked at', async ({ page }) => {
  await page.goto('/library')
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.getByRole('searchbox').focus()
  await page.keyboard.type('geometric sans')
  await page.keyboard.press('ArrowDown')
  const faces = page.getByRole('listbox', { name: 'Faces' })
  await expect(faces).toBeFocused()
  const chosen = faces.getByRole('option', { selected: true })
  await expect(chosen).toHaveCount(1)
  const first = await chosen.getAttribute('aria-label')
  await page.keyboard.press('ArrowDown')
  await expect(chosen).not.toHaveAttribute('aria-label', first!)
  await page.keyboard.press('Space')
  await expect(chosen).toContainText('on the shortlist')
  await page.keyboard.press('Home')
  await expect(chosen).toHaveAttribute('aria-label', first!)
  await expect(page.getByRole('article')).toHaveAccessibleName(`Specimen of ${first!.split(',')[0]}`)
})

test('a face is set on a style with the pages following, and undone', async ({ page }) => {
  await openOnDesk(page, 'Set anew.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Type' }).click()
  const on = page.getByRole('combobox', { name: 'What the face is set on' })
  await expect(on).toContainText('On the style Body')
  // Faces are shown with the document's own words.
  await expect(page.getByRole('option').first()).toContainText('The morning boat is the Grey Plover, a slow')
  // What would suit is near in proportions, and says by what.
  await page.getByRole('radio', { name: /^Suits this document/ }).click()
  await expect(page.getByRole('option').first()).toContainText(/\d\.\d steps from Spectral: alike in /)
  await page.getByRole('radio', { name: /^All/ }).click()
  await page.getByRole('searchbox', { name: /^Search faces/ }).fill('EB Garamond')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await page.getByLabel('as large as before').check()
  await page.getByRole('button', { name: 'See every place' }).click()
  await expect(page.getByText(/they keep the face they were given/)).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(
    page.getByText('Set EB Garamond on the paragraph style Body, as large as before: done, as version 2.'),
  ).toBeVisible({
    timeout: 30_000,
  })
  await page.getByRole('tab', { name: 'Census' }).click()
  await expect(page.getByRole('row', { name: /EB Garamond/ }).first()).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: /^Undo: Set EB Garamond/ }).click()
  await expect(page.getByRole('row', { name: /EB Garamond/ })).toHaveCount(0, { timeout: 30_000 })
})

test('a face is set by keys alone on all text of a role', async ({ page }) => {
  await openOnDesk(page, 'Set by keys.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Type' }).click()
  await choose(page.getByRole('combobox', { name: 'What the face is set on' }), 'On all heading styles')
  await page.getByRole('searchbox', { name: /^Search faces/ }).focus()
  await page.keyboard.type('Anton')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Set Anton on all heading styles: done, as version 2.')).toBeVisible({ timeout: 30_000 })
})

test('a second face is found in the plane around one, by mouse, by keys and as a list', async ({ page }) => {
  await page.goto('/pairs')
  const plane = page.getByRole('slider', { name: /^The plane around the given face/ })
  await expect(plane).toBeVisible()
  await lookFor(page, 'IBM Plex Ser')
  await page.getByRole('option', { name: /^IBM Plex Serif/ }).click()
  await expect(page.getByRole('heading', { name: /over IBM Plex Serif$/ })).toBeVisible()
  // To the left edge: as alike in proportions as can be.
  await plane.focus()
  for (let step = 0; step < 6; step++) await page.keyboard.press('Shift+ArrowLeft')
  await expect(plane).toHaveAttribute('aria-valuenow', '0')
  await expect(plane).toHaveAttribute('aria-valuetext', /^0 % apart in proportions, 60 % in detail: /)
  const box = (await plane.boundingBox())!
  await page.mouse.click(box.x + box.width * 0.75, box.y + box.height * 0.25)
  await expect(plane).toHaveAttribute('aria-valuetext', /^7\d % apart in proportions, 7\d % in detail/)
  await page.getByRole('button', { name: 'As a list' }).click()
  await page.getByRole('button', { name: 'IBM Plex Sans', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'IBM Plex Sans over IBM Plex Serif' })).toBeVisible()
  await expect(page.getByText(/x-heights \d+ and \d+: they sit on one line/)).toBeVisible()
  await page.getByLabel('Size of the body in points').fill('9.5')
  await expect(page.getByRole('img', { name: 'The pair as a page of text' })).toBeVisible()
})

test('a pair is kept in a folder, sent out as tokens and as CSS, and read in again', async ({ page }, info) => {
  await page.goto('/pairs')
  await expect(page.getByRole('heading', { name: / over / })).toBeVisible()
  await page.getByLabel('Keep this pair as').fill('Quay boards')
  await page.getByLabel('in the folder').fill('Summer')
  await page.getByRole('button', { name: 'Keep it', exact: true }).click()
  await expect(page.getByText('Kept as “Quay boards”.')).toBeVisible()
  const title = await page.getByRole('heading', { name: / over / }).textContent()
  const files: string[] = []
  for (const [button, name] of [
    ['Send out as tokens', 'Summer.tokens.json'],
    ['as CSS', 'Summer.css'],
  ] as const) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button, exact: true }).click(),
    ])
    expect(download.suggestedFilename()).toBe(name)
    await download.saveAs(info.outputPath(name))
    files.push(info.outputPath(name))
  }
  await page.getByRole('button', { name: 'Rename or move Quay boards' }).click()
  await page.getByRole('textbox', { name: 'New name' }).fill('Pier boards')
  await page.getByRole('combobox', { name: 'New folder' }).fill('Winter')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Winter', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Let go of Pier boards' }).click()
  await expect(page.getByRole('button', { name: 'Look at the pair Pier boards' })).toHaveCount(0)
  await page.getByLabel('Files of pairs to read in').setInputFiles(files)
  await expect(page.getByText('2 pairs read in.')).toBeVisible()
  await lookFor(page, 'Anton')
  await page.getByRole('option', { name: /^Anton / }).click()
  await page.getByRole('button', { name: 'Look at the pair Quay boards' }).first().click()
  await expect(page.getByRole('heading', { name: title! })).toBeVisible()
  await page.getByRole('radio', { name: 'A leaflet' }).click()
  await expect(page.getByRole('img', { name: 'The pair as a leaflet of text' })).toBeVisible()
})

test('a pair is tried on a document, with its pages, and put on by plan', async ({ page }) => {
  await putOnShelf(page, 'Dressed in two.odt', sailingGuide())
  await page.goto('/pairs')
  await page.getByRole('button', { name: 'As a list' }).click()
  await page.getByRole('table').getByRole('button').first().click()
  const title = await page.getByRole('heading', { name: / over / }).textContent()
  const [heading, body] = title!.split(' over ') as [string, string]
  await page.getByRole('combobox', { name: 'Try it on' }).fill('Dressed in')
  await page.getByRole('option', { name: /^Dressed in two/ }).click()
  await page.getByRole('button', { name: 'See it on its pages' }).click()
  await expect(page.getByRole('button', { name: /^Carry it out in \d+ places/ })).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/done, as version 2\.$/)).toBeVisible({ timeout: 60_000 })
  await page.getByRole('tab', { name: 'Census' }).click()
  for (const family of [heading, body])
    await expect(page.getByRole('row', { name: new RegExp(family) }).first()).toBeVisible({ timeout: 30_000 })
})

test('a collection is added to the library, found in it, and taken out again', async ({ page }) => {
  const lora = (style: string) =>
    readFontFile(shippedFaces().find(({ face }) => face.family === 'Lora' && face.style === style)!.path)
  const licence = 'Licensed under the SIL Open Font License, Version 1.1'
  const files = ['Regular', 'Bold'].map(style => renamedFont(lora(style), 'Tarn Collected', style, licence))
  await page.goto('/library')
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.getByLabel('Font files to add', { exact: true }).setInputFiles([
    { name: 'Tarn.ttc', mimeType: 'font/collection', buffer: Buffer.from(collectionOf(files)) },
    { name: 'Torn.ttf', mimeType: 'font/ttf', buffer: Buffer.from(files[0]!.slice(0, 900)) },
  ])
  await expect(page.getByText('2 faces added; 1 file refused.')).toBeVisible()
  await page.getByText('1 file refused', { exact: true }).click()
  await expect(page.getByText(/Torn\.ttf: .*It was not added\./)).toBeVisible()
  await page.getByRole('radio', { name: /^Added here/ }).click()
  await page.getByRole('option', { name: /^Tarn Collected, transitional serif, 2 weights/ }).click()
  await page.getByRole('button', { name: 'Take 2 added faces out of the library' }).click()
  await expect(page.getByText('No document on the shelf names it.')).toBeVisible()
  await page.getByRole('button', { name: 'Take it out' }).click()
  await expect(page.getByText('2 faces of Tarn Collected taken out of the library. No file was changed.')).toBeVisible()
})

test('a variable file opens into its faces, and a place on its axes becomes one by the keyboard', async ({ page }) => {
  await page.goto('/library')
  await expect(page.getByRole('option').first()).toBeVisible()
  await page
    .getByLabel('Font files to add', { exact: true })
    .setInputFiles(
      join(projectFolder(), 'node_modules/@fontsource-variable/fraunces/files/fraunces-latin-full-normal.woff2'),
    )
  await expect(page.getByText('6 faces added.')).toBeVisible()
  await page.getByRole('radio', { name: /^Added here/ }).click()
  await page.getByRole('option', { name: /^Fraunces, .*, 6 weights/ }).click()
  await expect(page.getByRole('radio', { name: /Black, 900$/ })).toBeVisible()
  const axes = page.getByRole('region', { name: 'Places on its axes' })
  await axes.getByRole('slider', { name: 'Optical size' }).focus()
  await page.keyboard.press('End')
  await expect(axes.getByLabel('Family')).toHaveValue('Fraunces 144pt')
  await axes.getByLabel('Weight, value').fill('450')
  await page.keyboard.press('Tab')
  await expect(axes.getByLabel('Style')).toHaveValue('450')
  await axes.getByLabel('Style').fill('Book')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(axes.getByRole('status')).toHaveText('Fraunces 144pt Book is in the library.')
  // The place is still there: the same once more is refused, and why.
  await axes.getByRole('button', { name: 'Make a face of it' }).click()
  await expect(axes.getByText(/has a face of weight 450 already, Book/)).toBeVisible()
  await page.getByRole('option', { name: /^Fraunces 144pt, .*, 1 weight/ }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Fraunces 144pt' })).toBeVisible()
})
