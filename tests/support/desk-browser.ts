import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as plain, type BrowserContext } from '@playwright/test'

/** What a test left behind in a browser that others use after it; files that were fetched stay in its cache. */
async function forget(context: BrowserContext, origin: string): Promise<void> {
  const [first, ...others] = context.pages()
  for (const page of others) await page.close()
  await context.unrouteAll()
  await context.clearCookies()
  await context.clearPermissions()
  const session = await context.newCDPSession(first!)
  const storageTypes = 'local_storage,indexeddb,cache_storage,service_workers'
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes })
  await session.detach()
}

/**
 * Tests before a browser that is begun once for all of them: what the desk is made of is fetched and compiled once, as it is
 * for somebody who comes every day. Each test has a page of its own and finds nothing that another left. Where a file asks for
 * another desk, each of its tests gets a browser of its own.
 */
export const test = plain.extend<object, { kept: BrowserContext }>({
  kept: [
    async ({ playwright }, use, { project }) => {
      const folder = mkdtempSync(join(tmpdir(), 'morphene-browser-'))
      const { launchOptions, viewport, baseURL, actionTimeout } = project.use
      const context = await playwright.chromium.launchPersistentContext(folder, { ...launchOptions, viewport, baseURL })
      context.setDefaultTimeout(actionTimeout ?? 0)
      await use(context)
      await context.close()
      rmSync(folder, { recursive: true, force: true })
    },
    { scope: 'worker' },
  ],
  context: async ({ kept, playwright, baseURL }, use, { project }) => {
    const { launchOptions, viewport } = project.use
    if (baseURL === project.use.baseURL) {
      await use(kept)
      await forget(kept, new URL(baseURL!).origin)
    } else {
      const browser = await playwright.chromium.launch(launchOptions)
      await use(await browser.newContext({ viewport, baseURL }))
      await browser.close()
    }
  },
})
