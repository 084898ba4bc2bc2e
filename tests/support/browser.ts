import { expect, test } from '@playwright/test'

/** Fails a test at whose end the page has had an error: refusals that the server gives on purpose are none. */
export function noPageErrors(): void {
  const problems: string[] = []
  test.beforeEach(({ page }) => {
    problems.length = 0
    page.on('pageerror', error => problems.push(error.message))
    page.on('console', (message) => { if (message.type() === 'error' && !/409|422|404|413|400/.test(message.text())) problems.push(message.text()) })
  })
  test.afterEach(() => { expect(problems).toEqual([]) })
}
