import { describe, expect, it } from 'vitest'
import { styleRoles } from '../../../core/census/style-roles'
import { settingFor } from '../../../core/house/house'
import { houseFromDocuments } from '../../../core/house/make-house'
import { saltmereLine } from '../../../demo/houses'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { planned } from '../../support/planning'

const p = (style: string, text: string) => `<text:p text:style-name="${style}">${text}</text:p>`
const h = (level: number, style: string, text: string) =>
  `<text:h text:style-name="${style}" text:outline-level="${level}">${text}</text:h>`
const words = 'The launch goes out before the mail is sorted and comes back when the last sack is ashore. '
const listing = 'boat --from pier --to island --at 06:10 '

const document = (body: string, automatic = '') =>
  sessionOf({
    faces: face('Spectral') + face('Space Mono') + face('Jost'),
    stylesFaces: face('Spectral') + face('Space Mono') + face('Jost'),
    styles:
      paragraphStyle('Text', 'style:font-name="Spectral" fo:font-size="11pt"') +
      paragraphStyle('Lines', 'style:font-name="Space Mono" fo:font-size="9pt"') +
      paragraphStyle('Said', 'style:font-name="Spectral" fo:font-size="11pt"') +
      paragraphStyle('Cells', 'style:font-name="Spectral" fo:font-size="8pt"') +
      ['One', 'Two', 'Three'].map(name => paragraphStyle(name, 'fo:font-size="14pt"')).join(''),
    automatic,
    body,
  })
const rolesOf = (of: ReturnType<typeof document>) =>
  Object.fromEntries([...styleRoles(of.reading)].map(([key, { role }]) => [key.split('\n')[1], role]))

describe('roles of styles', () => {
  it('tell code by the face that its text is set in, in the style or in its words', () => {
    const span = `<text:span text:style-name="M">${listing}</text:span>`
    const some = `some <text:span text:style-name="M">words</text:span> of it${words}`
    const of = document(
      p('Text', words.repeat(8)) + p('Lines', listing) + p('Said', span) + p('Text', some),
      textStyle('M', 'style:font-name="Space Mono"'),
    )
    expect(rolesOf(of)).toEqual({ Text: 'body', Lines: 'code', Said: 'code' })
  })

  it('take text of one width for the body where there is no other', () => {
    expect(rolesOf(document(p('Lines', listing.repeat(20))))).toEqual({ Lines: 'body' })
  })

  it('take a style for a list of contents by most of its paragraphs, not by one', () => {
    const entry = (at: number) => p('Said', `Pier ${at}<text:tab/>${at}`)
    const text = p('Text', words.repeat(9))
    expect(rolesOf(document(text + entry(4) + entry(5) + p('Said', words)))).toMatchObject({ Said: 'label' })
    const others = [1, 2, 3, 4].map(at => p('Said', `${at} ${words}`)).join('')
    expect(rolesOf(document(text + entry(4) + others))).not.toMatchObject({ Said: 'label' })
  })

  it('hold sizes against what is read, not against a table that is longer', () => {
    const table =
      '<table:table table:name="T"><table:table-column/>' +
      `<table:table-row><table:table-cell>${p('Cells', words.repeat(30))}</table:table-cell></table:table-row></table:table>`
    expect(rolesOf(document(table + p('Text', words.repeat(9))))).toEqual({ Cells: 'data', Text: 'body' })
  })

  it('count the levels of sections from the first that they have, below a title', () => {
    const sections = [1, 2, 3].map(at => h(2, 'Two', `Pier ${at}`) + p('Text', words) + h(3, 'Three', `Quay ${at}`))
    const text = p('Text', words.repeat(4))
    expect(rolesOf(document(h(1, 'One', 'Saltmere') + text + sections.join('')))).toMatchObject({
      One: 'display',
      Two: 'heading',
      Three: 'subheading',
    })
    // Chapters that come again are no title.
    const chapters = h(1, 'One', 'First') + sections.join('') + h(1, 'One', 'Second') + text
    expect(rolesOf(document(chapters))).toMatchObject({ One: 'heading', Two: 'subheading' })
    expect(rolesOf(document(text + sections.join('')))).toMatchObject({ Two: 'heading', Three: 'subheading' })
  })
})

describe('code and houses', () => {
  const of = document(p('Text', words.repeat(8)) + p('Lines', listing.repeat(4)))
  it('keeps its face where the house says nothing of it', () => {
    const { after, plan } = planned(of, [{ type: 'dress', house: saltmereLine }])
    expect(plan.rows.find(row => row.title.startsWith('Lines'))).toMatchObject({
      title: 'Lines, code',
      reason: 'the house leaves code open',
    })
    const look = (name: string) => after.reading.cascade.named('styles.xml', 'paragraph', name).effective.slots.western
    expect(look('Lines').font.family).toBe('Space Mono')
    expect([look('Lines').size, look('Text').size]).toEqual([9, settingFor(saltmereLine, 'body', 'text')!.size])
  })

  it('is a role of a house that is drawn up from documents with code, and of no other', () => {
    const made = houseFromDocuments('Saltmere', [of.reading])
    expect(made.roles.find(role => role.id === 'code')).toMatchObject({
      title: 'Code',
      text: { family: 'Space Mono', size: 9 },
    })
    const plain = houseFromDocuments('Saltmere', [document(p('Text', words.repeat(8))).reading])
    expect(plain.roles.some(role => role.id === 'code')).toBe(false)
    const { after } = planned(of, [{ type: 'dress', house: houseFromDocuments('S', [of.reading]) }])
    expect(after.reading.cascade.named('styles.xml', 'paragraph', 'Lines').effective.slots.western.size).toBe(9)
  })
})
