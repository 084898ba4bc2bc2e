import { describe, expect, it } from 'vitest'
import { saveDocument } from '../../../core/document/open'
import type { StandIn } from '../../../core/font/library'
import { DocumentSession } from '../../../core/session'
import { Typesetter } from '../../../core/typeset/look'
import { galleyMenu } from '../../../demo/galley-menu'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { face, library, paragraphStyle, session, sessionOf, textStyle, typesetter } from '../../support/fixtures'
import { parts } from '../../support/independent'

const listOf = (of: DocumentSession) =>
  of.absent.faces.map(each => [each.family, each.characters, each.layers.map(layer => layer.layer)] as const)

describe('absent faces', () => {
  it('of the guide: one lone space, told with its layer and page', () => {
    const { faces, places } = session(sailingGuide()).absent
    const lone = faces.find(each => each.onlySpaces)!
    expect(lone).toMatchObject({ characters: 1, onlySpaces: true, pages: [expect.any(Number)] })
    expect(places.filter(place => place.family === lone.family)).toMatchObject([
      { text: ' ', empty: false, layer: 'stray' },
    ])
  })

  it('come with most letters first, then with most empty marks, then by name', () => {
    const families = ['Tolmere', 'Brannock', 'Averil', 'Carrow']
    const span = (at: number, words: string) => `<text:span text:style-name="T${at}">${words}</text:span>`
    const of = sessionOf({
      styles: paragraphStyle('Fine', 'fo:font-family="Spectral"'),
      automatic:
        families.map((family, at) => textStyle(`T${at}`, `fo:font-family="${family}"`)).join('') +
        paragraphStyle('P', 'fo:font-family="Carrow"', '', ' style:parent-style-name="Fine"'),
      body:
        `<text:p text:style-name="Fine">${span(0, 'xy')}${span(1, 'three')}${span(2, 'ab')}</text:p>` +
        `<text:p text:style-name="Fine">${span(3, 'no')}</text:p><text:p text:style-name="P"/>`,
    })
    expect(listOf(of).map(([family, characters]) => [family, characters])).toEqual([
      ['Brannock', 5],
      ['Carrow', 2],
      ['Averil', 2],
      ['Tolmere', 2],
    ])
  })

  it('of the menu: two families, in styles, and where they stand off the page', () => {
    const list = listOf(session(galleyMenu()))
    expect(list.map(each => each[0])).toEqual(['Brannock', 'Tolmere Script'])
    expect(list[0]![2]).toContain('style')
  })

  it('of the review: the retired face in defaults, charts, notes and masters', () => {
    const [skerrow] = session(seasonReview()).absent.faces
    expect(skerrow!.family).toBe('Skerrow')
    expect(skerrow!.layers.map(each => each.layer)).toEqual(expect.arrayContaining(['default', 'chart', 'note']))
  })

  it('tells every layer: style, stray, default, header, note, bullet, declaration, off-page', () => {
    const of = sessionOf({
      stylesFaces: face('Brannock') + face('Nobody'),
      faces: face('Brannock'),
      styles:
        `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Brannock"/>` +
        (`</style:default-style>${paragraphStyle('Body', 'style:font-name="Brannock"')}` +
          `${paragraphStyle('Fine', 'fo:font-family="Spectral"')}<text:list-style `) +
        `style:name="L"><text:list-level-style-bullet text:level="1" text:bullet-char="x">` +
        `<style:text-properties fo:font-family="Brannock"/></text:list-level-style-bullet>` +
        `</text:list-style>`,
      stylesAutomatic:
        `<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ` +
        `fo:page-height="10cm" fo:margin="1cm"/></style:page-layout>`,
      masters:
        '<style:master-page style:name="Standard" style:page-layout-name="pm">' +
        '<style:header><text:p text:style-name="Body">head</text:p></style:header>' +
        '</style:master-page>',
      automatic: textStyle('T1', 'style:font-name="Brannock"'),
      body:
        '<text:p text:style-name="Body">by style</text:p><text:p>by default</text:p>' +
        '<text:p text:style-name="Fine">and <text:span text:style-name="T1">by hand</text:span>' +
        '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>' +
        '<text:note-body><text:p text:style-name="Body">a note</text:p>' +
        '</text:note-body></text:note></text:p><text:p text:style-name="Body"/>',
    })
    const [brannock, nobody] = of.absent.faces
    expect(Object.fromEntries(brannock!.layers.map(each => [each.layer, each.characters]))).toMatchObject({
      style: 8,
      default: 10,
      stray: 7,
      header: 4,
      note: 6,
      bullet: 0,
      declaration: 0,
    })
    expect(brannock!.emptyMarks).toBe(1)
    expect(of.absent.places.find(place => place.empty)).toMatchObject({ start: 0, end: 0, page: 0, family: 'Brannock' })
    expect(nobody).toMatchObject({ family: 'Nobody', characters: 0, standIn: '' })
    expect(nobody!.layers.map(each => each.layer)).toEqual(['declaration'])
  })

  it('counts the mark of an empty paragraph in the span that stands empty there, which makes its line', () => {
    const marks = (paragraph: string, span: string) => {
      const of = sessionOf({
        faces: face('Brannock') + face('Spectral'),
        automatic: paragraphStyle('P', `style:font-name="${paragraph}"`) + textStyle('S', `style:font-name="${span}"`),
        body: '<text:p text:style-name="P"><text:span text:style-name="S"/></text:p>',
      })
      return of.absent.faces.find(each => each.family === 'Brannock')?.emptyMarks ?? 0
    }
    expect(marks('Spectral', 'Brannock')).toBe(1)
    expect(marks('Brannock', 'Spectral')).toBe(0)
  })

  it('reads what the declaration says beside the name', () => {
    const of = sessionOf({
      faces: face(
        'Brannock',
        'Brannock',
        ' style:font-family-generic="roman" svg:panose-1="2 2 6 3 5 4 5 2 3 4" svg:x-height="450" svg:units-per-em="1000"',
      ),
      automatic: textStyle('T1', 'style:font-name="Brannock" fo:font-weight="bold"'),
      body: '<text:p><text:span text:style-name="T1">bold</text:span></text:p>',
    })
    expect(of.absent.faces[0]!.name).toMatchObject({
      generic: 'roman',
      panose: [2, 2, 6, 3, 5, 4, 5, 2, 3, 4],
      stated: { xHeight: 450 },
      weight: 700,
      italic: false,
    })
  })
})

describe('opening and saving with stand-ins', () => {
  it.each([
    ['guide', sailingGuide],
    ['menu', galleyMenu],
    ['review', seasonReview],
  ])('the %s: every part byte for byte the same, whoever stands in', (_name, make) => {
    const bytes = make()
    const other = new Typesetter(
      library.withStandIns([
        { family: '', script: 'any', to: 'Literata' },
        { family: 'Brannock', script: 'Latin', to: 'Oswald' },
      ]),
      typesetter.shaper,
    )
    const of = DocumentSession.open(bytes, other)
    expect(of.absent.faces.filter(each => each.characters > 0).every(each => each.standIn === 'Literata')).toBe(true)
    expect(of.composition.pages.length).toBeGreaterThan(0)
    expect(saveDocument(of.document)).toEqual(bytes)
    const [one, two] = [parts(bytes), parts(saveDocument(of.document))]
    for (const path of Object.keys(one)) expect(two[path], path).toEqual(one[path])
  })

  it('a stand-in for a script shows its letters alone', () => {
    const make = (standIns: readonly StandIn[]) =>
      DocumentSession.open(galleyMenu(), new Typesetter(library.withStandIns(standIns), typesetter.shaper))
    const latin = make([{ family: 'Brannock', script: 'Latin', to: 'Oswald' }])
    const plain = make([])
    const lines = (of: DocumentSession) =>
      of.composition.pages.reduce(
        (sum, page) =>
          sum +
          page.fragments
            .filter(fragment => fragment.kind === 'lines')
            .reduce((all, fragment) => all + (fragment.kind === 'lines' ? fragment.layout.lines.length : 0), 0),
        0,
      )
    // Oswald is narrow: the same words take fewer lines.
    expect(lines(latin)).toBeLessThan(lines(plain))
  })
})
