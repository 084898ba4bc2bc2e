import { describe, expect, it } from 'vitest'
import { NothingToPlan, PlanError } from '../../../core/change/plan'
import { changedLines } from '../../../core/change/effects'
import { proposeStyles } from '../../../core/change/draw-up/propose'
import { paragraphsOf } from '../../../core/document/stories'
import { saveDocument } from '../../../core/document/open'
import { applyAll } from '../../../core/document/apply'
import { type DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { displayPage } from '../../../core/typeset/display'
import { winterTariff } from '../../../demo/winter-tariff'
import {
  drawingOf,
  drawnPage,
  face,
  paragraphStyle,
  session as open,
  sessionOf,
  textStyle,
} from '../../support/fixtures'
import { planned, quickly, request } from '../../support/planning'

const drawUp = (more: object = {}) => ({ type: 'draw-up', ...more })
const paragraphs = (of: DocumentSession) => of.reading.stories.flatMap(story => paragraphsOf(story.blocks))
const named = (of: DocumentSession) =>
  paragraphs(of).map(each => {
    const { named: name } = of.reading.cascade.paragraph(each)
    return [...of.reading.cascade.scopes.values()][0]!.common.get(`paragraph\n${name}`)?.displayName ?? ''
  })
const common = (of: DocumentSession, family: string) =>
  [...[...of.reading.cascade.scopes.values()][0]!.common.values()].filter(style => style.family === family)
/** Values of every character, whichever layers they come from. */
const looks = (of: DocumentSession) =>
  paragraphs(of).flatMap(each =>
    paragraphRuns(each, of.reading.cascade).runs.flatMap(run => {
      const { slots, shared } = run.style.effective
      const { size, weight, posture, font } = slots[run.slot]
      return [...Array(run.end - run.start)].map(() => [size, weight, posture, font.family, shared['fo:color']].join())
    }),
  )

const long =
  'Two boats a day sail to every pier of the outer islands while the thaw lasts, and none in the dark weeks. '
const byHand = () =>
  sessionOf({
    styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"'),
    automatic:
      paragraphStyle('P1', 'fo:font-size="20pt" fo:font-weight="bold"', '', ' style:parent-style-name="Standard"') +
      paragraphStyle(
        'P2',
        'fo:font-size="11pt"',
        'fo:text-indent="5mm" fo:margin-bottom="2mm"',
        ' style:parent-style-name="Standard"',
      ) +
      paragraphStyle(
        'P3',
        'fo:font-size="11pt"',
        'fo:text-indent="9mm" fo:margin-bottom="2mm"',
        ' style:parent-style-name="Standard"',
      ) +
      paragraphStyle('P4', 'fo:font-size="14pt" fo:font-weight="bold"', '', ' style:parent-style-name="Standard"') +
      textStyle('T1', 'fo:font-style="italic"') +
      textStyle('T2', 'fo:font-size="11pt" fo:font-style="italic"') +
      textStyle('T3', 'fo:font-size="14pt" fo:font-weight="bold"'),
    body:
      '<text:p text:style-name="P1">Winter tariff</text:p>' +
      ['Fares', 'Freight', 'Dogs']
        .map(
          title =>
            `<text:p text:style-name="P4">${title}</text:p>` +
            `<text:p text:style-name="P2">${long}<text:span text:style-name="T1">Skerry</text:span> ` +
            `and <text:span text:style-name="T2">Holm</text:span>.</text:p>` +
            `<text:p text:style-name="P2">${long}</text:p><text:p text:style-name="P3">${long}</text:p>`,
        )
        .join('') +
      `<text:p text:style-name="Standard"><text:span text:style-name="T3">Bicycles</text:span></text:p><text:p ` +
      `text:style-name="P2">${long}</text:p>`,
  })

describe('the language of text', () => {
  it('goes with it into styles of its own, where it is said, and is said nowhere else', () => {
    const parent = ' style:parent-style-name="Standard"'
    const before = sessionOf({
      styles: paragraphStyle(
        'Standard',
        'fo:font-family="Spectral" fo:font-size="10pt" fo:language="en" fo:country="GB"',
      ),
      automatic:
        paragraphStyle('P1', 'fo:font-size="11pt"', '', parent) +
        paragraphStyle('P2', 'fo:font-size="11pt" fo:language="fr" fo:country="FR"', '', parent),
      body: ['P1', 'P2', 'P1', 'P2'].map(style => `<text:p text:style-name="${style}">${long}</text:p>`).join(''),
    })
    const { after } = quickly(before, drawUp())
    const languages = (of: DocumentSession) =>
      paragraphs(of).map(each => {
        const [run] = paragraphRuns(each, of.reading.cascade).runs
        return run!.style.effective.slots[run!.slot].language
      })
    expect(languages(after)).toEqual(['en-GB', 'fr-FR', 'en-GB', 'fr-FR'])
    const made = new Set(named(after))
    expect(made.size).toBe(2)
    const saying = common(after, 'paragraph').filter(style => style.text['fo:language'] === 'fr')
    expect(saying).toHaveLength(1)
  })
})

describe('drawing up', () => {
  it('makes a style of every voice, named by what it is for, and leaves the text as it looks', () => {
    const before = byHand()
    const { plan, after } = quickly(before, drawUp())
    expect(before.detail.census.settled).toBe(0)
    expect(after.detail.census.settled).toBe(1)
    expect(named(after).slice(0, 5)).toEqual(['Title', 'Heading 1', 'Body', 'Body', 'Body'])
    expect(plan.made.map(each => each.displayName).sort()).toEqual(['Body', 'Emphasis', 'Heading 1', 'Title'])
    expect(looks(after)).toEqual(looks(before))
    expect(changedLines(before.composition, after.composition)).toBe(0)
  })

  it('says what most paragraphs of a voice have in its style, and leaves what varies where it is', () => {
    const { after } = quickly(byHand(), drawUp())
    const body = common(after, 'paragraph').find(style => style.displayName === 'Body')!
    expect(body.paragraph).toMatchObject({ 'fo:text-indent': '5mm', 'fo:margin-bottom': '2mm' })
    const [, , first, , third] = paragraphs(after)
    expect(first!.styleName).toBe('Body')
    const local = after.reading.cascade.scope('content.xml').automatic.get(`paragraph\n${third!.styleName}`)!
    expect(local.paragraph).toEqual({ 'fo:text-indent': '9mm' })
    expect(local.parentName).toBe('Body')
  })

  it('tells voices of one purpose apart by how they are aligned, before their colours', () => {
    const aligned = (name: string, align: string) =>
      paragraphStyle(
        name,
        `fo:color="#00000${name.at(-1)}"`,
        `fo:text-align="${align}"`,
        ' style:parent-style-name="Standard"',
      )
    const of = sessionOf({
      styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"'),
      automatic: aligned('P1', 'start') + aligned('P2', 'justify') + aligned('P3', 'center') + aligned('P4', 'end'),
      body: ['P1', 'P1', 'P1', 'P1', 'P2', 'P2', 'P2', 'P3', 'P3', 'P4']
        .map(style => `<text:p text:style-name="${style}">${long.repeat(3)}</text:p>`)
        .join(''),
    })
    const names = named(quickly(of, drawUp()).after)
    expect([names[0], names[4], names[7], names[9]]).toEqual([
      'Body',
      'Body, justified',
      'Body, centred',
      'Body, set right',
    ])
  })

  it('takes words that depart alike into one character style, whatever they say that is so already', () => {
    const { after } = quickly(byHand(), drawUp())
    const [emphasis] = common(after, 'text')
    expect(emphasis!.text).toMatchObject({ 'fo:font-style': 'italic' })
    expect(emphasis!.text['fo:font-size']).toBeUndefined()
    const spans = paragraphs(after)[2]!.inlines.flatMap(each =>
      'span' in each && each.span ? [each.span.styleName] : [],
    )
    expect(spans).toEqual(['Emphasis', 'Emphasis'])
  })

  it('lets a line that was marked as a whole be a paragraph of its voice, and a heading where it looks like one', () => {
    const { after } = quickly(byHand(), drawUp())
    const bicycles = paragraphs(after).at(-2)!
    expect(bicycles.styleName).toBe('Heading_20_1')
    expect(bicycles.heading).toBe(1)
    expect(bicycles.inlines.every(each => !('span' in each) || each.span === null)).toBe(true)
    const { after: plain } = quickly(byHand(), drawUp({ headings: 'none' }))
    expect(paragraphs(plain).every(each => each.heading === null)).toBe(true)
  })

  it('keeps the roles of what it made, and proposes nothing a second time', () => {
    const { after } = quickly(byHand(), drawUp())
    const { rules } = after.reading.cascade
    const roles = rules.styles.map(({ style, role }) => `${style.name} ${role}`)
    expect(roles.sort()).toEqual(['Body body', 'Heading_20_1 heading', 'Title display'])
    expect(() => quickly(after, drawUp())).toThrow(NothingToPlan)
  })

  it('gives the bytes back when it is undone', () => {
    const before = byHand()
    const bytes = saveDocument(before.document)
    const { operations } = quickly(before, drawUp()).plan
    const applied = applyAll(before.document, operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(bytes)
  })

  it('folds twins within the tolerance, and lists the lines that change', () => {
    const near = (size: string) =>
      paragraphStyle(`P${size}`, `fo:font-size="${size}pt"`, '', ' style:parent-style-name="Standard"')
    const session = () =>
      sessionOf({
        styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="9pt"'),
        automatic: ['10', '10.4', '12'].map(near).join(''),
        body: ['10', '10', '10.4', '12']
          .map(size => `<text:p text:style-name="P${size}">${long.repeat(3)}</text:p>`)
          .join(''),
      })
    expect(quickly(session(), drawUp()).plan.made).toHaveLength(3)
    const { plan, after } = planned(session(), [drawUp({ tolerance: 0.5 })])
    expect(plan.made).toHaveLength(2)
    expect(
      new Set(
        paragraphs(after)
          .slice(0, 3)
          .map(each => each.styleName),
      ).size,
    ).toBe(1)
    expect(plan.effects!.linesAfter).toBeLessThanOrEqual(plan.effects!.linesBefore)
  })

  it('takes a named style that says how text looks already, rather than a twin of it', () => {
    const session = sessionOf({
      styles:
        paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="9pt"') +
        paragraphStyle('Aside', 'fo:font-size="8pt" fo:color="#225588"', '', ' style:parent-style-name="Standard"'),
      automatic: paragraphStyle(
        'P1',
        'fo:font-size="8pt" fo:color="#225588"',
        'fo:margin-left="1cm"',
        ' style:parent-style-name="Standard"',
      ),
      body: `<text:p text:style-name="Aside">${long}</text:p><text:p text:style-name="P1">${long}</text:p>`,
    })
    const { plan, after } = quickly(session, drawUp())
    expect(plan.made).toEqual([])
    expect(named(after)).toEqual(['Aside', 'Aside'])
    expect(after.reading.cascade.paragraph(paragraphs(after)[1]!).properties['fo:margin-left']).toBe('1cm')
  })

  it('has voices that differ by just so much as one, and no others', () => {
    const sizes = (size: string, tolerance: number) => {
      const before = sessionOf({
        styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"'),
        automatic: ['9pt', size]
          .map((each, at) =>
            paragraphStyle(`P${at}`, `fo:font-size="${each}"`, '', ' style:parent-style-name="Standard"'),
          )
          .join(''),
        body: '<text:p text:style-name="P0">Kelda and Rona</text:p><text:p text:style-name="P1">Skerry</text:p>',
      })
      return proposeStyles(before.reading, { tolerance, choices: [], dropped: () => false }).paragraphs.length
    }
    expect([sizes('9.25pt', 0.25), sizes('9.26pt', 0.25), sizes('9.5pt', 0.25)]).toEqual([1, 2, 2])
    expect([sizes('9.26pt', 0.5), sizes('10pt', 1), sizes('9.001pt', 0)]).toEqual([1, 1, 2])
  })

  it('lets much text in one face go with a little in another: all is in the other face then', () => {
    const before = sessionOf({
      styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"'),
      automatic: ['Jost', 'Literata']
        .map(face => paragraphStyle(face, `fo:font-family="${face}"`, '', ' style:parent-style-name="Standard"'))
        .join(''),
      body:
        `<text:p text:style-name="Jost">${'Boats sail by the tide. '.repeat(9)}</text:p>` +
        '<text:p text:style-name="Literata">Kelda</text:p>',
    })
    const proposal = proposeStyles(before.reading, { tolerance: 0, choices: [], dropped: () => false })
    const [much, little] = ['Boats', 'Kelda'].map(
      word => proposal.paragraphs.find(each => each.members[0]!.text.startsWith(word))!.voice,
    )
    const into = { kind: 'voice', voice: little }
    const { after } = quickly(before, drawUp({ choices: [{ voice: much, family: 'paragraph', into }] }))
    expect(after.detail.census.faces.map(each => each.family)).toEqual(['Literata'])
  })

  it('is chosen by hand: a name, a role, another voice, a named style, and what is left out', () => {
    const before = byHand()
    const proposal = proposeStyles(before.reading, { tolerance: 0, choices: [], dropped: () => false })
    const voice = (name: string) => proposal.paragraphs.find(each => each.displayName === name)!.voice
    const { after } = quickly(
      byHand(),
      drawUp({
        choices: [
          { voice: voice('Body'), family: 'paragraph', name: 'Running text', role: 'note' },
          { voice: voice('Title'), family: 'paragraph', into: { kind: 'voice', voice: voice('Heading 1') } },
        ],
      }),
    )
    expect(named(after).slice(0, 3)).toEqual(['Heading 1', 'Heading 1', 'Running text'])
    expect(after.reading.cascade.rules.styles).toContainEqual({
      style: { family: 'paragraph', name: 'Running_20_text' },
      role: 'note',
    })
    const left = planned(byHand(), [drawUp()], [{ what: 'drawn style', family: 'paragraph', voice: voice('Title') }], {
      effects: false,
    })
    expect(named(left.after).slice(0, 2)).toEqual(['Standard', 'Heading 1'])
    expect(left.plan.rows.find(row => row.title === 'Title')).toMatchObject({ included: false })
    const taken = quickly(
      byHand(),
      drawUp({ choices: [{ voice: voice('Title'), family: 'paragraph', into: { kind: 'style', name: 'Standard' } }] }),
    )
    expect(paragraphs(taken.after)[0]!.styleName).toBe('Standard')
  })

  it('tells fonts of one family with other features apart, and declares them where styles stand', () => {
    const session = sessionOf({
      faces: face('Plain', 'Spectral') + face('Old', "'Spectral:onum'"),
      automatic: paragraphStyle('P1', 'style:font-name="Plain"') + paragraphStyle('P2', 'style:font-name="Old"'),
      body: `<text:p text:style-name="P1">${long}</text:p><text:p text:style-name="P2">${long}</text:p>`,
    })
    const { after } = quickly(session, drawUp())
    const features = paragraphs(after).map(
      each => after.reading.cascade.paragraph(each).text.effective.slots.western.font.features,
    )
    expect(features).toEqual(['', 'onum'])
    expect(after.detail.census.settled).toBe(1)
  })

  it('keeps empty lines as high as the spans that stand empty in them say', () => {
    const before = sessionOf({
      styles: paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"'),
      automatic:
        paragraphStyle('P1', 'fo:font-size="11pt"', '', ' style:parent-style-name="Standard"') +
        textStyle('T1', 'fo:font-size="31pt"'),
      body:
        `<text:p text:style-name="P1">${long}</text:p>` +
        '<text:p text:style-name="P1"><text:span text:style-name="T1"/></text:p>' +
        `<text:p text:style-name="P1">${long}</text:p>`,
    })
    const tops = (of: DocumentSession) =>
      displayPage(of.composition.pages[0]!).lines.map(line => Math.round(line.y * 100))
    const { after } = quickly(before, drawUp())
    expect(tops(after)).toEqual(tops(before))
    expect(common(after, 'paragraph').some(style => style.text['fo:font-size'] === '11pt')).toBe(true)
  })

  it('keeps the lists that named styles bring, apart from text that looks the same', () => {
    const before = sessionOf({
      styles:
        paragraphStyle('Standard', 'fo:font-family="Spectral" fo:font-size="10pt"') +
        paragraphStyle('Item', '', '', ' style:parent-style-name="Standard" style:list-style-name="L"') +
        '<text:list-style style:name="L"><text:list-level-style-bullet text:level="1" text:bullet-char="•"/></text:list-style>',
      automatic: ['Standard', 'Item']
        .map((parent, at) =>
          paragraphStyle(`P${at}`, 'fo:font-size="11pt"', '', ` style:parent-style-name="${parent}"`),
        )
        .join(''),
      body:
        `<text:p text:style-name="P0">${long}</text:p>` +
        `<text:list><text:list-item><text:p text:style-name="P1">${long}</text:p></text:list-item></text:list>`,
    })
    const { after } = quickly(before, drawUp())
    const labels = (of: DocumentSession) =>
      displayPage(of.composition.pages[0]!).runs.filter(run => run.text === '•').length
    expect([labels(before), labels(after)]).toEqual([1, 1])
    expect(new Set(named(after)).size).toBe(2)
  })

  it('keeps white space that nobody sees by hand rather than making a style of it', () => {
    const session = sessionOf({
      automatic: textStyle('T1', 'fo:font-family="Oswald"'),
      body: `<text:p>One<text:span text:style-name="T1"> </text:span>two ${long}</text:p>`,
    })
    const { plan, after } = quickly(session, drawUp({ sweep: true }))
    expect(plan.made).toEqual([])
    expect(looks(after)).toEqual(looks(session))
  })

  it('sweeps out styles that nothing goes by any more, and keeps those that rules name', () => {
    const session = byHand()
    const { after, plan } = quickly(session, drawUp({ sweep: true }))
    expect(plan.rows.filter(row => row.stage === 'sweep')).toEqual([])
    const spare = sessionOf({
      styles:
        paragraphStyle('Standard') +
        paragraphStyle('Spare') +
        paragraphStyle('Child', '', '', ' style:parent-style-name="Spare"'),
    })
    expect(common(quickly(spare, drawUp({ sweep: true })).after, 'paragraph').map(each => each.name)).toEqual([
      'Standard',
    ])
    expect(common(after, 'paragraph').map(each => each.name)).toContain('Standard')
  })

  it('refuses decks with a reason, and is asked of many documents only where it applies', () => {
    expect(() => quickly(drawingOf({ pages: drawnPage('') }), drawUp())).toThrow(PlanError)
    expect(request([drawUp()]).wishes).toHaveLength(1)
  })

  it('draws the demo’s leaflet up, formatted by hand from end to end, without moving a line', () => {
    const before = open(winterTariff())
    const { plan, after } = planned(before, [drawUp()])
    expect(before.detail.census.settled).toBe(0)
    expect(after.detail.census.settled).toBeGreaterThan(0.99)
    expect(changedLines(before.composition, after.composition)).toBe(0)
    expect(plan.effects).toMatchObject({ pagesBefore: 2, pagesAfter: 2, paragraphsChanged: 0 })
    expect(plan.made.map(each => each.displayName).sort()).toEqual(
      'Body|Body, large|Caption|Emphasis|Heading 1|Heading 2|Intro|Strong|Strong, Highlight|Table head|Table text|Title'.split(
        '|',
      ),
    )
    const { plan: folded } = planned(open(winterTariff()), [drawUp({ tolerance: 0.5 })])
    expect(folded.made.length).toBeLessThan(plan.made.length)
  })
})
