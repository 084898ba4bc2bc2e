import { describe, expect, it } from 'vitest'
import { NothingToPlan } from '../../../core/change/plan'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { planned } from '../../support/planning'
import { numbersFrom } from '../../support/seeded'

const sweep = { type: 'settle', scope: { kind: 'document' }, groups: ['face', 'size', 'weight'], idleOnly: true }
const looks = (of: DocumentSession): string[] =>
  of.reading.stories.flatMap(story =>
    paragraphsOf(story.blocks).flatMap(paragraph => {
      const { text, runs } = paragraphRuns(paragraph, of.reading.cascade, story.role)
      return runs.flatMap(({ start, end, style }) => {
        const { size, weight } = style.effective.slots.western
        return [...text.slice(start, end)].map(letter => `${letter} ${size} ${weight}`)
      })
    }),
  )

describe('sweeping out what changes nothing', () => {
  const base = paragraphStyle('Base', 'fo:font-size="10pt"')
  const onBase = ' style:parent-style-name="Base"'
  const twice = () =>
    sessionOf({
      styles: base,
      automatic: paragraphStyle('P1', 'fo:font-size="12pt"', '', onBase) + textStyle('T1', 'fo:font-size="12pt"'),
      body: '<text:p text:style-name="P1"><text:span text:style-name="T1">all words</text:span></text:p>',
    })

  it('takes one of two styles that say the same of the same words, never both', () => {
    const before = twice()
    const { plan, after } = planned(before, [sweep], [], { effects: false })
    expect(looks(after)).toEqual(looks(before))
    expect(plan.rows.map(row => row.title)).toEqual(['Words set by hand'])
    // Where that one is left out, the other may go.
    const other = planned(before, [sweep], [plan.rows[0]!.key], { effects: false })
    expect(looks(other.after)).toEqual(looks(before))
    expect(other.plan.rows.filter(row => row.included).map(row => row.title)).toEqual(['Paragraphs of Base'])
  })

  it('changes no letter’s look, however formatting is nested and whatever is left out', () => {
    const random = numbersFrom(41)
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const values = () =>
      [`fo:font-size="${pick([10, 12])}pt"`, `fo:font-weight="${pick(['normal', 'bold'])}"`]
        .filter(() => random() < 0.7)
        .join(' ')
    let swept = 0
    for (let round = 0; round < 60; round++) {
      const spans = ['T1', 'T2', 'T3']
      const words = (depth: number): string =>
        depth === 0
          ? 'a'
          : random() < 0.6
            ? `<text:span text:style-name="${pick(spans)}">${words(depth - 1)}${random() < 0.3 ? 'b' : ''}</text:span>`
            : `c${words(depth - 1)}`
      const before = sessionOf({
        styles: base,
        automatic:
          ['P1', 'P2'].map(name => paragraphStyle(name, values(), '', onBase)).join('') +
          spans.map(name => textStyle(name, values())).join(''),
        body: ['P1', 'P2', 'P1'].map(name => `<text:p text:style-name="${name}">${words(3)}</text:p>`).join(''),
      })
      const all = quietly(before, [])
      if (!all) continue
      swept++
      expect(looks(all.after)).toEqual(looks(before))
      const left = all.plan.rows.map(row => row.key).filter(() => random() < 0.5)
      const some = quietly(before, left)
      if (some) expect(looks(some.after)).toEqual(looks(before))
    }
    expect(swept).toBeGreaterThan(30)
  })

  /** null where there is nothing to sweep. */
  function quietly(of: DocumentSession, left: Parameters<typeof planned>[2]) {
    try {
      return planned(of, [sweep], left, { effects: false })
    } catch (error) {
      if (error instanceof NothingToPlan) return null
      throw error
    }
  }
})
