import type { ChildProcess } from 'node:child_process'
import { expect, type Browser, type Page } from '@playwright/test'
import type { Knex } from 'knex'
import { shippedFaces } from '../../server/library/shipped'
import { storeShippedFaces } from '../../server/store/faces'
import { harbourNotice } from '../../demo/harbour-notice'
import { startSignInProvider, type RunningProvider } from '../../demo/sign-in-provider'
import { beginServer, dropDatabase, endServer, ownDatabase } from '../server/running'
import { until } from '../support/desk-process'
import { choose, noFindings, noPageErrors, putOnShelf } from '../support/browser'
import { test } from '../support/desk-browser'

/* A desk of its own: whoever is asked to come there has everybody sign in. */
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 80
const base = `http://127.0.0.1:${port}`
const database = 'morphene_people_browser'
test.use({ baseURL: base })
noPageErrors()
let server: ChildProcess
let knex: Knex
let provider: RunningProvider
test.beforeAll(async () => {
  knex = await ownDatabase(database)
  await storeShippedFaces(
    knex,
    shippedFaces(() => undefined),
    () => undefined,
  )
  provider = await startSignInProvider({
    port: 0,
    client: 'desk',
    secret: null,
    people: { quay: 'Mira Quay', ferry: 'Ned Ferry' },
  })
  server = beginServer(port, {
    MORPHENE_DB_NAME: database,
    MORPHENE_OIDC_ISSUER: provider.issuer,
    MORPHENE_OIDC_CLIENT: 'desk',
    MORPHENE_OIDC_NAME: 'Harbour office',
  })
  expect(await until(async () => (await fetch(`${base}/api/health`)).ok, 30_000)).toBe(true)
})
test.afterAll(async () => {
  await endServer(server)
  await dropDatabase(knex, database)
  await provider.end()
})

/** Somebody at another machine. */
const another = async (browser: Browser) => (await browser.newContext({ baseURL: base })).newPage()
/** Asks somebody to come, and gives the link. */
async function invite(page: Page, name: string, role: string): Promise<string> {
  await page.getByLabel('Who shall come').fill(name)
  await choose(page.getByRole('combobox', { name: 'As' }), role)
  await page.getByRole('button', { name: 'Make an invitation' }).click()
  await expect(page.getByText(`Give ${name} this link.`)).toBeVisible()
  return page.getByRole('textbox', { name: 'The link' }).inputValue()
}
async function join(page: Page, link: string, signIn: string): Promise<void> {
  await page.goto(link)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Come to work here')
  await page.getByLabel('A short name to sign in by').fill(signIn)
  await page.getByLabel(/^A passphrase/).fill('seven lamps at the outer pier')
  await page.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shelf')
}

test('from an invitation to a first change; a reader looks, is told, and no font reaches them', async ({
  page,
  browser,
}) => {
  await putOnShelf(page, 'Notice to share.odt', harbourNotice())
  await page.getByRole('tab', { name: 'People' }).click()
  await expect(page.getByText('This desk has one person.')).toBeVisible()
  await noFindings(page)
  await page.getByLabel('Who shall come').fill('Jo Teal')
  await page.getByRole('button', { name: 'Make an invitation' }).click()
  await expect(page.getByRole('alert')).toContainText('Choose your own passphrase first')
  await page.getByLabel('Name, as others see it').fill('M. Aldous')
  await page.getByLabel('Name to sign in by').fill('aldous')
  await page.getByLabel(/^Passphrase, 12/).fill('nets drying on the north quay')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('table', { name: 'Where you are signed in' })).toContainText('this browser')
  const link = await invite(page, 'Jo Teal', 'Designer')
  await noFindings(page)

  // Nobody else sees anything now, and comes back to where they wanted to go.
  const stranger = await another(browser)
  await stranger.goto('/records')
  await expect(stranger.getByRole('heading', { level: 1 })).toHaveText('Sign in')
  await noFindings(stranger)
  await stranger.getByLabel('The name you sign in by').fill('aldous')
  await stranger.getByLabel('Passphrase', { exact: true }).fill('not the right one')
  await stranger.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(stranger.getByRole('alert')).toContainText('nobody here of that name and passphrase')
  await stranger.getByLabel('Passphrase', { exact: true }).fill('nets drying on the north quay')
  await stranger.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(stranger.getByRole('heading', { level: 1 })).toHaveText('Records')

  // Jo Teal comes, and makes a first change.
  const teal = await another(browser)
  await join(teal, link, 'teal')
  await teal.getByRole('link', { name: 'Notice to share', exact: true }).click()
  await expect(teal.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await teal.getByRole('tab', { name: 'Proof' }).click()
  await teal.getByRole('button', { name: /^Put right: Text set by hand/ }).click()
  await teal.getByRole('button', { name: /^Carry it out/ }).click()
  await expect(teal.getByText(/^Done: /)).toBeVisible()
  await page.goto('/records')
  await expect(page.getByRole('row').filter({ hasText: 'Notice to share' })).toContainText('Jo Teal')

  // It is signed off, and a later change says that it was.
  await page.goto('/')
  await page.getByRole('link', { name: 'Notice to share', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('settled', { timeout: 30_000 })
  await page.getByRole('tab', { name: 'Handoff' }).click()
  await page.getByRole('button', { name: 'Sign version 2 off' }).click()
  await expect(page.getByText(/Version 2 is signed off by\s+M. Aldous/)).toBeVisible()
  await noFindings(page)
  await teal.getByRole('button', { name: /^Undo/ }).click()
  await teal.getByRole('tab', { name: 'Handoff' }).click()
  await expect(teal.getByText(/Changed since M. Aldous signed version 2 off/)).toBeVisible()
  await expect(teal.getByRole('button', { name: /^Sign version/ })).toHaveCount(0)

  // A reader looks at the pages: what is drawn comes, and no font file.
  await page.goto('/people')
  const readersLink = await invite(page, 'R. Sand', 'Reader')
  const sand = await another(browser)
  const fonts: string[] = []
  sand.on('response', response => {
    const type = response.headers()['content-type'] ?? ''
    const isOwn = response.url().includes('/_nuxt/')
    if (response.ok() && !isOwn && (/font|octet-stream/.test(type) || response.url().includes('/api/faces/')))
      fonts.push(response.url())
  })
  await join(sand, readersLink, 'sand')
  await expect(sand.getByText('you are a reader here')).toBeVisible()
  await expect(sand.getByRole('button', { name: 'Open documents' })).toHaveCount(0)
  await sand.getByRole('link', { name: 'Notice to share', exact: true }).click()
  await expect(sand.getByText('You look at this document and change nothing')).toBeVisible()
  await expect(sand.getByRole('img', { name: 'Page 1' })).toBeVisible()
  const width = await sand
    .getByRole('img', { name: 'Page 1' })
    .evaluate(image => (image as HTMLImageElement).naturalWidth)
  expect(width).toBeGreaterThan(100)
  await noFindings(sand)
  await sand.goto('/library')
  await sand.waitForTimeout(1500)
  expect(fonts).toEqual([])
})

test('a reader remarks on a place, is answered, and finds on the shelf what is given to them', async ({
  page,
  browser,
}) => {
  const signIn = async (who: Page, name: string, passphrase: string) => {
    await who.goto('/sign-in')
    await who.getByLabel('The name you sign in by').fill(name)
    await who.getByLabel('Passphrase', { exact: true }).fill(passphrase)
    await who.getByRole('button', { name: 'Sign in', exact: true }).click()
    await expect(who.getByRole('heading', { level: 1 })).toHaveText('Shelf')
  }
  const sand = await another(browser)
  await signIn(sand, 'sand', 'seven lamps at the outer pier')
  await sand.getByRole('link', { name: 'Notice to share', exact: true }).click()
  const picture = sand.getByRole('img', { name: 'Page 1' })
  await expect(picture).toBeVisible()
  await picture.click({ position: { x: 200, y: 150 } })
  await sand.getByLabel('What you say').fill('Is this the right hour?')
  await choose(sand.getByRole('combobox', { name: 'Whom it is given to' }), 'M. Aldous')
  await sand.getByRole('button', { name: 'Keep the remark' }).click()
  const sands = sand.getByRole('listitem', { name: 'Remark about page 1' })
  await expect(sands).toContainText('Is this the right hour?')
  await noFindings(sand)

  // It stands on the shelf of whoever it is given to, and is answered by keys alone.
  await signIn(page, 'aldous', 'nets drying on the north quay')
  const given = page.getByRole('region', { name: 'Remarks for you' })
  await expect(given).toContainText('1 remark is given to you.')
  await noFindings(page)
  await given.getByRole('link', { name: 'Notice to share.odt' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 open remark', { timeout: 30_000 })
  const remark = page.getByRole('listitem', { name: 'Remark about page 1' })
  // Where the reader pointed is seen on the sheets, as long as it is open.
  await expect(page.getByRole('img', { name: /^Remark 1\. .+: Is this the right hour\?/ })).toBeVisible()
  await remark.getByRole('button', { name: 'Answer' }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('It is: summer time.')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(remark.getByRole('list', { name: 'Answers' })).toContainText('It is: summer time.')
  await noFindings(page)

  // Of words on the sheets; it goes into the file where that is wanted, and is settled by it.
  const words = page.locator('section[aria-label^="Page 1"] span.whitespace-pre').first()
  await words.dblclick()
  await expect(page.getByText(/^About “/)).toBeVisible()
  await page.getByLabel('What you say').fill('Larger, please')
  await page.getByRole('button', { name: 'Keep the remark' }).click()
  const own = page.getByRole('listitem').filter({ hasText: 'Larger, please' })
  await own.getByRole('button', { name: 'Go there' }).click()
  await own.getByRole('button', { name: 'Write it into the file' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Written into the file' })).toBeVisible()
  await expect(page.getByRole('list', { name: 'Remarks in the file' })).toContainText('Larger, please')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 open remark')

  // A finding is given to the reader, who settles it.
  await page.getByRole('button', { name: 'Back to the findings' }).click()
  await page.getByRole('list', { name: 'What the checks found' }).getByRole('button').first().click()
  await page.keyboard.press('n')
  await page.getByRole('button', { name: 'Give it to somebody' }).click()
  await choose(page.getByRole('combobox', { name: 'Whom the finding is given to' }), 'R. Sand')
  await page.getByRole('button', { name: 'Keep it as a remark' }).click()
  await expect(page.getByText('It is given to R. Sand.')).toBeVisible()
  await sand.goto('/')
  await sand.getByRole('region', { name: 'Remarks for you' }).getByRole('link').click()
  await expect(sands).toContainText('It is: summer time.')
  await sand.getByRole('radio', { name: /^For you/ }).click()
  const finding = sand.getByRole('list', { name: 'Remarks' }).getByRole('listitem')
  await expect(finding).toContainText('Finding: ')
  await finding.getByRole('button', { name: 'Settle' }).click()
  await expect(sand.getByText('None is given to you.')).toBeVisible()
})

test('by keyboard: somebody’s rights change, their access ends, and whoever was signed in is out', async ({
  page,
  browser,
}) => {
  await page.goto('/sign-in')
  await page.getByLabel('The name you sign in by').fill('aldous')
  await page.keyboard.press('Tab')
  await page.keyboard.type('nets drying on the north quay')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shelf')
  await page.goto('/people')
  // A key for a program: told once, and ended.
  await page.getByLabel('What it is for').focus()
  await page.keyboard.type('The harbour screen')
  await page.keyboard.press('Enter')
  const key = await page.getByLabel(/^Keep this key now/).inputValue()
  const asks = () => fetch(`${base}/api/shelf`, { headers: { authorization: `Bearer ${key}` } })
  expect((await asks()).status).toBe(200)
  await noFindings(page)
  await page.getByRole('button', { name: 'End the key for The harbour screen' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('table', { name: 'Your keys for programs' })).toHaveCount(0)
  expect((await asks()).status).toBe(401)

  const link = await invite(page, 'Gone Soon', 'Reader')
  const gone = await another(browser)
  await join(gone, link, 'gone')
  await page.goto('/people')
  const row = page.getByRole('row').filter({ hasText: 'Gone Soon' })
  await row.getByLabel('takes files away').focus()
  await page.keyboard.press('Space')
  await expect(page.getByRole('status').filter({ hasText: 'Gone Soon looks at pages' })).toBeVisible()
  await gone.goto('/')
  await gone.getByRole('link', { name: 'Notice to share', exact: true }).click()
  await expect(gone.getByRole('link', { name: 'Save the file' })).toBeVisible()

  // A folder is kept to the owner: what lies in it is gone from everybody else's shelf.
  await page.goto('/')
  await page.getByLabel('Name of a new folder').focus()
  await page.keyboard.type('Harbour office')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Say who sees it' }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('combobox', { name: 'What M. Aldous does in this folder' }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('works')
  await page.keyboard.press('Enter')
  await page.getByRole('combobox', { name: 'What Jo Teal does in this folder' }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('looks')
  await page.keyboard.press('Enter')
  await noFindings(page)
  await page.getByRole('button', { name: 'Keep it to them' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Seen by .*Jo Teal \(looks and remarks\)/)).toBeVisible()
  await page.getByRole('radio', { name: /^Everything/ }).click()
  await choose(page.getByRole('combobox', { name: /^Folder of Notice to share/ }), 'Harbour office')
  await gone.goto('/')
  await expect(gone.getByText('you are a reader here')).toBeVisible()
  await expect(gone.getByRole('link', { name: 'Notice to share', exact: true })).toHaveCount(0)

  // Whoever only looks there is a reader of what lies in it, though a designer at the desk.
  const teal = await another(browser)
  await teal.goto('/sign-in')
  await teal.getByLabel('The name you sign in by').fill('teal')
  await teal.getByLabel('Passphrase').fill('seven lamps at the outer pier')
  await teal.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(teal.getByRole('button', { name: /^Throw Notice to share away/ })).toHaveCount(0)
  await teal.getByRole('link', { name: 'Notice to share', exact: true }).click()
  await expect(teal.getByText('You look at this document and change nothing')).toBeVisible()
  await expect(teal.getByRole('link', { name: 'Save the file' })).toHaveCount(0)
  await expect(teal.getByRole('button', { name: 'Keep the remark' })).toBeVisible()
  await page.goto('/people')
  await row.getByRole('button', { name: 'End the access of Gone Soon' }).focus()
  await page.keyboard.press('Enter')
  await row.getByRole('button', { name: 'End their access' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'let in no more' })).toBeVisible()
  await gone.goto('/')
  await expect(gone.getByRole('heading', { level: 1 })).toHaveText('Sign in')
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sign in')
})

test('somebody joins through the provider, comes in by it again, and tells lengths in their own unit', async ({
  page,
  browser,
}) => {
  await page.goto('/sign-in')
  await page.getByLabel('The name you sign in by').fill('aldous')
  await page.getByLabel('Passphrase').fill('nets drying on the north quay')
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shelf')
  await page.goto('/people')
  const link = await invite(page, 'Mira Quay', 'Designer')
  const quay = await another(browser)
  await quay.goto(link)
  await noFindings(quay)
  await quay.getByRole('button', { name: 'join through Harbour office' }).click()
  await quay.getByRole('button', { name: 'Mira Quay' }).click()
  await expect(quay.getByRole('heading', { level: 1 })).toHaveText('Shelf')

  await quay.goto('/people')
  await expect(quay.getByText('You sign in through Harbour office.')).toBeVisible()
  await noFindings(quay)
  await choose(quay.getByRole('combobox', { name: 'Places and sizes on pages in' }), 'inches')
  // It is kept a moment after the choice.
  await quay.waitForResponse(response => response.url().endsWith('/api/me/ways'))
  await quay.getByRole('button', { name: 'Sign out' }).click()
  await expect(quay.getByRole('heading', { level: 1 })).toHaveText('Sign in')
  // Whoever is known there and not here stays outside, and is told.
  await quay.getByRole('button', { name: 'Sign in through Harbour office' }).click()
  await quay.getByRole('button', { name: 'Ned Ferry' }).click()
  await expect(quay.getByText('Harbour office knows you, but nobody here signs in as that.')).toBeVisible()
  await noFindings(quay)
  await quay.getByRole('button', { name: 'Sign in through Harbour office' }).click()
  await quay.getByRole('button', { name: 'Mira Quay' }).click()
  await expect(quay.getByRole('heading', { level: 1 })).toHaveText('Shelf')
  await quay.getByRole('button', { name: 'New document' }).click()
  await expect(quay.getByLabel('Margin top')).toHaveValue('0.9843 in')
})
