import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { unzipSync } from 'fflate'
import { galleyMenu } from '../../demo/galley-menu'
import { sailingGuide } from '../../demo/sailing-guide'
import { choose, noFindings, noPageErrors, openOnDesk, putOnShelf } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

test('the galley menu goes to the printer, and into a bundle', async ({ page }) => {
  await openOnDesk(page, 'Menu for print.odg', galleyMenu())
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const print = page.getByRole('region', { name: 'PDF for print' })
  await expect(print.getByRole('combobox').first()).toContainText('FOGRA39L')
  await choose(print.getByRole('combobox').nth(1), '5 mm')
  const printed = page.waitForEvent('download')
  await print.getByRole('button', { name: 'Make the PDF for print' }).click()
  const file = await printed
  expect(file.suggestedFilename()).toBe('Menu for print.pdf')
  await expect(print).toContainText('built to PDF/X-4')
  const bytes = readFileSync(await file.path())
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-')
  expect(bytes.toString('latin1')).toContain('<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>')

  const bundle = page.getByRole('region', { name: 'Bundle' })
  const zipped = page.waitForEvent('download')
  await bundle.getByRole('button', { name: 'Make the bundle' }).click()
  const zip = await zipped
  await expect(bundle).toContainText('Brannock: it is absent here, too')
  expect(Object.keys(unzipSync(readFileSync(await zip.path())))).toEqual(
    expect.arrayContaining(['Menu for print.odg', 'PDF/Menu for print.pdf', 'Contents.txt']),
  )
  await noFindings(page)
})

test('by keyboard: a document as a book, and its styles as tokens', async ({ page }) => {
  await openOnDesk(page, 'Guide as a book.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const book = page.getByRole('button', { name: 'Make the book' })
  await book.focus()
  const made = page.waitForEvent('download')
  await page.keyboard.press('Enter')
  expect((await made).suggestedFilename()).toBe('Guide as a book.epub')
  await expect(page.getByRole('region', { name: 'For reading on screens' })).toContainText(/Saved: \d+ chapters/)
  await page.getByRole('button', { name: 'As tokens' }).focus()
  const tokens = page.waitForEvent('download')
  await page.keyboard.press('Space')
  const file = await tokens
  expect(file.suggestedFilename()).toBe('Guide as a book.tokens.json')
  expect(JSON.parse(readFileSync(await file.path(), 'utf8'))).toHaveProperty('paragraph')
})

test('several documents go into one bundle; a colour of a house is given its ink', async ({ page }) => {
  const [one, two] = ['Bundled menu', 'Bundled guide']
  await putOnShelf(page, `${one}.odg`, galleyMenu())
  await putOnShelf(page, `${two}.odt`, sailingGuide())
  await page.goto('/across')
  await page.getByRole('button', { name: 'None' }).click()
  await page.getByLabel(`${one}.odg: in the plan`).first().check()
  await page.getByLabel(`${two}.odt: in the plan`).first().check()
  const zipped = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Bundle 2 documents' }).click()
  const names = Object.keys(unzipSync(readFileSync(await (await zipped).path())))
  expect(names).toEqual(expect.arrayContaining([`${one}.odg`, `${two}.odt`, `PDF/${two}.pdf`, 'Contents.txt']))

  const palette = [{ id: 'quay', title: 'Quay', does: 'accent', color: '#1f6f6b' }]
  const made = await page.request.post('/api/houses', {
    data: { house: { name: 'Printed house', roles: [], palette } },
  })
  const { id } = (await made.json()) as { id: string }
  const toPalette = async () => {
    await page.goto(`/houses?house=${id}`)
    await page.getByRole('radio', { name: /^Palette/ }).click()
  }
  await toPalette()
  const ink = page.getByLabel('Printed with').first()
  await ink.fill('10 55 100')
  await ink.press('Enter')
  await expect(page.getByRole('alert')).toContainText('An ink is four shares from 0 to 100')
  await ink.fill('Quay Green')
  await ink.press('Enter')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByRole('button', { name: 'Keep the changes' }).click()
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toHaveCount(0)
  await toPalette()
  await expect(page.getByLabel('Printed with').first()).toHaveValue('Quay Green')
  expect((await page.request.delete(`/api/houses/${id}`)).status()).toBe(200)
})
