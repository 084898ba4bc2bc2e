import { describe, expect, it } from 'vitest'
import { rehearse } from '../../../core/compare/rehearse'
import { galleyMenu } from '../../../demo/galley-menu'
import { sailingGuide } from '../../../demo/sailing-guide'
import { library, paragraphStyle, session, sessionOf } from '../../support/fixtures'

const words = 'The launch goes out before the mail is sorted and comes back when the last sack is ashore. '
const of = (family: string) =>
  sessionOf({
    body: `<text:p text:style-name="P">${words.repeat(6)}</text:p>`,
    styles: paragraphStyle('P', `fo:font-family="${family}" fo:font-size="11pt"`),
  })

describe('a document as a desk without our faces sees it', () => {
  it('is the same where its faces come with every system, or have their widths', () => {
    const own = library.faces.find(each => each.source === 'system' && /Serif/.test(each.family))!
    const { rehearsal } = rehearse(of(own.family))
    expect(rehearsal.families).toEqual([])
    expect(rehearsal.linesThere).toBe(rehearsal.linesHere)
    expect(rehearse(of('Times New Roman')).rehearsal.families).toEqual([])
  })

  it('names what would have to travel, what shows it there, and how many paragraphs change', () => {
    const { rehearsal, there } = rehearse(of('Oswald'))
    expect(rehearsal.families).toMatchObject([
      { family: 'Oswald', characters: words.length * 6 - 1, sameWidths: false, travels: false, paragraphs: 1 },
    ])
    expect(rehearsal.families[0]!.shownBy).not.toBe('')
    expect(rehearsal.linesThere).toBeGreaterThan(rehearsal.linesHere)
    expect(there.typesetter.library.faces.every(each => each.source === 'system')).toBe(true)
  })

  it('leaves out what is absent here, too', () => {
    const { rehearsal } = rehearse(session(galleyMenu()))
    expect(rehearsal.families.map(each => each.family)).not.toContain('Brannock')
    expect(rehearsal.families.map(each => each.family)).toContain('Jost')
  })

  it('changes nothing of the document that is here', () => {
    const guide = session(sailingGuide())
    const before = guide.composition.pages.length
    const { rehearsal } = rehearse(guide)
    expect([rehearsal.pagesHere, guide.composition.pages.length]).toEqual([before, before])
    expect(rehearsal.families.length).toBeGreaterThan(2)
  })
})
