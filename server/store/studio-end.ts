import type { Knex } from 'knex'
import { deskOwner } from './acting'
import { rowsOf, studioParts } from './studio-parts'
import { dropUnusedContent, namingTables } from './unused-content'

/** What went with a studio, and what of its content was searched for and found. */
export interface EndedStudio {
  readonly documents: number
  readonly people: number
  readonly pieces: number
  /** Pieces that others name, too: they stay for those. */
  readonly shared: number
  /** Pieces that are there still though nothing names them; none, but while somebody is about to name them again. */
  readonly left: number
}

/** As many hashes are asked for at a time. */
const atOnce = 500

/** Which of some pieces are in the store, and which of those nothing names. */
async function found(knex: Knex, hashes: readonly string[]): Promise<{ there: number; unnamed: number }> {
  let [there, unnamed] = [0, 0]
  for (let start = 0; start < hashes.length; start += atOnce) {
    const some = knex('blobs').whereIn('hash', hashes.slice(start, start + atOnce))
    const alone = some.clone()
    for (const table of namingTables) void alone.whereNotIn('hash', knex(table).select('hash'))
    there += (await some.select('hash')).length
    unnamed += (await alone.select('hash')).length
  }
  return { there, unnamed }
}

/**
 * Lets a studio go for good with all that is its own: documents with every version, faces, houses, people, records. Then
 * content that nothing names any more goes, and what the studio was made of is searched for by its hashes.
 * @throws where there is no such studio, or it is the desk's own, which every desk has
 */
export async function endStudio(knex: Knex, owner: string): Promise<EndedStudio> {
  if (owner === deskOwner)
    throw new Error('The first studio of a desk stays: throw its documents away on the shelf, and empty the trash.')
  const pieces = new Set<string>()
  const gone = await knex.transaction(async transaction => {
    if (!(await transaction('owners').where({ id: owner }).forUpdate().first('id')))
      throw new Error('There is no such studio.')
    for (const part of studioParts.filter(each => (namingTables as readonly string[]).includes(each.table)))
      for (const { hash } of await rowsOf(transaction, part, owner).distinct<{ hash: string }[]>('hash'))
        pieces.add(hash)
    const counts = new Map<string, number>()
    for (const part of [...studioParts].reverse())
      counts.set(part.table, await rowsOf(transaction, part, owner).delete())
    await transaction('owners').where({ id: owner }).delete()
    return { documents: counts.get('documents')!, people: counts.get('people')! }
  })
  for (let more = true; more;) ({ more } = await dropUnusedContent(knex))
  const { there, unnamed } = await found(knex, [...pieces])
  return { ...gone, pieces: pieces.size, shared: there - unnamed, left: unnamed }
}
