import { defineNitroPlugin } from 'nitropack/runtime'
import { database } from '../store/database'
import { threads } from '../work/pool'
import { Surveyor } from '../work/surveyor'

/** Starts taking jobs when the server starts, and stops when it stops. */
export default defineNitroPlugin(nitro => {
  const surveyor = new Surveyor(database, threads().background)
  surveyor.start()
  nitro.hooks.hook('close', async () => {
    await surveyor.stop()
    await threads().close()
  })
})
