import { describe, expect, it } from 'vitest'
import { PlanError } from '../../../core/change/plan'
import { registry } from '../../../core/change/registry'
import { saveDocument } from '../../../core/document/open'
import { PackageError } from '../../../core/package/errors'
import { DocumentSession } from '../../../core/session'
import { displayPage } from '../../../core/typeset/display'
import { demoDocuments } from '../../../demo/documents'
import { brokenPackage } from '../../support/broken-files'
import { typesetter } from '../../support/fixtures'
import { request, swap } from '../../support/planning'
import { processorTime } from '../../support/processor-time'

/** The demo's shorter documents: of every kind, with charts, notes, tables and objects. */
const sound = demoDocuments.map(({ make }) => make()).filter(bytes => bytes.length < 60_000)

/** Opens a package, sets its pages, counts it, plans a swap and saves: a word for how far it came. */
async function outcome(bytes: Uint8Array): Promise<string> {
  let session: DocumentSession
  try {
    session = await DocumentSession.start(bytes, typesetter)
  } catch (error) {
    if (!(error instanceof PackageError)) throw error
    return error.message
  }
  const { composition } = session
  for (const page of composition.pages.slice(0, 3)) displayPage(page)
  const { census } = session.detail
  const [voice] = census.voices
  if (voice) {
    try {
      const { after } = registry.plan(session, request([swap(voice.family, 'Work Sans')]), { effects: false })
      saveDocument(after.document)
    } catch (error) {
      if (!(error instanceof PlanError)) throw error
    }
  }
  return 'opened'
}

describe('packages', () => {
  it('that are broken end with pages or a sentence, and in moments: 200 by chance', { timeout: 240_000 }, async () => {
    const outcomes = new Map<string, number>()
    for (let seed = 0; seed < 200; seed++) {
      const taken = processorTime()
      const said = await outcome(brokenPackage(sound[seed % sound.length]!, seed)).catch((error: unknown) => {
        throw new Error(`seed ${seed}`, { cause: error })
      })
      outcomes.set(said, (outcomes.get(said) ?? 0) + 1)
      if (said !== 'opened') expect(said).toMatch(/Nothing was kept\.|Ask for it again\.|open that\./)
      expect([seed, taken() < 10_000]).toEqual([seed, true])
    }
    expect(outcomes.get('opened')!).toBeGreaterThan(60)
    expect(outcomes.size).toBeGreaterThan(5)
  })
})
