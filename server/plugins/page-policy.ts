import { defineNitroPlugin } from 'nitropack/runtime'
import { pagePolicy } from '../work/page-policy'

/** Every page says what may run in it, and nothing of what it is made with. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', response => {
    const headers = (response.headers ??= {})
    delete headers['x-powered-by']
    if (typeof response.body === 'string') headers['content-security-policy'] = pagePolicy(response.body)
  })
})
