import { checklistFor } from '../../../../core/proof/checklist'
import { route } from '../../../door'
import { linkedHouse, plainName, reportAsPdf } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { checklistOfDesk, documentOf, madeForOf, setContent } from '../../../work/requests'

/** A proof of the newest version as PDF: what was found and accepted, and the pages with where it is. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const house = await linkedHouse(acting, document)
  const bytes = await threadsFor(acting).run({
    kind: 'proofReport',
    ...(await setContent(acting, document, document.version))!,
    house,
    checklist: checklistFor(house, await checklistOfDesk(acting)),
    madeFor: await madeForOf(acting, document),
    of: {
      fileName: document.fileName,
      version: document.version,
      by: house?.checks ? `the checklist of the house ${house.name}` : 'the checklist of the desk',
    },
    made: Date.now(),
  })
  return reportAsPdf(event, bytes, `${plainName(document)}, proof`)
})
