import { getQuery, getRouterParam, type H3Event } from 'h3'
import { z } from 'zod'
import { usualChecklist, type Checklist } from '../../core/proof/checklist'
import { deskChecklist } from '../../shared/shelf'
import { keptKindSchema, type KeptKind } from '../../shared/kept'
import type { Acting } from '../store/acting'
import { findDocument } from '../store/documents'
import { ConflictError, versionContent, versionsSince } from '../store/versions'
import type { Batch, DocumentRow, HouseInfo } from '../../shared/api'
import type { MadeFor, NamedLicence } from '../../core/font/held-licence'
import { findHouse } from '../store/houses'
import { listKept } from '../store/kept'
import { batchWithinReach, findBatch } from '../store/batches'
import { refusal } from './answer'
import { settingFor } from './setting'
import type { Content } from './tasks/task'

const idSchema = z.uuid()

/** The document a route is about. @throws 404, 403 where it lies in a folder that whoever asks only reads */
export async function documentOf(event: H3Event, acting: Acting): Promise<DocumentRow> {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  const document = id.success ? await findDocument(acting, id.data) : undefined
  if (document) return document
  if (id.success && (await findDocument({ ...acting, right: 'look' }, id.data)))
    throw refusal(403, 'In this folder you look at documents and write remarks, no more. Nothing was changed.')
  throw refusal(404, 'This document is not on the shelf. It may have been removed.')
}

/** The remark a route is about: whether it is there, whoever acts on it finds. @throws 404 */
export function remarkIdOf(event: H3Event): string {
  const id = idSchema.safeParse(getRouterParam(event, 'remark'))
  if (!id.success) throw refusal(404, 'There is no such remark.')
  return id.data
}

/** The batch a route is about. @throws 404, 403 where it changes what whoever asks may not */
export async function batchOf(event: H3Event, acting: Acting): Promise<Batch> {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  const batch = id.success ? await findBatch(acting, id.data) : undefined
  if (!batch) throw refusal(404, 'There is no such plan over documents.')
  if (acting.right !== 'look' && !(await batchWithinReach(acting, batch.id)))
    throw refusal(403, 'This plan is about documents in folders where you change nothing. Nothing was changed.')
  return batch
}

/** The house a route is about. @throws 404 */
export async function houseOf(event: H3Event, acting: Acting): Promise<HouseInfo> {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  const house = id.success ? await findHouse(acting, id.data) : undefined
  if (!house) throw refusal(404, 'This house is not on the desk. It may have been let go.')
  return house
}

/** What sort of kept things a route is about. @throws 404 */
export function keptKindOf(event: H3Event): KeptKind {
  const kind = keptKindSchema.safeParse(decodeURIComponent(getRouterParam(event, 'kind') ?? ''))
  if (!kind.success) throw refusal(404, 'Nothing of that sort is kept here.')
  return kind.data
}

/** The version a route is about: the query's, or the newest. @throws 400 */
export function versionOf(event: H3Event, document: DocumentRow): number {
  const { version } = getQuery(event)
  if (version === undefined) return document.version
  const number = z.coerce.number().int().min(1).max(document.version).safeParse(version)
  if (!number.success) throw refusal(400, `This document has versions 1 to ${document.version}.`)
  return number.data
}

/**
 * The document of a route with the content of the version that a change is made on.
 * @throws 404, ConflictError when that is no longer the newest
 */
export async function contentToChange(
  event: H3Event,
  acting: Acting,
  base: number,
): Promise<{ readonly document: DocumentRow; readonly content: Content }> {
  const document = await documentOf(event, acting)
  if (base !== document.version)
    throw new ConflictError(document.version, await versionsSince(acting, document.id, base))
  return { document, content: (await setContent(acting, document, base))! }
}

/** A version's content with what its text is set with; undefined where there is no such version. */
export async function setContent(
  acting: Acting,
  document: Pick<DocumentRow, 'id' | 'folder' | 'house'>,
  version: number,
): Promise<Content | undefined> {
  const content = await versionContent(acting, document.id, version)
  const setting = content && (await settingFor(acting, document))
  return content && { ...content, ...(setting === undefined ? {} : { setting }) }
}

/**
 * What is sent, piece by piece, under a limit of bytes: what is larger is refused before it is all here. The connection is
 * ended after the answer then, since nobody reads what still comes.
 * @throws 413
 */
export async function* sentPieces(event: H3Event, limit: number, tooLarge: string): AsyncGenerator<Buffer> {
  const { req, res } = event.node
  const refused = () => {
    res.setHeader('Connection', 'close')
    return refusal(413, tooLarge, { fault: 'too-large' })
  }
  if (Number(req.headers['content-length'] ?? 0) > limit) throw refused()
  let size = 0
  // Leaving the loop must not take the connection away before the answer is sent.
  for await (const piece of req.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    size += piece.length
    if (size > limit) throw refused()
    yield piece
  }
}

/** Wishes and words are small; a kept frame may hold a picture. Bytes. */
const jsonLimit = 16 * 1024 * 1024

/**
 * What a request says, checked. It must be said as JSON: that no form of another site can send. Without a body it is
 * an empty object.
 * @throws 413, 415, 400
 */
export async function bodyOf<T>(event: H3Event, schema: z.ZodType<T>): Promise<T> {
  const pieces: Buffer[] = []
  const tooLarge = `This request is larger than ${jsonLimit / 1048576} MB, the most that is read. Nothing was changed.`
  for await (const piece of sentPieces(event, jsonLimit, tooLarge)) pieces.push(piece)
  const bytes = Buffer.concat(pieces)
  if (bytes.length === 0) return schema.parse({})
  if (!/^application\/json\b/i.test(event.node.req.headers['content-type'] ?? ''))
    throw refusal(415, 'This request must be sent as application/json. Nothing was changed.')
  let said: unknown
  try {
    said = JSON.parse(bytes.toString('utf8'))
  } catch {
    throw refusal(400, 'This request is no JSON. Nothing was changed.')
  }
  return schema.parse(said)
}

/** A file name as a header carries it (RFC 6266 with RFC 8187). */
export function attachment(name: string): string {
  const plain = name.replace(/[^\x20-\x7E]|["\\%]/g, '_')
  return `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(
    /['()*]/g,
    sign => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  )}`
}

/** Licences for faces that are held on this desk, under their names. */
export async function heldLicences(acting: Acting): Promise<NamedLicence[]> {
  return (await listKept(acting, 'licence')).map(({ name, data }) => ({ ...data, name }))
}

/** What a document's faces are held against: what it is made for, and the licences held on this desk today. */
export const madeForOf = async (acting: Acting, { uses }: Pick<DocumentRow, 'uses'>): Promise<MadeFor> => ({
  uses: uses ?? [],
  licences: await heldLicences(acting),
  today: new Date().toISOString().slice(0, 10),
})

/** What proofs of this desk look for. */
export async function checklistOfDesk(acting: Acting): Promise<Checklist> {
  return (await listKept(acting, 'checklist')).find(each => each.name === deskChecklist)?.data ?? usualChecklist
}
