import { createServer } from 'node:http'
import { chromium } from '@playwright/test'

/**
 * Chromium's own layout of the same text in the same faces and measure: a function that lays it out in a family and
 * tells the milliseconds.
 */
export async function chromiumLayout(
  paragraphs: readonly string[],
  faces: Readonly<Record<string, Uint8Array>>,
): Promise<{ layout: (family: string) => Promise<number>; close: () => Promise<void> }> {
  const rules = Object.keys(faces)
    .map((family, at) => `@font-face { font-family: "${family}"; src: url(/${at}) }`)
    .join('\n')
  const html =
    `<!doctype html><meta charset="utf-8"><style>${rules} body { width: 16cm; font: ` +
    `11pt/14pt serif; text-align: justify; font-kerning: normal } p { margin: 0 }</style>` +
    `<body lang="en-GB">${paragraphs.map(text => `<p>${text}`).join('')}`
  const server = createServer((request, response) => {
    const file = /^\/(\d)$/.exec(request.url ?? '')
    if (file) response.setHeader('content-type', 'font/ttf').end(Buffer.from(Object.values(faces)[Number(file[1])]!))
    else response.setHeader('content-type', 'text/html; charset=utf-8').end(html)
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as { port: number }
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
  const page = await browser.newPage()
  await page.goto(`http://127.0.0.1:${port}/`)
  await page.evaluate(async families => {
    for (const family of families) await document.fonts.load(`11pt "${family}"`)
  }, Object.keys(faces))
  return {
    layout: family =>
      page.evaluate(name => {
        const start = performance.now()
        document.body.style.fontFamily = `"${name}"`
        void document.body.offsetHeight
        return performance.now() - start
      }, family),
    close: async () => {
      await browser.close()
      await new Promise(resolve => server.close(resolve))
    },
  }
}
