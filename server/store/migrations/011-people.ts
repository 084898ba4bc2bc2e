import type { Migration } from './migration'

/**
 * People are told apart: who works at a desk, what they may do, the browsers they are signed in by, who is asked to come,
 * and what was done. The one person of a desk of one is its owner, and needs no passphrase.
 */
export const people: Migration = {
  name: '011-people',
  async up(knex) {
    await knex.schema.createTable('people', table => {
      table.string('id', 36).primary()
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('name', 120).notNullable()
      table.string('sign_in', 120).nullable().unique()
      // Argon2id, with its parameters and salt (RFC 9106).
      table.string('passphrase', 300).nullable()
      table.string('role', 20).notNullable()
      table.string('also', 200).notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      // Whoever left stays by name, so that what they made still tells who made it.
      table.dateTime('ended', { precision: 3 }).nullable()
      table.index(['owner', 'ended'])
    })
    await knex('people').insert({
      id: 'desk',
      owner: 'desk',
      name: 'The owner',
      role: 'owner',
      also: '[]',
      created: new Date(),
    })
    // Of keys that browsers and links hold only their SHA-256 is kept.
    await knex.schema.createTable('sessions', table => {
      table.string('key_hash', 64).primary()
      table.string('id', 36).notNullable().unique()
      table.string('person', 36).notNullable().references('id').inTable('people').onDelete('CASCADE')
      table.string('agent', 200).notNullable()
      table.dateTime('created', { precision: 3 }).notNullable()
      table.dateTime('seen', { precision: 3 }).notNullable()
      table.dateTime('until', { precision: 3 }).notNullable()
      table.index(['person'])
    })
    // Links: to join the studio, or for somebody of it to come in once and choose a new passphrase.
    await knex.schema.createTable('invitations', table => {
      table.string('key_hash', 64).primary()
      table.string('id', 36).notNullable().unique()
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('person', 36).nullable().references('id').inTable('people').onDelete('CASCADE')
      table.string('name', 120).notNullable()
      table.string('role', 20).notNullable()
      table.string('also', 200).notNullable()
      table.string('made_by', 36).notNullable()
      table.dateTime('until', { precision: 3 }).notNullable()
      table.index(['owner', 'until'])
    })
    await knex.schema.createTable('audit', table => {
      table.bigIncrements('id')
      table.string('owner', 36).notNullable().references('id').inTable('owners')
      table.string('person', 36).notNullable()
      table.string('what', 60).notNullable()
      table.string('about', 500).notNullable()
      table.dateTime('at', { precision: 3 }).notNullable()
      table.index(['owner', 'at'])
    })
  },
  async down(knex) {
    for (const table of ['audit', 'invitations', 'sessions', 'people']) await knex.schema.dropTable(table)
  },
}
