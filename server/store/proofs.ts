import type { ProofCounts } from '../../shared/api'
import { atOnce, ownDocuments, type Acting } from './acting'

/** Which version was looked over, and by what: a digest of checklist, house and faces. */
export interface ProofOf {
  readonly document: string
  readonly version: number
  readonly basis: string
}

/** What a proof of a version found; undefined where it was not looked over by that yet. */
export async function knownProof(
  acting: Acting,
  { document, version, basis }: ProofOf,
): Promise<ProofCounts | undefined> {
  const row = await ownDocuments(acting)
    .clearSelect()
    .join('proofs', 'proofs.document', 'documents.id')
    .where({ 'documents.id': document, 'proofs.version': version, 'proofs.basis': basis })
    .first<{ counts: string } | undefined>({ counts: 'proofs.counts' })
  return row && (JSON.parse(row.counts) as ProofCounts)
}

/**
 * Keeps what a proof found, in place of what an older one did: one statement, since several may look a document over at
 * once. False where the document is not there.
 */
export async function storeProof(acting: Acting, of: ProofOf, counts: ProofCounts): Promise<boolean> {
  return atOnce(acting, async within => {
    const own = await ownDocuments(within).clearSelect().where({ id: of.document }).first('id')
    if (!own) return false
    await within
      .knex('proofs')
      .insert({ ...of, counts: JSON.stringify(counts), looked: new Date() })
      .onConflict('document')
      .merge()
    return true
  })
}
