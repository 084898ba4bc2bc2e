import { kept } from './007-kept'
import { houses } from './008-houses'
import { proofs } from './009-proofs'
import { finished } from './010-finished'
import { people } from './011-people'
import { signOffs } from './012-sign-offs'
import { remarks } from './013-remarks'
import { presence } from './014-presence'
import { folderMembers } from './015-folder-members'
import { folderRoles } from './019-folder-roles'
import { programKeys } from './016-program-keys'
import { identities } from './017-identities'
import { ways } from './018-ways'
import type { Knex } from 'knex'
import { upgradePlan, upgradeRequest } from '../old-plans'
import { owners } from './005-owners'
import { trash } from './006-trash'
import type { Migration } from './migration'

/** The schema, step by step. A step that has landed is never changed: add another. */
export const migrations: Migration[] = [
  {
    name: '001-documents',
    async up(knex) {
      // Content by hash, in chunks below the smallest packet limit a server is likely to have (1 MB).
      await knex.schema.createTable('blobs', table => {
        table.string('hash', 64).primary()
        table.bigInteger('size').notNullable()
        table.integer('chunks').notNullable()
      })
      await knex.schema.createTable('blob_chunks', table => {
        table.string('hash', 64).notNullable().references('hash').inTable('blobs')
        table.integer('position').notNullable()
        table.specificType('bytes', 'mediumblob').notNullable()
        table.primary(['hash', 'position'])
      })
      await knex.schema.createTable('faces', table => {
        table.string('hash', 64).primary().references('hash').inTable('blobs')
        table.string('family', 200).notNullable().index()
        table.string('style', 200).notNullable()
        table.integer('weight').notNullable()
        table.string('slant', 10).notNullable()
        table.string('source', 10).notNullable()
        table.specificType('record', 'longtext').notNullable()
      })
      await knex.schema.createTable('documents', table => {
        table.string('id', 36).primary()
        table.string('file_name', 255).notNullable()
        table.string('kind', 20).notNullable()
        table.boolean('signed').notNullable()
        table.integer('version').notNullable()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
      await knex.schema.createTable('versions', table => {
        table.string('document', 36).notNullable().references('id').inTable('documents')
        table.integer('number').notNullable()
        // The version whose content this one has: itself, or for undo and redo an earlier one.
        table.integer('state').notNullable()
        table.string('made_by', 10).notNullable()
        table.string('title', 500).notNullable()
        table.specificType('pieces', 'longtext').notNullable()
        table.specificType('ids', 'longtext').notNullable()
        table.specificType('operations', 'longtext').nullable()
        table.specificType('plan', 'longtext').nullable()
        table.specificType('census', 'longtext').nullable()
        table.specificType('first_page', 'longtext').nullable()
        table.dateTime('created', { precision: 3 }).notNullable()
        table.primary(['document', 'number'])
      })
      // Faces per document as it is now: “which documents still use this face” is one query.
      await knex.schema.createTable('document_faces', table => {
        table.string('document', 36).notNullable().references('id').inTable('documents')
        table.string('family', 200).notNullable().index()
        table.string('style', 200).notNullable()
        table.string('slot', 10).notNullable()
        table.string('status', 10).notNullable()
        table.integer('characters').notNullable()
        table.primary(['document', 'family', 'style', 'slot'])
      })
      await knex.schema.createTable('jobs', table => {
        table.string('id', 36).primary()
        table.string('kind', 20).notNullable()
        table.string('document', 36).notNullable().references('id').inTable('documents')
        table.integer('version').notNullable()
        table.string('state', 10).notNullable()
        table.float('progress').notNullable().defaultTo(0)
        table.string('message', 1000).notNullable().defaultTo('')
        table.dateTime('created', { precision: 3 }).notNullable()
        table.dateTime('claimed', { precision: 3 }).nullable()
        table.dateTime('changed', { precision: 3 }).notNullable().index()
        table.index(['state', 'created'])
      })
    },
    async down(knex) {
      for (const table of ['jobs', 'document_faces', 'versions', 'documents', 'faces', 'blob_chunks', 'blobs'])
        await knex.schema.dropTableIfExists(table)
    },
  },
  {
    name: '002-folders',
    async up(knex) {
      await knex.schema.createTable('folders', table => {
        table.string('name', 120).primary()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
      await knex.schema.alterTable('documents', table => {
        table.string('folder', 120).nullable().references('name').inTable('folders')
      })
      // What new documents begin with: for the desk under '', for a folder under its name.
      await knex.schema.createTable('starts', table => {
        table.string('folder', 120).primary()
        table.specificType('starts', 'longtext').notNullable()
        table.dateTime('changed', { precision: 3 }).notNullable()
      })
      // Set pieces: frames kept for re-use, under a heading of their own.
      await knex.schema.createTable('set_pieces', table => {
        table.string('id', 36).primary()
        table.string('heading', 120).notNullable()
        table.string('name', 200).notNullable()
        table.specificType('piece', 'longtext').notNullable()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
    },
    async down(knex) {
      await knex.schema.dropTableIfExists('set_pieces')
      await knex.schema.dropTableIfExists('starts')
      await knex.schema.alterTable('documents', table => {
        table.dropForeign('folder')
        table.dropColumn('folder')
      })
      await knex.schema.dropTableIfExists('folders')
    },
  },
  {
    name: '003-absent-and-batches',
    async up(knex) {
      // Where a face that was added came from, and when.
      await knex.schema.alterTable('faces', table => {
        table.string('origin', 300).notNullable().defaultTo('')
        table.dateTime('added', { precision: 3 }).nullable()
      })
      // Stand-ins: for the desk, a folder of the shelf or a document; for one absent family or '' for all.
      await knex.schema.createTable('stand_ins', table => {
        table.string('level', 10).notNullable()
        table.string('owner', 120).notNullable()
        table.string('family', 200).notNullable()
        table.string('script', 20).notNullable()
        table.string('face_family', 200).notNullable()
        table.primary(['level', 'owner', 'family', 'script'])
      })
      // Font files that came with a document in its zip: offered, not yet in the library.
      await knex.schema.createTable('carried_fonts', table => {
        table.string('document', 36).notNullable().references('id').inTable('documents')
        table.string('hash', 64).notNullable().references('hash').inTable('blobs')
        table.string('path', 500).notNullable()
        table.primary(['document', 'hash'])
      })
      // Sizes and colours per document as it is now.
      await knex.schema.createTable('document_looks', table => {
        table.string('document', 36).notNullable().references('id').inTable('documents')
        table.string('kind', 10).notNullable()
        table.string('value', 20).notNullable()
        table.integer('count').notNullable()
        table.primary(['document', 'kind', 'value'])
        table.index(['kind', 'value'])
      })
      await knex.schema.createTable('batches', table => {
        table.string('id', 36).primary()
        table.string('kind', 10).notNullable()
        table.string('title', 500).notNullable()
        table.specificType('request', 'longtext').notNullable()
        table.string('state', 12).notNullable()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
      await knex.schema.createTable('batch_documents', table => {
        table.string('batch', 36).notNullable().references('id').inTable('batches')
        // Kept when the document is removed: it is part of the record.
        table.string('document', 36).notNullable()
        table.string('file_name', 255).notNullable()
        table.integer('base').notNullable()
        table.integer('made').nullable()
        table.string('state', 12).notNullable()
        table.string('message', 1000).notNullable().defaultTo('')
        table.specificType('effects', 'longtext').nullable()
        table.primary(['batch', 'document'])
      })
      await knex.schema.alterTable('jobs', table => {
        table.string('batch', 36).nullable().index()
        table.string('server', 36).nullable()
      })
      // Servers that are at work: what one that is gone held is given to another.
      await knex.schema.createTable('servers', table => {
        table.string('id', 36).primary()
        table.dateTime('seen', { precision: 3 }).notNullable()
      })
      // Wishes that are kept under a name, to be run again.
      await knex.schema.createTable('kept_wishes', table => {
        table.string('id', 36).primary()
        table.string('kind', 10).notNullable()
        table.string('name', 200).notNullable()
        table.specificType('request', 'longtext').notNullable()
        table.dateTime('created', { precision: 3 }).notNullable()
      })
    },
    async down(knex) {
      for (const table of [
        'kept_wishes',
        'servers',
        'batch_documents',
        'batches',
        'document_looks',
        'carried_fonts',
        'stand_ins',
      ])
        await knex.schema.dropTableIfExists(table)
      await knex.schema.alterTable('jobs', table => {
        table.dropColumn('batch')
        table.dropColumn('server')
      })
      await knex.schema.alterTable('faces', table => {
        table.dropColumn('origin')
        table.dropColumn('added')
      })
    },
  },
  {
    name: '004-one-door',
    async up(knex) {
      // Wishes of all kinds are asked in one way: what is kept of them is brought into it.
      await eachRow(knex, 'batches', 'id', ['kind', 'request'], row => ({
        request: JSON.stringify(upgradeRequest(row.kind!, JSON.parse(row.request!))),
      }))
      await eachRow(knex, 'kept_wishes', 'id', ['kind', 'request'], row => ({
        request: JSON.stringify(upgradeRequest(row.kind!, JSON.parse(row.request!))),
      }))
      for (const { document, number } of await knex('versions')
        .whereNotNull('plan')
        .select<{ document: string; number: number }[]>('document', 'number')) {
        const row = await knex('versions').where({ document, number }).first<{ plan: string }>('plan')
        await knex('versions')
          .where({ document, number })
          .update({ plan: JSON.stringify(upgradePlan(JSON.parse(row.plan))), made_by: 'change' })
      }
      await knex.schema.alterTable('batches', table => {
        table.dropColumn('kind')
      })
      await knex.schema.alterTable('kept_wishes', table => {
        table.dropColumn('kind')
      })
      // A version has its file: nothing ever ran its operations again.
      await knex.schema.alterTable('versions', table => {
        table.dropColumn('operations')
      })
    },
    async down(knex) {
      await knex.schema.alterTable('versions', table => {
        table.specificType('operations', 'longtext').nullable()
      })
      for (const name of ['batches', 'kept_wishes'])
        await knex.schema.alterTable(name, table => {
          table.string('kind', 10).notNullable().defaultTo('')
        })
    },
  },
  owners,
  trash,
  kept,
  houses,
  proofs,
  finished,
  people,
  signOffs,
  remarks,
  presence,
  folderMembers,
  programKeys,
  identities,
  ways,
  folderRoles,
]

/** Goes through a table row by row, so that no more than one is held. */
async function eachRow(
  knex: Knex,
  table: string,
  id: string,
  columns: readonly string[],
  change: (row: Record<string, string | null>) => Record<string, string>,
): Promise<void> {
  for (const row of await knex(table).select<Record<string, string>[]>(id)) {
    const found = await knex(table)
      .where({ [id]: row[id] })
      .first<Record<string, string | null>>([...columns])
    await knex(table)
      .where({ [id]: row[id] })
      .update(change(found))
  }
}
