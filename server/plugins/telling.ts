import { defineNitroPlugin } from 'nitropack/runtime'
import type { H3Event } from 'h3'
import { log } from '../work/log'
import { tellRequest } from '../work/metrics'

/** The pattern that a request was answered by: what stands in its address is nobody's business. */
const patternOf = (event: H3Event): string => {
  const { matchedRoute } = event.context as { matchedRoute?: { path?: string } }
  return event.path.startsWith('/api/') ? (matchedRoute?.path ?? '/api/**') : 'page'
}

/** Every answer is counted, and told in one line: which route, how it ended, how long it took. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('request', event => {
    const came = performance.now()
    event.node.res.once('close', () => {
      const took = performance.now() - came
      const status = event.node.res.statusCode
      const route = patternOf(event)
      // How long somebody listens says nothing.
      if (route !== '/api/events') tellRequest(route, event.method, status, took / 1000)
      const line = { route, method: event.method, status, ms: Math.round(took) }
      if (status >= 500) log.error(line, 'failed')
      else if (status >= 400) log.warn(line, 'refused')
      else if (event.method !== 'GET') log.info(line, 'done')
    })
  })
})
