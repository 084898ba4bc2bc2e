import { measureBodySchema } from '../../../../shared/api'
import { route } from '../../../door'
import { findDocument } from '../../../store/documents'
import { houseVersion, storeShare } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { bodyOf, houseOf, setContent } from '../../../work/requests'

/** Measures how much of a document is as the newest version of a house says, and keeps it. */
export default route('arrange', async (event, acting) => {
  const { id, issued } = await houseOf(event, acting)
  const document = await findDocument(acting, (await bodyOf(event, measureBodySchema)).document)
  if (!document) throw refusal(404, 'This document is not on the shelf. It may have been removed.')
  const house = await houseVersion(acting, id, issued)
  if (!house) throw refusal(409, 'This house was not issued yet: there is nothing to measure by.')
  const content = (await setContent(acting, document, document.version))!
  const share = await threadsFor(acting).run({ kind: 'toStyle', ...content, house, of: id })
  await storeShare(acting, { document: document.id, version: document.version, house: id, number: issued }, share)
  return share
})
