import { getQuery, setResponseStatus, type H3Event } from 'h3'
import { z } from 'zod'
import type { PutOnShelf } from '../../../shared/api'
import { route } from '../../door'
import { extensionOf } from '../../../core/format/odf/new-document'
import { isConvertible } from '../../../core/format/read'
import { atOnce, type Acting } from '../../store/acting'
import { addDocument } from '../../store/documents'
import { refusal } from '../../work/answer'
import { threadsFor } from '../../work/pool'
import { withUpload } from '../../work/upload'

const nameSchema = z
  .string()
  .trim()
  .min(1)
  .max(255)
  .regex(/^[^/\\\0]+$/)

/** A zip that is no document brings several, and fonts with them. */
async function putSeveral(acting: Acting, sent: Uint8Array): Promise<PutOnShelf> {
  const { documents, fonts, left } = await threadsFor(acting).run({ kind: 'unzip', bytes: sent })
  const checked = await Promise.all(
    documents.map(async document => ({
      ...document,
      ...(await threadsFor(acting).run({ kind: 'check', bytes: document.bytes })),
    })),
  )
  const added = await atOnce(acting, async within => {
    const ids: { id: string; job: string }[] = []
    for (const { name: fileName, kind, signed, bytes } of checked)
      ids.push(await addDocument(within, { fileName, kind, signed, bytes, fonts }))
    return ids
  })
  const came = fonts.map(font => (font.face ? `${font.face.family} ${font.face.style}` : font.path)).join(', ')
  return {
    ...added[0]!,
    signed: checked.some(each => each.signed),
    left: [
      ...(fonts.length > 0 ? [{ what: `font files came along: ${came}; the Absent stage offers them`, count: 1 }] : []),
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
  const fileName = converted ? `${name.replace(/\.\w+$/, '')}.${extensionOf[kind]}` : name
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
