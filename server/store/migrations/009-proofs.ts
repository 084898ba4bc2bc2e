import type { Migration } from './migration'

/** What the last proof of a document found, of which version and by which checklist and house: told as often as asked. */
export const proofs: Migration = {
  name: '009-proofs',
  async up(knex) {
    await knex.schema.createTable('proofs', table => {
      table.string('document', 36).primary().references('id').inTable('documents').onDelete('CASCADE')
      table.integer('version').notNullable()
      // SHA-256 of the checklist, the house and the faces that it went by.
      table.string('basis', 64).notNullable()
      table.specificType('counts', 'longtext').notNullable()
      table.dateTime('looked', { precision: 3 }).notNullable()
    })
  },
  async down(knex) {
    await knex.schema.dropTable('proofs')
  },
}
