import type { Migration } from './migration'

/** Houses with their versions; documents are linked to one, and it is known how much of each is to style. */
export const houses: Migration = {
  name: '008-houses',
  async up(knex) {
    await knex.schema.createTable('houses', table => {
      table.string('id', 36).primary()
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('name', 120).notNullable()
      // The house as it is being worked on, and how often it was kept: whoever keeps it says which one they had.
      table.specificType('data', 'longtext').notNullable()
      table.integer('revision').notNullable()
      // The number of its newest version; 0 while none was issued.
      table.integer('issued').notNullable()
      // A trial copy asks on this day whether it is kept.
      table.string('trial_until', 10).nullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.dateTime('changed', { precision: 3 }).notNullable()
      table.index(['owner', 'name'])
    })
    await knex.schema.createTable('house_versions', table => {
      table.string('house', 36).notNullable().references('id').inTable('houses').onDelete('CASCADE')
      table.integer('number').notNullable()
      table.specificType('data', 'longtext').notNullable()
      table.specificType('changes', 'longtext').notNullable()
      table.string('author', 36).notNullable()
      table.dateTime('issued', { precision: 3 }).notNullable()
      table.primary(['house', 'number'])
    })
    await knex.schema.alterTable('documents', table => {
      table.string('house', 36).nullable().references('id').inTable('houses').onDelete('SET NULL')
    })
    await knex.schema.createTable('style_shares', table => {
      table.string('document', 36).notNullable().references('id').inTable('documents').onDelete('CASCADE')
      table.integer('version').notNullable()
      table.string('house', 36).notNullable().references('id').inTable('houses').onDelete('CASCADE')
      table.integer('number').notNullable()
      table.integer('characters').notNullable()
      table.integer('to_style').notNullable()
      table.specificType('roles', 'longtext').notNullable()
      // The version of the house that the document was dressed in last; null for none.
      table.integer('dressed').nullable()
      table.dateTime('measured', { precision: 3 }).notNullable()
      table.primary(['document', 'version', 'house', 'number'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('style_shares')
    await knex.schema.alterTable('documents', table => {
      table.dropForeign('house')
      table.dropColumn('house')
    })
    await knex.schema.dropTable('house_versions')
    await knex.schema.dropTable('houses')
  },
}
