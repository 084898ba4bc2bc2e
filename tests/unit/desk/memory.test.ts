import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { describe, expect, it } from 'vitest'
import { WordDesk } from '../../../core/desk/word-desk'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { displayPage } from '../../../core/typeset/display'
import { makeOdt, paragraphStyle, session } from '../../support/fixtures'
import { longDocument } from '../../support/long-document'

setFlagsFromString('--expose-gc')
const collect = runInNewContext('gc') as () => void
/** Lets everything go that nothing holds: what is held by promises goes a turn later. */
async function collected(): Promise<void> {
  for (let round = 0; round < 3; round++) {
    await new Promise(resolve => setTimeout(resolve, 0))
    collect()
  }
}

/** A desk with a text whose pages were all set, and a way to type into its first paragraph. */
function deskOf(pages: number) {
  const desk = new WordDesk(session(longDocument(pages, 'Pier')), 1)
  void desk.session.composition
  const first = [...paragraphsOf(desk.session.reading.stories.find(story => story.role === 'body')!.blocks)][0]!
  const type = (text: string) => desk.edit([{ type: 'text', part: first.part, node: first.node, from: 0, to: 0, text }])
  return { desk, type }
}

describe('counting', () => {
  it('a slice at a time comes to the same as at once, and what is asked for meanwhile is there', () => {
    const bytes = longDocument(40, 'Pier')
    const atOnce = session(bytes)
    const sliced = session(bytes)
    let slices = 0
    let pages = 0
    for (const _ of sliced.counting()) if (++slices === 3) pages = sliced.page(30) ? 31 : 0
    expect(slices).toBeGreaterThan(4)
    expect(pages).toBe(31)
    expect(sliced.detail).toEqual(atOnce.detail)
    expect(sliced.composition.pages.map(page => page.number)).toEqual(atOnce.composition.pages.map(page => page.number))
    expect([...sliced.counting()].length).toBeLessThanOrEqual(1)
  })

  it('goes on a slice at a time where text says how many pages there are, and shows pages meanwhile', () => {
    const page = (text: string) => `<text:p text:style-name="New">${text}</text:p>`
    const made = (count: string) =>
      makeOdt({
        automatic: paragraphStyle('New', '', 'fo:break-before="page"'),
        body: page(`of ${count} pages`) + page('A page.').repeat(119),
      })
    const bytes = made('<text:page-count>2</text:page-count>')
    const shown = (open: DocumentSession) =>
      displayPage(open.page(0)!)
        .runs.map(run => run.text)
        .join('')
    const atOnce = session(bytes)
    const pages = atOnce.composition.pages.length
    expect(shown(atOnce)).toContain(`of ${pages} pages`)
    const sliced = session(bytes)
    let slices = 0
    let last = ''
    for (const _ of sliced.counting()) {
      slices++
      // The last page is there all the time, whichever of the two times is under way.
      if (slices > 4) last = displayPage(sliced.page(pages - 1)!).runs[0]!.text
    }
    expect(last).toBe('A page.')
    expect(shown(sliced)).toBe(shown(atOnce))
    expect(sliced.detail).toEqual(atOnce.detail)
    // The second time is in slices, too.
    expect(slices - [...session(made('2')).counting()].length).toBeGreaterThanOrEqual(pages / 24)
  })

  it('that was given up is taken up by whoever counts later', () => {
    const { desk, type } = deskOf(20)
    type('a')
    desk.session.counting().next()
    type('b')
    expect(desk.session.detail.census.characters).toBe(session(longDocument(20, 'Pier')).detail.census.characters + 2)
  })
})

describe('typing', () => {
  it('lets every state go but the present one and the last that was whole', async () => {
    const { desk, type } = deskOf(12)
    const states: WeakRef<object>[] = []
    const pages: WeakRef<object>[] = []
    for (let key = 0; key < 30; key++) {
      type('a')
      pages.push(new WeakRef(desk.session.page(0)!))
      states.push(new WeakRef(desk.session))
    }
    await collected()
    expect(states.filter(state => state.deref() !== undefined).length).toBeLessThanOrEqual(2)
    expect(pages.filter(page => page.deref() !== undefined).length).toBeLessThanOrEqual(2)
  })

  it('holds nothing of before once all pages are set again, whatever was typed meanwhile', async () => {
    const { desk, type } = deskOf(12)
    const before = new WeakRef(desk.session)
    desk.keep(1)
    for (let key = 0; key < 5; key++) {
      type('a')
      desk.session.page(0)
    }
    void desk.session.composition
    // The state that undo goes back to is at hand until others take its place.
    for (let state = 2; state < 20; state++) desk.keep(state)
    await collected()
    expect(before.deref()).toBeUndefined()
  })

  it('makes no page anew that it does not reach', () => {
    const { desk, type } = deskOf(12)
    const before = desk.session.composition.pages
    type('a')
    const after = desk.session.composition.pages
    expect(after.length).toBe(before.length)
    expect(after.map((page, at) => page.fragments === before[at]!.fragments)).toEqual(before.map((_page, at) => at > 0))
    // Keys that come quickly stand on the last whole state, not on one another.
    for (let key = 0; key < 3; key++) {
      type('b')
      desk.session.page(0)
    }
    const last = desk.session.composition.pages
    expect(last.slice(1).every((page, at) => page.fragments === after[at + 1]!.fragments)).toBe(true)
  })

  it('makes pages anew whose numbers change, and headers that are written anew', () => {
    const { desk } = deskOf(3)
    const first = [...paragraphsOf(desk.session.reading.stories.find(story => story.role === 'body')!.blocks)][0]!
    const pages = desk.session.composition.pages.map(page => page.number)
    expect(pages).toEqual(['1', '2', '3'])
    desk.edit([{ type: 'text', part: first.part, node: first.node, from: 0, to: 0, text: 'long words '.repeat(400) }])
    const after = desk.session.composition.pages
    expect(after.length).toBeGreaterThan(3)
    expect(after.map(page => page.index)).toEqual(after.map((_page, at) => at))
    expect(after.map(page => page.number)).toEqual(after.map((_page, at) => String(at + 1)))
  })
})
