/* Prints an address by which the first owner of the desk comes in once: npm start calls it where signing in is asked for. */
import { actingAs } from '../server/store/acting'
import { connect } from '../server/store/database'
import { listPeople, makeLink } from '../server/store/people'

const knex = connect()
const acting = actingAs(knex)
const owner = (await listPeople(acting)).find(each => each.role === 'owner')
const key = owner ? await makeLink(acting, owner.id) : null
if (owner && key) console.log(`        ${owner.name} comes in once by ${process.argv[2] ?? ''}/sign-in#key=${key}`)
await knex.destroy()
