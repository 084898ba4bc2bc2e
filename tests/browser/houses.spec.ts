import { readFile } from 'node:fs/promises'
import { expect } from '@playwright/test'
import { namedColors } from '../../core/document/colours'
import { openDocument } from '../../core/document/open'
import { winterService } from '../../demo/houses'
import { galleyMenu } from '../../demo/galley-menu'
import { harbourNotice } from '../../demo/harbour-notice'
import { seasonReview } from '../../demo/season-review'
import { winterTariff } from '../../demo/winter-tariff'
import { choose, downloadFile, noPageErrors, openOnDesk, putOnShelf, tabTo } from '../support/browser'
import { session } from '../support/fixtures'
import { listChartText } from '../../core/change/chart-text/chart-list'
import { listLevels } from '../../core/change/levels/level-list'
import { test } from '../support/desk-browser'

noPageErrors()

test('a house is drawn up, issued anew, and its documents are brought along', async ({ page }) => {
  // Names of its own, so that it can be run twice on one desk.
  const run = String(Date.now()).slice(-6)
  const [notice, tariff, name] = [`Notice ${run}`, `Tariff ${run}`, `Quay house ${run}`]
  await putOnShelf(page, `${notice}.odt`, harbourNotice())
  await putOnShelf(page, `${tariff}.odt`, winterTariff())
  const other = { name: `Other ${run}`, roles: [{ id: 'body', title: 'Body', text: { family: 'Literata', size: 9 } }] }
  await page.request.post('/api/houses', { data: { house: other } })
  await page.goto('/houses')
  await expect(page.getByRole('button', { name: new RegExp(`^${other.name}`) })).toBeVisible()
  await page.getByRole('button', { name: 'New house' }).click()
  await page.getByLabel('Called').fill(name)
  const documents = page.getByRole('combobox', { name: 'Documents that it is drawn up from' })
  await documents.fill(notice)
  await page.getByRole('option', { name: new RegExp(`^${notice}`) }).click()
  await page.getByRole('button', { name: 'Make the house' }).click()
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: /^Body: Spectral, 11/ })).toBeVisible()
  await page.getByRole('radio', { name: /^Versions/ }).click()
  await page.getByRole('button', { name: 'Issue version 1' }).click()
  await expect(page.getByRole('status').getByText('Version 1 is issued.')).toBeVisible()
  await page.getByRole('radio', { name: /^Documents/ }).click()
  await page.getByRole('combobox', { name: 'Link a document' }).fill(tariff)
  await page.getByRole('option', { name: new RegExp(`^${tariff}`) }).click()
  await expect(page.getByRole('row', { name: new RegExp(`${tariff} .*0\\.0 %`) })).toBeVisible({ timeout: 20_000 })
  // The body grows, and that is issued.
  await page.getByRole('button', { name: /^Body: Spectral/ }).click()
  await page.getByLabel('Size', { exact: true }).fill('10.5')
  await page.getByLabel('Size', { exact: true }).press('Tab')
  // New text of notes is to begin as the body is set.
  await page.getByRole('radio', { name: /^Defaults/ }).click()
  await choose(page.getByRole('combobox', { name: 'Note text begins as' }), 'Body')
  await page.getByRole('button', { name: 'Keep the changes' }).click()
  await expect(page.getByText(/^The working house is kept/)).toBeVisible()
  await page.getByRole('radio', { name: /^Versions/ }).click()
  await expect(page.getByText(/^Body in texts: Spectral, 11 .* becomes Spectral, 10\.5/)).toBeVisible()
  await expect(page.getByText(/^What new text begins with/)).toBeVisible()
  await page.getByRole('button', { name: 'Issue version 2' }).click()
  await expect(page.getByRole('status').getByText('Version 2 is issued.')).toBeVisible()
  await page.getByRole('radio', { name: /^Documents/ }).click()
  await page.getByRole('button', { name: 'Plan 1 document' }).click()
  await expect(page.getByText(/1 document would change/)).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/^Done: 1 document changed/)).toBeVisible({ timeout: 30_000 })
  await page.goto('/houses')
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click()
  await expect(page.getByRole('row', { name: new RegExp(`${tariff} .*9\\d\\.\\d %\\s+2`) })).toBeVisible({
    timeout: 20_000,
  })
  await page.getByRole('radio', { name: /^Versions/ }).click()
  const sheet = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Type sheet as PDF' }).click()
  expect((await sheet).suggestedFilename()).toBe(`${name} type sheet.pdf`)
  expect((await readFile(await (await sheet).path())).subarray(0, 5).toString()).toBe('%PDF-')
  await page.getByRole('radio', { name: 'Compare' }).click()
  await choose(page.getByLabel('Hold it against'), other.name)
  await expect(page.getByRole('row', { name: /^Body in texts Spectral, 10\.5 .* Literata, 9$/ })).toBeVisible()
})

test('a frame is kept, goes into a house, and documents of that house are offered it', async ({ page }) => {
  const run = String(Date.now()).slice(-6)
  const name = `Frame house ${run}`
  const made = await page.request.post('/api/houses', { data: { house: { name } } })
  const { id: house } = (await made.json()) as { id: string }
  await openOnDesk(page, `Frames ${run}.odg`, galleyMenu())
  const id = new URL(page.url()).pathname.split('/').at(-1)!
  await page.request.put(`/api/documents/${id}/house`, { data: { house } })
  await page.getByRole('tab', { name: 'Pages' }).click()
  const sheet = (await page.locator('section[aria-label="Page 1, Outside"]').boundingBox())!
  await page.keyboard.down('Alt')
  await page.mouse.click(sheet.x + sheet.width * 0.15, sheet.y + sheet.height * 0.2)
  await page.keyboard.up('Alt')
  await page.getByLabel('Keep the chosen frame as').fill(`Story ${run}`)
  await page.getByLabel('Keep the chosen frame as').press('Enter')
  await expect(page.getByRole('button', { name: `Put Story ${run} in with its text` })).toBeVisible()

  await page.goto(`/houses?house=${house}`)
  await page.getByRole('radio', { name: /^Frames/ }).click()
  await choose(page.getByRole('combobox', { name: 'From the desk’s kept frames' }), `Boxes: Story ${run}`)
  await page.getByRole('button', { name: 'Add it' }).click()
  await expect(page.getByRole('row', { name: new RegExp(`^Story ${run} `) })).toBeVisible()
  await page.getByRole('button', { name: 'Keep the changes' }).click()
  await page.getByRole('radio', { name: /^Versions/ }).click()
  await page.getByRole('button', { name: 'Issue version 1' }).click()
  await expect(page.getByRole('status').getByText('Version 1 is issued.')).toBeVisible()

  // The desk lets go of it: the house has it still.
  await page.goto(`/documents/${id}?stage=pages`)
  await page.getByRole('tab', { name: 'Pages' }).click()
  await page.getByRole('button', { name: `Remove Story ${run}` }).click()
  await expect(page.getByRole('button', { name: `Remove Story ${run}` })).toHaveCount(0)
  await expect(page.getByRole('heading', { name: `Of the house ${name}` })).toBeVisible()
  await page.getByRole('button', { name: `Put the house’s Story ${run} in with its text` }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Undo: Put a kept frame in/ })).toBeVisible({ timeout: 20_000 })
})

test('the Winter tariff goes from no styles to style by the keyboard alone', async ({ page }) => {
  await page.request.post('/api/houses', {
    data: {
      house: {
        name: 'Keys house',
        roles: [{ id: 'body', title: 'Body', text: { family: 'Literata', size: 9 } }],
        limits: { smallest: { text: 8 } },
      },
    },
  })
  const houses = (await (await page.request.get('/api/houses')).json()) as {
    id: string
    name: string
    revision: number
  }[]
  const own = houses.find(each => each.name === 'Keys house')!
  await page.request.post(`/api/houses/${own.id}/issue`, { data: { revision: own.revision } })
  await openOnDesk(page, 'Tariff to style.odt', winterTariff())
  await page.getByRole('tab', { name: 'House' }).focus()
  await page.keyboard.press('Enter')
  await tabTo(page, /^House of this document$/)
  await page.keyboard.press('Enter')
  await page.keyboard.type('Keys')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('to style', { timeout: 20_000 })
  await tabTo(page, /^Dress it in Keys house$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Carry it out/ })).toBeFocused({ timeout: 30_000 })
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Done: Draw up|^Done: Dress/)).toBeVisible({ timeout: 30_000 })
  await expect(page.getByRole('row', { name: /Body .*100/ })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: /^Undo: / }).click()
  await expect(page.getByRole('button', { name: /^Redo: / })).toBeVisible({ timeout: 20_000 })
  const small = page.getByRole('table', { name: 'Smaller than 8 pt' })
  await small.getByRole('button', { name: '7.5 pt' }).press('Enter')
  await expect(page.getByText(/\b1 of 2\b/).first()).toBeVisible()
  expect(Buffer.compare(await downloadFile(page, 'Tariff to style'), winterTariff())).toBe(0)
})

test('the levels of a deck are set in one table, and its slides follow', async ({ page }) => {
  await openOnDesk(page, 'Levels.odp', seasonReview())
  // How large it looks from the last row is told with each voice, and with a face that is chosen for it.
  await page.getByRole('tab', { name: 'Census' }).click()
  const voices = page.locator('[data-voice]')
  const chosen = page.getByRole('region', { name: 'The chosen voice' })
  await voices.filter({ hasText: 'Spectral Italic 18' }).getByRole('button').first().click()
  await expect(chosen).toContainText(
    /Its x-height spans 0\.\d\d° from the last row, 9 m from a screen 1\.5 m high; \d+(\.5)? pt would do/,
  )
  await voices.filter({ hasText: 'Spectral SemiBold 32' }).getByRole('button').first().click()
  await expect(chosen).toContainText(/Its x-height spans 0\.\d\d° from the last row, 9 m from a screen 1\.5 m high\./)
  await page.getByRole('tab', { name: 'Type' }).click()
  await page.getByRole('searchbox', { name: /^Search faces/ }).fill('Lora')
  await page.getByRole('option', { name: /^Lora/ }).click()
  await page.getByRole('button', { name: 'Specimen of Lora' }).click()
  await expect(page.getByRole('row', { name: /^In this document \d+(\.5)? pt .* from the last row/ })).toBeVisible()
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.getByRole('button', { name: 'Levels of the deck' }).click()
  for (const [label, size] of [
    ['Size of Title, in points', '36'],
    ['Size of Level 1, in points', '22'],
    ['Size of Level 2, in points', '18'],
  ] as const) {
    await page.getByLabel(label).fill(size)
    await page.getByLabel(label).press('Tab')
  }
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Show the plan of 3 placeholders' }).click()
  await page.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(page.getByText(/^Done: Set 3 placeholders/)).toBeVisible({ timeout: 30_000 })
  // Text of its charts, by keyboard: the sheets go to the first of them, and follow.
  await page.getByRole('button', { name: 'Text of charts' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Go to page')).toHaveValue('3')
  await tabTo(page, /^Family of Title$/)
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('Jost')
  await tabTo(page, /^Size of Legend, in points$/)
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('9')
  await page.keyboard.press('Tab')
  // What it does, which houses go by: chosen from a list by its first letter.
  await tabTo(page, /^Role of Values$/)
  await page.keyboard.press('Enter')
  await page.keyboard.press('c')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('combobox', { name: 'Role of Values' })).toHaveText('caption')
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Show the plan for 4 charts' }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /^Carry it out/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Done: Say what text of charts does, set the text of 4 charts/)).toBeVisible({
    timeout: 30_000,
  })
  const file = await downloadFile(page, 'Levels')
  const charts = listChartText(session(file).reading, null)
  expect(charts.filter(each => each.of === 'title').map(each => each.family)).toEqual(Array(4).fill('Jost'))
  expect(charts.filter(each => each.of === 'legend').map(each => each.size)).toEqual(Array(4).fill(9))
  expect(charts.filter(each => each.of === 'axis').map(each => each.size)).toEqual(Array(4).fill(12))
  expect(charts.filter(each => each.role !== null).every(each => each.of === 'value' && each.role === 'caption')).toBe(
    true,
  )
  expect(
    listLevels(session(file).reading)
      .slice(0, 4)
      .map(each => each.size),
  ).toEqual([36, 18, 22, 18])
})

test('by keyboard: shapes and charts of a deck take the colours of its house, series apart, and it is undone', async ({
  page,
}) => {
  const run = String(Date.now()).slice(-6)
  const house = { ...winterService, name: `Painted ${run}` }
  const made = await page.request.post('/api/houses', { data: { house } })
  const { id } = (await made.json()) as { id: string }
  await page.request.post(`/api/houses/${id}/issue`, { data: { revision: 1 } })
  await openOnDesk(page, 'Painted.odp', seasonReview())
  await page.getByRole('tab', { name: 'House' }).click()
  await choose(page.getByRole('combobox', { name: 'House of this document' }), new RegExp(`^${house.name}`))
  const colours = page.locator('summary', { hasText: 'Colours of shapes, lines, grounds and charts' })
  await colours.focus()
  await page.keyboard.press('Enter')
  const [target] = house.palette.filter(each => each.does === 'accent')
  await choose(page.getByRole('combobox', { name: 'What #f3d9a4 becomes' }), target!.title)
  await page.getByRole('button', { name: `Dress it in ${house.name}` }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: /; Paint \d+ places? in \d+ colours?$/ })).toBeVisible({
    timeout: 30_000,
  })
  await page.getByRole('button', { name: /^Carry it out/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Done: Draw up .*, and dress .*; Paint /)).toBeVisible({ timeout: 30_000 })
  const colors = (file: Uint8Array) => [...namedColors(openDocument(file))].filter(each => each.on === 'fill')
  const painted = colors(await downloadFile(page, 'Painted'))
  expect(painted.map(each => each.color)).not.toContain('#f3d9a4')
  expect(painted.map(each => each.color)).toContain(target!.color)
  await page.getByRole('button', { name: /^Undo: Draw up/ }).click()
  await expect(page.getByRole('button', { name: /^Redo: Draw up/ })).toBeVisible({ timeout: 20_000 })
  expect(Buffer.compare(await downloadFile(page, 'Painted'), seasonReview())).toBe(0)
})
