import { beforeEach, describe, expect, it } from 'vitest'
import { useCompare } from '../../../app/stores/compare'
import { useDesk } from '../../../app/stores/desk'
import { useProof } from '../../../app/stores/proof'
import { compareDocuments } from '../../../core/compare/compare'
import { registry } from '../../../core/change/registry'
import type { WishList } from '../../../core/change/plan'
import type { Checklist } from '../../../core/proof/checklist'
import { proofOf } from '../../../core/proof/proof'
import { checkDescriptions } from '../../../core/proof/registry'
import { repairWishes } from '../../../core/proof/repairs'
import type { DocumentSession } from '../../../core/session'
import { harbourNotice } from '../../../demo/harbour-notice'
import { appGlobals } from '../../support/app-globals'
import { session } from '../../support/fixtures'

/** The document as the worker has it: what is carried out is carried out here. */
let now: DocumentSession
let posted: { path: string; body: Record<string, unknown> }[] = []
let kept: object[] = []

const engine = {
  ask(name: string, ask: Record<string, unknown>): Promise<unknown> {
    const found = () => proofOf(now, { checklist: ask['checklist'] as Checklist })
    switch (name) {
      case 'proof':
        return Promise.resolve(found())
      case 'proofRepairs': {
        const numbers = ask['findings'] as number[]
        return Promise.resolve(
          repairWishes(
            proofOf(now).findings.filter(each => numbers.includes(each.id)),
            now,
            registry,
          ),
        )
      }
      case 'plan': {
        const { plan } = registry.plan(now, ask['request'] as WishList, { effects: false })
        return Promise.resolve({ plan, sheets: [], milliseconds: 0 })
      }
      case 'compare':
        return Promise.resolve({ comparison: compareDocuments(session(ask['bytes'] as Uint8Array), now), sheets: [] })
      default:
        return Promise.resolve(null)
    }
  },
  close: () => undefined,
}

beforeEach(() => {
  now = session(harbourNotice())
  posted = []
  kept = []
  appGlobals((path, options) => {
    const { method, body } = (options ?? {}) as { method?: string; body?: Record<string, unknown> }
    if (path.startsWith('/api/kept/')) {
      if (method === 'POST') kept = [{ id: 'k', heading: '', ...body }]
      return Promise.resolve(kept)
    }
    if (path === '/api/checks') return Promise.resolve(checkDescriptions())
    if (method === undefined) return Promise.resolve([])
    posted.push({ path, body: body ?? {} })
    now = registry.plan(now, body!['request'] as WishList, { effects: false }).after
    return Promise.resolve({ version: { number: 2, title: 'Done so' }, made: [], said: [] })
  })
  const desk = useDesk()
  desk.engine = engine as never
  desk.info = {
    document: { id: 'd', version: 1, folder: null, house: null, fileName: 'Notice.odt' },
    versions: [],
  } as never
  desk.state = 'open'
  desk.load = () => Promise.resolve()
})

describe('a proof on the desk', () => {
  it('tells findings by check, the worst first, and by what they say', async () => {
    const proof = useProof()
    await proof.begin()
    expect(proof.checks.length).toBeGreaterThan(40)
    const ranks = proof.rows.map(row => ['error', 'warning', 'note'].indexOf(row.severity))
    expect(ranks).toEqual([...ranks].sort())
    for (const row of proof.rows)
      expect(row.groups.reduce((sum, group) => sum + group.findings.length, 0)).toBe(row.findings.length)
    proof.severity = 'note'
    expect(proof.shown.every(each => each.severity === 'note')).toBe(true)
    expect(proof.rows.length).toBeLessThan(ranks.length)
  })

  it('walks findings with a place, and says at which one it is', async () => {
    const [proof, desk] = [useProof(), useDesk()]
    await proof.begin()
    const strays = proof.rows.find(row => row.check === 'stray')!.findings
    proof.walk(strays, strays[1])
    expect(desk.occurrences.length).toBe(strays.length)
    expect(proof.current).toEqual(strays[1])
    desk.walk(1)
    expect(proof.current).toEqual(strays[0])
  })

  it('accepts with a reason at once, tells it again, and goes on to the next finding', async () => {
    const [proof, desk] = [useProof(), useDesk()]
    await proof.begin()
    const row = proof.rows.find(each => each.check === 'stray')!
    proof.opened = 'stray'
    proof.walk(row.findings)
    const [first] = row.findings
    expect(await proof.accept([first!], 'The client wants it')).toBe(true)
    expect(posted[0]).toMatchObject({
      path: '/api/documents/d/changes',
      body: { request: { wishes: [{ type: 'accept' }] } },
    })
    await proof.look()
    expect(proof.accepted.map(each => each.accepted)).toEqual(['The client wants it'])
    expect(proof.rows.find(each => each.check === 'stray')!.findings.length).toBe(row.findings.length - 1)
    // The walk is where it was: at the one that came next.
    expect(desk.at).toBe(0)
    expect(proof.current!.key).toEqual(row.findings[1]!.key)
    await proof.reopen(proof.accepted)
    await proof.look()
    expect(proof.accepted).toEqual([])
  })

  it('stays where it is while somebody types', async () => {
    const [proof, desk] = [useProof(), useDesk()]
    await proof.begin()
    proof.opened = 'stray'
    const { findings } = proof.rows.find(each => each.check === 'stray')!
    proof.walk(findings, findings[1])
    await proof.look()
    expect(proof.current!.key).toEqual(findings[1]!.key)
    expect(desk.at).toBe(1)
  })

  it('plans what puts findings right, and carries it out', async () => {
    const proof = useProof()
    await proof.begin()
    const all = proof.mendable.length
    expect(all).toBeGreaterThan(3)
    await proof.plan(proof.mendable)
    expect(proof.change.plan!.places).toBeGreaterThan(3)
    await proof.apply()
    expect(proof.done).toBe('Done: Done so')
    await proof.look()
    expect(proof.mendable.length).toBeLessThan(all)
  })

  it('goes by the checklist that the desk keeps', async () => {
    const proof = useProof()
    await proof.begin()
    const has = () => proof.rows.some(row => row.check === 'empty-paragraph')
    expect(has()).toBe(true)
    await proof.keepChecklist({ name: 'x', checks: { 'empty-paragraph': { runs: false, limits: {} } } })
    expect(kept).toMatchObject([{ name: 'Desk', data: { checks: { 'empty-paragraph': { runs: false } } } }])
    expect(has()).toBe(false)
    proof.clear()
    expect([proof.proof, proof.rows]).toEqual([null, []])
  })
})

describe('comparing on the desk', () => {
  it('fetches a version, tells its differences by kind, and goes from one to the next', async () => {
    const compare = useCompare()
    const before = globalThis.fetch
    globalThis.fetch = () => Promise.resolve(new Response(harbourNotice() as Uint8Array<ArrayBuffer>))
    const { node } = proofOf(now).findings.find(each => each.check === 'empty-paragraph')!.place!
    const wish = registry.wishSchema.parse({ type: 'mend', places: [{ kind: 'empty', part: 'content.xml', node }] })
    now = registry.plan(now, { wishes: [wish], leftOut: [] }, { effects: false }).after
    await compare.compare('d', 1, 'Version 1')
    globalThis.fetch = before
    expect(compare.comparison!.differences.map(each => each.kind)).toEqual(['went'])
    expect([compare.walking, compare.against, compare.at]).toEqual([true, 'Version 1', 0])
    compare.go(7)
    expect(compare.at).toBe(0)
    compare.kind = 'look'
    await nextTick()
    expect([compare.shown, compare.current]).toEqual([[], null])
    compare.clear()
    expect([compare.comparison, compare.walking]).toEqual([null, false])
  })
})
