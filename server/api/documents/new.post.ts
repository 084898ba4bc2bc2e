import { readBody, setResponseStatus } from 'h3'
import { z } from 'zod'
import { extensionOf, newDocumentSchema, writeNewDocument } from '../../../core/format/odf/new-document'
import { database } from '../../store/database'
import { addDocument, findDocument, versionContent } from '../../store/documents'
import { answer, refusal } from '../../work/answer'
import { threads } from '../../work/pool'

const bodySchema = z.union([newDocumentSchema, z.strictObject({ template: z.uuid(), title: z.string().trim().max(300) })])

/** Puts a new document on the shelf: an empty one of some kind, page and margins, or one made from another that lies there. */
export default answer(async (event) => {
  const wish = bodySchema.parse(await readBody(event))
  const knex = await database()
  const title = wish.title || 'Untitled'
  const name = title.replace(/[/\\\p{Cc}]/gu, ' ').trim().slice(0, 200) || 'Untitled'
  const made = 'template' in wish ? await copyOf(wish.template) : { kind: wish.kind, bytes: writeNewDocument({ ...wish, title }) }
  const { id, job } = await addDocument(knex, { fileName: `${name}.${extensionOf[made.kind]}`, kind: made.kind, signed: false, bytes: made.bytes })
  setResponseStatus(event, 201)
  return { id, job }

  async function copyOf(template: string) {
    const document = await findDocument(knex, template)
    const content = document && await versionContent(knex, template, document.version)
    if (!content) throw refusal(404, 'The template is not on the shelf any more. Nothing was made.')
    return threads().run({ kind: 'copy', bytes: content.bytes })
  }
})
