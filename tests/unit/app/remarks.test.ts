import { beforeEach, describe, expect, it } from 'vitest'
import { aboutWords, stateWords } from '../../../app/remarks/words'
import { useRemarks } from '../../../app/stores/remarks'
import type { Remark } from '../../../shared/remarks'
import { appGlobals } from '../../support/app-globals'

const remark = (id: string, more: Partial<Remark> = {}): Remark => ({
  id,
  version: 1,
  place: null,
  text: `Of ${id}`,
  finding: null,
  author: 'desk',
  to: null,
  created: new Date(0),
  settled: null,
  answers: [],
  ...more,
})
let there: Remark[]
let asked: string[]
let failing = false
let waits: Promise<unknown> | null = null
beforeEach(() => {
  there = [remark('one'), remark('two', { settled: { person: 'desk', at: new Date(1) } })]
  asked = []
  failing = false
  waits = null
  appGlobals(async (path, options = {}) => {
    const { method = 'GET', body } = options as { method?: string; body?: unknown }
    asked.push(`${method} ${path}${body ? ` ${JSON.stringify(body)}` : ''}`)
    const answer = there
    await waits
    if (failing) throw Object.assign(new Error('no'), { data: { message: 'It is not there any more.' } })
    return answer
  })
})

describe('remarks of a document', () => {
  it('are open or settled, and are shown as the desk has them after whatever is done', async () => {
    const store = useRemarks()
    await store.load('d1')
    expect([store.open, store.settled].map(list => list.map(each => each.id))).toEqual([['one'], ['two']])
    there = [...there, remark('three')]
    expect(await store.add({ version: 2, place: null, text: 'Of three', to: 'jo' })).toBe(true)
    expect(store.open.map(each => each.id)).toEqual(['one', 'three'])
    await store.act('one', { act: 'settle' })
    await store.act('one', { act: 'give', to: null })
    await store.remove('three')
    expect(asked).toEqual([
      'GET /api/documents/d1/remarks',
      'POST /api/documents/d1/remarks {"version":2,"place":null,"text":"Of three","to":"jo"}',
      'POST /api/documents/d1/remarks/one {"act":"settle"}',
      'POST /api/documents/d1/remarks/one {"act":"give","to":null}',
      'DELETE /api/documents/d1/remarks/three',
    ])
  })

  it('are the same list as long as nobody says anything: what goes by it stays where it is', async () => {
    const store = useRemarks()
    await store.load('d1')
    const before = store.list
    there = there.map(each => ({ ...each }))
    await store.load('d1')
    expect(store.list).toBe(before)
    there = [...there, remark('three')]
    await store.load('d1')
    expect(store.list).not.toBe(before)
  })

  it('stay as they are where something cannot be done, which is said until something can', async () => {
    const store = useRemarks()
    await store.load('d1')
    failing = true
    expect(await store.act('one', { act: 'settle' })).toBe(false)
    expect([store.message, store.list.length]).toEqual(['It is not there any more.', 2])
    failing = false
    expect(await store.act('one', { act: 'settle' })).toBe(true)
    expect(store.message).toBe('')
  })

  it('of a document that was left are not shown for the next one, however late they come', async () => {
    const store = useRemarks()
    let goOn = (): void => undefined
    waits = new Promise<void>(resolve => (goOn = resolve))
    const late = store.load('d1')
    waits = null
    there = [remark('other')]
    await store.load('d2')
    expect(store.list.map(each => each.id)).toEqual(['other'])
    goOn()
    await late
    expect(store.list.map(each => each.id)).toEqual(['other'])
  })
})

describe('what a remark is about', () => {
  const text = { kind: 'text', part: 'content.xml', node: 1, from: 0, to: 5, text: 'boats' } as const
  it('is told in a few words', () => {
    expect([
      aboutWords({ place: null }, -1),
      aboutWords({ place: { kind: 'page', page: 2, x: 0.5, y: 0 } }, -1),
      aboutWords({ place: text }, 3),
      aboutWords({ place: text }, -1),
      aboutWords({ place: { ...text, text: '  ' } }, 0),
      aboutWords({ place: { ...text, text: 'x'.repeat(80) } }, -1),
    ]).toEqual([
      'the whole document',
      'page 3',
      '“boats”, page 4',
      '“boats”',
      'a place in the text, page 1',
      `“${'x'.repeat(57)}…”`,
    ])
    expect(stateWords.there).toBe('')
    expect(stateWords.gone).toContain('gone')
  })
})
