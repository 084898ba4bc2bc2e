import { expect } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { paletteFromTokens } from '../../core/house/palette'
import { noPageErrors, tabTo } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

test('a colour is looked for by keys, goes into the palette, is kept and handed on', async ({ page }) => {
  await page.goto('/colours')
  await expect(page.getByRole('heading', { name: 'Colours', level: 1 })).toBeVisible()
  await page.getByRole('button', { name: 'Look at Accent' }).click()
  const plane = page.getByRole('slider')
  const before = await plane.getAttribute('aria-valuetext')
  await plane.focus()
  for (let step = 0; step < 4; step++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowUp')
  const words = (await plane.getAttribute('aria-valuetext'))!
  expect(words).not.toBe(before)
  const color = /#[0-9a-f]{6}/.exec(words)![0]
  await tabTo(page, /^Give it to Accent$/)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Value of Accent')).toHaveValue(color)
  // More contrast makes the same place darker.
  await page.getByRole('radio', { name: '7 : 1' }).click()
  await expect(plane).not.toHaveAttribute('aria-valuetext', words)
  await page.getByRole('radio', { name: /^Palettes and colours in use/ }).click()
  const name = `Pier paint ${String(Date.now()).slice(-6)}`
  await page.getByRole('textbox', { name: 'This palette' }).fill(name)
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText(`${name} is kept.`)).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'As tokens' }).click(),
  ])
  const read = paletteFromTokens(readFileSync(await file.path(), 'utf8'))
  expect(read.name).toBe(name)
  expect(read.palette.colors.find(each => each.id === 'accent')!.color).toBe(color)
  await page.getByLabel('Search palettes and colours in use').fill('lantern')
  await page.getByRole('button', { name: /^Lantern week/ }).click()
  await page.getByRole('radio', { name: /^This palette/ }).click()
  await expect(page.getByLabel('Value of Accent')).not.toHaveValue(color)
  await page.getByRole('button', { name: 'Drop Series 4' }).click()
  await expect(page.getByLabel('Value of Series 4')).toHaveCount(0)
})
