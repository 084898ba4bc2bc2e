import { z } from 'zod'
import { recordCsv } from '../../core/change/record-csv'
import { checklistFor } from '../../core/proof/checklist'
import { route } from '../door'
import type { Acting } from '../store/acting'
import { findDocument } from '../store/documents'
import { listVersions, versionRecord } from '../store/versions'
import { refusal } from '../work/answer'
import { handedOn, linkedHouse } from '../work/handing'
import { threadsFor } from '../work/pool'
import { bodyOf, checklistOfDesk, heldLicences, setContent } from '../work/requests'
import type { DocumentRow } from '../../shared/api'

const bodySchema = z.strictObject({ documents: z.array(z.uuid()).min(1).max(50) })

/** Records of what plans did to a document, newest last: as many as a bundle takes. */
const recordLimit = 50

async function recordsOf(acting: Acting, { id, fileName }: DocumentRow) {
  const versions = (await listVersions(acting, id)).filter(each => each.madeBy === 'change').slice(-recordLimit)
  const records: { name: string; text: string }[] = []
  for (const { number, created } of versions) {
    const plan = (await versionRecord(acting, id, number))?.plan
    if (plan)
      records.push({
        name: `${fileName.replace(/\.\w+$/, '')}, record of version ${number}`,
        text: recordCsv(plan, { fileName, version: number, made: new Date(created) }),
      })
  }
  return records
}

/** Documents with what they need elsewhere, in one zip: faces as their licences allow, proofs, records, PDFs, the house. */
export default route('take', async (event, acting) => {
  const { documents: ids } = await bodyOf(event, bodySchema)
  const documents: DocumentRow[] = []
  for (const id of new Set(ids)) {
    const document = await findDocument(acting, id)
    if (!document) throw refusal(404, 'One of these documents is not on the shelf any more. Nothing was made.')
    documents.push(document)
  }
  const linked = new Set(documents.map(each => each.house))
  // A bundle has one house: where documents go by several, each still carries its own name in itself.
  const house = linked.size === 1 ? await linkedHouse(acting, documents[0]!) : null
  const checklist = checklistFor(house, await checklistOfDesk(acting))
  const made = await threadsFor(acting).run({
    kind: 'bundle',
    documents: await Promise.all(
      documents.map(async document => ({
        ...(await setContent(acting, document, document.version))!,
        fileName: document.fileName,
        records: await recordsOf(acting, document),
        uses: document.uses ?? [],
      })),
    ),
    context: { made: Date.now(), house, licences: await heldLicences(acting), checklist },
  })
  const name = documents.length === 1 ? documents[0]!.fileName.replace(/\.\w+$/, '') : 'Documents'
  return handedOn(event, made, `${name}, bundle`)
})
