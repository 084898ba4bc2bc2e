import type { Migration } from './migration'

/** Versions that somebody signed off: who did, and when. */
export const signOffs: Migration = {
  name: '012-sign-offs',
  async up(knex) {
    await knex.schema.createTable('sign_offs', table => {
      table.string('document', 36).notNullable().references('id').inTable('documents').onDelete('CASCADE')
      table.integer('version').notNullable()
      table.string('person', 36).notNullable()
      table.dateTime('at', { precision: 3 }).notNullable()
      table.primary(['document', 'version', 'person'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('sign_offs')
  },
}
