import { readBody, setResponseStatus } from 'h3'
import { extensionOf, newDocumentSchema, writeNewDocument } from '../../../core/format/odf/new-document'
import { database } from '../../store/database'
import { addDocument } from '../../store/documents'
import { answer } from '../../work/answer'

/** Puts a new, empty document on the shelf: its kind, page and margins. */
export default answer(async (event) => {
  const wish = newDocumentSchema.parse(await readBody(event))
  const title = wish.title || 'Untitled'
   
  const fileName = `${title.replace(/[/\\\u0000-\u001F]/g, ' ').trim().slice(0, 200) || 'Untitled'}.${extensionOf[wish.kind]}`
  const { id, job } = await addDocument(await database(), { fileName, kind: wish.kind, signed: false, bytes: writeNewDocument({ ...wish, title }) })
  setResponseStatus(event, 201)
  return { id, job }
})
