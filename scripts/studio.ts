/*
 * npm run studio -- add NAME [OWNER]: a studio more on this installation, with an owner of its own, who comes in once by the
 * address that is printed. It sees nothing of others, and they nothing of it.
 * npm run studio -- list: the studios that are here.
 * npm run studio -- out STUDIO FILE: all that is a studio's, as one package.
 * npm run studio -- in FILE: a studio comes by its package, beside those that are here.
 * npm run studio -- end STUDIO --for-good: lets a studio go with all that is its own.
 * STUDIO is a name, or an id where two have one name. The desk must be running, for its database.
 */
import { randomUUID } from 'node:crypto'
import { createReadStream, createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { projectFolder } from '../server/library/files'
import { actingAs, type Actor } from '../server/store/acting'
import { connect, databaseAddress } from '../server/store/database'
import { addStudio, isShared, makeLink, ownersOf, ownPassphrase } from '../server/store/people'
import { takeStudioIn } from '../server/store/studio-arrival'
import { endStudio } from '../server/store/studio-end'
import { writeStudio } from '../server/store/studio-package'
import { accountOf } from './database.mjs'

const { values, positionals } = parseArgs({
  options: { 'for-good': { type: 'boolean', default: false } },
  allowPositionals: true,
})
const [verb, first = '', second = ''] = positionals
const data = join(projectFolder(), '.morphene', 'database')
const knex = connect(databaseAddress({ ...accountOf(data, 'schema'), ...process.env }))

/** What cannot be done, as a sentence. */
class Unable extends Error {}
function unable(sentence: string): never {
  throw new Unable(sentence)
}

/** The id of a studio that is named. */
async function studioOf(named: string): Promise<string> {
  const found = await knex('owners')
    .where({ id: named })
    .orWhere({ name: named })
    .select<{ id: string; name: string }[]>('id', 'name')
  if (found.length === 0) unable(`There is no studio “${named}”: npm run studio -- list tells which there are.`)
  if (found.length > 1)
    unable(`Several studios are called “${named}”: say which by its id, ${found.map(each => each.id).join(' or ')}.`)
  return found[0]!.id
}

/** From the second studio on everybody signs in: the owner of a desk of one would be locked out. */
async function mayHaveAnother(): Promise<void> {
  if (!(await isShared(knex)) && (await ownPassphrase(actingAs(knex))) === null)
    unable('Choose your own passphrase first, on the page People: from the second studio on everybody signs in.')
}

/** Prints by what address somebody comes in once. */
async function tellLink(actor: Actor, whose: string): Promise<void> {
  const key = await makeLink(actingAs(knex, actor), actor.person)
  console.log(`${whose} comes in once by http://127.0.0.1:${process.env.MORPHENE_PORT ?? 3400}/sign-in#key=${key}`)
}

async function add(name: string, owner: string): Promise<void> {
  if (name === '') unable('npm run studio -- add NAME [OWNER]: a studio needs a name.')
  await mayHaveAnother()
  await tellLink(await addStudio(knex, { id: randomUUID(), name, owner }), `${owner} of ${name}`)
}

async function list(): Promise<void> {
  for (const { id, name } of await knex('owners')
    .orderBy('name')
    .select<{ id: string; name: string }[]>('id', 'name')) {
    const documents = await knex('documents').where({ owner: id }).select('id')
    console.log(`${name}: ${documents.length} documents (${id})`)
  }
}

async function out(studio: string, file: string): Promise<void> {
  if (file === '') unable('npm run studio -- out STUDIO FILE: a package needs a file.')
  if (existsSync(file)) unable(`${file} is there already. It was not touched: name another file.`)
  const part = `${file}.part`
  try {
    await writeStudio(knex, await studioOf(studio), createWriteStream(part, { mode: 0o600 }))
    renameSync(part, file)
  } finally {
    rmSync(part, { force: true })
  }
  console.log(
    `${file}: ${(statSync(file).size / 1048576).toFixed(1)} MB. It holds documents and font files, and nobody’s passphrase.`,
  )
}

async function comeIn(file: string): Promise<void> {
  if (!existsSync(file)) unable(`There is no file ${file}.`)
  await mayHaveAnother()
  const came = await takeStudioIn(knex, createReadStream(file))
  console.log(
    `${came.name} is here: ${came.documents} documents with ${came.versions} versions, ${came.pieces} pieces held against their hashes.`,
  )
  for (const { actor, name } of await ownersOf(knex, came.owner)) await tellLink(actor, name)
}

async function end(studio: string): Promise<void> {
  const owner = await studioOf(studio)
  if (!values['for-good']) unable('This cannot be undone: say --for-good, too. A package of the studio is made by out.')
  const gone = await endStudio(knex, owner)
  console.log(
    `${studio} is gone for good: ${gone.documents} documents, ${gone.people} people. Of ${gone.pieces} pieces of content that it ` +
      `named, ${gone.shared} belong to others, too; of the rest ${gone.left} were found when they were searched for.`,
  )
}

const verbs: Readonly<Record<string, () => Promise<void>>> = {
  add: () => add(first, second || 'The owner'),
  list,
  out: () => out(first, second),
  in: () => comeIn(first),
  end: () => end(first),
}
try {
  await (verbs[verb ?? ''] ?? (() => unable('say npm run studio -- add, list, out, in or end.')))()
} catch (error) {
  console.error(`morphene: ${(error as Error).message}`)
  process.exitCode = 1
} finally {
  await knex.destroy()
}
