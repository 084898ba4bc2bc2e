import type { Migration } from './migration'

/** What members may do in their folder: those who were there before do what they may at the desk. */
export const folderRoles: Migration = {
  name: '019-folder-roles',
  async up(knex) {
    await knex.schema.alterTable('folder_members', table => {
      table.string('role', 10).notNullable().defaultTo('designer')
    })
  },
  async down(knex) {
    await knex.schema.alterTable('folder_members', table => {
      table.dropColumn('role')
    })
  },
}
