import type { Knex } from 'knex'
import type { Census } from '../../core/census/census'
import type { FinishedCensus } from '../../core/format/finished/census'
import { familyOfFont, styleOfFont } from '../../core/format/finished/font-name'
import { contentHash } from '../library/files'

/*
 * What the newest count of a document came to: what its card on the shelf says, and what documents are looked for by
 * (their faces, sizes and colours, so that “which documents still use this face” is one query).
 */

/** What a picture goes by: the first letters of the SHA-256 of what it is. */
export const pictureName = (svg: string): string => contentHash(Buffer.from(svg)).slice(0, 16)

/** What is counted of a document: of one that is set here its census, of a finished PDF its fonts. */
export type AnyCensus = Census | FinishedCensus

export const isFinishedCensus = (census: AnyCensus): census is FinishedCensus => 'fonts' in census

/** What cards and questions over all documents go by. */
interface Count {
  readonly characters: number
  /** Null where nothing is settled or not, since there are no styles. */
  readonly settled: number | null
  readonly faces: readonly Pick<Census['faces'][number], 'family' | 'style' | 'slot' | 'status' | 'characters'>[]
  readonly sizes: readonly { readonly size: number; readonly characters: number }[]
  readonly colors: readonly { readonly color: string; readonly count: number }[]
}

function countOf(census: AnyCensus): Count {
  if (!isFinishedCensus(census))
    return {
      ...census,
      sizes: census.voices,
      colors: census.colors ?? [],
    }
  return {
    characters: census.characters,
    settled: null,
    // A font that is not in the file is whatever a reader has.
    faces: census.fonts.map(({ name, embedded, characters }) => ({
      family: familyOfFont(name),
      style: styleOfFont(name),
      slot: 'western',
      status: embedded ? 'present' : 'absent',
      characters,
    })),
    sizes: census.fonts.flatMap(font => font.sizes),
    colors: census.fonts.flatMap(font => font.colors.map(({ color, characters }) => ({ color, count: characters }))),
  }
}

/**
 * Keeps what was counted in a version of a document. It holds on its card until a newer one is counted, which the card
 * says.
 */
export async function keepCount(
  knex: Knex,
  document: string,
  version: number,
  { census, firstPage }: { readonly census: AnyCensus; readonly firstPage: string | null },
): Promise<void> {
  const count = countOf(census)
  await knex('documents')
    .where({ id: document })
    .update({
      title: census.document.title.slice(0, 500),
      pages: census.document.pages,
      characters: count.characters,
      settled: count.settled,
      counted: version,
      picture: firstPage === null ? null : pictureName(firstPage),
    })
  await keepFaces(knex, document, count)
  await keepLooks(knex, document, count)
}

async function keepFaces(knex: Knex, document: string, { faces }: Count): Promise<void> {
  await knex('document_faces').where({ document }).delete()
  // Names that differ by spaces at their end alone are one name to the database.
  const rows = new Map<
    string,
    { document: string; family: string; style: string; slot: string; status: string; characters: number }
  >()
  for (const face of faces) {
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
async function keepLooks(knex: Knex, document: string, count: Count): Promise<void> {
  await knex('document_looks').where({ document }).delete()
  const sizes = new Map<string, number>()
  for (const { size, characters } of count.sizes) sizes.set(String(size), (sizes.get(String(size)) ?? 0) + characters)
  const colors = new Map<string, number>()
  for (const { color, count: uses } of count.colors) colors.set(color, (colors.get(color) ?? 0) + uses)
  const rows = [
    ...[...sizes].map(([value, uses]) => ({ document, kind: 'size', value, count: uses })),
    ...[...colors].map(([value, uses]) => ({ document, kind: 'color', value, count: uses })),
  ]
  if (rows.length > 0) await knex('document_looks').insert(rows)
}
