import { beforeEach, describe, expect, it } from 'vitest'
import { resetChanges, useChange } from '../../../app/change/use-change'
import { useAbsent } from '../../../app/stores/absent'
import { useDesk } from '../../../app/stores/desk'
import { useWords } from '../../../app/stores/words'
import type { AbsentPlace } from '../../../core/census/absent-model'
import { registry } from '../../../core/change/registry'
import type { WishList } from '../../../core/change/plan'
import type { DocumentSession } from '../../../core/session'
import { sailingGuide } from '../../../demo/sailing-guide'
import { appGlobals } from '../../support/app-globals'
import { session } from '../../support/fixtures'
import { swap } from '../../support/planning'

/** What the stores asked of the worker and of the server, in order. */
let asked: string[] = []
let posted: { path: string; body: Record<string, unknown> }[] = []
let answer: (path: string) => unknown = () => ({})
const plans = new Map<string, DocumentSession>()
const guide = session(sailingGuide())

/** A worker that plans as the real one does; whatever else it is asked is noted. */
const engine = {
  ask(name: string, ask: Record<string, unknown>): Promise<unknown> {
    asked.push(name === 'plan' ? `plan ${String(ask.id)}` : name)
    if (name === 'plan') {
      const { plan, after } = registry.plan(guide, ask.request as WishList, { effects: Boolean(ask.effects) })
      plans.set(String(ask.id), after)
      const sheets = after.composition.pages.map(() => ({ width: 1, height: 1, number: '', name: '' }))
      return Promise.resolve({ plan, sheets: ask.effects ? sheets : null, milliseconds: 0 })
    }
    if (name === 'edit')
      return Promise.resolve({ edits: [{ edit: (ask.edits as object[])[0], firstId: 1 }], made: null })
    if (name === 'count')
      return Promise.resolve({ census: guide.detail.census, sheets: { pages: [], notes: [], masters: [] } })
    return Promise.resolve(null)
  },
  close: () => undefined,
}

const info = {
  document: { id: 'd', version: 1, folder: null },
  versions: [],
  history: { undo: null, redo: null },
}

beforeEach(() => {
  asked = []
  posted = []
  answer = () => ({ version: { number: 2, title: 't' }, made: [], said: [] })
  appGlobals((path, options) => {
    const { method, body } = (options ?? {}) as { method?: string; body?: Record<string, unknown> }
    if (method !== undefined) {
      posted.push({ path, body: body ?? {} })
      asked.push(`${method} ${path.slice(path.lastIndexOf('/') + 1)}`)
    }
    return Promise.resolve().then(() => (method === undefined ? info : answer(path)))
  })
  const desk = useDesk()
  desk.engine = engine as never
  desk.info = info as never
  desk.state = 'open'
  desk.load = () => {
    asked.push('load')
    return Promise.resolve()
  }
})

const wishes = [swap('Skerrow', 'Work Sans') as { type: string }].map(wish => registry.wishSchema.parse(wish))
const settle = registry.wishSchema.parse({ type: 'settle', scope: { kind: 'document' }, groups: ['size'] })

describe('from a wish to a stored version', () => {
  it('plans, leaves out by key, and carries out what is shown as one request', async () => {
    const change = useChange('swap')
    expect(await change.make(wishes)).toBe(true)
    const all = change.plan!.places
    const [row] = change.plan!.rows
    await change.toggle(row!.key)
    expect(change.plan!.places).toBe(all - row!.count)
    expect(change.isLeft(row!.key)).toBe(true)
    await change.apply()
    expect(posted).toHaveLength(1)
    expect(posted[0]).toMatchObject({
      path: '/api/documents/d/changes',
      body: { base: 1, request: { wishes: [{ type: 'swap' }], leftOut: [row!.key] } },
    })
    expect(change.plan).toBeNull()
    expect(asked.slice(-3)).toEqual(['POST changes', 'load', 'drop'])
  })

  it('stores what was typed before it plans, and before it carries out', async () => {
    const words = useWords()
    const change = useChange('recast')
    void words.edit([{ type: 'text', part: 'content.xml', node: 1, from: 0, to: 0, text: 'x' }], () => null)
    await change.make(wishes)
    expect(asked.filter(each => each === 'POST edit' || each.startsWith('plan'))).toEqual(['POST edit', 'plan recast'])
    void words.edit([{ type: 'text', part: 'content.xml', node: 1, from: 0, to: 0, text: 'y' }], () => null)
    await change.apply()
    expect(posted.map(each => each.path.slice(each.path.lastIndexOf('/') + 1))).toEqual(['edit', 'edit', 'changes'])
  })

  it('keeps the pages of every plan under its own id', async () => {
    const desk = useDesk()
    await useChange('swap').make(wishes)
    await useChange('styles').make([settle])
    useChange('styles').show()
    expect(desk.side).toBe('styles')
    useChange('swap').show()
    expect(desk.side).toBe('swap')
    expect(plans.get('swap')).not.toBe(plans.get('styles'))
    expect(plans.get('swap')!.detail.census.faces.some(face => face.family === 'Skerrow')).toBe(false)
    expect(plans.get('styles')!.detail.census.faces.some(face => face.family === 'Skerrow')).toBe(true)
    resetChanges()
    expect(desk.side).toBe('now')
  })

  it('of two changes at once one is told, and its wishes are planned anew on what is there', async () => {
    const change = useChange('swap')
    await change.make(wishes)
    answer = path => {
      if (!path.endsWith('/changes')) return {}
      throw Object.assign(new Error('conflict'), {
        statusCode: 409,
        data: { message: 'Somebody changed it meanwhile.' },
      })
    }
    asked = []
    expect(await change.apply()).toBeNull()
    expect(change.message).toBe('Somebody changed it meanwhile.')
    expect(asked).toEqual(['POST changes', 'load', 'plan swap'])
    expect(change.plan).not.toBeNull()
  })

  it('says what cannot be planned, and shows nothing', async () => {
    const change = useChange('swap')
    expect(await change.make([registry.wishSchema.parse(swap('Nobody', 'Inter'))])).toBe(false)
    expect(change.message).toContain('not named anywhere')
    expect(change.plan).toBeNull()
    expect(change.busy).toBe('')
  })

  it('previews the last that was asked for, also where one was let go of on the way', async () => {
    const change = useChange('swap')
    const first = change.preview(wishes)
    change.hide()
    void change.preview([registry.wishSchema.parse(swap('Spectral', 'Literata'))])
    await first
    expect(useDesk().side).toBe('swap')
    expect(plans.get('swap')!.detail.census.faces.some(face => face.family === 'Literata')).toBe(true)
  })

  it('adds repairs to the wishes, and takes them out again', async () => {
    const change = useChange('swap')
    await change.make(wishes)
    const { part, node } = guide.reading.stories[0]!.blocks.find(block => block.kind === 'paragraph')!
    const repair = { kind: 'tracking' as const, part, node, amount: -5 }
    await change.repair({ repair, linesBefore: 2, lines: 1, mends: true, pages: 1 })
    expect(change.plan!.rows.at(-1)!.stage).toBe('repair')
    await change.dropRepairs()
    expect(change.plan!.rows.some(row => row.stage === 'repair')).toBe(false)
  })
})

describe('around it', () => {
  it('what is taken away at an absent place waits for what was typed, and goes the same way', async () => {
    const words = useWords()
    void words.edit([{ type: 'text', part: 'content.xml', node: 1, from: 0, to: 0, text: 'x' }], () => null)
    const place = { part: 'content.xml', node: 5, start: 2, end: 3, empty: false } as AbsentPlace
    expect(await useAbsent().remove(place)).toBe(true)
    const edits = posted.flatMap(each => (each.body.edits as { edit: { node: number } }[]).map(({ edit }) => edit.node))
    expect(edits).toEqual([1, 5])
  })

  it('a tray tells of new pages only when the sheets that are in sight show them', async () => {
    const desk = useDesk()
    const order: string[] = []
    desk.$subscribe(
      () => {
        order.push(
          `${desk.generation > 0 ? 'drawn' : 'old'}, ${desk.census ? 'counted' : 'not counted'}, ${asked.join(' ')}`,
        )
      },
      { flush: 'sync' },
    )
    await desk.count()
    const told = order.findIndex(each => each.includes(', counted'))
    expect(order.slice(0, told).some(each => each.startsWith('drawn'))).toBe(true)
    expect(order[told]).toContain('count stand')
  })
})
