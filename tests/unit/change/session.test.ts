import { describe, expect, it } from 'vitest'
import { DocumentSession } from '../../../core/session'
import { saveDocument } from '../../../core/document/open'
import { hyphenPoints } from '../../../core/typeset/hyphenate'
import { displayPage } from '../../../core/typeset/display'
import { Typesetter } from '../../../core/typeset/look'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, makeOdt, paragraphStyle, session, textStyle, typesetter } from '../../support/fixtures'
import { planned, quickly, swap } from '../../support/planning'

const guide = sailingGuide()

describe('a session', () => {
  it('fetches what its languages need to divide words, where its styles divide any', async () => {
    const bytes = (hyphenate: boolean) =>
      makeOdt({
        styles:
          `<style:default-style style:family="paragraph"><style:text-properties fo:language="nl" ` +
          `fo:country="NL" fo:hyphenate="${hyphenate}"/></style:default-style>`,
      })
    await DocumentSession.start(bytes(false), typesetter)
    expect(hyphenPoints('veerboten', 'nl-NL')).toEqual([])
    await DocumentSession.start(bytes(true), typesetter)
    expect(hyphenPoints('veerboten', 'nl-NL').length).toBeGreaterThan(0)
  })

  it('shows a page before all are set, the same as afterwards', () => {
    const open = session(guide)
    const early = displayPage(open.page(4)!)
    expect(open.composition.pages).toHaveLength(24)
    expect(JSON.stringify(early)).toBe(JSON.stringify(displayPage(open.composition.pages[4]!)))
    expect(open.page(4)).toBe(open.composition.pages[4])
    expect(open.page(24)).toBeNull()
  })

  it('sets only what a swap reaches, and takes all else over', () => {
    const open = session(guide)
    const { after } = planned(open, [swap('Skerrow', 'Work Sans')])
    const layouts = (of: DocumentSession) =>
      of.composition.pages.flatMap(page =>
        page.fragments.flatMap(fragment => (fragment.kind === 'lines' ? [fragment.layout] : [])),
      )
    const before = new Set(layouts(open))
    const now = layouts(after)
    const kept = now.filter(layout => before.has(layout)).length
    expect(kept / now.length).toBeGreaterThan(0.7)
    const reached = now.filter(layout => layout.text.includes('Ice on the gangway'))
    expect(reached.length).toBeGreaterThan(0)
    expect(reached.every(layout => !before.has(layout))).toBe(true)
    expect(after.reading.stories[0]!.blocks.every((block, at) => block === open.reading.stories[0]!.blocks[at])).toBe(
      true,
    )
  })

  it('gives after a swap what opening the written file gives', () => {
    const { after } = planned(session(guide), [swap('Spectral', 'Literata')])
    const reopened = DocumentSession.open(
      saveDocument(after.document),
      new Typesetter(typesetter.library, typesetter.shaper),
    )
    const shown = (of: DocumentSession) =>
      JSON.stringify(of.composition.pages.map(displayPage), (key, value) =>
        key === 'style' || key === 'node' ? undefined : value,
      )
    expect(shown(after)).toBe(shown(reopened))
    expect(after.detail.census).toEqual(reopened.detail.census)
  })

  it('previews a swap page by page, with the same pages as its plan', () => {
    const open = session(guide)
    const preview = quickly(open, swap('Spectral', 'Literata')).after
    const { after } = planned(open, [swap('Spectral', 'Literata')])
    for (const index of [0, 7])
      expect(JSON.stringify(displayPage(preview.page(index)!))).toBe(JSON.stringify(displayPage(after.page(index)!)))
    expect(() => quickly(open, swap('Spectral', 'Nowhere'))).toThrow(/not in the library/)
  })

  it('sets everything anew when faces have come that were missing', () => {
    const open = session(
      makeOdt({
        faces: face('Spectral'),
        automatic: paragraphStyle('P', 'style:font-name="Spectral"'),
        body: '<text:p text:style-name="P">sea</text:p>',
      }),
    )
    const before = open.composition
    open.recompose()
    expect(open.composition).not.toBe(before)
    expect(JSON.stringify(displayPage(open.composition.pages[0]!).runs)).toBe(
      JSON.stringify(displayPage(before.pages[0]!).runs),
    )
  })

  it('tells what a swap does to lines and frames by setting both', () => {
    const open = session(
      makeOdt({
        faces: face('Spectral') + face('Jost'),
        automatic: paragraphStyle('P', 'style:font-name="Spectral"') + textStyle('T', 'style:font-name="Jost"'),
        body:
          `<text:p text:style-name="P"><draw:frame draw:name="F" text:anchor-type="paragraph" ` +
          `svg:width="4cm" svg:height="2.15cm"><draw:text-box><text:p text:style-name="P">${'sea harbour light '.repeat(3)}</text:p>` +
          `</draw:text-box></draw:frame>${'harbour light morning '.repeat(30)}</text:p><text:p>` +
          `<text:span text:style-name="T">untouched</text:span></text:p>`,
      }),
    )
    const { plan } = planned(open, [swap('Spectral', 'Courier Prime')])
    expect(plan.effects!.linesAfter).toBeGreaterThan(plan.effects!.linesBefore)
    expect(plan.effects!.paragraphs.some(paragraph => paragraph.opening.startsWith('untouched'))).toBe(false)
    expect(plan.effects!.overset).toMatchObject([{ name: 'F', linesBefore: 0 }])
    expect(plan.effects!.overset[0]!.lines).toBeGreaterThan(0)
  })
})
