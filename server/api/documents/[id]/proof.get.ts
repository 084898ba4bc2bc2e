import { createHash } from 'node:crypto'
import { route } from '../../../door'
import { knownProof, storeProof } from '../../../store/proofs'
import { linkedHouse } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { checklistOfDesk, documentOf, setContent } from '../../../work/requests'

/** How much a proof of the newest version finds, by the desk's checklist and the house of the document. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const checklist = await checklistOfDesk(acting)
  const house = await linkedHouse(acting, document)
  const content = (await setContent(acting, document, document.version))!
  const basis = createHash('sha256')
    .update(JSON.stringify([checklist.checks, house, content.setting ?? null]))
    .digest('hex')
  const of = { document: document.id, version: document.version, basis }
  const known = await knownProof(acting, of)
  if (known) return known
  const counts = await threadsFor(acting).run({ kind: 'proof', ...content, house, checklist })
  await storeProof(acting, of, counts)
  return counts
})
