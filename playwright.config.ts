import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: '.morphene/browser',
  timeout: 300_000,
  // How quickly things come is measured elsewhere: here a machine may have other work.
  expect: { timeout: 20_000 },
  workers: 1,
  retries: 0,
  reporter: [['json', { outputFile: '.morphene/browser.json' }], ['line']],
  use: {
    actionTimeout: 60_000,
    baseURL: `http://127.0.0.1:${process.env.MORPHENE_TEST_PORT ?? 3411}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
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
    },
  },
})
