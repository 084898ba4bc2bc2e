import type { Migration } from './migration'

/** How people like to work, and the keys that they gave to styles of a document: theirs, in every browser. */
export const ways: Migration = {
  name: '018-ways',
  async up(knex) {
    await knex.schema.alterTable('people', table => {
      table.specificType('ways', 'longtext').nullable()
    })
    await knex.schema.createTable('pins', table => {
      table.string('document', 36).notNullable().references('id').inTable('documents').onDelete('CASCADE')
      table.string('person', 36).notNullable().references('id').inTable('people').onDelete('CASCADE')
      table.specificType('pins', 'longtext').notNullable()
      table.primary(['document', 'person'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('pins')
    await knex.schema.alterTable('people', table => {
      table.dropColumn('ways')
    })
  },
}
