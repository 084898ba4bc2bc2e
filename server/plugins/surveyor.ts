import { defineNitroPlugin } from 'nitropack/runtime'
import { database } from '../store/database'
import { LettingGo } from '../work/letting-go'
import { threads } from '../work/pool'
import { Surveyor } from '../work/surveyor'

/** Starts what a server does by itself, jobs and letting go, and stops it when the server stops. */
export default defineNitroPlugin(nitro => {
  const surveyor = new Surveyor(database, threads().background)
  surveyor.start()
  const lettingGo = new LettingGo(database)
  lettingGo.start()
  nitro.hooks.hook('close', async () => {
    await Promise.all([surveyor.stop(), lettingGo.stop()])
    await threads().close()
  })
})
