import { defineEventHandler, setHeaders, type H3Event } from 'h3'
import { refusal } from '../work/answer'
import { dataPolicy } from '../work/page-policy'

/**
 * Names that this desk goes by. A page of another site can have its own name point here (DNS rebinding), and its
 * requests are then of the same origin to the browser: only the name gives them away.
 */
const ownNames = new Set([
  'localhost',
  '127.0.0.1',
  '[::1]',
  ...(process.env.MORPHENE_HOSTS ?? '')
    .split(',')
    .map(name => name.trim().toLowerCase())
    .filter(Boolean),
])

/** The name of a host without its port; '' where it is none. */
function nameOf(host: string): string {
  return /^(\[[0-9a-f:]+\]|[^:@/\\]+)(:\d{1,5})?$/i.exec(host)?.[1]?.toLowerCase() ?? ''
}

/** Whether a request that changes something comes from a page of this desk, or from no page at all. */
function isOurs({ node }: H3Event): boolean {
  const { origin, host, 'sec-fetch-site': site } = node.req.headers
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false
  if (origin === undefined) return true
  try {
    return new URL(origin).host === host
  } catch {
    return false
  }
}

/** Only pages of this desk may have it do anything, and what it answers is shown in no other page. */
export default defineEventHandler(event => {
  setHeaders(event, {
    'X-Content-Type-Options': 'nosniff',
    'Referrer-Policy': 'same-origin',
    'Cross-Origin-Resource-Policy': 'same-origin',
    'X-Frame-Options': 'DENY',
    // Pages bring a policy of their own, which takes the place of this one.
    'Content-Security-Policy': dataPolicy,
  })
  if (!ownNames.has(nameOf(event.node.req.headers.host ?? '')))
    throw refusal(
      421,
      'This desk does not go by that name. Open it by the address that it printed when it started, or name it in ' +
        'MORPHENE_HOSTS. Nothing was changed.',
    )
  if (event.method !== 'GET' && event.method !== 'HEAD' && !isOurs(event))
    throw refusal(403, 'This request came from another site. Nothing was changed.')
})
