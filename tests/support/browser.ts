import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { expect, type Locator, type Page } from '@playwright/test'
import { test } from './desk-browser'

/** Fails a test at whose end the page has had an error: refusals that the server gives on purpose are none. */
export function noPageErrors(): void {
  const problems: string[] = []
  test.beforeEach(({ page }) => {
    problems.length = 0
    page.on('pageerror', error => problems.push(error.message))
    page.on('console', message => {
      if (message.type() === 'error' && !/409|422|404|413|400/.test(message.text())) problems.push(message.text())
    })
  })
  test.afterEach(() => {
    expect(problems).toEqual([])
  })
}

/** Puts a file on the shelf and waits until it is counted; returns its title. */
export async function putOnShelf(page: Page, name: string, bytes: Uint8Array): Promise<string> {
  await page.goto('/')
  await page
    .getByLabel('Files to open')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) })
  const title = name.replace(/\.\w+$/, '')
  await expect(page.getByRole('listitem').filter({ hasText: title }).getByText('% settled')).toBeVisible({
    timeout: 30_000,
  })
  return title
}

/** Opens a file on the desk: it is sent as the shelf would send it, and its page opened at once. */
export async function openOnDesk(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  const sent = await page.request.post(`/api/documents?name=${encodeURIComponent(name)}`, {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from(bytes),
  })
  expect(sent.status(), await sent.text()).toBe(201)
  const { id } = (await sent.json()) as { id: string }
  await page.goto(`/documents/${id}`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
}

/** The open document as it is handed on. */
export async function downloadFile(page: Page, name: string): Promise<Uint8Array> {
  await page.getByRole('tab', { name: 'Handoff' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: new RegExp(`^Download ${name}`) }).click(),
  ])
  return new Uint8Array(readFileSync(await file.path()))
}

/** Chooses one of several things by its words. */
export async function choose(choice: Locator, option: string | RegExp): Promise<void> {
  await choice.click()
  await choice.page().getByRole('option', { name: option, exact: true }).first().click()
}

/** Text of sheets, as it is read aloud. */
export const sheetText = (page: Page, label: string) =>
  page
    .locator(`section[aria-label^="${label}"] span.whitespace-pre`)
    .allTextContents()
    .then(texts => texts.join(''))

/** Presses Tab, or another key, until something of a name has the keyboard. */
export async function tabTo(page: Page, name: RegExp, key = 'Tab'): Promise<void> {
  for (let step = 0; step < 120; step++) {
    const at = await page.evaluate(() => {
      const own = document.activeElement as HTMLElement | null
      return own ? `${own.getAttribute('aria-label') ?? ''}|${own.textContent?.trim() ?? ''}` : ''
    })
    if (at.split('|').some(each => name.test(each))) return
    await page.keyboard.press(key)
  }
  throw new Error(`the keyboard does not reach ${String(name)}`)
}

/**
 * Axe finds nothing on a page once it is there, by WCAG 2.2 AA and its best practices. In one run: no page holds frames of other
 * sites, whose results axe would otherwise join in a second one.
 * @param what what is looked at, for whoever reads that something was found
 */
export async function noFindings(page: Page, what = ''): Promise<void> {
  // A page that is still being made has nothing in it that could be found.
  await expect(page.locator('h1, [role="dialog"]').first()).toBeVisible()
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).withTags(tags).analyze()
  const found = violations.map(each => `${each.id}: ${each.nodes.map(node => node.target.join(' ')).join(', ')}`)
  expect(found, what).toEqual([])
}
