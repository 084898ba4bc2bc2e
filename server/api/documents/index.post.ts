import { getQuery, setResponseStatus } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { extensionOf } from '../../../core/format/odf/new-document'
import { isConvertible } from '../../../core/format/read'
import { atOnce } from '../../store/acting'
import { addDocument } from '../../store/documents'
import { refusal } from '../../work/answer'
import { threads } from '../../work/pool'
import { readFile } from '../../work/requests'

const nameSchema = z
  .string()
  .trim()
  .min(1)
  .max(255)
  .regex(/^[^/\\\0]+$/)

/**
 * Puts a document on the shelf: the body is the file, `name` its name. Plain texts, Markdown and HTML become
 * OpenDocument texts on the way. Refused files leave nothing behind.
 */
export default route('arrange', async (event, acting) => {
  const name = nameSchema.safeParse(getQuery(event).name)
  if (!name.success) throw refusal(400, 'The file needs a name without slashes. Nothing was kept.')
  const sent = await readFile(event)
  // A zip that is no document brings several, and fonts with them.
  if (/\.zip$/i.test(name.data)) {
    const { documents, fonts, left } = await threads().run({ kind: 'unzip', bytes: sent })
    const checked = await Promise.all(
      documents.map(async document => ({
        ...document,
        ...(await threads().run({ kind: 'check', bytes: document.bytes })),
      })),
    )
    const added = await atOnce(acting, async within => {
      const ids: { id: string; job: string }[] = []
      for (const { name: fileName, kind, signed, bytes } of checked)
        ids.push(await addDocument(within, { fileName, kind, signed, bytes, fonts }))
      return ids
    })
    setResponseStatus(event, 201)
    return {
      id: added[0]!.id,
      job: added[0]!.job,
      signed: checked.some(each => each.signed),
      left: [
        ...(fonts.length > 0
          ? [
              {
                what:
                  `font files came along: ${fonts
                    .map(font => (font.face ? `${font.face.family} ${font.face.style}` : font.path))
                    .join(', ')}; ` + `the Absent stage offers them`,
                count: 1,
              },
            ]
          : []),
        ...left.map(what => ({ what: `${what}: neither document nor font`, count: 1 })),
      ],
    }
  }
  const converted = isConvertible(name.data)
    ? await threads().run({ kind: 'convert', fileName: name.data, bytes: sent })
    : null
  const bytes = converted?.bytes ?? sent
  const { kind, signed } = await threads().run({ kind: 'check', bytes })
  const fileName = converted ? `${name.data.replace(/\.\w+$/, '')}.${extensionOf[kind]}` : name.data
  const { id, job } = await addDocument(acting, { fileName, kind, signed, bytes })
  setResponseStatus(event, 201)
  return { id, job, signed, left: converted?.left ?? [] }
})
