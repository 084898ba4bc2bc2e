import type { Migration } from './migration'

/**
 * Signing in through a provider (OpenID Connect): whom it knows of the people here, and ways to it that were begun and have
 * not come back. Of the key that ties a way to its browser only the SHA-256 is kept.
 */
export const identities: Migration = {
  name: '017-identities',
  async up(knex) {
    await knex.schema.createTable('identities', table => {
      // SHA-256 of issuer and subject: together they are longer than an index may be.
      table.string('hash', 64).primary()
      table.string('person', 36).notNullable().unique().references('id').inTable('people').onDelete('CASCADE')
      table.string('issuer', 500).notNullable()
      table.string('subject', 255).notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
    })
    await knex.schema.createTable('sign_in_ways', table => {
      table.string('key_hash', 64).primary()
      table.string('state', 100).notNullable()
      table.string('nonce', 100).notNullable()
      table.string('verifier', 200).notNullable()
      // What it is for, and what is done when it comes back.
      table.specificType('purpose', 'longtext').notNullable()
      table.dateTime('until', { precision: 3 }).notNullable().index()
    })
  },
  async down(knex) {
    await knex.schema.dropTable('sign_in_ways')
    await knex.schema.dropTable('identities')
  },
}
