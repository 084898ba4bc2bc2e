import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Census } from '../../../core/census/census'
import { keepPieces } from '../version-pieces'
import type { Migration } from './migration'

/** The owner of everything that was on the desk before owners were told apart. */
const desk = 'desk'

/** Tables of which each row is somebody's. */
const ownedTables = ['documents', 'set_pieces', 'batches', 'kept_wishes']

/** Adds the owner's column: what is there is the desk's, what comes must say whose it is. */
async function addOwner(knex: Knex, name: string): Promise<void> {
  await knex.schema.alterTable(name, table => {
    table.string('owner', 36).notNullable().defaultTo(desk).references('id').inTable('owners')
  })
  await knex.raw('alter table ?? alter column owner drop default', [name])
}

/** Folders were known by their names; they get ids, so that a name can change. */
async function foldersById(knex: Knex): Promise<void> {
  await knex.schema.alterTable('documents', table => {
    table.dropForeign('folder')
  })
  const named = await knex('folders').select<{ name: string; created: Date }[]>('name', 'created')
  await knex.schema.dropTable('folders')
  await knex.schema.createTable('folders', table => {
    table.string('id', 36).primary()
    table.string('owner', 36).notNullable().references('id').inTable('owners')
    table.string('name', 120).notNullable()
    table.dateTime('created', { precision: 3 }).notNullable()
    table.unique(['owner', 'name'])
  })
  for (const { name, created } of named) {
    const id = randomUUID()
    await knex('folders').insert({ id, owner: desk, name, created })
    await knex('documents').where({ folder: name }).update({ folder: id })
    await knex('starts').where({ folder: name }).update({ folder: id })
    await knex('stand_ins').where({ level: 'folder', owner: name }).update({ owner: id })
  }
  await knex.schema.alterTable('documents', table => {
    table.string('folder', 36).nullable().references('id').inTable('folders').alter()
  })
  // What was kept of folders that are gone holds for nothing.
  const kept = knex('folders').select('id')
  await knex('starts').whereNot({ folder: '' }).whereNotIn('folder', kept).delete()
  await knex('stand_ins').where({ level: 'folder' }).whereNotIn('owner', kept).delete()
}

/** The same level and target may be chosen for by several owners. */
async function keysWithOwner(knex: Knex): Promise<void> {
  await knex.raw('alter table starts drop primary key')
  await knex.schema.alterTable('starts', table => {
    table.string('owner', 36).notNullable().defaultTo(desk).references('id').inTable('owners').first()
    table.primary(['owner', 'folder'])
  })
  await knex.raw('alter table starts alter column owner drop default')
  await knex.raw('alter table stand_ins drop primary key')
  await knex.schema.alterTable('stand_ins', table => {
    table.renameColumn('owner', 'target')
  })
  await knex.schema.alterTable('stand_ins', table => {
    table.string('owner', 36).notNullable().defaultTo(desk).references('id').inTable('owners').first()
    table.primary(['owner', 'level', 'target', 'family', 'script'])
  })
  await knex.raw('alter table stand_ins alter column owner drop default')
}

/** Faces that people added leave the table of those that ship. */
async function addedFacesApart(knex: Knex): Promise<void> {
  await knex.schema.createTable('added_faces', table => {
    table.string('owner', 36).notNullable().references('id').inTable('owners')
    table.string('hash', 64).notNullable().references('hash').inTable('blobs')
    table.string('family', 200).notNullable()
    table.string('style', 200).notNullable()
    table.specificType('record', 'longtext').notNullable()
    table.string('origin', 300).notNullable()
    table.dateTime('added', { precision: 3 }).notNullable()
    table.primary(['owner', 'hash'])
  })
  for (const { hash } of await knex('faces').where({ source: 'added' }).select<{ hash: string }[]>('hash')) {
    const face = await knex('faces')
      .where({ hash })
      .first<Record<string, unknown>>('hash', 'family', 'style', 'record', 'origin', 'added')
    await knex('added_faces').insert({ ...face, owner: desk, added: face.added ?? new Date() })
    await knex('faces').where({ hash }).delete()
  }
  await knex.schema.alterTable('faces', table => {
    table.dropColumn('origin')
    table.dropColumn('added')
  })
}

/** Pieces of versions get a table of their own, so that content which nothing names can be found. */
async function piecesApart(knex: Knex): Promise<void> {
  await knex.schema.createTable('version_pieces', table => {
    table.string('document', 36).notNullable().references('id').inTable('documents')
    table.integer('version').notNullable()
    table.integer('position').notNullable()
    table.string('hash', 64).notNullable().index().references('hash').inTable('blobs')
    table.primary(['document', 'version', 'position'])
  })
  for (const { document, number } of await knex('versions')
    .whereRaw('state = number')
    .select<{ document: string; number: number }[]>('document', 'number')) {
    const row = await knex('versions').where({ document, number }).first<{ pieces: string }>('pieces')
    await keepPieces(knex, document, number, JSON.parse(row.pieces) as string[])
  }
  await knex.schema.alterTable('versions', table => {
    table.dropColumn('pieces')
    table.string('author', 36).notNullable().defaultTo('desk')
  })
  await knex.raw('alter table versions alter column author drop default')
}

/** What a card of the shelf says stands with the document, so that a page of cards reads no census. */
async function cardsByDocument(knex: Knex): Promise<void> {
  await knex.schema.alterTable('documents', table => {
    table.string('title', 500).notNullable().defaultTo('')
    table.dateTime('changed', { precision: 3 }).nullable()
    table.integer('pages').nullable()
    table.bigInteger('characters').nullable()
    table.double('settled').nullable()
    table.boolean('pictured').notNullable().defaultTo(false)
    table.index(['owner', 'changed'])
  })
  for (const { id, version } of await knex('documents').select<{ id: string; version: number }[]>('id', 'version')) {
    const row = await knex('versions')
      .where({ document: id, number: version })
      .first<{ created: Date; census: string | null; pictured: number }>(
        'created',
        'census',
        knex.raw('first_page is not null as pictured'),
      )
    const census = row.census === null ? null : (JSON.parse(row.census) as Census)
    await knex('documents')
      .where({ id })
      .update({
        changed: row.created,
        title: census?.document.title.slice(0, 500) ?? '',
        pages: census?.document.pages ?? null,
        characters: census?.characters ?? null,
        settled: census?.settled ?? null,
        pictured: row.pictured,
      })
  }
  await knex.raw('alter table documents modify changed datetime(3) not null')
}

export const owners: Migration = {
  name: '005-owners',
  async up(knex) {
    // Whose everything is. `library` counts changes of the faces that were added.
    await knex.schema.createTable('owners', table => {
      table.string('id', 36).primary()
      table.string('name', 200).notNullable()
      table.integer('library').notNullable().defaultTo(0)
      table.dateTime('created', { precision: 3 }).notNullable()
    })
    await knex('owners').insert({ id: desk, name: 'This desk', created: new Date() })
    for (const table of ownedTables) await addOwner(knex, table)
    await foldersById(knex)
    await keysWithOwner(knex)
    await addedFacesApart(knex)
    await piecesApart(knex)
    await cardsByDocument(knex)
    await knex.schema.alterTable('batches', table => {
      table.string('author', 36).notNullable().defaultTo('desk')
      table.index(['owner', 'created'])
    })
    await knex.raw('alter table batches alter column author drop default')
  },
  async down(knex) {
    await knex.schema.alterTable('batches', table => {
      table.dropColumn('author')
    })
    await piecesTogether(knex)
    await knex.schema.alterTable('faces', table => {
      table.string('origin', 300).notNullable().defaultTo('')
      table.dateTime('added', { precision: 3 }).nullable()
    })
    for (const face of await knex('added_faces').select<{ hash: string; record: string }[]>('*')) {
      const { weight, slant } = JSON.parse(face.record) as { weight: number; slant: string }
      const { owner: _, ...row } = face as typeof face & { owner: string }
      await knex('faces')
        .insert({ ...row, weight, slant, source: 'added' })
        .onConflict('hash')
        .ignore()
    }
    await knex.schema.dropTable('added_faces')
    await foldersByName(knex)
    for (const name of ownedTables)
      await knex.schema.alterTable(name, table => {
        table.dropForeign('owner')
        table.dropColumn('owner')
      })
    await knex.schema.alterTable('documents', table => {
      for (const column of ['title', 'changed', 'pages', 'characters', 'settled', 'pictured']) table.dropColumn(column)
    })
    await knex.schema.dropTable('owners')
  },
}

/** The way back of the pieces: every version names them itself. */
async function piecesTogether(knex: Knex): Promise<void> {
  await knex.schema.alterTable('versions', table => {
    table.specificType('pieces', 'longtext').nullable()
    table.dropColumn('author')
  })
  for (const { document, number, state } of await knex('versions').select<
    { document: string; number: number; state: number }[]
  >('document', 'number', 'state')) {
    const rows = await knex('version_pieces')
      .where({ document, version: state })
      .orderBy('position')
      .select<{ hash: string }[]>('hash')
    await knex('versions')
      .where({ document, number })
      .update({ pieces: JSON.stringify(rows.map(row => row.hash)) })
  }
  await knex.raw('alter table versions modify pieces longtext not null')
  await knex.schema.dropTable('version_pieces')
}

/** The way back of the folders: they go by their names. */
async function foldersByName(knex: Knex): Promise<void> {
  await knex.raw('alter table stand_ins drop foreign key stand_ins_owner_foreign, drop primary key, drop column owner')
  await knex.schema.alterTable('stand_ins', table => {
    table.renameColumn('target', 'owner')
  })
  await knex.raw('alter table starts drop foreign key starts_owner_foreign, drop primary key, drop column owner')
  await knex.schema.alterTable('documents', table => {
    table.dropForeign('folder')
    table.string('folder', 120).nullable().alter()
  })
  const named = await knex('folders').select<{ id: string; name: string; created: Date }[]>('id', 'name', 'created')
  await knex.schema.dropTable('folders')
  await knex.schema.createTable('folders', table => {
    table.string('name', 120).primary()
    table.dateTime('created', { precision: 3 }).notNullable()
  })
  for (const { id, name, created } of named) {
    await knex('folders').insert({ name, created })
    await knex('documents').where({ folder: id }).update({ folder: name })
    await knex('starts').where({ folder: id }).update({ folder: name })
    await knex('stand_ins').where({ level: 'folder', owner: id }).update({ owner: name })
  }
  await knex.schema.alterTable('documents', table => {
    table.foreign('folder').references('name').inTable('folders')
  })
  await knex.schema.alterTable('starts', table => {
    table.string('folder', 120).notNullable().alter()
    table.primary(['folder'])
  })
  await knex.schema.alterTable('stand_ins', table => {
    table.primary(['level', 'owner', 'family', 'script'])
  })
}
