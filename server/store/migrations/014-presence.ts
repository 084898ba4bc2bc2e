import type { Migration } from './migration'

/** Who is at a document now: when they were last seen there. */
export const presence: Migration = {
  name: '014-presence',
  async up(knex) {
    await knex.schema.createTable('presence', table => {
      table.string('document', 36).notNullable().references('id').inTable('documents').onDelete('CASCADE')
      table.string('person', 36).notNullable().references('id').inTable('people').onDelete('CASCADE')
      table.dateTime('seen', { precision: 3 }).notNullable()
      table.primary(['document', 'person'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('presence')
  },
}
