import { defineEventHandler } from 'h3'
import { refusal } from '../work/answer'

/** Other sites may not change anything here, though the browser would carry their requests to loopback. */
export default defineEventHandler(event => {
  if (event.method === 'GET' || event.method === 'HEAD') return
  const site = event.node.req.headers['sec-fetch-site']
  if (site !== undefined && site !== 'same-origin' && site !== 'none')
    throw refusal(403, 'This request came from another site. Nothing was changed.')
})
