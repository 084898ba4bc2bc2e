import type { Knex } from 'knex'
import type { Migration } from './migration'

/** All that is kept under a name lies in one table, whatever it is; documents say what they are made for. */
export const kept: Migration = {
  name: '007-kept',
  async up(knex) {
    await knex.schema.createTable('kept', table => {
      table.string('id', 36).primary()
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('kind', 20).notNullable()
      table.string('heading', 120).notNullable()
      table.string('name', 200).notNullable()
      table.specificType('data', 'longtext').notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.index(['owner', 'kind', 'heading', 'name'])
    })
    await move(knex, 'kept_wishes', 'wish', ['name', 'request'], row => ({ heading: '', data: row.request! }))
    await move(knex, 'set_pieces', 'frame', ['name', 'heading', 'piece'], row => ({
      heading: row.heading!,
      data: row.piece!,
    }))
    await knex.schema.dropTable('kept_wishes')
    await knex.schema.dropTable('set_pieces')
    await knex.schema.alterTable('documents', table => {
      // The uses that its faces must be licensed for, as JSON; null where nobody has said.
      table.string('uses', 300).nullable()
    })
  },
  async down(knex) {
    await knex.schema.alterTable('documents', table => {
      table.dropColumn('uses')
    })
    for (const [name, column] of [
      ['kept_wishes', 'request'],
      ['set_pieces', 'piece'],
    ] as const)
      await knex.schema.createTable(name, table => {
        table.string('id', 36).primary()
        table.string('owner', 36).notNullable().references('id').inTable('owners')
        if (name === 'set_pieces') table.string('heading', 120).notNullable()
        table.string('name', 200).notNullable()
        table.specificType(column, 'longtext').notNullable()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
    await knex('kept_wishes').insert(
      knex('kept').where({ kind: 'wish' }).select('id', 'owner', 'name', knex.ref('data').as('request'), 'created'),
    )
    await knex('set_pieces').insert(
      knex('kept')
        .where({ kind: 'frame' })
        .select('id', 'owner', 'heading', 'name', knex.ref('data').as('piece'), 'created'),
    )
    await knex.schema.dropTable('kept')
  },
}

/** Rows of an older table, one at a time: no more than one is held. */
async function move(
  knex: Knex,
  table: string,
  kind: string,
  columns: readonly string[],
  change: (row: Record<string, string | undefined>) => { heading: string; data: string },
): Promise<void> {
  for (const { id } of await knex(table).select<{ id: string }[]>('id')) {
    const row = await knex(table)
      .where({ id })
      .first<Record<string, string | undefined> & { owner: string; name: string; created: Date }>(
        'owner',
        'created',
        ...columns,
      )
    await knex('kept').insert({ id, owner: row.owner, kind, name: row.name, created: row.created, ...change(row) })
  }
}
