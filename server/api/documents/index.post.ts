import { getQuery, setResponseStatus, type H3Event } from 'h3'
import { z } from 'zod'
import type { PutOnShelf } from '../../../shared/api'
import { route } from '../../door'
import { extensionOf } from '../../../core/format/odf/new-document'
import { mayTravel } from '../../../core/format/handoff/bundle'
import { isConvertible } from '../../../core/format/read'
import { atOnce, type Acting } from '../../store/acting'
import { addDocument } from '../../store/documents'
import { addFaces } from '../../store/faces'
import { refusal } from '../../work/answer'
import { bringHouses } from '../../work/brought-houses'
import { threadsFor } from '../../work/pool'
import { withUpload } from '../../work/upload'

const nameSchema = z
  .string()
  .trim()
  .min(1)
  .max(255)
  .regex(/^[^/\\\0]+$/)

/** A zip that is no document brings several, and with them fonts and houses. */
async function putSeveral(acting: Acting, sent: Uint8Array): Promise<PutOnShelf> {
  const { documents, fonts, houses, isBundle, left } = await threadsFor(acting).run({ kind: 'unzip', bytes: sent })
  const checked = await Promise.all(
    documents.map(async document => ({
      ...document,
      ...(await threadsFor(acting).run({ kind: 'check', bytes: document.bytes })),
    })),
  )
  const { ids, brought } = await atOnce(acting, async within => {
    const ids: { id: string; job: string }[] = []
    for (const { name: fileName, kind, signed, bytes } of checked)
      ids.push(await addDocument(within, { fileName, kind, signed, bytes, fonts }))
    const brought = await bringHouses(within, houses, { isBundle, documents: ids.map(each => each.id) })
    // Faces of a bundle that anybody may pass on are there at once; all others wait to be asked for.
    const free = fonts.flatMap(({ bytes, face }) => (face && mayTravel(face).may ? [{ bytes, face }] : []))
    if (isBundle && within.actor.rights.has('faces')) await addFaces(within, free, 'came in a bundle')
    return { ids, brought }
  })
  const came = fonts.map(font => (font.face ? `${font.face.family} ${font.face.style}` : font.path)).join(', ')
  const where = isBundle
    ? 'those of free licences are in the library, the Absent stage offers the others'
    : 'the Absent stage offers them'
  return {
    ...ids[0]!,
    signed: checked.some(each => each.signed),
    left: [
      ...(fonts.length > 0 ? [{ what: `font files came along: ${came}; ${where}`, count: 1 }] : []),
      ...brought.map(what => ({ what, count: 1 })),
      ...left.map(what => ({ what: `${what}: neither document nor font`, count: 1 })),
    ],
  }
}

/** Plain texts, Markdown and HTML become OpenDocument texts on the way. */
async function putOne(acting: Acting, name: string, sent: Uint8Array): Promise<PutOnShelf> {
  const converted = isConvertible(name)
    ? await threadsFor(acting).run({ kind: 'convert', fileName: name, bytes: sent })
    : null
  const bytes = converted?.bytes ?? sent
  const { kind, signed } = await threadsFor(acting).run({ kind: 'check', bytes })
  const fileName = converted && kind !== 'finished' ? `${name.replace(/\.\w+$/, '')}.${extensionOf[kind]}` : name
  return { ...(await addDocument(acting, { fileName, kind, signed, bytes })), signed, left: converted?.left ?? [] }
}

function nameOf(event: H3Event): string {
  const name = nameSchema.safeParse(getQuery(event).name)
  if (!name.success) throw refusal(400, 'The file needs a name without slashes. Nothing was kept.')
  return name.data
}

/** Puts a document on the shelf: the body is the file, `name` its name. Refused files leave nothing behind. */
export default route('arrange', async (event, acting) => {
  const name = nameOf(event)
  const put = await withUpload(event, sent =>
    /\.zip$/i.test(name) ? putSeveral(acting, sent) : putOne(acting, name, sent),
  )
  setResponseStatus(event, 201)
  return put
})
