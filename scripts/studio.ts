/*
 * npm run studio -- NAME [OWNER]: a studio more on this installation, with an owner of its own, who comes in once by the
 * address that is printed. It sees nothing of others, and they nothing of it. The desk must be running, for its database.
 */
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { projectFolder } from '../server/library/files'
import { actingAs } from '../server/store/acting'
import { connect, databaseAddress } from '../server/store/database'
import { addStudio, isShared, makeLink, ownPassphrase } from '../server/store/people'
import { accountOf } from './database.mjs'

const [name, owner = 'The owner'] = process.argv.slice(2)
if (!name) {
  console.error('npm run studio -- NAME [OWNER]: a studio needs a name')
  process.exit(1)
}
const data = join(projectFolder(), '.morphene', 'database')
const knex = connect(databaseAddress({ ...accountOf(data, 'schema'), ...process.env }))
// From the second studio on everybody signs in: the owner of a desk of one would be locked out.
if (!(await isShared(knex)) && (await ownPassphrase(actingAs(knex))) === null) {
  console.error('Choose your own passphrase first, on the page People: from the second studio on everybody signs in.')
  await knex.destroy()
  process.exit(1)
}
const actor = await addStudio(knex, { id: randomUUID(), name, owner })
const key = await makeLink(actingAs(knex, actor), actor.person)
console.log(
  `${owner} of ${name} comes in once by http://127.0.0.1:${process.env.MORPHENE_PORT ?? 3400}/sign-in#key=${key}`,
)
await knex.destroy()
