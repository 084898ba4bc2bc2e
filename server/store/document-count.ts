import type { Knex } from 'knex'
import type { Census } from '../../core/census/census'
import { contentHash } from '../library/files'

/*
 * What the newest count of a document came to: what its card on the shelf says, and what documents are looked for by
 * (their faces, sizes and colours, so that “which documents still use this face” is one query).
 */

/** What a picture goes by: the first letters of the SHA-256 of what it is. */
export const pictureName = (svg: string): string => contentHash(Buffer.from(svg)).slice(0, 16)

/**
 * Keeps what was counted in a version of a document. It holds on its card until a newer one is counted, which the card
 * says.
 */
export async function keepCount(
  knex: Knex,
  document: string,
  version: number,
  { census, firstPage }: { readonly census: Census; readonly firstPage: string | null },
): Promise<void> {
  await knex('documents')
    .where({ id: document })
    .update({
      title: census.document.title.slice(0, 500),
      pages: census.document.pages,
      characters: census.characters,
      settled: census.settled,
      counted: version,
      picture: firstPage === null ? null : pictureName(firstPage),
    })
  await keepFaces(knex, document, census)
  await keepLooks(knex, document, census)
}

async function keepFaces(knex: Knex, document: string, census: Census): Promise<void> {
  await knex('document_faces').where({ document }).delete()
  // Names that differ by spaces at their end alone are one name to the database.
  const rows = new Map<
    string,
    { document: string; family: string; style: string; slot: string; status: string; characters: number }
  >()
  for (const face of census.faces) {
    const [family, style] = [face.family.slice(0, 200).trimEnd(), face.style.slice(0, 200).trimEnd()]
    const key = JSON.stringify([family, style, face.slot])
    rows.set(key, {
      document,
      family,
      style,
      slot: face.slot,
      status: rows.get(key)?.status ?? face.status,
      characters: (rows.get(key)?.characters ?? 0) + face.characters,
    })
  }
  if (rows.size > 0) await knex('document_faces').insert([...rows.values()])
}

/** Sizes of text by their characters, and colours by how often they are named. */
async function keepLooks(knex: Knex, document: string, census: Census): Promise<void> {
  await knex('document_looks').where({ document }).delete()
  const sizes = new Map<string, number>()
  for (const voice of census.voices)
    sizes.set(String(voice.size), (sizes.get(String(voice.size)) ?? 0) + voice.characters)
  const rows = [
    ...[...sizes].map(([value, count]) => ({ document, kind: 'size', value, count })),
    ...(census.colors ?? []).map(({ color, count }) => ({ document, kind: 'color', value: color, count })),
  ]
  if (rows.length > 0) await knex('document_looks').insert(rows)
}
