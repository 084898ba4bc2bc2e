import { connect } from '../../server/store/database'
import { testDatabase } from './running'

/**
 * What was empty before the tests of the server is empty after them: whoever comes next on the same database (the tests before
 * a browser) finds no shelf of theirs, and no work that waits.
 */
export default async function leaveClean(): Promise<() => Promise<void>> {
  const { name } = testDatabase()
  const knex = connect()
  const tables = await knex('information_schema.tables').where({ table_schema: name }).pluck<string[]>('table_name')
  const empty: string[] = []
  for (const table of tables) if (!(await knex(table).first(knex.raw('1')))) empty.push(table)
  await knex.destroy()
  return async () => {
    const after = connect()
    await after.transaction(async trx => {
      await trx.raw('set foreign_key_checks = 0')
      for (const table of empty) await trx(table).delete()
      await trx.raw('set foreign_key_checks = 1')
    })
    await after.destroy()
  }
}
