import type { Migration } from './migration'

/** Finished PDFs lie on the shelf, too: what text begins with that is added to one is said for each. */
export const finished: Migration = {
  name: '010-finished',
  async up(knex) {
    await knex.schema.alterTable('documents', table => {
      table.text('finished_starts')
    })
  },
  async down(knex) {
    await knex.schema.alterTable('documents', table => {
      table.dropColumn('finished_starts')
    })
  },
}
