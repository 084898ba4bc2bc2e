import { setResponseStatus } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { extensionOf, newDocumentSchema, writeNewDocument } from '../../../core/format/odf/new-document'
import { mergedStarts, startWishes } from '../../../core/change/defaults/desk-starts'
import { addDocument, findDocument } from '../../store/documents'
import { versionContent } from '../../store/versions'
import { findFolder, startsOf } from '../../store/folders'
import { refusal } from '../../work/answer'
import { threadsFor } from '../../work/pool'
import { bodyOf } from '../../work/requests'

const wishSchema = z.union([
  newDocumentSchema,
  z.strictObject({ template: z.uuid(), title: z.string().trim().max(300) }),
])
const bodySchema = z.looseObject({ folder: z.uuid().nullable().default(null) })

/**
 * Puts a new document on the shelf: an empty one of some kind, page and margins, or one made from another that lies
 * there.
 */
export default route('arrange', async (event, acting) => {
  const { folder, ...asked } = await bodyOf(event, bodySchema)
  const wish = wishSchema.parse(asked)
  const title = wish.title || 'Untitled'
  const name =
    title
      .replace(/[/\\\p{Cc}]/gu, ' ')
      .trim()
      .slice(0, 200) || 'Untitled'
  const made =
    'template' in wish ? await copyOf(wish.template) : { kind: wish.kind, bytes: writeNewDocument({ ...wish, title }) }
  if (folder !== null && !(await findFolder(acting, folder)))
    throw refusal(404, 'This folder is not there any more. Nothing was made.')
  // A new document begins as the desk and its folder say; a copy of another begins as that one does.
  const wishes =
    'template' in wish
      ? []
      : startWishes(
          mergedStarts(await startsOf(acting, null), folder === null ? null : await startsOf(acting, folder)),
          made.kind,
        )
  const bytes =
    wishes.length === 0
      ? made.bytes
      : (
          await threadsFor(acting).run({
            kind: 'change',
            bytes: made.bytes,
            ids: {},
            request: { wishes, leftOut: [] },
            effects: false,
          })
        ).bytes
  const { id, job } = await addDocument(acting, {
    fileName: `${name}.${extensionOf[made.kind]}`,
    kind: made.kind,
    signed: false,
    bytes,
    folder,
  })
  setResponseStatus(event, 201)
  return { id, job }

  async function copyOf(template: string) {
    const document = await findDocument(acting, template)
    const content = document && (await versionContent(acting, template, document.version))
    if (!content) throw refusal(404, 'The template is not on the shelf any more. Nothing was made.')
    return threadsFor(acting).run({ kind: 'copy', bytes: content.bytes })
  }
})
