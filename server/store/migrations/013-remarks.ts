import type { Migration } from './migration'

/** What people say of places in documents, and the answers. They go with the document, never with a version. */
export const remarks: Migration = {
  name: '013-remarks',
  async up(knex) {
    await knex.schema.createTable('remarks', table => {
      table.string('id', 36).primary()
      table.string('document', 36).notNullable().references('id').inTable('documents').onDelete('CASCADE')
      table.integer('version').notNullable()
      table.specificType('place', 'longtext').nullable()
      table.specificType('text', 'longtext').notNullable()
      table.specificType('finding', 'longtext').nullable()
      table.string('author', 36).notNullable()
      table.string('given_to', 36).nullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.string('settled_by', 36).nullable()
      table.dateTime('settled_at', { precision: 3 }).nullable()
      table.index(['document', 'created'])
      table.index(['given_to', 'settled_at'])
    })
    await knex.schema.createTable('remark_answers', table => {
      table.string('id', 36).primary()
      table.string('remark', 36).notNullable().references('id').inTable('remarks').onDelete('CASCADE')
      table.string('author', 36).notNullable()
      table.specificType('text', 'longtext').notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.index(['remark', 'created'])
    })
  },
  async down(knex) {
    for (const table of ['remark_answers', 'remarks']) await knex.schema.dropTable(table)
  },
}
