import { createHash } from 'node:crypto'
import { checklistFor } from '../../../../core/proof/checklist'
import { isOver } from '../../../../core/font/held-licence'
import { route } from '../../../door'
import { knownProof, storeProof } from '../../../store/proofs'
import { linkedHouse } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { checklistOfDesk, documentOf, madeForOf, setContent } from '../../../work/requests'

/** How much a proof of the newest version finds, by the checklist of the document's house or of the desk. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const house = await linkedHouse(acting, document)
  const checklist = checklistFor(house, await checklistOfDesk(acting))
  const madeFor = await madeForOf(acting, document)
  // The day counts only where a licence ends by it.
  const held = madeFor.licences.map(each => ({ ...each, over: isOver(each, madeFor.today) }))
  const content = (await setContent(acting, document, document.version))!
  const basis = createHash('sha256')
    .update(JSON.stringify([checklist.checks, house, content.setting ?? null, madeFor.uses, held]))
    .digest('hex')
  const of = { document: document.id, version: document.version, basis }
  const known = await knownProof(acting, of)
  if (known) return known
  const counts = await threadsFor(acting).run({ kind: 'proof', ...content, house, checklist, madeFor })
  await storeProof(acting, of, counts)
  return counts
})
