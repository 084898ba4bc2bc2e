import type { Migration } from './migration'

/** Folders that not everybody of the studio sees: who does. A folder of which nobody is a member is everybody’s. */
export const folderMembers: Migration = {
  name: '015-folder-members',
  async up(knex) {
    await knex.schema.createTable('folder_members', table => {
      table.string('folder', 36).notNullable().references('id').inTable('folders').onDelete('CASCADE')
      table.string('person', 36).notNullable().references('id').inTable('people').onDelete('CASCADE')
      table.primary(['folder', 'person'])
    })
  },
  async down(knex) {
    await knex.schema.dropTable('folder_members')
  },
}
