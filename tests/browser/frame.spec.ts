import { expect } from '@playwright/test'
import { sailingGuide } from '../../demo/sailing-guide'
import { noFindings, noPageErrors, openOnDesk, putOnShelf, sheetText } from '../support/browser'
import { test } from '../support/desk-browser'

noPageErrors()

test('the screens of the shelf and their dialogs stand up to axe', async ({ page }) => {
  await putOnShelf(page, 'Looked at.odt', sailingGuide())
  await noFindings(page, 'shelf')
  for (const button of ['New document', 'Defaults', 'Words and keys']) {
    await page.getByRole('button', { name: button }).click()
    await expect(page.getByRole('dialog').getByRole('button').first()).toBeVisible()
    await noFindings(page, button)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  for (const [address, title] of [
    ['/across', 'All documents'],
    ['/records', 'Records'],
    ['/library', 'Abril Fatface'],
    ['/pairs', 'Pairs'],
    ['/houses', 'Houses'],
    ['/colours', 'Colours'],
  ] as const) {
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible()
    await noFindings(page, title)
  }
})

test('every stage, a plan and its walk stand up to axe', async ({ page }) => {
  await openOnDesk(page, 'Looked into.odt', sailingGuide())
  for (const stage of [
    'Census',
    'Absent',
    'Type',
    'Styles',
    'House',
    'Swap',
    'Recast',
    'Pages',
    'Defaults',
    'Handoff',
  ]) {
    await page.getByRole('tab', { name: stage }).click()
    await expect(page.getByRole('tabpanel')).toBeVisible()
    await noFindings(page, stage)
  }
  // A plan with its rows, and its walk.
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page
    .getByRole('button', { name: /^Settle/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Show the plan' }).click()
  await expect(page.getByRole('button', { name: /^Carry it out in 17 places/ })).toBeVisible({ timeout: 20_000 })
  await noFindings(page, 'plan')
  await page.getByRole('button', { name: 'Walk the pages' }).click()
  await expect(page.getByText('Page 10 now')).toBeVisible()
  await noFindings(page, 'walk')
})

test('choices work by keys, words of the desk’s own explain themselves, and what is cut can be read whole', async ({
  page,
}) => {
  await openOnDesk(page, 'Explained.odt', sailingGuide())
  // A choice opens, is walked and looked through by keys, and closes without a change.
  const sort = page.getByRole('combobox', { name: 'Sort by' })
  await sort.focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('option', { name: 'characters' })).toHaveAttribute('aria-selected', 'true')
  await noFindings(page, 'open choice')
  await page.keyboard.press('f')
  await page.keyboard.press('Enter')
  await expect(sort).toHaveText('first page')
  await expect(sort).toBeFocused()
  await page.keyboard.press('ArrowDown')
  // Letters look through the list: they are no keys of the sheets.
  await page.keyboard.press('n')
  await page.keyboard.press('Escape')
  await expect(sort).toHaveText('first page')
  await expect(page.getByRole('option')).toHaveCount(0)

  const settled = page.getByRole('button', { name: 'settled', exact: true })
  const meaning = page.getByText(/^Text that would look the same/)
  await settled.hover()
  await expect(meaning).toBeVisible()
  await page.mouse.move(5, 300)
  await expect(meaning).toHaveCount(0)
  await settled.focus()
  await expect(meaning).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(meaning).toHaveCount(0)

  await page.getByRole('heading', { name: 'Voices' }).click()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Two voices so near to each other')
  await expect(page.getByRole('dialog')).toContainText('white space shown or not')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)

  const cut = page.getByRole('cell', { name: /^Column head/ }).first()
  await cut.hover()
  await expect(page.locator('.meaning')).toHaveText(/^Column head, Heading 1, Heading 2/)
  const face = page.getByRole('button', { name: /^Zen Kaku Gothic New Regular/ }).first()
  await face.focus()
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Tab')
  await expect(page.locator('.meaning')).toContainText('Zen Kaku Gothic New Regular')
})

test('the boundary moves by mouse and by keys, each side folds away, Fit stays fit, and all is remembered', async ({
  page,
}) => {
  await openOnDesk(page, 'Framed.odt', sailingGuide())
  const boundary = page.getByRole('separator', { name: /^Boundary/ })
  const left = async () => (await boundary.boundingBox())!.x
  const sheet = page.locator('[data-page="0"] section')
  const fits = async () => {
    const [box, view] = [(await sheet.boundingBox())!, await left()]
    return box.x >= 0 && box.x + box.width <= view
  }
  await expect.poll(fits).toBe(true)
  const start = await left()
  const width = async () => (await sheet.boundingBox())!.width
  const before = await width()
  await boundary.focus()
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowLeft')
  await expect.poll(left).toBeCloseTo(start - 96, -1)
  await expect.poll(width).toBeLessThan(before)
  expect(await fits()).toBe(true)
  await page.mouse.move((await left()) + 6, 300)
  await page.mouse.down()
  await page.mouse.move(start + 106, 300, { steps: 4 })
  await page.mouse.up()
  await expect.poll(left).toBeCloseTo(start + 100, -1)
  await expect.poll(width).toBeGreaterThan(before)
  // Zoomed by hand it stays as it was set; Fit takes it back.
  await page.keyboard.press('Control+-')
  const zoomed = await width()
  await page.setViewportSize({ width: 1024, height: 800 })
  expect(await width()).toBeCloseTo(zoomed, 0)
  await page.getByRole('button', { name: 'Fit' }).click()
  await expect.poll(fits).toBe(true)
  await page.setViewportSize({ width: 1700, height: 800 })
  await expect.poll(fits).toBe(true)

  await page.getByRole('button', { name: 'Fold away the tray' }).click()
  await expect(page.getByRole('tabpanel')).toBeHidden()
  // There is room for sheets side by side now.
  await expect
    .poll(async () => {
      const [one, other] = [await sheet.boundingBox(), await page.locator('[data-page="1"] section').boundingBox()]
      return one !== null && other !== null && other.x > one.x + one.width
    })
    .toBe(true)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Show the tray' })).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Show the tray' }).click()
  await expect(page.getByRole('tabpanel')).toBeVisible()
  await page.getByRole('separator', { name: /^Boundary/ }).focus()
  await page.keyboard.press('Home')
  await expect(page.getByLabel(/^Sheets/)).toBeHidden()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByLabel(/^Sheets/)).toBeVisible()
})

test('two presses take a word, three a paragraph, and Shift extends', async ({ page }) => {
  await openOnDesk(page, 'Pressed.odt', sailingGuide())
  const words = page.locator('[data-page="0"]').getByText('The morning boat is the').first()
  const box = (await words.boundingBox())!
  const at = (share: number) => [box.x + box.width * share, box.y + box.height / 2] as const
  const selected = async () => {
    await page.keyboard.press('Control+c')
    return page.evaluate(() => navigator.clipboard.readText())
  }
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.mouse.dblclick(...at(0.35))
  await expect(page.locator('[data-selection]')).toHaveCount(1)
  await expect.poll(selected).toBe('morning')
  await page.mouse.click(...at(0.35), { clickCount: 3, delay: 30 })
  await expect.poll(selected).toMatch(/^The morning boat.*on the open deck\.$/)
  await page.waitForTimeout(600)
  await page.mouse.click(...at(0.02))
  await page.keyboard.down('Shift')
  await page.waitForTimeout(600)
  await page.mouse.click(...at(0.35))
  await page.keyboard.up('Shift')
  await expect.poll(selected).toMatch(/^h?e? ?mor|^The m/)
})

test('plans that are open at once each show their own pages', async ({ page }) => {
  await openOnDesk(page, 'Two plans.odt', sailingGuide())
  await page.getByRole('tab', { name: 'Swap' }).click()
  for (const [label, family] of [
    ['Goes', 'Skerrow'],
    ['Comes', 'Work Sans'],
  ] as const) {
    await page.getByRole('combobox', { name: label }).first().fill(family)
    await page.locator('[role=listbox] [role=option]').first().click()
  }
  const after = page.getByText(/^Page \d+ after$/)
  await expect(after).toBeVisible({ timeout: 30_000 })
  await page.getByLabel(/^The walk/).focus()
  const shown = await sheetText(page, 'Page 6 after the change')
  expect(shown.length).toBeGreaterThan(20)
  // Another plan, that hides all other languages, is left open in its own stage.
  await page.getByRole('tab', { name: 'Styles' }).click()
  await page.getByRole('button', { name: 'Languages' }).click()
  await page.getByRole('button', { name: /alone/ }).first().click()
  await expect(page.getByText('Shown as it would be. Nothing is stored yet.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('tab', { name: 'Swap' }).click()
  await expect(after).toBeVisible()
  expect(await sheetText(page, 'Page 6 after the change')).toBe(shown)
})
