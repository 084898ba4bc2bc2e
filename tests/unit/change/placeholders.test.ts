import { describe, expect, it } from 'vitest'
import { partOf } from '../../../core/document/open'
import type { DocumentSession } from '../../../core/session'
import { writeXml } from '../../../core/xml/write'
import { drawingOf, drawnMaster, graphicStyle, shapeAt, textFrame } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const style = (name: string, text = '', paragraph = '', parent = '') =>
  graphicStyle(name, '', text, paragraph, parent && ` style:parent-style-name="${parent}"`, 'presentation')
const levels = (master: string) =>
  style(`${master}-title`, 'fo:font-size="30pt"') +
  style(`${master}-outline1`, 'fo:font-size="20pt" fo:color="#112233"', 'fo:margin-left="1cm"') +
  style(`${master}-outline2`, 'fo:font-size="16pt"', '', `${master}-outline1`) +
  style(`${master}-outline3`, '', '', `${master}-outline2`)
const frame = (kind: string, name: string, inside: string) =>
  textFrame(shapeAt(1, 1, 6, 2), inside, `presentation:class="${kind}" presentation:style-name="${name}"`)
const page = (master: string, inside: string) =>
  `<draw:page draw:name="p" draw:master-page-name="${master}">${inside}</draw:page>`
const deck = (
  pages: string,
  styles = levels('M') + levels('Other'),
  masters = drawnMaster('') + drawnMaster('', 'Other'),
) => drawingOf({ pages, styles, masters })
const start = (of: DocumentSession, kind: string, text: object, paragraph: object = {}) =>
  quickly(of, { type: 'start', kind, values: { fonts: {}, text, paragraph } })
const common = (of: DocumentSession, name: string) =>
  [...of.reading.cascade.scopes.values()][0]!.common.get(`presentation\n${name}`)
const content = (of: DocumentSession) => writeXml(partOf(of.document, 'content.xml'))
const outline = frame(
  'outline',
  'M-outline1',
  '<text:list><text:list-item><text:p>one</text:p></text:list-item></text:list>',
)

describe('what new titles and outlines of slides begin with', () => {
  it('is said by every master, while frames that are there go by copies', () => {
    const of = deck(page('M', frame('title', 'M-title', '<text:p>a title</text:p>')) + page('Other', ''))
    const { after, plan } = start(of, 'title', { 'fo:font-size': '40pt' })
    expect(common(after, 'M-title')!.text).toEqual({ 'fo:font-size': '40pt' })
    expect(common(after, 'Other-title')!.text).toEqual({ 'fo:font-size': '40pt' })
    expect(common(after, 'M_20_as_20_before-title')!.text).toEqual({ 'fo:font-size': '30pt' })
    // The other master has no frame that went by it: nothing has to be kept.
    expect(common(after, 'Other_20_as_20_before-title')).toBeUndefined()
    expect(content(after)).toContain('presentation:style-name="M_20_as_20_before-title"')
    expect(plan.rows.find(row => row.title === 'Existing placeholders')).toMatchObject({
      count: 1,
      before: 'go by the master',
      after: 'keep their look',
      included: true,
    })
  })

  it('of one level leaves the deeper ones as they are, and takes an outline to its copies as a whole', () => {
    const { after } = start(
      deck(page('M', outline)),
      'outline1',
      { 'fo:font-size': '24pt', 'fo:color': '#445566' },
      { 'fo:margin-left': '2cm' },
    )
    expect(common(after, 'M-outline1')).toMatchObject({
      text: { 'fo:font-size': '24pt', 'fo:color': '#445566' },
      paragraph: { 'fo:margin-left': '2cm' },
    })
    // What the second level had from the first it says itself now; its own size it said already.
    expect(common(after, 'M-outline2')).toMatchObject({
      text: { 'fo:font-size': '16pt', 'fo:color': '#112233' },
      paragraph: { 'fo:margin-left': '1cm' },
    })
    expect(common(after, 'M-outline3')).toMatchObject({ text: {}, paragraph: {} })
    const before = (level: number) => common(after, `M_20_as_20_before-outline${level}`)
    expect([1, 2, 3].map(level => before(level)!.parentName)).toEqual([
      null,
      'M_20_as_20_before-outline1',
      'M_20_as_20_before-outline2',
    ])
    expect(before(1)!.text).toEqual({ 'fo:font-size': '20pt', 'fo:color': '#112233' })
    expect(content(after)).toContain('presentation:style-name="M_20_as_20_before-outline1"')
  })

  it('finds another name for copies where one is taken', () => {
    const of = deck(page('M', outline))
    const once = start(of, 'outline1', { 'fo:font-size': '24pt' }).after
    // A new frame goes by the master again.
    const again = deck(page('M', outline), levels('M') + style('M_20_as_20_before-outline2') + levels('Other'))
    expect(common(once, 'M_20_as_20_before-outline1')).toBeDefined()
    const { after } = start(again, 'outline1', { 'fo:font-size': '24pt' })
    expect(common(after, 'M_20_as_20_before_20_2-outline1')).toBeDefined()
    expect(common(after, 'M_20_as_20_before-outline1')).toBeUndefined()
  })

  it('is refused where the masters have no styles for it, and passes over a master that lacks the level', () => {
    const none = deck(page('M', ''), style('M-title'), drawnMaster(''))
    expect(() => start(none, 'outline1', { 'fo:font-size': '24pt' })).toThrow(
      'The masters of this presentation have no styles for outlines. Nothing was changed.',
    )
    const noTitle = deck(page('M', ''), style('M-outline1'), drawnMaster(''))
    expect(() => start(noTitle, 'title', { 'fo:font-size': '24pt' })).toThrow(
      'The masters of this presentation have no styles for titles. Nothing was changed.',
    )
    const some = deck(page('M', ''), style('M-outline1', 'fo:font-size="20pt"') + levels('Other'))
    const { after } = start(some, 'outline2', { 'fo:font-size': '24pt' })
    expect(common(after, 'Other-outline2')!.text).toEqual({ 'fo:font-size': '24pt' })
    expect(common(after, 'M-outline1')!.text).toEqual({ 'fo:font-size': '20pt' })
    expect(common(after, 'M-outline2')).toBeUndefined()
  })

  it('is about presentations', () => {
    const styles = levels('M')
    // A paragraph style of such a name is no placeholder's.
    const of = deck(
      page('M', ''),
      `${styles}<style:style style:name="X-title" style:family="paragraph"/>`,
      drawnMaster(''),
    )
    const { after } = start(of, 'title', { 'fo:font-size': '40pt' })
    expect([...after.reading.cascade.scopes.values()][0]!.common.get('paragraph\nX-title')!.text).toEqual({})
  })
})
