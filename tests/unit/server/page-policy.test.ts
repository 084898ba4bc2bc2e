import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { pagePolicy } from '../../../server/work/page-policy'

const hash = (script: string) => `'sha256-${createHash('sha256').update(script).digest('base64')}'`
const scriptsOf = (policy: string) => policy.split('; ').find(each => each.startsWith('script-src '))!

describe('the policy of a page', () => {
  it('lets the scripts run that were built into it, by what they say, and no others', () => {
    const policy = pagePolicy(
      '<script type="importmap">{"imports":{}}</script><script type="module" src="/a.js" crossorigin></script>' +
        '<script type="application/json" id="data">[1]</script><script>window.made = 1</script>' +
        '<script>window.made = 1</script>',
    )
    expect(scriptsOf(policy)).toBe(
      `script-src 'self' 'wasm-unsafe-eval' ${hash('{"imports":{}}')} ${hash('window.made = 1')}`,
    )
  })

  it('never lets anything run by being in the page, or the page be shown in another', () => {
    const policy = pagePolicy('<p>no script</p>')
    expect(scriptsOf(policy)).toBe("script-src 'self' 'wasm-unsafe-eval'")
    expect(policy).toContain("default-src 'none'")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).toContain("object-src 'none'")
  })
})
