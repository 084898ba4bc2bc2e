import type { Migration } from './migration'

/** Keys by which programs of people ask, each with what it may do and its end. Of a key only its SHA-256 is kept. */
export const programKeys: Migration = {
  name: '016-program-keys',
  async up(knex) {
    await knex.schema.createTable('program_keys', table => {
      table.string('key_hash', 64).primary()
      table.string('id', 36).notNullable().unique()
      table.string('person', 36).notNullable().references('id').inTable('people').onDelete('CASCADE')
      table.string('name', 120).notNullable()
      table.string('may', 20).notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.dateTime('seen', { precision: 3 }).nullable()
      table.dateTime('until', { precision: 3 }).notNullable()
      table.index(['person'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('program_keys')
  },
}
