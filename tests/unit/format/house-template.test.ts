import { describe, expect, it } from 'vitest'
import { houseToTemplate } from '../../../core/format/odf/house-template'
import { colorOf, houseSchema, settingFor } from '../../../core/house/house'
import { houseFromStyles } from '../../../core/house/make-house'
import { measureToStyle } from '../../../core/house/to-style'
import { saltmereLine, winterService } from '../../../demo/houses'
import { paragraphStyle, session, sessionOf } from '../../support/fixtures'

describe('a house as a template', () => {
  it.each([saltmereLine, winterService])('$name: comes back equal in what OpenDocument can say', house => {
    const read = session(houseToTemplate(house))
    expect(read.document.kind).toBe('text')
    const back = houseFromStyles(house.name, read.reading)
    expect(back.roles.map(role => [role.id, role.title])).toEqual(house.roles.map(role => [role.id, role.title]))
    for (const { id } of house.roles) {
      const [was, is] = [settingFor(house, id, 'text')!, settingFor(back, id, 'text')!]
      expect(is).toMatchObject({
        family: was.family,
        size: was.size,
        weight: was.weight,
        italic: was.italic,
        tracking: was.tracking,
        case: was.case,
      })
      if (was.leading)
        expect(is.leading).toEqual({
          value: expect.closeTo((was.leading.value * was.size!) / 100, 1) as number,
          unit: 'points',
        })
      if (was.color) expect(colorOf(back, is.color)).toBe(colorOf(house, was.color))
    }
    // Its own lines are to style, of course.
    const share = measureToStyle(read.reading, house)
    expect(share.toStyle).toBe(share.characters)
  })

  it('keeps own roles, spaces, other scripts and signs in names', () => {
    const house = houseSchema.parse({
      name: 'A & B',
      roles: [
        {
          id: 'poem',
          title: 'Poem & song',
          text: {
            family: 'Spectral',
            size: 11,
            leading: { value: 120, unit: 'own' },
            before: 3,
            after: 4.5,
            align: 'center',
            hyphenate: true,
            case: 'small-caps',
            tracking: 20,
            scripts: { asian: { family: 'Zen Kaku Gothic New', factor: 0.9 } },
          },
        },
        { id: 'body', title: 'Body' },
      ],
    })
    const { reading } = session(houseToTemplate(house))
    const back = houseFromStyles('A & B', reading)
    const poem = back.roles.find(role => role.id === 'poem')!
    expect(poem).toMatchObject({
      title: 'Poem & song',
      text: {
        size: 11,
        leading: { value: 120, unit: 'own' },
        before: 3,
        after: 4.5,
        align: 'center',
        hyphenate: true,
        case: 'small-caps',
        tracking: 20,
      },
    })
    const { slots } = reading.cascade.named('styles.xml', 'paragraph', 'Poem_20__26__20_song').effective
    expect(slots.asian).toMatchObject({ size: 9.9, font: { family: 'Zen Kaku Gothic New' } })
  })

  it('takes styles of any template by their names', () => {
    const { reading } = sessionOf({
      styles:
        paragraphStyle('Title', 'fo:font-family="Jost" fo:font-size="30pt"') +
        paragraphStyle('Caption', 'fo:font-size="8pt"') +
        paragraphStyle('Zebra'),
    })
    const back = houseFromStyles('T', reading)
    expect(settingFor(back, 'display', 'text')).toMatchObject({ family: 'Jost', size: 30 })
    expect(settingFor(back, 'caption', 'text')).toMatchObject({ size: 8 })
    expect(settingFor(back, 'note', 'text')).toEqual({})
  })
})
