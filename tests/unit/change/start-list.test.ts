import { describe, expect, it } from 'vitest'
import { listStarts } from '../../../core/change/defaults/start-list'
import type { DocumentSession } from '../../../core/session'
import { drawingOf, drawnPage, graphicStyle, library, paragraphStyle, sessionOf } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const of = (session: DocumentSession) =>
  Object.fromEntries(listStarts(session.reading, library).map(each => [each.kind, each]))
const defaults =
  '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="11pt"/>' +
  '</style:default-style>'

describe('what new text begins with', () => {
  it('goes by the document’s default where nothing else is said', () => {
    const { body, shape } = of(sessionOf({ styles: defaults }))
    expect(body).toMatchObject({
      family: 'Spectral',
      size: 11,
      status: 'present',
      live: true,
      set: false,
      style: null,
    })
    expect(shape!.set).toBe(false)
  })

  it('goes by the standard style where there is one, whatever its capitals', () => {
    for (const name of ['Standard', 'standard']) {
      const styles = defaults + paragraphStyle(name, 'fo:font-size="9pt" fo:font-family="Jost"')
      expect(of(sessionOf({ styles })).body).toMatchObject({ family: 'Jost', size: 9 })
    }
    const styles = defaults + paragraphStyle('Standards', 'fo:font-size="9pt"')
    expect(of(sessionOf({ styles })).body).toMatchObject({ size: 11 })
  })

  it('says when the face is absent', () => {
    const styles = defaults + paragraphStyle('Standard', 'fo:font-family="Brannock"')
    expect(of(sessionOf({ styles })).body).toMatchObject({ family: 'Brannock', status: 'absent' })
  })

  it('says leading, tracking, colour and hyphenation as they will be', () => {
    const styles =
      defaults +
      paragraphStyle(
        'Standard',
        'fo:letter-spacing="1pt" fo:color="#1b2430" fo:hyphenate="true"',
        'fo:line-height="130%"',
      )
    expect(of(sessionOf({ styles })).body).toMatchObject({
      leading: '130%',
      tracking: '1pt',
      color: '#1b2430',
      hyphenate: true,
    })
  })

  it('is what was set, with the style made for it, and the document’s text stays', () => {
    const session = sessionOf({ styles: defaults, body: '<text:p>as it was</text:p>' })
    const { after } = quickly(session, {
      type: 'start',
      kind: 'body',
      values: { fonts: { western: { family: 'Jost' } }, text: { 'fo:font-size': '9pt' } },
    })
    expect(of(after).body).toMatchObject({ family: 'Jost', size: 9 })
    expect(after.detail.census.voices.map(({ family, size }) => [family, size])).toEqual([['Spectral', 11]])
  })

  it('of placeholders in a deck goes by the master’s own styles, and drawings have none', () => {
    const styles = graphicStyle(
      'M-title',
      'draw:fill="none"',
      'fo:font-family="Jost" fo:font-size="30pt"',
      '',
      '',
      'presentation',
    )
    const deck = of(drawingOf({ styles, pages: drawnPage('') }))
    expect(deck.title).toMatchObject({ family: 'Jost', size: 30 })
    const drawing = of(drawingOf({ kind: 'drawing', styles, pages: drawnPage('') }))
    expect(drawing.title).toBeUndefined()
    expect(drawing.shape).toMatchObject({ family: 'Spectral', size: 10 })
  })
})
