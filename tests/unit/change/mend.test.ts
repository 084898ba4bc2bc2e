import { describe, expect, it } from 'vitest'
import { PlanError } from '../../../core/change/plan'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { readRules } from '../../../core/document/rules'
import { paragraphsOf } from '../../../core/document/stories'
import type { Paragraph } from '../../../core/document/story-model'
import type { DocumentSession } from '../../../core/session'
import { paragraphText } from '../../../core/style/runs'
import { makeOdt, paragraphStyle, session } from '../../support/fixtures'
import { numbersFrom, shuffled } from '../../support/seeded'
import { quickly, request } from '../../support/planning'
import { registry } from '../../../core/change/registry'

const bytes = makeOdt({
  body:
    '<text:p text:style-name="Standard">one  two "three" four</text:p><text:p text:style-name="Standard"/>' +
    '<text:p text:style-name="Standard">Boats</text:p>',
  styles: `<style:style style:name="Standard" style:family="paragraph"/>${paragraphStyle('Head', 'fo:font-size="15pt"')}`,
})
const paragraphs = (of: DocumentSession) => of.reading.stories.flatMap(story => paragraphsOf(story.blocks))
const words = (of: DocumentSession) => paragraphs(of).map(paragraphText)
const of = session(bytes)
const [first, empty, last] = [0, 1, 2].map(at => paragraphs(of)[at]!) as [Paragraph, Paragraph, Paragraph]
const at = (node: number, from: number, before: string, after: string) => ({
  kind: 'words',
  part: 'content.xml',
  node,
  from,
  to: from + before.length,
  before,
  after,
})

describe('places that are put right', () => {
  it('may be many in one paragraph, and undoing gives the bytes', () => {
    const { plan, after } = quickly(of, {
      type: 'mend',
      places: [
        at(first.node, 8, '"', '“'),
        at(first.node, 14, '"', '”'),
        at(first.node, 0, 'one', 'ONE'),
        { kind: 'empty', part: 'content.xml', node: empty.node },
        { kind: 'level', part: 'content.xml', node: last.node, level: 2, style: 'Head' },
      ],
    })
    expect(words(after)).toEqual(['ONE two “three” four', 'Boats'])
    const heading = paragraphs(after).at(-1)!
    expect([heading.heading, heading.styleName]).toEqual([2, 'Head'])
    expect(plan.title).toBe('Put 5 places right')
    expect(plan.rows.map(row => row.after)).toContain('heading of level 2')
    const { document, inverse } = applyAll(of.document, plan.operations)
    expect(Buffer.from(saveDocument(applyAll(document, inverse).document))).toEqual(Buffer.from(bytes))
  })

  it('may be many in many paragraphs, in whatever order they come: every word lands where it belongs', () => {
    const random = numbersFrom(3)
    const texts = Array.from({ length: 40 }, (_, at) =>
      Array.from({ length: 3 + Math.floor(random() * 12) }, (_each, word) => `w${at}x${word}`).join('_'),
    )
    const many = session(makeOdt({ body: texts.map(text => `<text:p>${text}</text:p>`).join('') }))
    const places = paragraphs(many).flatMap(paragraph =>
      [...paragraphText(paragraph).matchAll(/_/g)].map(({ index }) => at(paragraph.node, index, '_', ' and ')),
    )
    const { after, plan } = quickly(many, { type: 'mend', places: shuffled(places, random) })
    expect(words(after)).toEqual(texts.map(text => text.replaceAll('_', ' and ')))
    expect([plan.rows.length, plan.left]).toEqual([places.length, []])
  })

  it('are left out one by one', () => {
    const wish = { type: 'mend', places: [at(first.node, 8, '"', '“'), at(first.node, 14, '"', '”')] }
    const [row] = quickly(of, wish).plan.rows
    const { plan, after } = registry.plan(of, request([wish], [row!.key]), { effects: false })
    expect(words(after)[0]).toBe('one two "three” four')
    expect(plan.rows.map(each => each.included)).toEqual([false, true])
  })

  it('are not touched where their words have changed, where they overlap, or where they are gone', () => {
    const { plan, after } = quickly(of, {
      type: 'mend',
      places: [
        at(first.node, 0, 'two', 'TWO'),
        at(first.node, 4, 'two', '2'),
        at(first.node, 5, 'wo', 'x'),
        at(99_999, 0, 'a', 'b'),
      ],
    })
    expect(words(after)[0]).toBe('one 2 "three" four')
    expect(plan.left).toEqual([
      { what: 'a place that was to be put right', reason: 'its words have changed since', count: 1 },
      { what: 'a place that was to be put right', reason: 'no longer in the document', count: 1 },
      { what: 'places that overlap', reason: 'found again when these are done', count: 1 },
    ])
  })

  it('refuse a style that is not there, and an empty paragraph that is not empty', () => {
    const mend = (place: object) => () => quickly(of, { type: 'mend', places: [{ part: 'content.xml', ...place }] })
    expect(mend({ kind: 'level', node: last.node, level: 1, style: 'Nowhere' })).toThrow(PlanError)
    expect(mend({ kind: 'empty', node: last.node })().plan.left[0]!.reason).toBe(
      'it is no longer empty, or it is needed',
    )
  })
})

describe('text that the document works out by itself', () => {
  it('is left, and the other places are put right all the same', () => {
    const fields = session(
      makeOdt({
        body: '<text:p>He said "no" on <text:date text:fixed="true">"May"</text:date></text:p>',
        styles: '<style:style style:name="Standard" style:family="paragraph"/>',
      }),
    )
    const [paragraph] = paragraphs(fields)
    const text = paragraphText(paragraph!)
    const { plan, after } = quickly(fields, {
      type: 'mend',
      places: [...text.matchAll(/"/g)].map(({ index }) => at(paragraph!.node, index, '"', '”')),
    })
    expect(words(after)).toEqual(['He said ”no” on "May"'])
    expect(plan.rows.length).toBe(2)
    expect(plan.title).toBe('Put 2 places right')
    expect(plan.left).toMatchObject([{ reason: expect.stringContaining('a field') as string, count: 2 }])
  })
})

describe('findings that are accepted', () => {
  const key = { check: 'runt', says: '“to.” alone in the last line', text: 'to.', around: 'Where the boats go to.' }

  it.each(['check', 'says', 'text', 'around'] as const)('tells accepted findings apart by %s', field => {
    const one = { check: 'words.dashes', says: 'a hyphen', text: '-', around: 'a - b' }
    const other = { ...one, [field]: 'other' }
    const accept = (from: DocumentSession, findings: object[], reason: string) =>
      quickly(from, { type: 'accept', findings, reason }).after
    const both = accept(accept(of, [one], 'one'), [other], 'other')
    expect(readRules(both.document).accepted.map(each => each.reason)).toEqual(['one', 'other'])
    // The same one again has its new reason, and stands once.
    expect(readRules(accept(both, [one], 'now').document).accepted.map(each => each.reason)).toEqual(['other', 'now'])
    const { after } = quickly(both, { type: 'reopen', findings: [other] })
    expect(readRules(after.document).accepted).toMatchObject([{ ...one, reason: 'one' }])
  })

  it('are kept in the document with their reason, once, and can be told again', () => {
    const accept = (from: DocumentSession, reason: string) =>
      quickly(from, { type: 'accept', findings: [key], reason }).after
    const once = accept(of, 'It reads well')
    const twice = accept(once, 'The client wants it')
    expect(readRules(twice.document).accepted).toEqual([{ ...key, reason: 'The client wants it' }])
    const { plan, after } = quickly(twice, { type: 'reopen', findings: [key] })
    expect(readRules(after.document).accepted).toEqual([])
    expect(plan.rows.map(row => [row.before, row.after])).toEqual([
      ['accepted: The client wants it: “to.”', 'told again'],
    ])
    const changed = quickly(of, { type: 'accept', findings: [key], reason: 'so' }).plan
    const { document, inverse } = applyAll(of.document, changed.operations)
    expect(Buffer.from(saveDocument(applyAll(document, inverse).document))).toEqual(Buffer.from(bytes))
  })

  it('need a reason, and belong to one document', () => {
    expect(() => request([{ type: 'accept', findings: [key], reason: ' ' }])).toThrow()
    expect(registry.whyNotMany(request([{ type: 'accept', findings: [key], reason: 'so' }]))).toMatch(/one document/)
  })
})
