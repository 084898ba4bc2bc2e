import { defineNitroPlugin } from 'nitropack/runtime'
import { database } from '../store/database'
import { Collector } from '../work/collector'
import { threads } from '../work/pool'
import { Surveyor } from '../work/surveyor'

/** Starts what a server does by itself, jobs and letting go of unused content, and stops it when the server stops. */
export default defineNitroPlugin(nitro => {
  const surveyor = new Surveyor(database, threads().background)
  surveyor.start()
  const collector = new Collector(database)
  collector.start()
  nitro.hooks.hook('close', async () => {
    await Promise.all([surveyor.stop(), collector.stop()])
    await threads().close()
  })
})
