import { describe, expect, it } from 'vitest'
import { registry, type Wish } from '../../../core/change/registry'
import { proofOf } from '../../../core/proof/proof'
import { repairWishes } from '../../../core/proof/repairs'
import { Subject } from '../../../core/proof/subject'
import { paragraphStyle } from '../../support/fixtures'
import { processorTime } from '../../support/processor-time'
import { request } from '../../support/planning'
import { p, textOf } from './proofing'

/* Texts that nobody would write: a proof of them ends soon, and what it gives is taken at the door. */

const heavy: readonly (readonly [string, string])[] = [
  ['one word of 200,000 letters', p('a'.repeat(200_000))],
  ['200,000 capitals', p('A'.repeat(200_000))],
  ['200,000 figures and stops', p('1.'.repeat(100_000))],
  ['200,000 hyphens', p('-'.repeat(200_000))],
  ['60,000 words of one letter', p('a '.repeat(60_000))],
  ['100,000 quotation marks', p('"'.repeat(100_000))],
  ['spaces by the thousand', p(`one<text:s text:c="100000"/>two`)],
  ['10,000 short paragraphs', Array.from({ length: 10_000 }, (_, at) => p(`No. ${at}`)).join('')],
]

describe('a proof of', () => {
  it.each(heavy)('%s takes seconds at most', (_, body) => {
    const of = textOf(body)
    void [of.composition, of.detail, of.absent, new Subject(of).texts]
    const spent = processorTime()
    proofOf(of)
    expect(spent()).toBeLessThan(6_000)
  })

  it('tags that are no languages says so, and does not stumble', () => {
    for (const language of ['xx_YY', 'q', '-', 'en-GB-oed-what']) {
      const of = textOf(p('Der Wind ist nicht zu stark, und das Boot legt um acht ab, wenn die See es zulässt.'), {
        language,
      })
      expect(() => proofOf(of)).not.toThrow()
    }
  })
})

describe('what puts very much right', () => {
  it('is a request that is taken, and the rest is found again', () => {
    const styles = Array.from({ length: 120 }, (_, at) =>
      paragraphStyle(`Small ${at}`, `fo:font-size="${4 + at / 100}pt"`),
    ).join('')
    const of = textOf(Array.from({ length: 120 }, (_, at) => p(`"Terms" of carriage ${at}`, `Small ${at}`)).join(''), {
      styles,
    })
    const { findings } = proofOf(of)
    const wishes = repairWishes(findings, of, registry)
    expect(wishes.filter(each => each.type === 'edit').length).toBe(50)
    const { after } = registry.plan(of, request(wishes), { effects: false })
    const left = proofOf(after).findings.filter(each => each.check === 'small-type').length
    expect(left).toBe(120 - 50)
  })

  it('says of one style what several checks ask of it in one wish', () => {
    const edit = (changes: object) =>
      registry.wishSchema.parse({ type: 'edit', family: 'paragraph', name: 'Body', changes }) as Wish
    const of = textOf(p('Quay'))
    const wishes = repairWishes(
      [
        { repair: { wishes: [edit({ text: { 'fo:font-size': '9pt' } })] } },
        { repair: { wishes: [edit({ paragraph: { 'fo:widows': '2' } })] } },
        { repair: { wishes: [edit({ text: { 'fo:color': '#1b2430' } })] } },
      ],
      of,
      registry,
    )
    expect(wishes).toEqual([
      edit({ text: { 'fo:font-size': '9pt', 'fo:color': '#1b2430' }, paragraph: { 'fo:widows': '2' } }),
    ])
  })
})
