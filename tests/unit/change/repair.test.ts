import { describe, expect, it } from 'vitest'
import { registry } from '../../../core/change/registry'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { paragraphStyle, sessionOf } from '../../support/fixtures'
import { planned, quickly, request } from '../../support/planning'

const textBox = (name: string, words: string) =>
  `<text:p><draw:frame draw:name="${name}" text:anchor-type="paragraph" svg:x="0cm" svg:y="0cm" svg:width="4cm" ` +
  `svg:height="1cm"><draw:text-box>${words}</draw:text-box></draw:frame></text:p>`
const first = (of: DocumentSession) => {
  const story = of.reading.stories.find(each => each.role === 'body')!
  const [paragraph] = paragraphsOf(story.blocks)
  const { cascade } = of.reading
  return { paragraph: paragraph!, style: cascade.paragraph(paragraph!, story.role).text, cascade, story }
}
const of = (text: string, paragraph: string) =>
  sessionOf({
    body: '<text:p text:style-name="P">The launch goes out before the mail is sorted</text:p>',
    styles: paragraphStyle('P', text, paragraph),
  })
const repaired = (from: DocumentSession, kind: string, amount: number) => {
  const { paragraph } = first(from)
  return quickly(from, { type: 'repair', repair: { kind, part: paragraph.part, node: paragraph.node, amount } })
}

describe('repairs', () => {
  it('set leading in the terms it was set in', () => {
    const leading = (from: DocumentSession) => first(from).style.effective.leading['fo:line-height']
    expect(leading(repaired(of('', 'fo:line-height="14pt"'), 'leading', 95).after)).toBe('13.3pt')
    expect(leading(repaired(of('', 'fo:line-height="120%"'), 'leading', 95).after)).toBe('114%')
    expect(leading(repaired(of('', ''), 'leading', 95).after)).toBe('95%')
  })

  it('add tracking to what is there, in thousandths of the size, and take a share of the size', () => {
    const run = (from: DocumentSession) => {
      const { paragraph, cascade, story } = first(from)
      return paragraphRuns(paragraph, cascade, story.role).runs[0]!.style.effective
    }
    const from = of('fo:font-size="10pt" fo:letter-spacing="0.5pt"', '')
    expect(run(repaired(from, 'tracking', -20).after).shared['fo:letter-spacing']).toBe('0.3pt')
    expect(run(repaired(from, 'tracking', 20).after).shared['fo:letter-spacing']).toBe('0.7pt')
    expect(run(repaired(from, 'size', 92).after).slots.western.size).toBeCloseTo(9.2, 6)
  })

  it('say what they do, and to what', () => {
    const said = (kind: string, amount: number) =>
      registry.sentences(request([{ type: 'repair', repair: { kind, part: 'content.xml', node: 1, amount } }]))[0]
    expect(said('height', 12)).toBe('Repair a frame by height +12 pt.')
    expect(said('tracking', -15)).toBe('Repair a place by tracking −15.')
    expect(said('leading', 95)).toBe('Repair a place by leading 95 %.')
  })

  it('of places that are gone are told, and change nothing', () => {
    const gone = quickly(of('', ''), {
      type: 'repair',
      repair: { kind: 'size', part: 'content.xml', node: 99_999, amount: 90 },
    })
    expect(gone.plan.left).toEqual([{ what: 'a repair', reason: 'its place is no longer in the document', count: 1 }])
    expect(gone.plan.operations).toEqual([])
  })
})

describe('what a plan does to frames that run over', () => {
  it('is told with the lines that each of them had over before', () => {
    const lines = (count: number, style = 'P') =>
      Array.from({ length: count }, (_, at) => `<text:p text:style-name="${style}">Line ${at}</text:p>`).join('')
    const before = sessionOf({
      body: textBox('One', lines(6)) + textBox('Two', lines(3, 'Q')),
      styles:
        paragraphStyle('P', 'fo:font-size="10pt"', 'fo:line-height="12pt"') +
        paragraphStyle('Q', 'fo:font-size="10pt"', 'fo:line-height="12pt"'),
    })
    const { overset } = before.composition
    expect(overset.map(each => each.name)).toEqual(['One', 'Two'])
    const { plan } = planned(before, [
      { type: 'edit', family: 'paragraph', name: 'Q', changes: { paragraph: { 'fo:line-height': '40pt' } } },
    ])
    const told = new Map(plan.effects!.overset.map(each => [each.name, [each.linesBefore, each.lines]]))
    expect(told.get('One')).toEqual([overset[0]!.lines, overset[0]!.lines])
    expect(told.get('Two')![0]).toBe(overset[1]!.lines)
    expect(told.get('Two')![1]).toBeGreaterThan(overset[1]!.lines)
  })
})
