/*
 * npm run faults [-- --servers 30 --databases 10 --seed 1]: a desk of its own on loopback is worked on while its server and
 * its database are killed at random moments. Nothing that was acknowledged may be lost, nothing half done, no job left
 * hanging. With --dress 100 so many documents are then dressed as one plan, and the server killed six times on the way: each
 * must be wholly in one version. The application must be built (npm start or npm test builds it).
 */
import { parseArgs } from 'node:util'
import { DeskProcess } from '../tests/support/desk-process'
import { dressWithKills } from '../tests/support/dressing-kills'
import { workWithKills, type Victim } from '../tests/support/kills'
import { numbersFrom, shuffled } from '../tests/support/seeded'

const { values } = parseArgs({
  options: {
    servers: { type: 'string', default: '30' },
    databases: { type: 'string', default: '10' },
    seed: { type: 'string', default: '1' },
    dress: { type: 'string', default: '0' },
  },
})
const random = numbersFrom(Number(values.seed))
const several = (victim: Victim, count: string) => Array.from({ length: Number(count) }, () => victim)
const victims = shuffled([...several('server', values.servers), ...several('database', values.databases)], random)
const desk = new DeskProcess(3431, 3437)
try {
  await desk.begin()
  const { acknowledged, faults } = await workWithKills(desk, victims, random, console.log)
  for (const fault of faults) console.log(fault)
  console.log(`${victims.length} kills, ${acknowledged} acknowledged, ${faults.length} faults; seed ${values.seed}`)
  process.exitCode = faults.length === 0 ? 0 : 1
  if (Number(values.dress) > 0) {
    const told = await dressWithKills(desk, Number(values.dress), 6, random, console.log)
    for (const fault of told.faults) console.log(fault)
    console.log(`${told.dressed} of ${values.dress} documents dressed, ${told.faults.length} faults`)
    if (told.faults.length > 0 || told.dressed !== Number(values.dress)) process.exitCode = 1
  }
} finally {
  await desk.finish()
}
