import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import type { Edit } from '../../../core/document/edits'
import { saveDocument } from '../../../core/document/open'
import type { StartKind } from '../../../core/document/rules'
import { paragraphsOf } from '../../../core/document/stories'
import { makeEdit } from '../../../core/change/make-edits'
import { DocumentSession } from '../../../core/session'
import { isLive, startKindsOf } from '../../../core/change/defaults/start-kinds'
import type { StartValues } from '../../../core/change/defaults/wishes'
import type { Wish } from '../../../core/change/registry'
import { paragraphRuns } from '../../../core/style/runs'
import { galleyMenu } from '../../../demo/galley-menu'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { session, sessionOf, typesetter } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const values: StartValues = {
  fonts: { western: { family: 'Literata' } },
  text: { 'fo:font-size': '13.5pt', 'fo:color': '#abcdef', 'fo:letter-spacing': '0.5pt', 'fo:hyphenate': 'false' },
  paragraph: { 'fo:line-height': '18pt' },
}
const start = (kind: StartKind, more: Partial<StartValues> = {}): Wish => ({
  type: 'start',
  kind,
  values: { ...values, ...more },
})
const plan = (of: DocumentSession, ...wishes: Wish[]) => quickly(of, ...wishes)
const edit = (of: DocumentSession, wish: Edit) => {
  const { document, made } = makeEdit(of.document, wish, of.document.parts.get(wish.part)!.nextId)
  return { after: new DocumentSession(document, typesetter), made: made! }
}
const looks = (of: DocumentSession) => of.detail.census.voices.map(voice => [voice.key, voice.characters])

/** Makes an object of a kind, and writes a word into it: what its text looks like. */
function madeObject(of: DocumentSession, kind: StartKind): { after: DocumentSession; look: readonly unknown[] } {
  const paragraphs = of.reading.stories.flatMap(story => paragraphsOf(story.blocks))
  const content = of.document.parts.get('content.xml')!
  const page = [...content.descendants()].find(each => each.name === 'draw:page')
  const first =
    paragraphs.find(each => each.part === 'content.xml' && each.holder === null && each.list === null) ?? paragraphs[0]!
  const holder = { part: 'content.xml', node: page?.id ?? first.node }
  const place = { x: 20, y: 20, width: 120, height: 60 }
  const wish: Edit =
    kind === 'body'
      ? {
          type: 'insert',
          part: 'content.xml',
          node: first.node,
          paragraphs: [{ style: null, heading: null, runs: [] }],
        }
      : kind === 'frame'
        ? { type: 'add-frame', ...holder, place, text: { columns: 1, gap: 0, inset: 0 } }
        : kind === 'shape'
          ? { type: 'add-shape', ...holder, place }
          : kind === 'cell'
            ? { type: 'add-table', part: 'content.xml', node: first.node, rows: 2, columns: 2 }
            : kind === 'note'
              ? { type: 'add-note', part: 'content.xml', node: first.node, at: 1, endnote: false }
              : {
                  type: 'add-header',
                  part: 'styles.xml',
                  node: [...of.document.parts.get('styles.xml')!.descendants()].find(
                    each => each.name === 'style:master-page',
                  )!.id,
                  which: 'header',
                }
  const { after, made } = edit(of, wish)
  const part = after.document.parts.get(wish.part)!
  const target = [...part.descendants(part.element(made))].find(each => each.name === 'text:p')!.id
  const written = edit(after, { type: 'text', part: wish.part, node: target, from: 0, to: 0, text: 'new' }).after
  for (const story of written.reading.stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      if (paragraph.node !== target || paragraph.part !== wish.part) continue
      const { effective } = paragraphRuns(paragraph, written.reading.cascade, story.role).runs[0]!.style
      const own = effective.slots.western
      return {
        after: written,
        look: [
          own.font.family,
          own.size,
          effective.shared['fo:color'],
          effective.shared['fo:letter-spacing'],
          effective.shared['fo:hyphenate'],
          effective.leading['fo:line-height'],
        ],
      }
    }
  }
  throw new Error('the object is not there')
}
const wanted = ['Literata', 13.5, '#abcdef', '0.5pt', 'false', '18pt']

describe('what new text begins with', () => {
  const plainText = () =>
    sessionOf({
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" ' +
        'fo:font-size="10pt"/></style:default-style>',
      body: '<text:p>one</text:p><text:p>two</text:p>',
    })
  for (const kind of startKindsOf('text')) {
    it(`is set for ${kind} in a text: a new one has it, saved and opened again too, and what is there stays`, () => {
      for (const open of [plainText(), ...(kind === 'header' ? [] : [session(sailingGuide())])]) {
        const { plan: made, after } = plan(open, start(kind))
        expect(looks(after)).toEqual(looks(open))
        expect(madeObject(after, kind).look).toEqual(wanted)
        const again = session(saveDocument(after.document))
        const second = madeObject(again, kind)
        expect(second.look).toEqual(wanted)
        const third = session(saveDocument(second.after.document))
        if (kind !== 'header') expect(madeObject(third, kind).look).toEqual(wanted)
        expect(
          saveDocument(applyAll(after.document, applyAll(open.document, made.operations).inverse).document),
        ).toEqual(saveDocument(open.document))
        expect(made.left.some(each => each.what === 'other programs')).toBe(!isLive('text', kind))
      }
    })
  }
  for (const [name, make] of [
    ['a presentation', seasonReview],
    ['a drawing', galleyMenu],
  ] as const) {
    for (const kind of ['frame', 'shape'] as const) {
      it(`is set for ${kind} in ${name}, and all that is there stays`, () => {
        const open = session(make())
        const { after } = plan(open, start(kind))
        expect(looks(after)).toEqual(looks(open))
        expect(madeObject(after, kind).look).toEqual(wanted)
        expect(madeObject(session(saveDocument(after.document)), kind).look).toEqual(wanted)
      })
    }
  }

  for (const kind of ['title', 'outline1', 'outline2'] as const) {
    it(`is set for ${kind} of a presentation: the next page has it, and the pages that are there stay`, () => {
      const open = session(seasonReview())
      const { plan: made, after } = plan(open, start(kind))
      const onPages = (of: DocumentSession) =>
        of.reading.stories
          .filter(story => story.role === 'page' || story.role === 'notes')
          .flatMap(story => paragraphsOf(story.blocks))
          .flatMap(paragraph =>
            paragraphRuns(paragraph, of.reading.cascade, 'page').runs.map(run => [
              run.style.effective.slots,
              run.style.effective.shared,
              run.style.effective.leading,
            ]),
          )
      expect(
        onPages(after).map(([one]) => JSON.stringify(one, (key, value: unknown) => (key === 'layer' ? 0 : value))),
      ).toEqual(
        onPages(open).map(([one]) => JSON.stringify(one, (key, value: unknown) => (key === 'layer' ? 0 : value))),
      )
      expect(onPages(after).map(each => JSON.stringify(each.slice(1)))).toEqual(
        onPages(open).map(each => JSON.stringify(each.slice(1))),
      )
      for (const of of [after, session(saveDocument(after.document))]) {
        const content = of.document.parts.get('content.xml')!
        const page = [...content.descendants()]
          .filter(each => each.name === 'draw:page' && each.attributes['draw:master-page-name'] === 'Saltmere')
          .find(each =>
            [...content.elements(each, 'draw:frame')].some(
              frame => frame.attributes['presentation:class'] === (kind === 'title' ? 'title' : 'outline'),
            ),
          )!
        const { after: added, made: node } = edit(of, { type: 'add-page', part: 'content.xml', node: page.id })
        const part = added.document.parts.get('content.xml')!
        const frame = [...part.elements(part.element(node), 'draw:frame')].find(
          each => each.attributes['presentation:class'] === (kind === 'title' ? 'title' : 'outline'),
        )!
        expect(frame.attributes['presentation:placeholder']).toBe('true')
        const paragraph = added.reading.stories
          .flatMap(story => paragraphsOf(story.blocks))
          .find(each => each.holder?.kind === 'frame' && each.holder.node === frame.id && each.part === 'content.xml')!
        const look = added.reading.cascade.paragraph(
          kind === 'outline2'
            ? {
                ...paragraph,
                list: {
                  list: 0,
                  styleName: null,
                  level: 2,
                  item: 0,
                  labelled: true,
                  startValue: null,
                  continues: false,
                  continuesList: null,
                  continuesLevel: false,
                },
              }
            : paragraph,
          'page',
        ).text.effective
        expect([look.slots.western.font.family, look.slots.western.size, look.shared['fo:color']]).toEqual([
          'Literata',
          13.5,
          '#abcdef',
        ])
      }
      expect(saveDocument(applyAll(after.document, applyAll(open.document, made.operations).inverse).document)).toEqual(
        saveDocument(open.document),
      )
    })
  }

  it('gives text frames their insets and fill', () => {
    const { after } = plan(plainText(), start('frame', { inset: 6, fill: '#ffeecc' }))
    const { after: made } = madeObject(after, 'frame')
    const frame = [...made.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:frame')!
    const style = made.reading.cascade
      .scope('content.xml')
      .automatic.get(`graphic\n${frame.attributes['draw:style-name']}`)!
    expect(made.reading.cascade.scope('content.xml').common.get(`graphic\n${style.parentName}`)!.graphic).toMatchObject(
      { 'fo:padding': '6pt', 'draw:fill': 'solid', 'draw:fill-color': '#ffeecc' },
    )
    expect(style.graphic['fo:padding']).toBeUndefined()
  })

  it('is taken from an example', () => {
    const open = session(sailingGuide())
    const heading = open.reading.stories.flatMap(story => paragraphsOf(story.blocks)).find(each => each.heading === 1)!
    const { after, plan: made } = plan(open, {
      type: 'start-like',
      kind: 'frame',
      part: heading.part,
      node: heading.node,
      offset: 0,
    })
    expect(made.title).toBe('Set what new text frames begin with, by example')
    expect(madeObject(after, 'frame').look.slice(0, 3)).toEqual(['Jost Medium', 25, '#1b2430'])
  })

  it('can be set again: text that began so keeps it', () => {
    const first = madeObject(plan(plainText(), start('cell')).after, 'cell').after
    const { after } = plan(first, { type: 'start', kind: 'cell', values: { text: { 'fo:font-size': '7pt' } } })
    expect(looks(after)).toEqual(looks(first))
    expect(madeObject(after, 'cell').look.slice(0, 2)).toEqual(['Literata', 7])
    const unused = plan(plan(plainText(), start('cell')).after, {
      type: 'start',
      kind: 'cell',
      values: { text: { 'fo:font-size': '7pt' } },
    }).after
    expect(
      [...unused.reading.cascade.scope('styles.xml').common.values()].filter(style =>
        style.displayName.startsWith('Table text'),
      ).length,
    ).toBe(1)
  })

  it('refuses kinds that a document does not have', () => {
    expect(() => plan(session(seasonReview()), start('note'))).toThrow(/A presentation has no default for “Note text”/)
  })
})

describe('new objects', () => {
  const open = () => sessionOf({ body: '<text:p>one two</text:p><text:p>three</text:p>' })
  const first = (of: DocumentSession) => paragraphsOf(of.reading.stories[0]!.blocks)[0]!.node
  it('numbers notes anew and keeps their text', () => {
    const one = edit(open(), {
      type: 'add-note',
      part: 'content.xml',
      node: first(open()),
      at: 7,
      endnote: false,
    }).after
    const two = edit(one, { type: 'add-note', part: 'content.xml', node: first(one), at: 3, endnote: false }).after
    const notes = two.reading.stories[0]!.blocks.flatMap(block =>
      block.kind === 'paragraph' ? block.inlines : [],
    ).flatMap(inline => (inline.kind === 'note' ? [inline.citation] : []))
    expect(notes).toEqual(['1', '2'])
    expect(two.composition.pages[0]!.fragments.length).toBeGreaterThan(0)
    const inNote = paragraphsOf(two.reading.stories[0]!.blocks).find(each => each.place === 'note')!
    expect(() =>
      edit(two, { type: 'add-note', part: 'content.xml', node: inNote.node, at: 0, endnote: false }),
    ).toThrow(/no notes of its own/)
  })
  it('makes tables and headers once', () => {
    const table = edit(open(), {
      type: 'add-table',
      part: 'content.xml',
      node: first(open()),
      rows: 2,
      columns: 3,
    }).after
    expect(table.reading.stories[0]!.blocks.find(block => block.kind === 'table')).toMatchObject({
      columns: [{}, {}, {}],
      rows: [{}, {}],
    })
    const master = [...open().document.parts.get('styles.xml')!.descendants()].find(
      each => each.name === 'style:master-page',
    )!.id
    const header = edit(open(), { type: 'add-header', part: 'styles.xml', node: master, which: 'footer' }).after
    expect(header.reading.stories.some(story => story.role === 'footer')).toBe(true)
    expect(() => edit(header, { type: 'add-header', part: 'styles.xml', node: master, which: 'footer' })).toThrow(
      /has a footer already/,
    )
  })
})
