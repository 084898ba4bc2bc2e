import type { Knex } from 'knex'
import { openDocument, saveDocument } from '../../core/document/open'
import { galleyMenu } from '../../demo/galley-menu'
import { harbourNotice } from '../../demo/harbour-notice'
import { saltmereLine } from '../../demo/houses'
import { safetyCard } from '../../demo/safety-card'
import { seasonReview } from '../../demo/season-review'
import { winterTariff } from '../../demo/winter-tariff'
import { actingAs } from '../../server/store/acting'
import { listVersions, versionContent } from '../../server/store/versions'
import { until, type DeskProcess } from './desk-process'
import { session } from './fixtures'
import { ask } from './people'
import { planned } from './planning'

/*
 * Many documents are brought to a house as one plan, and the server is killed while they are planned and while it is carried
 * out. Each must be wholly as it was or wholly dressed at every moment, and all dressed in the end, each once.
 */

const wish = { type: 'dress', house: saltmereLine, drawUp: true }

interface Dressing {
  readonly id: string
  readonly was: Buffer
  readonly dressed: Buffer
}

/** What a document is before and after, by the core alone. */
function expected(bytes: Uint8Array): Pick<Dressing, 'was' | 'dressed'> {
  const { after } = planned(session(bytes), [wish])
  return { was: Buffer.from(bytes), dressed: Buffer.from(saveDocument(after.document)) }
}

async function putAll(base: string, count: number): Promise<Dressing[]> {
  const sources = [
    ['Winter tariff.odt', winterTariff],
    ['Harbour notice.odt', harbourNotice],
    ['Safety card.odg', safetyCard],
    ['Galley menu.odg', galleyMenu],
    ['Season review.odp', seasonReview],
  ] as const
  const known = sources.map(([name, make]) => {
    const bytes = make()
    return { name, bytes, ...expected(bytes) }
  })
  const documents: Dressing[] = []
  for (let at = 0; at < count; at++) {
    const { name, bytes, was, dressed } = known[at % known.length]!
    const { id } = await ask<{ id: string }>(base, `/api/documents?name=${encodeURIComponent(`${at} ${name}`)}`, {
      body: bytes,
    })
    documents.push({ id, was, dressed })
  }
  return documents
}

/** Documents that are neither as they were nor dressed, or dressed more than once: sentences, none where all is well. */
async function halves(knex: Knex, documents: readonly Dressing[]): Promise<{ faults: string[]; dressed: number }> {
  const acting = actingAs(knex)
  const faults: string[] = []
  let dressed = 0
  for (const { id, was, dressed: wanted } of documents) {
    const numbers = (await listVersions(acting, id)).map(version => version.number)
    if (numbers.length > 2) faults.push(`${id} was dressed ${numbers.length - 1} times`)
    const content = await versionContent(acting, id, Math.max(...numbers))
    const bytes = Buffer.from(content!.bytes)
    if (numbers.length === 1 ? !bytes.equals(was) : !bytes.equals(wanted)) {
      openDocument(bytes)
      faults.push(`version ${numbers.length} of ${id} is not what it ought to be`)
    }
    if (numbers.length === 2) dressed++
  }
  return { faults, dressed }
}

/** Dresses `count` documents while the server is killed `kills` times, half of them while they are planned. */
export async function dressWithKills(
  desk: DeskProcess,
  count: number,
  kills: number,
  random: () => number,
  tell: (line: string) => void,
): Promise<{ readonly dressed: number; readonly faults: readonly string[] }> {
  const base = desk.base()
  const documents = await putAll(base, count)
  const { id } = await ask<{ id: string }>(base, '/api/batches', {
    body: { request: { wishes: [wish] }, documents: documents.map(each => each.id) },
  })
  const knex = desk.connect()
  const faults: string[] = []
  const reaches = (...states: string[]) =>
    until(async () => states.includes((await ask<{ state: string }>(base, `/api/batches/${id}`)).state), 600_000)
  const killed = async (times: number) => {
    for (let round = 0; round < times; round++) {
      await new Promise(resolve => setTimeout(resolve, 500 + random() * 3000))
      await desk.killServer()
      const now = await halves(knex, documents)
      faults.push(...now.faults)
      tell(`server killed; ${now.dressed} of ${count} dressed, ${faults.length} faults`)
      await desk.startServer()
    }
  }
  try {
    await killed(Math.floor(kills / 2))
    if (!(await reaches('planned'))) faults.push('it was not planned within its time')
    await ask(base, `/api/batches/${id}/apply`, { body: {} })
    await killed(Math.ceil(kills / 2))
    if (!(await reaches('done'))) faults.push('it was not carried out within its time')
    const { faults: last, dressed } = await halves(knex, documents)
    return { dressed, faults: [...faults, ...last] }
  } finally {
    await knex.destroy()
  }
}
