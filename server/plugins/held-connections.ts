import type { Server } from 'node:http'
import type { Socket } from 'node:net'
import { defineNitroPlugin } from 'nitropack/runtime'

/**
 * How long a connection is held on which nothing is asked. Longer than proxies and programs hold theirs: whoever closes first
 * must be the one who asks, else a request is sent into a connection that is being closed (RFC 9112, 9.5). Milliseconds.
 */
const heldFor = 75_000

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('request', event => {
    // The server is known by the connections that it took; it is asked anew with each answer how long it holds them.
    const { server } = event.node.req.socket as Socket & { readonly server?: Server }
    if (server) server.keepAliveTimeout = heldFor
  })
})
