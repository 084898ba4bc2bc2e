import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import type { Operation } from '../../../core/document/operations'
import { DocumentSession } from '../../../core/session'
import { displayPage } from '../../../core/typeset/display'
import { Typesetter } from '../../../core/typeset/look'
import { paragraphStyle, makeOdt, smallPage, standardMaster, typesetter, face } from '../../support/fixtures'

const words = ['sea', 'harbour', 'light', 'morning', 'a', 'ferries', 'of', 'the', 'outer', 'islands']
const text = (seed: number, length: number) =>
  Array.from({ length }, (_, at) => words[(seed * 7 + at * 3) % words.length]).join(' ')

function document(lengths: readonly number[]): Uint8Array {
  const note =
    '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>' +
    '<text:note-body><text:p>a note of some length, at the foot</text:p>' +
    '</text:note-body></text:note>'
  return makeOdt({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="12pt"/></style:default-style>',
    automatic:
      paragraphStyle('J', '', 'fo:text-align="justify" fo:widows="2" fo:orphans="2"') +
      paragraphStyle('H', 'fo:font-size="16pt"', 'fo:keep-with-next="always"') +
      paragraphStyle('N', '', 'fo:break-before="page"'),
    stylesAutomatic: smallPage,
    masters: standardMaster(
      '<style:footer><text:p>page <text:page-number>1</text:page-number> of <text:page-count>1</text:page-count></text:p></style:footer>',
    ),
    body: lengths
      .map((length, at) =>
        at % 9 === 4
          ? `<text:h text:style-name="H" text:outline-level="1">Heading ${at}</text:h>`
          : at % 11 === 10
            ? `<table:table><table:table-column table:number-columns-repeated="2"/><table:table-row>` +
              `<table:table-cell><text:p>${text(at, length)}</text:p></table:table-cell><table:table-cell>` +
              `<text:p>cell</text:p></table:table-cell></table:table-row></table:table>`
            : `<text:p text:style-name="${at % 13 === 12 ? 'N' : 'J'}">${text(at, length)}${at % 7 === 3 ? note : ''} end.</text:p>`,
      )
      .join(''),
  })
}

/** Text nodes of the body, in order. */
function textNodes(session: DocumentSession): { node: number; text: string }[] {
  const part = session.document.parts.get('content.xml')!
  return [...part.descendants()].flatMap(element =>
    element.children
      .map(id => part.node(id))
      .flatMap(node => (node.kind === 'text' && node.text.trim() !== '' ? [{ node: node.id, text: node.text }] : [])),
  )
}
const shown = (session: DocumentSession) => session.composition.pages.map(page => displayPage(page))
const typed = (node: number, text: string): Operation => ({
  type: 'restore-text',
  part: 'content.xml',
  node,
  text,
  markup: text,
})

describe('composing after a change of the text', () => {
  it('gives the pages that composing from nothing gives: a property', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 5, maxLength: 40 }),
        fc.array(fc.tuple(fc.nat(1000), fc.integer({ min: 0, max: 90 })), { minLength: 1, maxLength: 3 }),
        (lengths, edits) => {
          let session = DocumentSession.open(document(lengths), typesetter)
          void session.composition
          for (const [which, length] of edits) {
            const nodes = textNodes(session)
            const { node } = nodes[which % nodes.length]!
            session = new DocumentSession(
              applyAll(session.document, [typed(node, length === 0 ? 'x' : text(which, length))]).document,
              typesetter,
              session,
            )
            const fresh = new DocumentSession(session.document, new Typesetter(typesetter.library, typesetter.shaper))
            const plain = (pages: ReturnType<typeof shown>) =>
              JSON.stringify(pages, (key, value) => (key === 'style' ? undefined : value))
            const [kept, made] = [shown(session), shown(fresh)]
            expect(kept.length).toBe(made.length)
            kept.forEach((page, at) => {
              expect(JSON.parse(plain([page]))).toEqual(JSON.parse(plain([made[at]!])))
            })
            expect(session.composition.unlaid).toEqual(fresh.composition.unlaid)
          }
        },
      ),
      { numRuns: 25 },
    )
  })

  it('keeps the pages before and after it', () => {
    const session = DocumentSession.open(document(Array.from({ length: 120 }, () => 30)), typesetter)
    const before = session.composition.pages
    expect(before.length).toBeGreaterThan(15)
    const middle = before[7]!.fragments.find(
      fragment => fragment.kind === 'lines' && fragment.layout.paragraph.inlines.length === 1 && fragment.from === 0,
    )
    const node =
      middle?.kind === 'lines' && middle.layout.paragraph.inlines[0]?.kind === 'text'
        ? middle.layout.paragraph.inlines[0]
        : null
    const after = new DocumentSession(
      applyAll(session.document, [typed(node!.node, node!.text.replace('harbour', 'harbours'))]).document,
      typesetter,
      session,
    )
    const fragments = (page: (typeof before)[number]) =>
      page.fragments
        .filter(fragment => fragment.kind === 'lines' && fragment.layout.role === 'body')
        .map(fragment => (fragment.kind === 'lines' ? fragment.layout : null))
    const now = after.composition.pages
    expect(now.length).toBe(before.length)
    // The very same layouts: nothing there was set again.
    expect(fragments(now[2]!).every((layout, at) => layout === fragments(before[2]!)[at])).toBe(true)
    expect(fragments(now.at(-1)!).every((layout, at) => layout === fragments(before.at(-1)!)[at])).toBe(true)
    expect(after.reading.cascade.sharesStyles(session.reading.cascade)).toBe(true)
  })

  it('shows the page that is looked at before the rest is set', () => {
    const session = DocumentSession.open(document(Array.from({ length: 120 }, () => 30)), typesetter)
    const first = session.page(0)!
    expect(displayPage(first).runs.length).toBeGreaterThan(5)
    expect(
      displayPage(first)
        .runs.filter(run => !/^(page|of|[0-9]+)/.test(run.text))
        .map(run => run.text),
    ).toEqual(
      displayPage(session.composition.pages[0]!)
        .runs.filter(run => !/^(page|of|[0-9]+)/.test(run.text))
        .map(run => run.text),
    )
    expect(session.page(10_000)).toBeNull()
  })
})
