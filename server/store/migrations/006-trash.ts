import type { Knex } from 'knex'
import { pictureName } from '../document-count'
import type { Migration } from './migration'

/** Which version the figures of a card are of, and what picture goes with them. */
async function countedVersions(knex: Knex): Promise<void> {
  await knex.schema.alterTable('documents', table => {
    table.integer('counted').nullable()
    table.string('picture', 16).nullable()
  })
  await knex('documents')
    .whereNotNull('pages')
    .update({ counted: knex.ref('version') })
  for (const { id, counted } of await knex('documents')
    .whereNotNull('counted')
    .select<{ id: string; counted: number }[]>('id', 'counted')) {
    const row = await knex('versions')
      .where({ document: id, number: counted })
      .first<{ first_page: string | null } | undefined>('first_page')
    if (row?.first_page)
      await knex('documents')
        .where({ id })
        .update({ picture: pictureName(row.first_page) })
  }
  await knex.schema.alterTable('documents', table => {
    table.dropColumn('pictured')
  })
}

/**
 * What is thrown away lies in the trash for a while; what is let go from there for good is proven. What a card says holds
 * until something newer is counted, and its picture goes by what it shows.
 */
export const trash: Migration = {
  name: '006-trash',
  async up(knex) {
    await knex.schema.alterTable('documents', table => {
      // When it was put into the trash; null on the shelf.
      table.dateTime('trashed', { precision: 3 }).nullable().index()
      // When it came to the folder that it lies in: how long it is kept there counts from then at the earliest.
      table.dateTime('placed', { precision: 3 }).nullable()
    })
    await knex('documents').update({ placed: knex.ref('created') })
    await countedVersions(knex)
    await knex.raw('alter table documents modify placed datetime(3) not null')
    // What somebody waits for goes before what is counted anew: 0 and 1.
    await knex.schema.alterTable('jobs', table => {
      table.integer('place').notNullable().defaultTo(0)
      table.dropIndex(['state', 'created'])
      table.index(['state', 'place', 'created'])
    })
    await knex.schema.alterTable('owners', table => {
      table.integer('trash_days').notNullable().defaultTo(30)
    })
    await knex.schema.alterTable('folders', table => {
      // How many days a document is kept after its last change, and since when that holds; null for good.
      table.integer('keep_days').nullable()
      table.dateTime('keep_since', { precision: 3 }).nullable()
    })
    await knex.schema.createTable('purges', table => {
      table.string('id', 36).primary()
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('file_name', 255).notNullable()
      table.integer('versions').notNullable()
      table.integer('pieces').notNullable()
      // Of them those that other documents, versions or faces name, too: known once it is proven.
      table.integer('shared').nullable()
      table.string('person', 36).notNullable()
      table.dateTime('purged', { precision: 3 }).notNullable()
      table.dateTime('proven', { precision: 3 }).nullable()
      table.index(['owner', 'purged'])
    })
    // What is searched for until it is proven gone. Then its hashes go, too.
    await knex.schema.createTable('purge_pieces', table => {
      table.string('purge', 36).notNullable().references('id').inTable('purges')
      table.string('hash', 64).notNullable()
      table.primary(['purge', 'hash'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('purge_pieces')
    await knex.schema.dropTable('purges')
    await knex.schema.alterTable('folders', table => {
      table.dropColumn('keep_days')
      table.dropColumn('keep_since')
    })
    await knex.schema.alterTable('jobs', table => {
      table.dropIndex(['state', 'place', 'created'])
      table.dropColumn('place')
      table.index(['state', 'created'])
    })
    await knex.schema.alterTable('owners', table => {
      table.dropColumn('trash_days')
    })
    await knex.schema.alterTable('documents', table => {
      for (const column of ['trashed', 'placed', 'counted', 'picture']) table.dropColumn(column)
      table.boolean('pictured').notNullable().defaultTo(false)
    })
  },
}
